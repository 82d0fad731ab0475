/** Whether the bench still knows this device. What is typed while it does not is kept, and sent once it does again. */
import { useSyncExternalStore } from "react";

let known = true;
const listeners = new Set<() => void>();

/** Note whether an answer said that this device is not paired. */
export function notePaired(status: number): void {
  const now = status !== 401;
  if (now === known) return;
  known = now;
  listeners.forEach((listener) => listener());
}

export const usePaired = (): boolean =>
  useSyncExternalStore(
    (told) => {
      listeners.add(told);
      return () => listeners.delete(told);
    },
    () => known,
  );
