/**
 * What is typed and not yet known to be saved. It belongs to the typist: no answer writes over it, and it goes
 * only when the server holds the very text, or when the typist puts it back.
 */
import { drop, keep, keptKeys, readKept } from "./store";
import { thisTab } from "./tab";

export interface Draft {
  /** What stands in the field. */
  text: string;
  /** What was saved when the typing began. */
  base?: string | undefined;
  /** What is on its way to the server. */
  sent?: string | undefined;
  /** Why the server refused it. */
  refused?: string | undefined;
  /** What stands there since somebody else changed it. */
  now?: string | undefined;
  /** The field's name, and the view it stands in, to find it by. */
  label?: string | undefined;
  where?: string | undefined;
  /** The panel of that view that it stands in. */
  panel?: string | undefined;
}

const PREFIX = "draft/";
const drafts = new Map<string, Draft>();
const listeners = new Set<() => void>();
let listed: readonly (readonly [string, Draft])[] = [];
/** How often each field is on the screen. */
const onScreen = new Map<string, number>();

const place = (key: string) => `${PREFIX}${thisTab()}/${key}`;

function put(key: string, draft: Draft | undefined): void {
  if (draft === undefined) {
    drafts.delete(key);
    drop(place(key));
  } else {
    drafts.set(key, draft);
    keep(place(key), JSON.stringify(draft));
  }
  tell();
}

function tell(): void {
  listed = [...drafts.entries()];
  listeners.forEach((listener) => listener());
}

/** A field of this name is on the screen, until what is returned is called. */
export function shown(key: string): () => void {
  onScreen.set(key, (onScreen.get(key) ?? 0) + 1);
  if (drafts.has(key)) tell();
  return () => {
    onScreen.set(key, (onScreen.get(key) ?? 1) - 1);
    if (drafts.has(key)) tell();
  };
}

/** Drafts of fields that are nowhere on the screen: refused, or typed and not on their way. */
export const outOfSight = (all: readonly (readonly [string, Draft])[]) =>
  all.filter(
    ([key, d]) =>
      d.label !== undefined &&
      !onScreen.get(key) &&
      (d.refused !== undefined || (d.base !== undefined && d.sent !== d.text && d.text !== d.base)),
  );

/** Take over what this tab kept before a reload, and what closed tabs have left: all, or what came late. */
export function openDrafts(tabs: ReadonlySet<string>, keys: readonly string[] = keptKeys(PREFIX)) {
  for (const key of keys) {
    if (!key.startsWith(PREFIX)) continue;
    const [tab = "", ...rest] = key.slice(PREFIX.length).split("/");
    const name = rest.join("/");
    const mine = tab === thisTab();
    if (!mine && (tabs.has(tab) || drafts.has(name))) continue;
    try {
      const draft = JSON.parse(readKept(key) ?? "") as Draft;
      if (!mine) drop(key);
      put(name, { ...draft, sent: undefined });
    } catch {
      drop(key);
    }
  }
}

export const draftOf = (key: string): Draft | undefined => drafts.get(key);

export const allDrafts = (): readonly (readonly [string, Draft])[] => listed;

/** Something was typed. What was saved when the typing began stays known. */
export function typed(
  key: string,
  text: string,
  base?: string,
  label?: string,
  panel?: string,
): void {
  const old = drafts.get(key);
  put(key, {
    text,
    base: old?.base ?? base,
    sent: old?.sent,
    label: label ?? old?.label,
    where: window.location.pathname,
    panel: panel ?? old?.panel,
  });
}

/** What stands in the field is on its way; the next change is one of that. */
export function onItsWay(key: string): void {
  const old = drafts.get(key);
  if (old) put(key, { ...old, sent: old.text, base: old.text, refused: undefined, now: undefined });
}

/** The server holds this text: the draft goes, unless more was typed meanwhile. */
export function settled(key: string, text: string): void {
  const old = drafts.get(key);
  if (!old) return;
  if (old.text === text) put(key, undefined);
  else if (old.sent === text) put(key, { ...old, sent: undefined });
}

/** The server refused this text: it stands in its field with the reason, unless more was typed meanwhile. */
export function refused(
  key: string,
  text: string,
  why: { message: string; now?: string | undefined; base?: string | undefined; label?: string },
): void {
  const old = drafts.get(key);
  // A newer text is on its way already: its own answer decides.
  if (old?.sent !== undefined && old.sent !== text) return;
  if (old && old.text !== "" && old.text !== text) {
    put(key, { ...old, base: why.base, sent: undefined });
    return;
  }
  put(key, {
    ...old,
    text,
    base: why.base,
    sent: undefined,
    refused: why.message,
    now: why.now,
    label: old?.label ?? why.label,
    where: old?.where ?? window.location.pathname,
  });
}

/** Put the field back to what is saved. */
export const putBack = (key: string): void => put(key, undefined);

export function subscribeDrafts(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
