import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import type { Schemas } from "../../api/client";
import { show } from "../../test/providers";
import { stillWide } from "../../test/still";
import { MatchFaces } from "./MatchFaces";
import { MatchRule } from "./MatchRule";

beforeEach(stillWide);
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const value = (ohm: number, octaves: number, fits = true) => ({
  ohm,
  text: `${ohm} Ω`,
  octaves,
  light: `${ohm} mcd`,
  beside: "",
  colour: ohm > 300 ? "#400000" : "#ff0000",
  at_hand: ohm === 220,
  fits,
});

const match: Schemas["MatchReport"] = {
  rows: [
    {
      id: "a",
      name: "Ebb",
      values: [value(100, -1, false), value(220, -2), value(470, -3)],
      now: 1,
      barred: "",
      doubt: "within 1.6 ×",
    },
    { id: "b", name: "Flood", values: [], now: 0, barred: "a current source", doubt: "" },
  ],
  levels: [
    { octaves: -3, text: "125 mcd", picks: [2, null], line: "All within a fifth." },
    { octaves: -2, text: "250 mcd", picks: [1, null], line: "Ebb stays 0.5 ×." },
  ],
  best: 0,
  low: -3,
  high: -2,
};

function rule(more: Partial<Parameters<typeof MatchRule>[0]> = {}) {
  const told = { onMove: vi.fn(), onTogether: vi.fn(), onOut: vi.fn() };
  show(<MatchRule match={match} picks={[1, 0]} level={undefined} {...told} {...more} />);
  return told;
}

test("a lamp's arrows move it by one of its values, brighter to the right, and stop at the ends", () => {
  const { onMove } = rule();
  const ebb = screen.getByRole("slider", { name: "Ebb" });
  expect(ebb.getAttribute("aria-valuetext")).toBe("220 Ω, 220 mcd");
  fireEvent.keyDown(ebb, { key: "ArrowRight" });
  fireEvent.keyDown(ebb, { key: "ArrowLeft" });
  fireEvent.keyDown(ebb, { key: "PageDown" });
  fireEvent.keyDown(ebb, { key: "a" });
  expect(onMove.mock.calls).toEqual([
    [0, 0],
    [0, 2],
    [0, 2],
  ]);
});

test("past its limits a value is said to be so", () => {
  rule({ picks: [0, 0] });
  expect(screen.getByRole("slider", { name: "Ebb" }).getAttribute("aria-valuetext")).toBe(
    "100 Ω, 100 mcd, past its limits",
  );
});

test("all together they move from the best level, by its own line", () => {
  const { onTogether } = rule();
  const all = screen.getByRole("slider", { name: "All together" });
  expect(all.getAttribute("aria-valuetext")).toBe("125 mcd. All within a fifth.");
  fireEvent.keyDown(all, { key: "ArrowUp" });
  expect(onTogether).toHaveBeenCalledWith(1);
});

test("a lamp that cannot be matched says why, and one is taken out of the group", () => {
  const { onOut } = rule();
  expect(screen.getByText("a current source")).toBeTruthy();
  fireEvent.click(screen.getByRole("checkbox", { name: "Ebb in the group" }));
  expect(onOut).toHaveBeenCalledWith(match.rows[0]);
});

test("each face has the colour of the value it stands at", () => {
  show(<MatchFaces match={match} picks={[2, 0]} />);
  const [ebb, flood] = screen.getAllByRole("listitem");
  expect(ebb?.querySelectorAll("circle")[1]?.getAttribute("fill")).toBe("#400000");
  expect(ebb?.textContent).toContain("470 mcd");
  expect(flood?.textContent).toContain("a current source");
});

test("a click moves it to the nearest value; a finger that only scrolls past does not", () => {
  const { onMove } = rule();
  const ebb = screen.getByRole("slider", { name: "Ebb" });
  fireEvent.pointerDown(ebb, { clientX: 20 });
  expect(onMove).not.toHaveBeenCalled();
  fireEvent.click(ebb, { clientX: 20 });
  expect(onMove).toHaveBeenCalledWith(0, 2);
});
