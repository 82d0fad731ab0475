import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import type { Schemas } from "../api/client";
import { answer, show } from "../test/providers";
import { DriverPart } from "./DriverPart";
import type { Position } from "./PartSheet";
import { SwapsPart } from "./SwapsPart";

const press = (element: HTMLElement) => fireEvent.click(element);

const position = {
  id: "p1",
  driver_kind: "low_side",
  driver_drop: { text: "0.2V", source: "measured", note: "" },
  driver_details: { keep_warm: { text: "560R", source: "marked", note: "", took: "560 Ω" } },
  common: "none",
} as unknown as Position;

const rail = { id: "r1", kind: "regulated" } as Schemas["RailOut"];

const detail = (id: string, label: string, unit: "Ω" | null, options: Schemas["OptionOut"][]) => ({
  id,
  label,
  unit,
  hint: "",
  options,
});

const swap = (id: string, more: Partial<Schemas["Swap"]>): Schemas["Swap"] => ({
  id,
  label: id,
  changes: { shunt_ohm: 150 },
  best: false,
  school: "",
  ours: false,
  score: 0.5,
  why: "Loses by: 300 mW of heat, against 20 mW of heat.",
  grade: "fits",
  current: "7 mA",
  band: "6 mA to 8 mA",
  inside: "100 %",
  heat: "300 mW",
  light: "0.4 ×",
  points: "2",
  off: "dark",
  reversible: "pulls out again",
  parts: 4,
  stock: "330 Ω to buy",
  ...more,
});

beforeEach(() => {
  localStorage.clear();
  answer({
    "/api/catalogue": {
      leds: [],
      lamps: [],
      supplies: [],
      regulators: [],
      modules: [],
      drivers: [
        {
          id: "low_side",
          label: "Transistor to ground",
          expect: "Keeps 0.1 to 0.3 V.",
          keeps: "0.1-0.3V",
          details: [
            detail("keep_warm", "Keep-warm resistor", "Ω", []),
            detail("counts", "Does it watch?", null, [
              { id: "yes", label: "Yes" },
              { id: "no", label: "No" },
            ]),
          ],
        },
      ],
    },
    "/api/took": { took: "560 Ω", error: "" },
    "/api/positions/p1/swaps": {
      weighed: 12,
      by_chance: true,
      asked: ["heat"],
      weights: [
        { id: "life", label: "Long life" },
        { id: "heat", label: "Least heat" },
      ],
      swaps: [
        swap("Shunt", { best: true, why: "Wins: it pulls out again.", school: "add", ours: true }),
        swap("Leave", { changes: {}, band: "", parts: 0 }),
        swap("Bare", { grade: "stop", why: "Out: glows when off." }),
      ],
    },
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

test("a driver asks for what its kind needs, and saves one detail at a time", async () => {
  const patch = vi.fn(() => Promise.resolve());
  show(<DriverPart position={position} rail={rail} patch={patch} report={undefined} />);
  expect(await screen.findByText("Keeps 0.1 to 0.3 V.")).toBeTruthy();
  const field = screen.getByLabelText<HTMLInputElement>("Keep-warm resistor");
  expect(field.value).toBe("560R");
  press(within(screen.getByRole("radiogroup", { name: "Does it watch?" })).getByText("No"));
  await waitFor(() => {
    expect(patch).toHaveBeenCalledWith({
      driver_details: { counts: { text: "no", source: "marked", note: "" } },
    });
  });
});

test("a line that the equipment reads says where its trip current is kept", async () => {
  const sense = { ...rail, kind: "sense" } as Schemas["RailOut"];
  show(
    <DriverPart
      position={position}
      rail={sense}
      patch={() => Promise.resolve()}
      report={undefined}
    />,
  );
  expect(await screen.findByText(/two trials that bracket it/)).toBeTruthy();
});

test("swaps stand side by side, say why, and can be tried unless nothing changes", async () => {
  const tried = vi.fn();
  const patch = vi.fn(() => Promise.resolve());
  show(<SwapsPart position={position} patch={patch} onTry={tried} />);
  const best = await screen.findByRole("article", { name: "Shunt" });
  expect(best.textContent).toContain("Wins: it pulls out again.");
  expect(best.textContent).toContain("7 mA, 6 mA to 8 mA");
  expect(best.textContent).toContain("add, ours");
  expect(best.textContent).toContain("where 90 % lie");
  expect(within(screen.getByRole("article", { name: "Leave" })).queryByRole("button")).toBeNull();
  const bare = screen.getByRole("article", { name: "Bare" });
  expect(within(bare).getByRole("img", { name: "Stop" })).toBeTruthy();
  press(within(best).getByRole("button", { name: "Try" }));
  expect(tried).toHaveBeenCalledWith("Shunt", { shunt_ohm: 150 });
  press(screen.getByRole("button", { name: "Long life" }));
  await waitFor(() => {
    expect(patch).toHaveBeenCalledWith({ weigh: ["life", "heat"] });
  });
});
