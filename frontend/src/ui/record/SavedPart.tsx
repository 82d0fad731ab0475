import { Picker, type Pick } from "../Picker";
import { Unsaved } from "./Unsaved";
import { useField, type FieldName } from "./record";
import { useAutosavedField } from "./useAutosavedField";

interface Props {
  /** The field's name in the record. */
  field: FieldName;
  /** Its name on screen. */
  label: string;
  /** The parts of the catalogue; none while it is on its way. */
  parts: readonly Pick[] | undefined;
  /** What stands there while nothing was chosen. */
  stands?: string;
  /** What the empty value is called, where it may be empty. */
  none?: string;
  /** Other fields that change with it, by the part chosen. */
  also?: (id: string) => Record<string, unknown>;
}

const NONE = "none";

/** A part of the record, picked from the catalogue by name. */
export function SavedPart({ field, label, parts, none, stands, also }: Props) {
  const { id, names, value, save } = useField(field);
  const part = useAutosavedField({
    id,
    label,
    names,
    kept: String(value ?? ""),
    save: (picked, was, at) => save(picked, was, at, also?.(picked)),
  });
  const shown = part.value || stands || NONE;
  if (!parts) return null;
  return (
    <div>
      <Picker
        label={label}
        value={shown}
        items={[...(none ? [{ id: NONE, label: none }] : []), ...parts]}
        onChange={(picked) => {
          if (picked === shown) return;
          part.type(picked === NONE ? "" : picked);
          part.commit();
        }}
      />
      <Unsaved field={part} />
    </div>
  );
}
