import type { Schemas } from "../../api/client";
import { QuantityControl } from "./QuantityControl";
import { useField, type FieldName } from "./record";

interface Props {
  /** The field's name in the record. */
  field: FieldName;
  /** Its name on screen. */
  label: string;
  /** How to write it, or what it was taken for. */
  hint?: string;
  /** Leave out the source where it cannot be anything but typed. */
  plain?: boolean;
}

/** A quantity of the record, with its source; or a plain text that is read as one. */
export function SavedQuantity({ field, label, hint, plain = false }: Props) {
  const { id, names, value, took, unit, save } = useField(field);
  const text = typeof value === "string" ? value : undefined;
  if (!unit) return null;
  const sent = (quantity: Schemas["Quantity"]) => (text === undefined ? quantity : quantity.text);
  return (
    <QuantityControl
      id={id}
      names={names}
      label={label}
      unit={unit}
      value={
        text === undefined ? (value as Schemas["Quantity"]) : { text, source: "marked", note: "" }
      }
      took={took}
      hint={hint}
      plain={plain || text !== undefined}
      onSave={(quantity, was, at) => save(sent(quantity), was && sent(was), at)}
    />
  );
}
