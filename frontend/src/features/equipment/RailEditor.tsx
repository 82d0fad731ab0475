import type { Schemas } from "../../api/client";
import { useCatalogue } from "../../api/queries";
import { DetailField } from "../../ui/record/DetailField";
import { RecordContext } from "../../ui/record/record";
import { SavedChoice } from "../../ui/record/SavedChoice";
import { SavedQuantity } from "../../ui/record/SavedQuantity";
import { SavedText } from "../../ui/record/SavedText";
import { useSaveFields } from "../../ui/record/useSaveFields";

/** The three levels of a rail, as they are asked for: where their name stands among the kind's, and a hint. */
const LEVELS = [
  ["usual", 1, "As it runs most of the time"],
  ["low", 0, "Left empty, it is taken from the usual or the kind"],
  ["high", 2, "The resistor is judged here"],
] as const;

interface Props {
  /** The rail that feeds the lamp, as it is kept. */
  rail: Schemas["RailAnswer"];
}

/** A rail: what feeds it, where it was read, its three levels, and what its kind asks for besides. */
export function RailEditor({ rail }: Props) {
  const save = useSaveFields(`/api/rails/${rail.id}`);
  const kind = useCatalogue().data?.supplies.find((k) => k.id === rail.kind);
  return (
    <RecordContext
      value={{
        id: rail.id,
        shape: "rail",
        values: rail,
        took: rail.took,
        save,
      }}
    >
      <SavedText field="name" label="Name" />
      <SavedChoice field="kind" label="Kind of supply" />
      <p>{kind?.expect}</p>
      {kind?.read_at_offered && <SavedChoice field="read_at" label="Where it was read" />}
      {rail.read_at === "lamp" && (
        <p>
          Lamp volts: what stands across the lamp&apos;s own contacts while it is lit. The
          driver&apos;s drop is already out of it.
        </p>
      )}
      {LEVELS.map(([field, at, hint]) => (
        <SavedQuantity
          key={field}
          field={field}
          label={`Volts, ${rail.levels[at] ?? field}`}
          hint={hint}
        />
      ))}
      {kind?.details.map((d) => (
        <DetailField key={d.id} part="details" detail={d} />
      ))}
      <SavedText field="fuse" label="Fuse" hint="Its rating, 0.5A; empty for none found" />
      <SavedText
        field="rated"
        label="The supply gives at most"
        hint="Rating of winding, regulator or charger, 1.5A"
      />
      <SavedText
        field="others"
        label="What else hangs on it"
        hint="Current of all that is not a lamp here, 0.2A"
      />
      <p>Reads as {rail.reads}.</p>
    </RecordContext>
  );
}
