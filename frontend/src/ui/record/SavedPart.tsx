import { Picker, type Pick } from "../Picker";
import { Refusal } from "../Refusal";
import { useField, type FieldName } from "./record";
import { useRefusal } from "./useRefusal";

interface Props {
  /** The field's name in the record. */
  field: FieldName;
  /** Its name on screen. */
  label: string;
  /** The parts of the catalogue; none while it is on its way. */
  parts: readonly Pick[] | undefined;
  /** What the empty value is called, where it may be empty. */
  none?: string;
  /** Other fields that change with it, by the part chosen. */
  also?: (id: string) => Record<string, unknown>;
}

const NONE = "none";

/** A part of the record, picked from the catalogue by name. */
export function SavedPart({ field, label, parts, none, also }: Props) {
  const { name, value, save } = useField(field);
  const { refusal, tell } = useRefusal(name);
  const id = String(value || NONE);
  const pick = (picked: string) => {
    if (picked !== id) void tell(() => save(picked === NONE ? "" : picked, also?.(picked)));
  };
  if (!parts) return null;
  return (
    <div>
      <Picker
        key={id}
        label={label}
        value={id}
        items={[...(none ? [{ id: NONE, label: none }] : []), ...parts]}
        onChange={pick}
      />
      <Refusal why={refusal} />
    </div>
  );
}
