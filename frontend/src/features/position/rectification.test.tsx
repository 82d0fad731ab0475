import { fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import type { Schemas } from "../../api/client";
import { answer, forget, leave, savedAt, showRecord } from "../../test/providers";
import { cycle, shown } from "../../test/report";
import type { Position } from "./parts/part";
import { SweepPart } from "./parts/SweepPart";
import { RectificationPart } from "./parts/RectificationPart";

const position = {
  id: "p1",
  capacitor: "",
  capacitor_v: "",
  second_led_id: "",
  chassis_negative: false,
  sweep: "",
  sweep_in_series: "",
  sweep_resistor: "",
} as Position;

const fit: Schemas["SweepReport"] = {
  points: [
    { volts: 2.6, amps: 0.001 },
    { volts: 2.9, amps: 0.008 },
  ],
  curve: [
    { volts: 2.6, amps: 0.001 },
    { volts: 2.75, amps: 0.004 },
    { volts: 2.9, amps: 0.008 },
  ],
  each: [],
  i_s: shown(1e-18, "1", "aA"),
  n: 2,
  r_s: shown(8, "8", "Ω"),
  worst: shown(0.004, "4", "mV"),
  line: "2 readings, fitted to 2 mV.",
};

const record = { id: "p1", values: position };

let asked: ReturnType<typeof answer>;

beforeEach(() => {
  forget();
  asked = answer({ "/api/echo": { echo: "", error: "" }, "/api/record": {} });
});
afterEach(() => {
  leave();
  vi.unstubAllGlobals();
});

test("a rectification says what its parts must stand and which way round they go", () => {
  showRecord(<RectificationPart cycle={cycle} />, record);
  expect(screen.getByText("13 V, fit 50 V")).toBeTruthy();
  expect(screen.getByText("The bridge's + to the LED's long leg.")).toBeTruthy();
  expect(screen.getByRole("row", { name: /usual/ }).textContent).toContain("100 % 100 Hz");
  expect(screen.getByText(/Low-risk is 8 %/)).toBeTruthy();
  expect(screen.queryByLabelText("Own capacitor")).toBeNull();
});

test("with a reservoir its capacitance and rating can be typed", async () => {
  const capped = {
    ...cycle,
    capacitor: shown(1e-4, "100", "µF"),
    capacitor_rating: shown(25, "25", "V"),
    options: [{ id: "bridge", label: "Bridge", asks: ["capacitor", "capacitor_v"] }],
  };
  showRecord(<RectificationPart cycle={capped} />, record);
  expect(screen.getByText("100 µF, 25 V or more")).toBeTruthy();
  const own = await screen.findByLabelText("Its voltage rating");
  fireEvent.change(own, { target: { value: "35V" } });
  fireEvent.blur(own);
  await waitFor(() =>
    expect(savedAt(asked, "/api/record")).toEqual([
      { capacitor_v: "35V", was: { capacitor_v: "" } },
    ]),
  );
});

test("the LED's negative on the frame is a fact to be said", async () => {
  showRecord(<RectificationPart cycle={cycle} />, record);
  fireEvent.click(await screen.findByRole("radio", { name: "On the frame" }));
  await waitFor(() =>
    expect(savedAt(asked, "/api/record")).toEqual([
      { chassis_negative: true, was: { chassis_negative: false } },
    ]),
  );
});

test("a two-colour LED asks for its other colour", async () => {
  const two = {
    ...cycle,
    options: [{ id: "bridge", label: "Bridge", asks: ["second_led_id"] }],
  };
  showRecord(<RectificationPart cycle={two} />, record);
  expect(await screen.findByRole("combobox", { name: "The other colour" })).toBeTruthy();
});

test("a sweep is sent when it is left, and its fit is drawn with its error", async () => {
  showRecord(<SweepPart position={position} fit={fit} />, record);
  const area = screen.getByLabelText("Sweep: volts and amps, one reading a line");
  fireEvent.change(area, { target: { value: "2.6V 1mA" } });
  fireEvent.blur(area);
  await waitFor(() =>
    expect(savedAt(asked, "/api/record")).toEqual([{ sweep: "2.6V 1mA", was: { sweep: "" } }]),
  );
  const drawn = screen.getByRole("img", { name: /curve fitted/ });
  expect(drawn.querySelectorAll("path")).toHaveLength(3); // the curve and two crosses
  expect(screen.getByText(/fitted to 2 mV/).textContent).toContain("Rs 8 Ω");
});

test("of a swept assembly one LED's own curve is drawn beside it", () => {
  const each = fit.curve.map((p) => ({ volts: p.volts / 3, amps: p.amps / 2 }));
  showRecord(<SweepPart position={position} fit={{ ...fit, each }} />, record);
  expect(screen.getByText(/Dashed: one LED of it/)).toBeTruthy();
  const drawn = screen.getByRole("img", { name: /curve fitted/ });
  expect(drawn.querySelectorAll("path[stroke-dasharray]")).toHaveLength(1);
});

test("a refused sweep stays typed with its reason", async () => {
  const errors = [{ field: "sweep", message: "Line 1: two values." }];
  answer({
    "/api/echo": { echo: "", error: "" },
    "/api/record": { status: 422, body: { errors } },
  });
  showRecord(<SweepPart position={position} fit={null} />, record);
  const area = screen.getByLabelText<HTMLTextAreaElement>(
    "Sweep: volts and amps, one reading a line",
  );
  fireEvent.change(area, { target: { value: "2.6V" } });
  fireEvent.blur(area);
  expect(await screen.findByText("Line 1: two values.")).toBeTruthy();
  expect(area.value).toBe("2.6V");
});
