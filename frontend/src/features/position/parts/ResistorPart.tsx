import type { Report } from "../../../api/client";
import { Bands } from "../../../instruments/Bands";
import { MadeOf } from "../../drawer/MadeOf";
import { inPassing } from "../../../saving/useSave";
import { Disclosed } from "../../../ui/Disclosed";
import { useRecord } from "../../../ui/record/record";
import { More } from "../../../ui/record/More";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedQuantity } from "../../../ui/record/SavedQuantity";
import { AddedPart } from "./AddedPart";
import type { Position } from "./part";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** How each part is marked; nothing where there is none to look at. */
  marks: Report["sizing"]["marks"] | undefined;
  /** Each resistor as the sum has it; nothing where there is none. */
  each: string | undefined;
}

/** The series resistor: what it should pass, how it is rounded, where it stands, what it must stand. */
export function ResistorPart({ position, marks, each }: Props) {
  const { save } = useRecord();
  return (
    <>
      <SavedQuantity field="target" label="Drive wanted" plain />
      <SavedQuantity
        field="resistor"
        label={position.resistor_parts === 2 ? "Each resistor" : "Resistor"}
        hint="Empty follows the sum; 4k7, 470R to fit your own"
      />
      {marks && <Bands marks={marks} />}
      {each && (
        <Disclosed label="What it can be made of">
          <MadeOf
            ohm={each}
            position={position.id}
            onTake={(value) =>
              inPassing(
                save({ resistor: value.replace("\u00a0", ""), resistor_source: "computed" }),
              )
            }
          />
        </Disclosed>
      )}
      <SavedChoice field="series" label="Series" />
      <SavedChoice field="rating_w" label="Power rating of each" />
      <More label="Rounding, which lead, drive limit" fields={[]}>
        <SavedChoice field="rounding" label="Rounding" />
        <SavedChoice field="resistor_parts" label="Resistors" also={() => ({ resistor: "" })} />
        <SavedChoice field="lead" label="Which lead" />
        <p>
          The current is the same in either lead. One habit a shop: ours is the positive. Half in
          each shares the heat, and keeps some of it where a lead may touch the chassis. Where lamps
          share a wire it goes in the lead that is not common.
        </p>
        <SavedChoice field="ceiling" label="Drive limit" />
      </More>
      <AddedPart position={position} />
    </>
  );
}
