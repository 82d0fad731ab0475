import { useSyncExternalStore } from "react";
import { Link } from "react-router";
import styled from "styled-components";

import { allDrafts, subscribeDrafts } from "../saving/drafts";
import { useLine, type Line } from "../saving/line";
import { allNotices, subscribeNotices, unsay } from "../saving/notices";
import { howKept, subscribeStore } from "../saving/store";
import { SmallButton } from "../ui/Button";

const Warn = styled.p`
  padding: 8px 20px;
  background: var(--mark-soft);
  border-bottom: 2px solid var(--mark);
  font-weight: 600;
`;

const Said = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 6px 20px;
  border-bottom: 1.5px solid var(--ink);
  background: var(--sheet);
  span {
    overflow-wrap: anywhere;
  }
`;

/* In sight wherever the page stands: what was just done has its way back beside it. */
const Place = styled.div`
  position: sticky;
  top: 0;
  z-index: 10;
  /* On a phone the thumb is at the bottom; over the bar of a preview, where there is one. */
  @media (max-width: 760px) {
    position: fixed;
    inset: auto 0 0;
    border-top: 1.5px solid var(--ink);
    &:empty {
      border: 0;
    }
    body:has([data-bar]) & {
      bottom: 118px;
    }
  }
  @media print {
    display: none;
  }
`;

interface Props {
  /** Take a step back. */
  onUndo: (step: number) => void;
}

/** Under the head of every view: how saving goes, what was refused and where, and what was just done. */
export function Notices({ onUndo }: Props) {
  const line = useLine();
  const notices = useSyncExternalStore(subscribeNotices, allNotices);
  const keeping = useSyncExternalStore(subscribeStore, howKept);
  return (
    <Place role="status">
      {line.state !== "well" && <Warn>{saying(line)}</Warn>}
      {keeping === "larger" && (
        <Warn>
          This browser&apos;s store is full. What is typed is kept in its larger one: let it be
          saved before you clear anything.
        </Warn>
      )}
      {keeping === "page" && (
        <Warn>
          This browser keeps nothing: what is typed and not saved is lost when this page closes.
        </Warn>
      )}
      <RefusedFields />
      {notices.map((n) => (
        <Said key={n.id}>
          <span>{n.text}</span>
          {n.step !== undefined && (
            <SmallButton onPress={() => onUndo(n.step ?? 0)}>Undo</SmallButton>
          )}
          <SmallButton aria-label={`Dismiss: ${n.text}`} onPress={() => unsay(n.id)}>
            Dismiss
          </SmallButton>
        </Said>
      ))}
    </Place>
  );
}

function saying({ state, waiting }: Line): string {
  const changes = waiting === 1 ? "1 change is" : `${waiting} changes are`;
  return state === "offline"
    ? `No connection: ${changes} kept here and will be saved when it is back.`
    : `Slow connection: ${changes} on the way. Go on working.`;
}

/** Fields in other views whose text was refused: it stands there still. */
function RefusedFields() {
  const drafts = useSyncExternalStore(subscribeDrafts, allDrafts);
  const elsewhere = drafts.filter(
    ([, d]) => d.refused !== undefined && d.label && d.where !== window.location.pathname,
  );
  return elsewhere.slice(0, 3).map(([key, d]) => (
    <Said key={key}>
      <span>
        {d.label} was not taken: {d.refused}
      </span>
      <Link to={d.where ?? "/"}>Mend it</Link>
    </Said>
  ));
}
