import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

import { notePaired } from "../saving/paired";
import { changedElsewhere } from "../saving/pulse";
import { askAnew } from "../saving/saves";

/** So often somebody else's changes are looked for, while the page is seen. */
const EVERY_MS = 1200;
const PATIENCE_MS = 5000;

/** Follow what others change: the views ask anew, while what is typed and where the focus is stay as they are. */
export function useFollow(): void {
  const queries = useQueryClient();
  useEffect(() => {
    let over = false;
    let timer = 0;
    const look = async () => {
      try {
        const signal = AbortSignal.timeout(PATIENCE_MS);
        const response = document.hidden ? undefined : await fetch("/api/pulse", { signal });
        if (response) notePaired(response.status);
        const changes = response?.ok
          ? ((await response.json()) as { changes?: number }).changes
          : undefined;
        if (changes !== undefined && changedElsewhere(changes)) await askAnew(queries);
      } catch {
        // No answer: that is said where something waits for one.
      }
      if (!over) timer = window.setTimeout(() => void look(), EVERY_MS);
    };
    void look();
    return () => {
      over = true;
      window.clearTimeout(timer);
    };
  }, [queries]);
}
