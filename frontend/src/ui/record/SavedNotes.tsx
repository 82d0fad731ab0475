import { Label, TextArea, TextField } from "react-aria-components";
import styled from "styled-components";

import { useDraft } from "../../api/useDraft";
import { useField, type FieldName } from "./record";

const Area = styled(TextArea)`
  width: 100%;
  min-height: 84px;
  padding: 8px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: 4px;
  background: var(--sheet);
  resize: vertical;
`;

const Name = styled(Label)`
  font-size: 0.9rem;
  font-weight: 600;
`;

interface Props {
  /** The field's name in the record. */
  field: FieldName;
  /** Its name on screen. */
  label: string;
}

/** Free words of the record over several lines, saved when they are left. */
export function SavedNotes({ field, label }: Props) {
  const { id, value, save } = useField(field);
  const draft = useDraft(id, String(value ?? ""));
  return (
    <TextField
      value={draft.value}
      onChange={draft.type}
      onBlur={() => {
        if (draft.dirty) void save(draft.value).then(draft.clear, () => undefined);
      }}
      maxLength={20000}
    >
      <Name>{label}</Name>
      <Area />
    </TextField>
  );
}
