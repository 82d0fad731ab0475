import { useCallback, useEffect, useSyncExternalStore } from "react";

import { draftOf, putBack, shown, subscribeDrafts, typed } from "./drafts";

/** A press so soon after another is the same press twice. */
const TWICE_MS = 1000;
const taken = new Map<string, number>();

/**
 * What is typed in a field of a form that is sent as a whole. It outlives a reload; `usual` stands there while
 * nothing was typed. `take` empties the field and gives what stood in it; a second press finds nothing and gets
 * nothing.
 */
export function useDraft(key: string, usual: string, label?: string) {
  const draft = useSyncExternalStore(subscribeDrafts, () => draftOf(key));
  const type = useCallback((text: string) => typed(key, text, undefined, label), [key, label]);
  useEffect(() => shown(key), [key]);
  const clear = useCallback(() => putBack(key), [key]);
  const take = useCallback((): string | undefined => {
    const text = draftOf(key)?.text ?? usual;
    const now = performance.now();
    if (text === usual && now - (taken.get(key) ?? -TWICE_MS) < TWICE_MS) return undefined;
    taken.set(key, now);
    putBack(key);
    return text;
  }, [key, usual]);
  return { key, value: draft?.text ?? usual, refused: draft?.refused, type, clear, take };
}
