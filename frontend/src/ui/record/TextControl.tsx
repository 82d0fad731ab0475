import { useDraft } from "../../api/useDraft";
import { Field } from "../Field";
import { useRefusal } from "./useRefusal";

interface Props {
  /** Names the draft in local storage; unique to record and field. */
  id: string;
  /** The field's name for the server. */
  name: string;
  /** Its name on screen. */
  label: string;
  /** What is kept. */
  saved: string;
  /** How to write it, or what it was taken for. */
  hint?: string | undefined;
  /** Words that may run over a line. */
  long?: boolean;
  /** Save it; rejects where the server refuses. */
  onSave: (text: string) => Promise<unknown>;
}

/** A plain text, saved when it is left. */
export function TextControl({ id, name, label, saved, hint, long = false, onSave }: Props) {
  const draft = useDraft(id, saved);
  const { refusal, tell, forget } = useRefusal(name);
  const commit = async () => {
    if (draft.dirty && (await tell(() => onSave(draft.value)))) draft.clear();
  };
  return (
    <Field
      label={label}
      value={draft.value}
      onChange={(text) => {
        forget();
        draft.type(text);
      }}
      onCommit={() => void commit()}
      error={refusal}
      hint={hint}
      words
      long={long}
    />
  );
}
