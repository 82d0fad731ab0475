import { OneOfSome } from "../OneOfSome";
import { Refusal } from "../Refusal";
import { Unsaved } from "./Unsaved";
import { useField, type FieldName } from "./record";
import { useAutosavedField } from "./useAutosavedField";

interface Props {
  /** The field's name in the record. */
  field: FieldName;
  /** Its name on screen. */
  label: string;
  /** Other fields that change with it, by the value chosen. */
  also?: (value: string) => Record<string, unknown>;
  /** Leave out the option that stands for nothing said. */
  said?: boolean;
}

/** One of the options the catalogue has for this field; a value that is none of them stands as itself. */
export function SavedChoice({ field, label, also, said = false }: Props) {
  const { id, names, value = "", options, wrong, save } = useField(field);
  const choice = useAutosavedField<unknown>({
    id,
    label,
    names,
    kept: value,
    save: (chosen, was, at) => save(chosen, was, at, also?.(text(chosen))),
  });
  if (!options) return null;
  return (
    <div>
      <OneOfSome
        label={label}
        value={text(choice.value)}
        options={said ? options.filter((o) => o.id !== "") : options}
        onChange={(picked) => {
          if (picked === text(choice.value)) return;
          choice.type(typedAs(value, picked));
          choice.commit();
        }}
      />
      {!choice.draft && <Refusal why={wrong} />}
      <Unsaved field={choice} />
    </div>
  );
}

const text = (value: unknown) => (value === null || value === undefined ? "" : String(value));

/** An option's text as the kind of value the field holds: a number, yes or no, nothing, or the text. */
function typedAs(kept: unknown, id: string): unknown {
  if (typeof kept === "boolean") return id === "true";
  if (typeof kept === "number" || kept === null) return id === "" ? null : Number(id);
  return id;
}
