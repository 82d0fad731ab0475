import { Flags } from "../Flags";
import { Refusal } from "../Refusal";
import { useField, type FieldName } from "./record";
import { useRefusal } from "./useRefusal";

interface Props {
  /** The field's name in the record. */
  field: FieldName;
  /** Its name on screen. */
  label: string;
}

/** Any of the options the catalogue has for this field. */
export function SavedFlags({ field, label }: Props) {
  const { name, value, options, save } = useField(field);
  const { refusal, tell } = useRefusal(name);
  if (!options) return null;
  return (
    <div>
      <Flags
        label={label}
        options={options}
        chosen={(value as string[] | undefined) ?? []}
        onChange={(chosen) => void tell(() => save(chosen))}
      />
      <Refusal why={refusal} />
    </div>
  );
}
