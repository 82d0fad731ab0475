import { useEffect, useRef } from "react";

const FIELDS = "input, textarea, [role=radio], button";

/**
 * Where the focus goes when a list changes under it: to what was made, or to what stands where the deleted one
 * stood. The list is the element that `list` is put on; its children are the items.
 */
export function useListFocus<T extends HTMLElement>(count: number) {
  const list = useRef<T>(null);
  const wanted = useRef<"made" | number | undefined>(undefined);
  const before = useRef(count);
  useEffect(() => {
    const grew = count - before.current;
    before.current = count;
    const items = list.current?.children;
    const asked = wanted.current;
    if (!items || asked === undefined || grew === 0) return;
    if (asked === "made" && grew > 0) {
      items[count - 1]?.querySelector<HTMLElement>(FIELDS)?.focus();
    } else if (asked !== "made" && grew < 0) {
      const left = items[Math.min(asked, count - 1)]?.querySelector<HTMLElement>(`a, ${FIELDS}`);
      const add = list.current?.parentElement?.querySelector<HTMLElement>("[data-add]");
      (left ?? add)?.focus();
    } else return;
    wanted.current = undefined;
  }, [count]);
  return {
    list,
    /** Something will be made at the end. */
    made: () => {
      wanted.current = "made";
    },
    /** What stands at this place will go. */
    gone: (at: number) => {
      wanted.current = at;
    },
  };
}
