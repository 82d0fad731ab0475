import { useEffect, useState } from "react";

export type Look = "day" | "lamp";
const KEY = "swapglow.look";

function first(): Look {
  const kept = localStorage.getItem(KEY);
  if (kept === "day" || kept === "lamp") return kept;
  return window.matchMedia("(prefers-color-scheme: dark)").matches ? "lamp" : "day";
}

/** The look of the bench, kept for the next visit. */
export function useLook(): [Look, () => void] {
  const [look, setLook] = useState<Look>(first);
  useEffect(() => {
    document.documentElement.dataset.look = look;
    localStorage.setItem(KEY, look);
  }, [look]);
  return [look, () => setLook((now) => (now === "day" ? "lamp" : "day"))];
}
