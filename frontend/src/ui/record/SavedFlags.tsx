import { Flags } from "../Flags";
import { Unsaved } from "./Unsaved";
import { useField, type FieldName } from "./record";
import { useAutosavedField } from "./useAutosavedField";

interface Props {
  /** The field's name in the record. */
  field: FieldName;
  /** Its name on screen. */
  label: string;
}

/** Any of the options the catalogue has for this field; what is ticked is sent, and not the rest. */
export function SavedFlags({ field, label }: Props) {
  const { id, names, value, options, save } = useField(field);
  const flags = useAutosavedField({
    id,
    label,
    names,
    kept: (value as string[] | undefined) ?? [],
    save: (chosen, was = [], at) =>
      save(
        Object.fromEntries(
          (options ?? [])
            .map((o) => o.id)
            .filter((o) => chosen.includes(o) !== was.includes(o))
            .map((o) => [o, chosen.includes(o)]),
        ),
        undefined,
        at,
      ),
  });
  if (!options) return null;
  return (
    <div>
      <Flags
        label={label}
        options={options}
        chosen={flags.value}
        onChange={(chosen) => {
          flags.type(chosen);
          flags.commit();
        }}
      />
      <Unsaved field={flags} />
    </div>
  );
}
