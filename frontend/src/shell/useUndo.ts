import { useMemo } from "react";

import { Refused, type Schemas } from "../api/client";
import { useSave } from "../api/queries";

/** Undo and redo for one scope: an equipment's key, or "" for the bench. */
export function useUndo(scope: string, steps: Schemas["Steps"] | undefined) {
  const save = useSave();
  return useMemo(() => {
    const go = async (path: string) => {
      try {
        await save("POST", path, { scope });
      } catch (problem) {
        // Nothing to undo is no fault of the user's.
        if (!(problem instanceof Refused)) throw problem;
      }
    };
    return {
      undo: steps?.undo ?? "",
      redo: steps?.redo ?? "",
      onUndo: () => void go("/api/undo"),
      onRedo: () => void go("/api/redo"),
    };
  }, [save, scope, steps]);
}
