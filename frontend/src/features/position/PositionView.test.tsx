import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { Route, Routes } from "react-router";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { answer, forget, leave, show } from "../../test/providers";
import { finding, glow, shown, staircase, step, supply, uncertainty } from "../../test/report";
import PositionView from "./PositionView";
import { wide } from "../../test/still";

const empty = { text: "", source: "assumed", note: "" };
const position = {
  id: "p1",
  equipment: "e1",
  rail: "r1",
  name: "Chart lamp",
  stage: "sizing",
  notes: "",
  lamp_id: "",
  lamp_volts: "",
  lamp_amps: "",
  lamp_candela: "",
  lamp_base: "",
  led_id: "warm-5-diffused",
  vf: empty,
  rated: "",
  in_series: 1,
  driver_drop: empty,
  target: { ...empty, text: "4mA" },
  ceiling: 0.5,
  series: "E24",
  rounding: "up",
  resistor: "",
  resistor_parts: 1,
  resistor_source: "marked",
  tolerance: null,
  rating_w: null,
  rectification: "",
  capacitor: "",
  capacitor_v: "",
  second_led_id: "",
  band: "",
  chassis_negative: false,
  mains: false,
  glow_floor: 0.25,
  driver_kind: "direct",
  driver_details: {},
  branches: 1,
  lead: "positive",
  common: "none",
  shunt: "",
  shunt_across: "assembly",
  shunt_w: null,
  series_diodes: 0,
  regulator_id: "",
  module: { amps: "", law: "resistor", polarised: "yes", throttle: "", after: "", candela: "" },
  weigh: [],
  sweep: "",
  sweep_in_series: "",
  sweep_resistor: "",
  echo: { target: "4 mA" },
  goes_in: "leds",
};
const view = {
  position,
  rail: {
    id: "r1",
    equipment: "e1",
    name: "Main",
    kind: "regulated",
    levels: ["lowest", "usual", "highest"],
    details: {},
    fuse: "",
    echo: { usual: "22 V" },
    reads: "22 V",
    unread: [],
    read_at: "feed",
    usual: { ...empty, text: "22V" },
    low: empty,
    high: empty,
  },
  equipment_name: "Tide gauge",
  fit: null,
  siblings: [],
  steps: { undo: null, redo: null },
};
const values = [3900, 4300, 4700, 5100].map((ohm) => ({
  ohm,
  text: `${ohm / 1000} kΩ`,
  zone: "fits",
  in_drawer: false,
}));

function report(ohm: number) {
  const figure = shown(0.004, "4", "mA");
  return {
    sizing: {
      headroom: shown(19, "19", "V"),
      exact: shown(4712, "4.712", "kΩ"),
      preferred: shown(4700, "4.7", "kΩ"),
      each: shown(ohm, String(ohm / 1000), "kΩ"),
      total: shown(ohm, String(ohm / 1000), "kΩ"),
      rounding: "next up, E24",
    },
    current: {
      low: figure,
      usual: figure,
      high: figure,
      supply: figure,
      lamp: figure,
      strings: [],
      corners: [],
    },
    power: { each: shown(0.08, "80", "mW"), to_fit: null },
    supply,
    snapshots: [
      { id: "now", label: "Steady", staircase, glow: null, rule: null, reads: {}, line: "" },
    ],
    cycle: null,
    runtime: null,
    duty: { closed: false, line: "", settle: "", likely: [], died: [] },
    survey: { readings: [], inferences: [], contradictions: [], truth: null, plan: [step] },
    rule: {
      low_ohm: 3900,
      high_ohm: 5100,
      cursor_ohm: ohm,
      values,
      scales: [{ id: "ohm", label: "Each resistor", ticks: [] }],
      zones: [],
      hot: null,
    },
    glow,
    findings: ohm < 4300 ? [] : [finding],
    uncertainty,
    next_step: step,
    diagnoses: [],
    sister: [],
    trouble: null,
  };
}

let asked: ReturnType<typeof answer>;

beforeEach(() => {
  forget();
  vi.stubGlobal("matchMedia", wide);
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
});
afterEach(() => {
  leave();
  vi.unstubAllGlobals();
});

function ask(more: Record<string, unknown> = {}) {
  asked = answer({
    "/api/positions/p1": view,
    "/api/positions/p1/assess": { report: report(4700) },
    "/api/positions/p1/take": position,
    "/api/echo": { echo: "", error: "" },
    ...more,
  });
  show(
    <Routes>
      <Route path="/position/:id" element={<PositionView />} />
    </Routes>,
    "/position/p1",
  );
}

async function open(more: Record<string, unknown> = {}) {
  ask(more);
  return screen.findByRole("slider", { name: "Resistor" });
}

const asks = (path: string) => asked.filter((a) => a.path === `/api/positions/p1/${path}`);

test("all instruments stand together under the lamp's name", async () => {
  await open();
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("Chart lamp");
  for (const name of [
    "Next thing on the bench",
    "Volt staircase",
    "Glow box",
    "Findings",
    "Slide rule",
  ]) {
    expect(screen.getByRole("region", { name })).toBeTruthy();
  }
});

test("an arrow on the slide rule asks at once, and saves when it rests", async () => {
  const slider = await open();
  fireEvent.keyDown(slider, { key: "ArrowRight" });
  await waitFor(() => expect(asks("take")).toHaveLength(1));
  // What was asked and saved stands in its order: no clock decides.
  const moved = { changes: { resistor_ohm: 5100 } };
  const order = asked.filter((a) => JSON.stringify(a.body) === JSON.stringify(moved));
  expect(order.map((a) => a.path.split("/").at(-1)).slice(0, 2)).toEqual(["assess", "take"]);
});

test("while an answer is on its way the rule speaks its new ohms and no older current", async () => {
  const slider = await open();
  await waitFor(() => expect(slider.getAttribute("aria-valuetext")).toContain("4 mA"));
  fireEvent.keyDown(slider, { key: "ArrowRight" });
  expect(slider.getAttribute("aria-valuetext")).toBe("5.1 kΩ");
  // What rests is saved: here, and not in the next test.
  await waitFor(() => expect(asks("take")).toHaveLength(1));
});

test("several arrows in a row are saved once", async () => {
  const slider = await open();
  fireEvent.keyDown(slider, { key: "ArrowLeft" });
  fireEvent.keyDown(slider, { key: "ArrowLeft" });
  await waitFor(() => expect(asks("take")).toHaveLength(1));
  expect(asks("take")[0]?.body).toEqual({ changes: { resistor_ohm: 3900 } });
});

test("a remedy is tried without saving, put back, and fitted", async () => {
  await open();
  fireEvent.click(screen.getByRole("button", { name: "Preview: Fit 1.5 kΩ" }));
  expect(await screen.findByRole("group", { name: "Preview: Fit 1.5 kΩ" })).toBeTruthy();
  await waitFor(() =>
    expect(asks("assess").at(-1)?.body).toEqual({ changes: { resistor_ohm: 1500 } }),
  );
  fireEvent.click(screen.getByRole("button", { name: "Put back" }));
  expect(screen.queryByRole("group", { name: "Preview: Fit 1.5 kΩ" })).toBeNull();
  expect(asks("take")).toHaveLength(0);
  fireEvent.click(screen.getByRole("button", { name: "Preview: Fit 1.5 kΩ" }));
  fireEvent.click(screen.getByRole("button", { name: "Use it" }));
  await waitFor(() =>
    expect(asks("take").at(-1)?.body).toEqual({ changes: { resistor_ohm: 1500 } }),
  );
});

test("Escape puts a tried remedy back", async () => {
  await open();
  fireEvent.click(screen.getByRole("button", { name: "Preview: Fit 1.5 kΩ" }));
  fireEvent.keyDown(window, { key: "Escape" });
  await waitFor(() =>
    expect(screen.queryByRole("group", { name: "Preview: Fit 1.5 kΩ" })).toBeNull(),
  );
});

test.each([
  ["Resistor↓drops 20.0 V4.7 kΩ", "LED and resistor", "Series resistor", "Drive wanted"],
  ["Rail22.0 Vfeed", "Supply", "Main", "Volts, usual"],
  ["LED↓drops 2.00 VRed 5 mm", "LED and resistor", "What goes into the holder", "In series"],
])("the step %s opens the panel %s at %s", async (text, title, part, label) => {
  await open();
  const stairs = screen.getByRole("region", { name: "Volt staircase" });
  const stair = within(stairs)
    .getAllByRole("button")
    .find((b) => b.textContent === text);
  stair?.focus();
  fireEvent.click(stair as HTMLElement);
  const panel = await screen.findByRole("region", { name: title });
  const section = within(panel).getByRole("region", { name: part });
  expect(await within(section).findByLabelText(label)).toBeTruthy();
  // Nothing is covered: the instruments stand there still, for eye and ear.
  expect(screen.getByRole("slider", { name: "Resistor" })).toBeTruthy();
  expect([title, part]).toContain(document.activeElement?.textContent);
  fireEvent.keyDown(document.activeElement as HTMLElement, { key: "Escape" });
  expect(screen.queryByRole("region", { name: title })).toBeNull();
  expect(document.activeElement).toBe(stair);
});

test("the job sheet shows the circuit as SPICE text", async () => {
  await open({ "/api/positions/p1/spice": { text: "* lamp position\n.op\n" } });
  fireEvent.click(screen.getByRole("button", { name: "Build and card" }));
  fireEvent.click(await screen.findByRole("button", { name: "Show SPICE text" }));
  await waitFor(() =>
    expect(screen.getByRole("region", { name: "SPICE text" }).textContent).toContain(".op"),
  );
});

test("a reading typed into the next thing goes to the bench", async () => {
  await open({ "/api/positions/p1/reading": { status: 204 } });
  const field = screen.getByLabelText<HTMLInputElement>("Reading");
  fireEvent.change(field, { target: { value: "21.6V" } });
  fireEvent.submit(field.form as HTMLFormElement);
  await waitFor(() =>
    expect(asks("reading")[0]?.body).toMatchObject({ what: "rail_usual", text: "21.6V" }),
  );
});

test("a position that is gone says so", async () => {
  answer({
    "/api/positions/p1": { status: 404, body: { errors: [{ field: "", message: "gone" }] } },
  });
  show(
    <Routes>
      <Route path="/position/:id" element={<PositionView />} />
    </Routes>,
    "/position/p1",
  );
  expect(await screen.findByText("That is not on the bench any more")).toBeTruthy();
});

test("what cannot be worked out says why and can be mended", async () => {
  ask({
    "/api/positions/p1/assess": {
      status: 422,
      body: { errors: [{ field: "position", message: "No settled cycle was found." }] },
    },
  });
  expect((await screen.findByRole("alert")).textContent).toContain("No settled cycle was found.");
  const bar = screen.getByRole("alert");
  fireEvent.click(within(bar).getByRole("button", { name: "LED and resistor" }));
  expect(await screen.findByRole("region", { name: "What goes into the holder" })).toBeTruthy();
});
