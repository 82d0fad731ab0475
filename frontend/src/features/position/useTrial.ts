import { useCallback, useEffect, useMemo, useRef, useState } from "react";

import type { Changes } from "../../api/client";
import { useSave } from "../../api/queries";
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
  const [trial, setTrial] = useState<Trial>();
  const [cursor, setCursor] = useState<number>();
  const rest = useRef(0);
  const changes = useMemo<Changes>(
    () => trial?.changes ?? (cursor === undefined ? {} : { resistor_ohm: cursor }),
    [trial, cursor],
  );
  const take = useCallback(
    (taken: Changes) => save("POST", `/api/positions/${id}/take`, { changes: taken }),
    [id, save],
  );
  const move = (ohm: number) => {
    setTrial(undefined);
    setCursor(ohm);
    window.clearTimeout(rest.current);
    rest.current = window.setTimeout(() => {
      void take({ resistor_ohm: ohm }).finally(() => setCursor(undefined));
    }, REST_MS);
  };
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
    fit: () => void take(changes).then(() => setTrial(undefined)),
    putBack: () => setTrial(undefined),
  };
}
