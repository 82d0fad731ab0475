import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeAll, expect, test, vi } from "vitest";

import type { Report } from "../api/client";
import { SlideRule } from "./SlideRule";

beforeAll(() => {
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {}
      disconnect() {}
    },
  );
});
afterEach(cleanup);

const values = [330, 470, 680, 1000, 1500].map((ohm) => ({
  ohm,
  text: `${ohm} Ω`,
  zone: "fits" as const,
  in_drawer: ohm === 680,
}));
const rule = {
  low_ohm: 330,
  high_ohm: 1500,
  cursor_ohm: 680,
  values,
  zones: [],
  hot: null,
  scales: [
    {
      id: "ohm",
      label: "Each resistor",
      ticks: values.map((v) => ({ at_ohm: v.ohm, text: v.text, weight: 2 as const })),
    },
  ],
} satisfies Report["rule"];

function show(cursor: number) {
  const onMove = vi.fn();
  render(<SlideRule rule={rule} cursor={cursor} reads={{}} onMove={onMove} />);
  return onMove;
}

test.each([
  ["ArrowRight", 680, 1000],
  ["ArrowLeft", 680, 470],
  ["End", 680, 1500],
  ["Home", 680, 330],
  // Between two values an arrow goes to the neighbour on its own side.
  ["ArrowRight", 620, 680],
  ["ArrowLeft", 620, 470],
])("%s from %d goes to %d", (key, from, to) => {
  const onMove = show(from);
  fireEvent.keyDown(screen.getByRole("slider"), { key });
  expect(onMove).toHaveBeenCalledWith(to);
});

test("values in the drawer are filled", () => {
  show(680);
  expect(document.querySelectorAll("circle")).toHaveLength(1);
});
