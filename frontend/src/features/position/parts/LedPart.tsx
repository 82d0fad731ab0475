import type { Schemas } from "../../../api/client";
import { useCatalogue } from "../../../api/queries";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedPart } from "../../../ui/record/SavedPart";
import { SavedQuantity } from "../../../ui/record/SavedQuantity";
import { SavedCount, SavedText } from "../../../ui/record/SavedText";
import { BesidePart } from "./BesidePart";
import { ReadyMadePart } from "./ReadyMadePart";
import { SweepPart } from "./SweepPart";
import type { Position, Take } from "./part";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** The rail that feeds the lamp, as it is kept. */
  rail: Schemas["RailAnswer"];
  /** The curve fitted through the sweep, if there is one. */
  fit: Schemas["SweepReport"] | null;
  /** Take changes over into the position. */
  take: Take;
}

/** The LED: its kind, how many, its own figures, a ready-made lamp in its place, or a sweep of it. */
export function LedPart({ position, rail, fit, take }: Props) {
  const catalogue = useCatalogue().data;
  const kind = catalogue?.supplies.find((s) => s.id === rail.kind);
  return (
    <>
      <SavedPart field="led_id" label="LED" parts={catalogue?.leds} />
      <SavedCount field="in_series" label="In series" hint="How many, one after another" />
      <SavedCount
        field="branches"
        label="Side by side"
        hint="Equal strings, each with its own resistor"
      />
      {position.in_series > 1 && <SavedChoice field="one_batch" label="LEDs of a string" />}
      {position.branches > 1 && <SavedChoice field="reads" label="Readings are of" />}
      <SavedQuantity
        field="vf"
        label="Own forward voltage"
        hint="Empty takes the kind's range; 1.9-2.3V, at rated current"
      />
      <SavedText field="rated" label="Own rated current" hint="Empty takes the kind's; 20mA" />
      <SavedText
        field="band"
        label="Module's volts"
        hint="For a ready-made module with its resistor inside: 10-15V"
      />
      {!position.module.amps && <BesidePart position={position} />}
      <ReadyMadePart position={position} take={take} />
      <SweepPart position={position} fit={fit} />
      {kind?.position_fields.includes("glow_floor") && (
        <SavedChoice field="glow_floor" label="A battery lasts down to" />
      )}
      <p>Figures of the generic kinds: {catalogue?.led_source}.</p>
    </>
  );
}
