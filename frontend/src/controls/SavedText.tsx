import { useState } from "react";

import { Refused } from "../api/client";
import { useDraft } from "../api/useDraft";
import { Field } from "./Field";

interface Props {
  id: string;
  label: string;
  saved: string;
  onSave: (text: string) => Promise<unknown>;
  field: string;
  hint?: string;
  /** Words that may run over a line. */
  long?: boolean;
}

/** A plain text of a record, saved when it is left. */
export function SavedText({ id, label, saved, onSave, field, hint, long = false }: Props) {
  const draft = useDraft(id, saved);
  const [refusal, setRefusal] = useState<string>();
  const commit = async () => {
    if (!draft.dirty) return;
    try {
      await onSave(draft.value);
      setRefusal(undefined);
      draft.clear();
    } catch (problem) {
      if (problem instanceof Refused) setRefusal(problem.of(field) ?? problem.message);
    }
  };
  return (
    <Field
      label={label}
      value={draft.value}
      onChange={(t) => {
        setRefusal(undefined);
        draft.type(t);
      }}
      onCommit={() => void commit()}
      error={refusal}
      hint={hint}
      words
      long={long}
    />
  );
}
