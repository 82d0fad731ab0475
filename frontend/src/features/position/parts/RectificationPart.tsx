import type { Report } from "../../../api/client";
import { useCatalogue } from "../../../api/queries";
import { CycleTrace } from "../../../instruments/CycleTrace";
import { CapacitorWayRound } from "../../../instruments/WayRound";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedPart } from "../../../ui/record/SavedPart";
import { SavedQuantity } from "../../../ui/record/SavedQuantity";
import { CycleFacts } from "./CycleFacts";
import { CycleTable } from "./CycleTable";

interface Props {
  /** What the supply's cycle comes to. */
  cycle: NonNullable<Report["cycle"]>;
}

/** How the LED lives on a supply that alternates: which parts, what they must stand, what the cycle comes to. */
export function RectificationPart({ cycle }: Props) {
  const catalogue = useCatalogue().data;
  const asks = cycle.options.find((o) => o.id === cycle.rectification)?.asks ?? [];
  return (
    <>
      <SavedPart
        field="rectification"
        label="Rectification"
        parts={cycle.options.map((o) => ({ id: o.id, label: o.label }))}
        stands={cycle.rectification}
      />
      <p>{cycle.why}</p>
      <CycleFacts cycle={cycle} />
      {asks.includes("capacitor") && (
        <>
          <SavedQuantity
            field="capacitor"
            label="Own capacitor"
            hint="Empty follows the sum; 220uF to fit your own"
          />
          <SavedQuantity
            field="capacitor_v"
            label="Its voltage rating"
            hint="As marked: 25V. It must stand 1.25 times the crest"
          />
        </>
      )}
      {asks.includes("capacitor") && <CapacitorWayRound />}
      {asks.includes("second_led_id") && (
        <SavedPart
          field="second_led_id"
          label="The other colour"
          parts={catalogue?.leds}
          none="The same kind"
        />
      )}
      <SavedChoice field="chassis_negative" label="LED's negative side" />
      <CycleTrace cycle={cycle} />
      <CycleTable cycle={cycle} />
    </>
  );
}
