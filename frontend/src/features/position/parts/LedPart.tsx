import type { Schemas } from "../../../api/client";
import { useCatalogue } from "../../../api/queries";
import { LedWayRound } from "../../../instruments/WayRound";
import { More } from "../../../ui/record/More";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedPart } from "../../../ui/record/SavedPart";
import { SavedQuantity } from "../../../ui/record/SavedQuantity";
import { SavedCount, SavedText } from "../../../ui/record/SavedText";
import { BenchLeds } from "./BenchLeds";
import { BesidePart } from "./BesidePart";
import { SweepPart } from "./SweepPart";
import type { Position } from "./part";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** The curve fitted through the sweep, if there is one. */
  fit: Schemas["SweepReport"] | null;
}

/** LEDs of its own: their kind, how many, their own figures, others beside them. */
export function LedPart({ position, fit }: Props) {
  const catalogue = useCatalogue().data;
  return (
    <>
      <SavedPart field="led_id" label="LED" parts={catalogue?.leds} />
      <BenchLeds position={position} />
      <SavedCount field="in_series" label="In series" hint="How many, one after another" />
      <SavedCount
        field="branches"
        label="Side by side"
        hint="Equal strings, each with its own resistor"
      />
      {position.in_series > 1 && <SavedChoice field="one_batch" label="LEDs of a string" />}
      {position.branches > 1 && <SavedChoice field="reads" label="Readings are of" />}
      <More
        label="Own figures of this LED"
        fields={["vf", "rated", "led_light", "led_light_at", "led_angle"]}
        others={Object.keys(position.sweep ?? {}).length > 0 ? 1 : 0}
      >
        <SavedQuantity
          field="vf"
          label="Own forward voltage"
          hint="Empty takes the kind's range; 1.9-2.3V, at rated current"
        />
        <SavedText field="rated" label="Own rated current" hint="Empty takes the kind's; 20mA" />
        <SavedText
          field="led_light"
          label="Own light"
          hint="On axis 800mcd, or in all 3lm; empty takes the kind's"
        />
        <SavedText field="led_light_at" label="at" hint="The current it is given at: 20mA" />
        <SavedText field="led_angle" label="Viewing angle" hint="30°; empty takes the kind's" />
        <SavedChoice field="led_output" label="Light, where nothing is marked" />
        <SweepPart position={position} fit={fit} />
      </More>
      <LedWayRound />
      <BesidePart position={position} />
    </>
  );
}
