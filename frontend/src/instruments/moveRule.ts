import { useRef, type PointerEvent, type RefObject } from "react";

import type { Report } from "../api/client";

type Rule = Report["rule"];

/** How near the cursor a finger must come down to take it, and how far it must go to move it. */
const NEAR = 26;
const MEANT = 8;

/**
 * How a pointer moves the cursor. A mouse puts it where it is pressed. A finger must come down on the cursor and
 * go sideways: a swipe past the rule scrolls the page and moves nothing.
 */
export function usePull(
  svg: RefObject<SVGSVGElement | null>,
  at: number,
  to: (across: number) => void,
) {
  const held = useRef<{ from: number; down: number; off: number; moving: boolean } | null>(null);
  const across = (e: PointerEvent) => e.clientX - (svg.current?.getBoundingClientRect().left ?? 0);
  return {
    onPointerDown: (e: PointerEvent) => {
      const here = across(e);
      const finger = e.pointerType === "touch";
      if (e.button !== 0 || (finger && Math.abs(here - at) > NEAR)) return;
      held.current = { from: here, down: e.clientY, off: finger ? here - at : 0, moving: !finger };
      e.currentTarget.setPointerCapture(e.pointerId);
      svg.current?.focus({ preventScroll: true });
      if (!finger) to(here);
    },
    onPointerMove: (e: PointerEvent) => {
      const hold = held.current;
      if (!hold) return;
      const here = across(e);
      const sideways = Math.abs(here - hold.from);
      if (sideways >= MEANT && sideways > Math.abs(e.clientY - hold.down)) hold.moving = true;
      if (hold.moving) to(here - hold.off);
    },
    onPointerUp: () => (held.current = null),
    onPointerCancel: () => (held.current = null),
  };
}

/** Where a key takes the cursor: the next preferred value, six of them, or an end. */
export function target(key: string, rule: Rule, cursor: number): number | undefined {
  const here = nearest(rule, cursor);
  const value = rule.values[here];
  const off = value && Math.abs(value.ohm / cursor - 1) > 1e-6;
  const up = off && value.ohm > cursor ? here : here + 1;
  const down = off && value.ohm < cursor ? here : here - 1;
  const moves: Record<string, number> = {
    ArrowRight: up,
    ArrowUp: up,
    ArrowLeft: down,
    ArrowDown: down,
    PageUp: here + 6,
    PageDown: here - 6,
    Home: 0,
    End: rule.values.length - 1,
  };
  return moves[key];
}

/** The place among the rule's values of the one that is nearest to some ohms. */
export function nearest(rule: Rule, ohm: number): number {
  let best = 0;
  rule.values.forEach((v, k) => {
    const now = rule.values[best];
    if (now && Math.abs(Math.log(v.ohm / ohm)) < Math.abs(Math.log(now.ohm / ohm))) best = k;
  });
  return best;
}
