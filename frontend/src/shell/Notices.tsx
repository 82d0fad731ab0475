import { useEffect, useState, useSyncExternalStore } from "react";
import { Link, useLocation } from "react-router";
import styled from "styled-components";

import { allDrafts, outOfSight, putBack, subscribeDrafts } from "../saving/drafts";
import { useConnection, type Connection } from "../saving/connection";
import { usePaired } from "../saving/paired";
import { allNotices, subscribeNotices, unsay, type Notice } from "../saving/notices";
import { howKept, subscribeStore } from "../saving/store";
import { SmallButton } from "../ui/Button";
import { panelAt } from "../ui/panelPlace";

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
  /** Leave a step that cannot be undone. */
  onPass: (notice: Notice) => void;
}

/** Under the head of every view: how saving goes, what was refused and where, and what was just done. */
export function Notices({ onUndo, onPass }: Props) {
  const connection = useConnection();
  const paired = usePaired();
  const notices = useSyncExternalStore(subscribeNotices, allNotices);
  const keeping = useSyncExternalStore(subscribeStore, howKept);
  return (
    <Place role="status">
      {connection.state !== "well" && paired && <Warn>{saying(connection)}</Warn>}
      {!paired && (
        <Warn>
          This phone is not paired with the bench any more. {waits(connection.waiting)} At the bench
          press “Add a phone” and scan the code; it then goes on here.
        </Warn>
      )}
      {keeping === "larger" && (
        <Warn>
          Browser storage is full. Your unsaved entries are safe; wait until they are saved before
          you clear browser data.
        </Warn>
      )}
      {keeping === "page" && (
        <Warn>
          This browser keeps nothing: what is typed and not saved is lost when this page closes.
        </Warn>
      )}
      <UnsavedElsewhere />
      {notices.map((n) => (
        <Said key={n.id}>
          <span>{n.text}</span>
          {n.step !== undefined && (
            <SmallButton onPress={() => onUndo(n.step ?? 0)}>Undo</SmallButton>
          )}
          {n.stuck !== undefined && (
            <SmallButton onPress={() => onPass(n)}>
              Leave this step and go on to the one before
            </SmallButton>
          )}
          <SmallButton aria-label={`Dismiss: ${n.text}`} onPress={() => unsay(n.id)}>
            Dismiss
          </SmallButton>
        </Said>
      ))}
    </Place>
  );
}

function waits(waiting: number): string {
  if (waiting === 0) return "Nothing typed is lost.";
  return waiting === 1
    ? "1 change is kept here and will be saved then."
    : `${waiting} changes are kept here and will be saved then.`;
}

function saying({ state, waiting }: Connection): string {
  const changes = waiting === 1 ? "1 change is" : `${waiting} changes are`;
  return state === "offline"
    ? `No connection: ${changes} kept here and will be saved when it is back.`
    : `Slow connection: ${changes} on the way. Go on working.`;
}

/** Texts whose field is nowhere on the screen: refused, or typed before the page closed and not saved. */
function UnsavedElsewhere() {
  const drafts = useSyncExternalStore(subscribeDrafts, allDrafts);
  const settled = useSettled();
  if (!settled) return null;
  return outOfSight(drafts)
    .slice(0, 3)
    .map(([key, d]) => (
      <Said key={key}>
        <span>
          {d.refused === undefined
            ? `${d.label} was typed and not saved: ${short(d.text)}`
            : `${d.label} was not saved: ${d.refused}`}
        </span>
        <Link to={panelAt(d.where ?? "/", d.panel ?? "")}>Go to it</Link>
        <SmallButton aria-label={`Discard ${d.label}`} onPress={() => putBack(key)}>
          Discard
        </SmallButton>
      </Said>
    ));
}

/** Whether the view has had a moment to show its fields: what is on the screen is not said twice. */
function useSettled(): boolean {
  const { pathname } = useLocation();
  const [at, setAt] = useState<string>();
  useEffect(() => {
    const timer = window.setTimeout(() => setAt(pathname), SETTLED_MS);
    return () => window.clearTimeout(timer);
  }, [pathname]);
  return at === pathname;
}

const SETTLED_MS = 1200;
const LONGEST = 60;

/** What was typed, as far as it fits on a line. */
function short(text: string): string {
  let value: unknown = text;
  try {
    value = JSON.parse(text);
  } catch {
    // It is the text itself.
  }
  const said =
    typeof value === "object" && value !== null && "text" in value
      ? String(value.text)
      : String(value);
  return said.length > LONGEST ? `“${said.slice(0, LONGEST)}…”` : `“${said}”`;
}
