import { Label, TextArea, TextField } from "react-aria-components";
import styled from "styled-components";

import { useDraft } from "../api/useDraft";

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
  id: string;
  saved: string;
  onSave: (text: string) => Promise<unknown>;
  label?: string;
}

/** Free notes, saved when they are left. */
export function Notes({ id, saved, onSave, label = "Notes" }: Props) {
  const draft = useDraft(id, saved);
  return (
    <TextField
      value={draft.value}
      onChange={draft.type}
      onBlur={() => {
        if (draft.dirty) void onSave(draft.value).then(draft.clear, () => undefined);
      }}
      maxLength={20000}
    >
      <Name>{label}</Name>
      <Area />
    </TextField>
  );
}
