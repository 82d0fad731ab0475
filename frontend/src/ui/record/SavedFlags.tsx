import { Flags } from "../Flags";
import { useField, type FieldName } from "./record";

interface Props {
  field: FieldName;
  label: string;
}

/** Any of the options the catalogue has for this field. */
export function SavedFlags({ field, label }: Props) {
  const { value, options, save } = useField(field);
  if (!options) return null;
  return (
    <Flags
      label={label}
      options={options}
      chosen={(value as string[] | undefined) ?? []}
      onChange={(chosen) => void save(chosen)}
    />
  );
}
