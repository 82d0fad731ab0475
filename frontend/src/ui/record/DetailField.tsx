import type { Schemas } from "../../api/client";
import { OneOfSome } from "../OneOfSome";
import { QuantityControl } from "./QuantityControl";
import { TextControl } from "./TextControl";
import { Unsaved } from "./Unsaved";
import { useRecord, within } from "./record";
import { useAutosavedField, type SaveValue } from "./useAutosavedField";

type Quantity = Schemas["Quantity"];

const EMPTY: Quantity = { text: "", source: "assumed", note: "" };

interface Props {
  /** Where the record keeps the details of its kind. */
  part: "details" | "driver_details";
  /** What the kind asks for. */
  detail: Schemas["DetailOut"];
}

/** A further figure that a kind of supply or driver asks for: a choice, a text, or a quantity. */
export function DetailField({ part, detail }: Props) {
  const record = useRecord();
  const details = (record.values as Record<typeof part, Record<string, Quantity>>)[part];
  const kept = details[detail.id];
  const name = `${part}.${detail.id}`;
  const one = {
    id: `${record.id}.${detail.id}`,
    names: [name, detail.id],
    label: detail.label,
  };
  const save = within(part, record.save);
  const saveOne: SaveValue<Quantity> = (value, was, at) =>
    save({ [detail.id]: value }, was && kept ? { [detail.id]: was } : undefined, at);
  const saveText: SaveValue<string> = (text, was, at) =>
    saveOne(chosen(text), was === undefined ? undefined : { ...(kept ?? EMPTY), text: was }, at);
  if (detail.options.length > 0) {
    return <DetailChoice {...one} detail={detail} kept={kept?.text ?? ""} save={saveText} />;
  }
  if (detail.unit === null) {
    return (
      <TextControl
        {...one}
        saved={kept?.text ?? ""}
        hint={detail.hint}
        lines={detail.long}
        onSave={saveText}
      />
    );
  }
  return (
    <QuantityControl
      {...one}
      unit={detail.unit}
      value={kept ?? EMPTY}
      echo={record.echo?.[name]}
      hint={detail.hint}
      onSave={saveOne}
    />
  );
}

const chosen = (text: string): Quantity => ({ text, source: "marked", note: "" });

interface ChoiceProps {
  id: string;
  names: readonly string[];
  label: string;
  /** What the kind asks for. */
  detail: Schemas["DetailOut"];
  /** What is saved; empty where nothing was chosen yet. */
  kept: string;
  save: SaveValue<string>;
}

function DetailChoice({ detail, kept, ...one }: ChoiceProps) {
  const field = useAutosavedField({ ...one, kept });
  const value = field.value || (detail.options[0]?.id ?? "");
  return (
    <div>
      <OneOfSome
        label={one.label}
        value={value}
        options={detail.options}
        onChange={(option) => {
          if (option === value) return;
          field.type(option);
          field.commit();
        }}
      />
      <Unsaved field={field} />
    </div>
  );
}
