import type { Schemas } from "../api/client";
import { Choice } from "./Choice";
import { Picker } from "./Picker";
import { QuantityField } from "./QuantityField";
import { SavedText } from "./SavedText";

const EMPTY = { text: "", source: "assumed", note: "" } as const;

interface Props {
  /** Names the draft in local storage; unique to record and field. */
  id: string;
  detail: Schemas["DetailOut"];
  kept: Schemas["Quantity"] | undefined;
  onSave: (value: Schemas["Quantity"]) => Promise<unknown>;
  long?: boolean;
}

/** A further figure that a kind of supply or driver asks for: a choice, a text, or a quantity. */
export function DetailField({ id, detail, kept = EMPTY, onSave, long }: Props) {
  const chosen = (text: string) => onSave({ text, source: "marked", note: "" });
  const value = kept.text || (detail.options[0]?.id ?? "");
  if (detail.options.length > 3) {
    return (
      <Picker
        label={detail.label}
        value={value}
        items={detail.options}
        onChange={(option) => option !== value && void chosen(option)}
      />
    );
  }
  if (detail.options.length > 0) {
    return (
      <Choice
        label={detail.label}
        value={value}
        options={detail.options.map((o) => [o.id, o.label] as const)}
        onChange={(option) => void chosen(option)}
      />
    );
  }
  if (detail.unit === null) {
    return (
      <SavedText
        id={id}
        label={detail.label}
        saved={kept.text ?? ""}
        field={detail.id}
        hint={detail.hint}
        onSave={chosen}
        long={long}
      />
    );
  }
  return (
    <QuantityField
      id={id}
      label={detail.label}
      unit={detail.unit}
      value={kept}
      fields={[detail.id]}
      hint={detail.hint}
      onSave={onSave}
    />
  );
}
