import styled from "styled-components";

import { useConnection } from "../../saving/connection";
import { SmallButton } from "../Button";
import { Refusal } from "../Refusal";
import type { Kept } from "./useAutosavedField";

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  font-size: 0.9rem;
  color: var(--ink-soft);
  & > button {
    color: var(--ink);
  }
`;

interface Props {
  /** The field that it stands under. */
  field: Pick<Kept<never>, "dirty" | "draft" | "commit" | "insist" | "putBack">;
  /** Whether the typist is in the field: what they type is theirs until they leave it. */
  typing?: boolean;
  /** Leave out the reason of a refusal where the field itself says it. */
  bare?: boolean;
}

/** How far what was typed is from being saved: refused and why, changed elsewhere meanwhile, waiting, or left over. */
export function Unsaved({ field, typing = false, bare = false }: Props) {
  const connection = useConnection();
  const { draft } = field;
  if (!draft) return null;
  if (draft.refused !== undefined) {
    return (
      <>
        {!bare && <Refusal why={draft.refused} />}
        <Line>
          {draft.now !== undefined && <SmallButton onPress={field.insist}>Keep mine</SmallButton>}
          <SmallButton onPress={field.putBack}>
            {draft.now === undefined ? "Put back" : "Take theirs"}
          </SmallButton>
        </Line>
      </>
    );
  }
  if (draft.sent === draft.text) {
    return connection.state === "well" ? null : <Line>Kept here, not saved yet</Line>;
  }
  if (typing || !field.dirty) return null;
  return (
    <Line>
      Typed, not saved yet
      <SmallButton onPress={field.commit}>Save</SmallButton>
      <SmallButton onPress={field.putBack}>Put back</SmallButton>
    </Line>
  );
}
