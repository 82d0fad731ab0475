import { TextField } from "react-aria-components";

import { useDraft } from "../../api/useDraft";
import { Area } from "../Area";
import { Caption } from "../Field";
import { Refusal } from "../Refusal";
import { useField, type FieldName } from "./record";
import { useRefusal } from "./useRefusal";

interface Props {
  /** The field's name in the record. */
  field: FieldName;
  /** Its name on screen. */
  label: string;
}

/** Free words of the record over several lines, saved when they are left. */
export function SavedNotes({ field, label }: Props) {
  const { id, name, value, save } = useField(field);
  const draft = useDraft(id, String(value ?? ""));
  const { refusal, tell } = useRefusal(name);
  const commit = async () => {
    if (draft.dirty && (await tell(() => save(draft.value)))) draft.clear();
  };
  return (
    <TextField
      value={draft.value}
      onChange={draft.type}
      onBlur={() => void commit()}
      maxLength={20000}
    >
      <Caption>{label}</Caption>
      <Area />
      <Refusal why={refusal} />
    </TextField>
  );
}
