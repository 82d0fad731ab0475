import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import type { Schemas } from "../../api/client";
import { answer, forget, leave, press, savedAt, showRecord } from "../../test/providers";
import { DriverPart } from "./parts/DriverPart";
import type { Position } from "./parts/part";
import { SwapsPart } from "./parts/SwapsPart";

const position = {
  id: "p1",
  driver_kind: "flasher",
  driver_drop: { text: "0.2V", source: "measured", note: "" },
  driver_details: { trip: { text: ".9A", source: "marked", note: "" } },
  common: "none",
} as unknown as Position;

const rail = { id: "r1", kind: "regulated" } as Schemas["RailAnswer"];

const swap = (id: string, more: Partial<Schemas["Swap"]>): Schemas["Swap"] => ({
  id,
  label: id,
  changes: { shunt_ohm: 150 },
  best: false,
  school: "",
  ours: false,
  why: "Loses by: 300 mW of heat, against 20 mW of heat.",
  grade: "fits",
  current: "7 mA",
  band: "6 mA to 8 mA",
  heat: "300 mW",
  light: "0.4 ×",
  points: "2",
  off: "dark",
  reversible: "pulls out again",
  parts: 4,
  stock: "330 Ω to buy",
  bar: [0.2, 0.25, 0.3],
  colour: "#804010",
  ...more,
});

let asked: ReturnType<typeof answer>;

beforeEach(() => {
  forget();
  asked = answer({
    "/api/record": {},
    "/api/echo": { echo: "900 mA", error: "" },
    "/api/positions/p1/swaps": {
      weighed: 12,
      scale: { low: "1 mA", high: "30 mA", limit: 0.6 },
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
  leave();
  vi.unstubAllGlobals();
});

const record = { id: "p1", values: position, echo: { "driver_details.trip": "900 mA" } };

test("a driver asks for what its kind needs, and saves one detail at a time", async () => {
  showRecord(<DriverPart position={position} rail={rail} report={undefined} />, record);
  const field = await screen.findByLabelText<HTMLInputElement>("Taken for failed below");
  expect(field.value).toBe(".9A");
  expect(screen.getByText("Taken as 900 mA")).toBeTruthy();
  press(
    within(screen.getByRole("radiogroup", { name: "Does it watch the current?" })).getByText(
      "No: electronic, or coded not to",
    ),
  );
  await waitFor(() => {
    expect(savedAt(asked, "/api/record")).toMatchObject([
      { driver_details: { counts: { text: "no", source: "marked", note: "" } } },
    ]);
  });
});

test("a line that the equipment reads says where its trip current is kept", async () => {
  const sense = { ...rail, kind: "sense" } as Schemas["RailAnswer"];
  showRecord(<DriverPart position={position} rail={sense} report={undefined} />, record);
  expect(await screen.findByText(/two trials that bracket it/)).toBeTruthy();
});

test("swaps stand the best first, say why, and can be previewed unless nothing changes", async () => {
  const tried = vi.fn();
  showRecord(<SwapsPart position={position} onTry={tried} />, record);
  const best = await screen.findByRole("article", { name: "Shunt" });
  expect(best.textContent).toContain("Wins: it pulls out again.");
  expect(best.textContent).toContain("7 mA, 6 mA to 8 mA");
  expect(best.textContent).toContain("add, ours");
  expect(best.textContent).toContain("where yours lands");
  expect(within(screen.getByRole("article", { name: "Leave" })).queryByRole("button")).toBeNull();
  const bare = screen.getByRole("article", { name: "Bare" });
  expect(within(bare).getByRole("img", { name: "Stop" })).toBeTruthy();
  press(within(best).getByRole("button", { name: "Preview: Shunt" }));
  expect(tried).toHaveBeenCalledWith("Shunt", { shunt_ohm: 150 });
  press(screen.getByRole("button", { name: "Long life" }));
  await waitFor(() => {
    expect(savedAt(asked, "/api/record")).toEqual([{ weigh: { life: true, heat: true } }]);
  });
});
