import type { Schemas } from "../../api/client";
import { draftOf } from "../../saving/drafts";
import { QuantityControl } from "./QuantityControl";
import { useField, useRecord, type FieldName } from "./record";

type Quantity = Schemas["Quantity"];

interface Props {
  /** The field's name in the record. */
  field: FieldName;
  /** Its name on screen. */
  label: string;
  /** How to write it, or what it was taken for. */
  hint?: string;
  /** Leave out the source where it cannot be anything but typed. */
  plain?: boolean;
  /** Fields that were read together with it: what is said of its origin holds for those that are typed. */
  together?: readonly FieldName[];
}

/** A quantity of the record, with its source; or a plain text that is read as one. */
export function SavedQuantity({ field, label, hint, plain = false, together = [] }: Props) {
  const { values, id: recordId } = useRecord();
  const { id, names, value, echo, unit, wrong, save } = useField(field);
  const text = typeof value === "string" ? value : undefined;
  if (!unit) return null;
  const sent = (quantity: Quantity) => (text === undefined ? quantity : quantity.text);
  const withThem = (quantity: Quantity, was?: Quantity) => {
    if (quantity.source === was?.source) return {};
    // What is typed there and not known to be saved is theirs, whatever the server said last.
    const others = together
      .filter((f) => f !== field)
      .map((f) => {
        const typed = draftOf(`${recordId}.${f}`)?.text;
        const kept = (values as Record<string, Quantity>)[f];
        return [f, typed === undefined ? kept : (JSON.parse(typed) as Quantity)] as const;
      });
    return Object.fromEntries(
      others.flatMap(([f, q]) => (q?.text ? [[f, { ...q, source: quantity.source }]] : [])),
    );
  };
  return (
    <QuantityControl
      id={id}
      names={names}
      label={label}
      unit={unit}
      value={text === undefined ? (value as Quantity) : { text, source: "marked", note: "" }}
      echo={echo}
      wrong={wrong}
      hint={hint}
      plain={plain || text !== undefined}
      onSave={(quantity, was, at) =>
        save(sent(quantity), was && sent(was), at, withThem(quantity, was))
      }
    />
  );
}
