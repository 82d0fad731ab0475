import { useSyncExternalStore } from "react";

/** Under this the workspace is one column. */
const NARROW = "(max-width: 1000px)";
/** Where a thumb works: acts stand at the bottom of the screen. */
const THUMB = "(max-width: 760px)";

function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (told) => {
      // jsdom has no such question.
      const list = window.matchMedia?.(query);
      list?.addEventListener("change", told);
      return () => list?.removeEventListener("change", told);
    },
    () => window.matchMedia?.(query).matches ?? false,
  );
}

/** Whether the workspace is one column. */
export const useNarrow = () => useMedia(NARROW);

/** Whether the view is as wide as a phone. */
export const useThumb = () => useMedia(THUMB);
