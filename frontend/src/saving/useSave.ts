import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";

import { save, type Save } from "./saves";
import type { Method, Saved } from "./send";

export type More = Pick<Save, "field" | "label" | "done">;

/** Save something; the promise settles when the server has answered, and rejects where it refuses. */
export function useSave() {
  const client = useQueryClient();
  return useCallback(
    (method: Method, path: string, body?: unknown, more: More = {}): Promise<Saved> =>
      save(client, { method, path, body, ...more }),
    [client],
  );
}

/** Do something that is saved and whose refusal is told elsewhere: nobody waits for it. */
export const inPassing = (saving: Promise<unknown>): void => void saving.catch(() => undefined);
