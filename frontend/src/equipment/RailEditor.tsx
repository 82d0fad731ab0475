import { Refused, type Schemas } from "../api/client";
import { useCatalogue, useSave } from "../api/queries";
import { Choice } from "../controls/Choice";
import { DetailField } from "../controls/DetailField";
import { Picker } from "../controls/Picker";
import { QuantityField } from "../controls/QuantityField";
import { SavedText } from "../controls/SavedText";
import { useState } from "react";

type Rail = Schemas["RailOut"];

/** A rail: what feeds it, where it was read, its three levels, and what its kind asks for besides. */
export function RailEditor({ rail }: { rail: Rail }) {
  const save = useSave();
  const catalogue = useCatalogue();
  const [refusal, setRefusal] = useState("");
  const patch = (fields: object) => save("PATCH", `/api/rails/${rail.id}`, fields);
  const kind = catalogue.data?.supplies.find((k) => k.id === rail.kind);
  const pick = async (id: string) => {
    if (id === rail.kind) return;
    try {
      await patch({ kind: id });
      setRefusal("");
    } catch (problem) {
      if (problem instanceof Refused) setRefusal(problem.message);
    }
  };
  const ends = [
    ["usual", rail.levels[1] ?? "usual", "As it runs most of the time"],
    ["low", rail.levels[0] ?? "lowest", "Left empty, it is taken from the usual or the kind"],
    ["high", rail.levels[2] ?? "highest", "The resistor is judged here"],
  ] as const;
  return (
    <>
      <SavedText
        id={`${rail.id}.name`}
        label="Name"
        saved={rail.name}
        field="name"
        onSave={(name) => patch({ name })}
      />
      {catalogue.data && (
        <Picker
          key={rail.kind}
          label="Kind of supply"
          value={rail.kind}
          items={catalogue.data.supplies.map((k) => ({ id: k.id, label: k.label }))}
          onChange={(id) => void pick(id)}
        />
      )}
      {refusal && <p role="alert">{refusal}</p>}
      <p>{kind?.expect}</p>
      {kind?.flow === "dc" && rail.kind !== "sense" && rail.kind !== "battery" && (
        <Choice
          label="Where it was read"
          value={rail.read_at}
          options={
            [
              ["feed", "At the feed"],
              ["lamp", "At the lamp, lit"],
            ] as const
          }
          onChange={(read_at) => void patch({ read_at })}
        />
      )}
      {rail.read_at === "lamp" && (
        <p>
          Lamp volts: what stands across the lamp&apos;s own contacts while it is lit. The
          driver&apos;s drop is already out of it.
        </p>
      )}
      {ends.map(([end, level, hint]) => (
        <QuantityField
          key={`${rail.kind}.${end}`}
          id={`${rail.id}.${end}`}
          label={`Volts, ${level}`}
          unit="V"
          value={rail[end]}
          fields={[end]}
          hint={hint}
          onSave={(value) => patch({ [end]: value })}
        />
      ))}
      {kind?.details.map((d) => (
        <DetailField
          key={`${rail.kind}.${d.id}`}
          id={`${rail.id}.${d.id}`}
          detail={d}
          kept={rail.details[d.id]}
          onSave={(value) => patch({ details: { [d.id]: value } })}
        />
      ))}
      <SavedText
        id={`${rail.id}.fuse`}
        label="Fuse"
        saved={rail.fuse}
        field="fuse"
        hint="Its rating, 0.5A; empty for none found"
        onSave={(fuse) => patch({ fuse })}
      />
      <p>Reads as {rail.reads}.</p>
    </>
  );
}
