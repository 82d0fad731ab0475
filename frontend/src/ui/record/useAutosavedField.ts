import { useEffect, useRef, useSyncExternalStore } from "react";

import { draftOf, putBack, shown, subscribeDrafts, typed } from "../../saving/drafts";
import type { FromField } from "../../saving/saves";
import { usePanelPlace } from "../panelPlace";

/** Commits of the fields that are shown, for the moment the page goes. */
const commits = new Set<() => void>();
if (typeof window !== "undefined") {
  // A reload or a closed tab is leaving the field: what was typed is on its way before the page is gone.
  window.addEventListener("pagehide", () => commits.forEach((commit) => commit()));
}

/** Save a value; `was` is what the typist saw there, none where it shall be written whatever stands there. */
export type SaveValue<V> = (value: V, was: V | undefined, field: FromField) => Promise<unknown>;

interface Options<V> {
  /** Names the draft; unique to record and field. */
  id: string;
  /** Its name on screen. */
  label: string;
  /** The field's names for the server. */
  names: readonly string[];
  /** What the server holds. */
  kept: V;
  save: SaveValue<V>;
}

/**
 * A field of a record: shows what is typed until the server holds it, saves it when it is left, by whatever way
 * it is left, and keeps it with the reason where it is refused.
 */
export function useAutosavedField<V>({ id, label, names, kept, save }: Options<V>) {
  const panel = usePanelPlace();
  const found = useSyncExternalStore(subscribeDrafts, () => draftOf(id));
  const read = found && parsed(found.text, kept);
  const draft = read === undefined ? undefined : found;
  const held = JSON.stringify(kept);
  const send = (anyway: boolean) => {
    const now = draftOf(id);
    if (!now || now.sent === now.text || parsed(now.text, kept) === undefined) return;
    if (now.text === held && now.sent === undefined) {
      putBack(id);
      return;
    }
    // What was refused is sent again only once it is changed, or by its own button.
    if (now.refused !== undefined && !anyway) return;
    const was = anyway || now.base === undefined ? undefined : (JSON.parse(now.base) as V);
    const field: FromField = { draft: id, text: now.text, base: now.base, names, label };
    save(JSON.parse(now.text) as V, was, field).catch(() => undefined);
  };
  const latest = useRef(send);
  useEffect(() => {
    latest.current = send;
  });
  useEffect(() => {
    const commit = () => latest.current(false);
    commits.add(commit);
    const gone = shown(id);
    return () => {
      commits.delete(commit);
      commit();
      gone();
    };
  }, [id]);
  return {
    value: draft ? (read as V) : kept,
    dirty: draft !== undefined && draft.text !== held,
    draft,
    type: (value: V) => typed(id, JSON.stringify(value), held, label, panel),
    commit: () => send(false),
    insist: () => send(true),
    putBack: () => putBack(id),
  };
}

/** A draft as the kind of value the field holds; nothing where it is of another kind, kept by another version. */
function parsed<V>(text: string, kept: V): V | undefined {
  try {
    const value = JSON.parse(text) as V;
    const fits = typeof value === typeof kept || kept === null || value === null;
    return fits ? value : undefined;
  } catch {
    return undefined;
  }
}

export type Kept<V> = ReturnType<typeof useAutosavedField<V>>;
