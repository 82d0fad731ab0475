import type { Schemas } from "../../../api/client";
import { useCatalogue } from "../../../api/queries";
import { SavedPart } from "../../../ui/record/SavedPart";
import { SavedText } from "../../../ui/record/SavedText";
import { SweepPart } from "./SweepPart";
import type { Position } from "./part";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** The curve fitted through the sweep, if there is one. */
  fit: Schemas["SweepReport"] | null;
}

/** What is there already: a board or strip of LEDs, known by a sweep of it. */
export function TherePart({ position, fit }: Props) {
  const catalogue = useCatalogue().data;
  return (
    <>
      <p>Feed it through a resistor, and write down volts and amps from dark to bright.</p>
      <SavedPart field="led_id" label="Its LEDs are most like" parts={catalogue?.leds} />
      <SweepPart position={position} fit={fit} whole />
      <SavedText
        field="rated"
        label="Own rated current"
        hint="Of one LED; empty takes the kind's"
      />
    </>
  );
}
