import { useEffect, useRef, type KeyboardEvent } from "react";

const STEPS: Record<string, number> = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 };

/**
 * A list of links as one stop of the Tab key: arrows, Home and End go from link to link inside it. Put `list` and
 * `onKeyDown` on the element around them.
 */
export function useRoving<T extends HTMLElement>() {
  const list = useRef<T>(null);
  const last = useRef<string | null>(null);
  const links = () => [...(list.current?.querySelectorAll<HTMLAnchorElement>("a[href]") ?? [])];
  const stopAt = (link: HTMLAnchorElement | undefined) => {
    for (const one of links()) one.tabIndex = one === link ? 0 : -1;
    last.current = link?.getAttribute("href") ?? null;
  };
  // Whatever was drawn anew, one of them is the stop.
  useEffect(() => {
    const all = links();
    stopAt(all.find((l) => l.getAttribute("href") === last.current) ?? all[0]);
  });
  const onKeyDown = (e: KeyboardEvent) => {
    const all = links();
    const here = all.indexOf(document.activeElement as HTMLAnchorElement);
    if (here < 0) return;
    const ends: Record<string, number> = { Home: 0, End: all.length - 1 };
    const to = ends[e.key] ?? here + (STEPS[e.key] ?? Number.NaN);
    const link = all[Math.min(Math.max(to, 0), all.length - 1)];
    if (!link || Number.isNaN(to)) return;
    e.preventDefault();
    stopAt(link);
    link.focus();
  };
  return { list, onKeyDown };
}
