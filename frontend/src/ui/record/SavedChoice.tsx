import { OneOfSome } from "../OneOfSome";
import { useField, type FieldName } from "./record";
import { useRefusal } from "./useRefusal";

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
  const { name, value, options, save } = useField(field);
  const { refusal, tell } = useRefusal(name);
  const text = value === null || value === undefined ? "" : String(value);
  const pick = (id: string) => {
    if (id !== text) void tell(() => save(typedAs(value, id), also?.(id)));
  };
  if (!options) return null;
  return (
    <OneOfSome
      label={label}
      value={text}
      options={said ? options.filter((o) => o.id !== "") : options}
      onChange={pick}
      error={refusal}
    />
  );
}

/** An option's text as the kind of value the field holds: a number, yes or no, nothing, or the text. */
function typedAs(kept: unknown, id: string): unknown {
  if (typeof kept === "boolean") return id === "true";
  if (typeof kept === "number" || kept === null) return id === "" ? null : Number(id);
  return id;
}
