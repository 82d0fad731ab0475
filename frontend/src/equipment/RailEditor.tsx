import type { Schemas } from "../api/client";
import { useSave } from "../api/queries";
import { Choice } from "../controls/Choice";
import { QuantityField } from "../controls/QuantityField";
import { SavedText } from "../controls/SavedText";

const ENDS = [
  ["usual", "Usual", "As it runs most of the time"],
  ["low", "Lowest", "Left empty, it is taken from the usual"],
  ["high", "Highest", "The resistor is judged here"],
] as const;

/** A rail's readings: where they were taken, and its lowest, usual and highest. */
export function RailEditor({ rail }: { rail: Schemas["RailOut"] }) {
  const save = useSave();
  const patch = (fields: object) => save("PATCH", `/api/rails/${rail.id}`, fields);
  return (
    <>
      <SavedText
        id={`${rail.id}.name`}
        label="Name"
        saved={rail.name}
        field="name"
        onSave={(name) => patch({ name })}
      />
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
      <p>
        {rail.read_at === "lamp"
          ? "Lamp volts: what stands across the lamp's own contacts while it is lit. The driver's drop is already out of it."
          : "Feed: what the supply gives before switch, driver and dropping parts. The driver's drop comes off it."}
      </p>
      {ENDS.map(([end, label, hint]) => (
        <QuantityField
          key={end}
          id={`${rail.id}.${end}`}
          label={label}
          unit="V"
          value={rail[end]}
          fields={[end]}
          hint={hint}
          onSave={(value) => patch({ [end]: value })}
        />
      ))}
    </>
  );
}
