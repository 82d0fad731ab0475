import { useEffect } from "react";
import { useNavigate } from "react-router";

import { singleKeys } from "./singleKeys";

export interface Undo {
  /** What undo would undo; empty for nothing. */
  undo: string;
  redo: string;
  onUndo: () => void;
  onRedo: () => void;
}

function isTyping(target: EventTarget | null) {
  return target instanceof HTMLElement && target.closest("input, textarea, [role=dialog]") !== null;
}

const focus = (selector: string) => document.querySelector<HTMLElement>(selector)?.focus();

/** Keys that work anywhere but in a field. */
export function useKeys(undo: Undo | undefined, flip: () => void, help: () => void) {
  const go = useNavigate();
  useEffect(() => {
    const single: Record<string, () => void> = {
      "?": help,
      l: flip,
      b: () => void go("/"),
      d: () => void go("/drawer"),
      t: () => void go("/day"),
      n: () => document.querySelector<HTMLElement>("[data-new]")?.click(),
      p: () => focus("[role=toolbar][data-parts] button"),
      r: () => focus("form input, section[data-sum] input"),
      "/": () => {
        if (document.querySelector("input[type=search]")) focus("input[type=search]");
        else void go("/", { state: { find: true } });
      },
      s: () => focus("[role=slider]"),
    };
    const keys = (e: KeyboardEvent) => {
      if (isTyping(e.target)) return;
      const meta = e.ctrlKey || e.metaKey;
      if (meta && e.key.toLowerCase() === "z" && undo) {
        if (e.shiftKey) undo.onRedo();
        else undo.onUndo();
      } else if (!meta && !e.altKey && singleKeys.on() && single[e.key]) single[e.key]?.();
      else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  }, [undo, flip, help, go]);
}
