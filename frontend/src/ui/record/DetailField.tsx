import type { Schemas } from "../../api/client";
import { OneOfSome } from "../OneOfSome";
import { QuantityControl } from "./QuantityControl";
import { TextControl } from "./TextControl";
import { useRecord } from "./record";
import { useRefusal } from "./useRefusal";

const EMPTY = { text: "", source: "assumed", note: "" } as const;

interface Props {
  /** Where the record keeps the details of its kind. */
  within: "details" | "driver_details";
  /** What the kind asks for. */
  detail: Schemas["DetailOut"];
}

/** A further figure that a kind of supply or driver asks for: a choice, a text, or a quantity. */
export function DetailField({ within, detail }: Props) {
  const record = useRecord();
  const details = (record.values as Record<typeof within, Record<string, Schemas["Quantity"]>>)[
    within
  ];
  const kept = details[detail.id] ?? EMPTY;
  const save = (value: Schemas["Quantity"]) => record.save({ [within]: { [detail.id]: value } });
  const chosen = (text: string) => save({ text, source: "marked", note: "" });
  const name = `${within}.${detail.id}`;
  const id = `${record.id}.${detail.id}`;
  const { refusal, tell } = useRefusal(name, detail.id);
  if (detail.options.length > 0) {
    const value = kept.text || (detail.options[0]?.id ?? "");
    return (
      <OneOfSome
        label={detail.label}
        value={value}
        options={detail.options}
        onChange={(option) => option !== value && void tell(() => chosen(option))}
        error={refusal}
      />
    );
  }
  if (detail.unit === null) {
    return (
      <TextControl
        id={id}
        name={name}
        label={detail.label}
        saved={kept.text}
        hint={detail.hint}
        long={detail.long}
        onSave={chosen}
      />
    );
  }
  return (
    <QuantityControl
      id={id}
      name={name}
      label={detail.label}
      unit={detail.unit}
      value={kept}
      took={record.took?.[name]}
      hint={detail.hint}
      onSave={save}
    />
  );
}
