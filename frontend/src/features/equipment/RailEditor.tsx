import type { Schemas } from "../../api/client";
import { useCatalogue } from "../../api/queries";
import { DetailField } from "../../ui/record/DetailField";
import { More } from "../../ui/record/More";
import { RecordContext } from "../../ui/record/record";
import { SavedChoice } from "../../ui/record/SavedChoice";
import { SavedQuantity } from "../../ui/record/SavedQuantity";
import { SavedText } from "../../ui/record/SavedText";
import { useSaveFields } from "../../ui/record/useSaveFields";

/** The levels of a rail: read in one go, and with one meter. */
const LEVELS = ["usual", "low", "high"] as const;

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
        echo: rail.echo,
        unread: rail.unread,
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
      <SavedQuantity
        field="usual"
        label={`Volts, ${rail.levels[1] ?? "usual"}`}
        hint={`With its ends: 13.2 (12.1-14.5) is ${rail.levels.join(", ")}`}
        together={LEVELS}
      />
      {kind?.details.map((d) => (
        <DetailField key={d.id} part="details" detail={d} />
      ))}
      <More
        label="Each end, fuse, rating, other loads"
        fields={["low", "high", "fuse", "rated", "others"]}
      >
        <SavedQuantity
          field="low"
          label={`Volts, ${rail.levels[0] ?? "lowest"}`}
          hint="Left empty, it is taken from the usual or the kind"
          together={LEVELS}
        />
        <SavedQuantity
          field="high"
          label={`Volts, ${rail.levels[2] ?? "highest"}`}
          hint="The resistor is judged here"
          together={LEVELS}
        />
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
      </More>
      <p>Reads as {rail.reads}.</p>
    </RecordContext>
  );
}
