import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";

import type { Changes } from "../../api/client";
import { askReport } from "../../api/queries";
import { inPassing, useSave } from "../../saving/useSave";
import type { Try } from "./parts/part";

interface Trial {
  label: string;
  changes: Changes;
}

/** How long the slide rule must rest before its value is saved. */
const REST_MS = 450;

/** What is tried on a position before it is taken: a remedy, a swap, or where the slide rule stands. */
export function useTrial(id: string) {
  const save = useSave();
  const queries = useQueryClient();
  const [trial, setTrial] = useState<Trial>();
  const [cursor, setCursor] = useState<number>();
  const rest = useRef(0);
  const changes = useMemo<Changes>(
    () => trial?.changes ?? (cursor === undefined ? {} : { resistor_ohm: cursor }),
    [trial, cursor],
  );
  const take = useCallback(
    (taken: Changes, label: string) =>
      save("POST", `/api/positions/${id}/take`, { changes: taken }, { label }),
    [id, save],
  );
  const fresh = useCallback(() => askReport(queries, id), [queries, id]);
  const moved = useRef<number | undefined>(undefined);
  const settle = useCallback(() => {
    window.clearTimeout(rest.current);
    const ohm = moved.current;
    moved.current = undefined;
    if (ohm === undefined) return;
    // The cursor goes back to what is kept once that is this value, and shown; a value moved to since stays.
    const shown = () => setCursor((now) => (now === ohm ? undefined : now));
    void take({ resistor_ohm: ohm }, "Slide rule").then(fresh).then(shown, shown);
  }, [take, fresh]);
  const move = (ohm: number) => {
    setTrial(undefined);
    setCursor(ohm);
    moved.current = ohm;
    window.clearTimeout(rest.current);
    rest.current = window.setTimeout(settle, REST_MS);
  };
  // A rule that is left while it rests is saved where it stands.
  useEffect(() => {
    window.addEventListener("pagehide", settle);
    return () => {
      window.removeEventListener("pagehide", settle);
      settle();
    };
  }, [settle]);
  useEffect(() => {
    const escape = (e: globalThis.KeyboardEvent) => {
      if (e.key === "Escape") setTrial(undefined);
    };
    window.addEventListener("keydown", escape);
    return () => window.removeEventListener("keydown", escape);
  }, []);
  const tryOut: Try = (label, tried) => setTrial({ label, changes: tried });
  return {
    trial,
    cursor,
    changes,
    move,
    tryOut,
    fit: () =>
      inPassing(
        take(changes, trial?.label ?? "Use it")
          .then(fresh)
          .then(() => setTrial(undefined)),
      ),
    putBack: () => setTrial(undefined),
  };
}
