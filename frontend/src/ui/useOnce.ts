import { useCallback, useRef, useState } from "react";

/** Do something that makes one thing a press: a second press while the first is under way does nothing. */
export function useOnce<A extends unknown[]>(work: (...args: A) => Promise<unknown>) {
  const running = useRef(false);
  const [busy, setBusy] = useState(false);
  const act = useCallback(
    async (...args: A) => {
      if (running.current) return;
      running.current = true;
      setBusy(true);
      try {
        await work(...args);
      } catch {
        // Refused: said where it was tried, or in the notices.
      }
      running.current = false;
      setBusy(false);
    },
    [work],
  );
  return { act, busy };
}
