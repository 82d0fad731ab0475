import { useCatalogue } from "../../../api/queries";
import { More } from "../../../ui/record/More";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedPart } from "../../../ui/record/SavedPart";
import { SavedQuantity } from "../../../ui/record/SavedQuantity";
import { SavedCount } from "../../../ui/record/SavedText";
import type { Position } from "./part";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
}

/** What stands beside the resistor: a shunt or load, diodes, a regulator. */
export function AddedPart({ position }: Props) {
  const catalogue = useCatalogue().data;
  return (
    <More label="Shunt, diodes, regulator" fields={["shunt", "series_diodes", "regulator_id"]}>
      <SavedQuantity
        field="shunt"
        label="Shunt or load resistor"
        hint="A trickle runs past the LED through it; empty for none"
      />
      {position.shunt && <SavedChoice field="shunt_across" label="It stands across" />}
      <SavedCount
        field="series_diodes"
        label="Diodes in series with the LED"
        hint="0 to 4; each raises the knee by some 0.6 V"
      />
      <SavedPart
        field="regulator_id"
        label="Regulator before it"
        parts={catalogue?.regulators}
        none="None"
      />
      {position.regulator_id && <SavedChoice field="sink" label="The regulator is" />}
      {position.regulator_id && <p>Pin order differs from kind to kind: see the data sheet.</p>}
    </More>
  );
}
