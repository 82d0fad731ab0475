import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { Refused, type Schemas } from "../api/client";
import { answer, show } from "../test/providers";
import { cycle, shown } from "../test/report";
import type { Position } from "./PartSheet";
import { SweepPart } from "./SweepPart";
import { Treatment } from "./Treatment";

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
  i_s: shown(1e-18, "1", "aA"),
  n: 2,
  r_s: shown(8, "8", "Ω"),
  error: shown(0.002, "2", "mV"),
  worst: shown(0.004, "4", "mV"),
  line: "2 readings, fitted to 2 mV.",
};

beforeEach(() => {
  localStorage.clear();
  answer({
    "/api/catalogue": { leds: [{ id: "red", label: "Red 5 mm" }], lamps: [], supplies: [] },
    "/api/took": { took: "", error: "" },
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

test("a treatment says what its parts must stand and which way round they go", () => {
  show(<Treatment position={position} patch={() => Promise.resolve()} cycle={cycle} />);
  expect(screen.getByText("13 V, fit 50 V")).toBeTruthy();
  expect(screen.getByText("The bridge's + to the LED's long leg.")).toBeTruthy();
  expect(screen.getByRole("row", { name: /usual/ }).textContent).toContain("100 % 100 Hz");
  expect(screen.getByText(/Low-risk is 8 %/)).toBeTruthy();
  expect(screen.queryByLabelText("Own capacitor")).toBeNull();
});

test("with a reservoir its capacitance and rating can be typed", async () => {
  const patch = vi.fn(() => Promise.resolve());
  const capped = {
    ...cycle,
    capacitor: shown(1e-4, "100", "µF"),
    capacitor_rating: shown(25, "25", "V"),
  };
  show(<Treatment position={position} patch={patch} cycle={capped} />);
  expect(screen.getByText("100 µF, 25 V or more")).toBeTruthy();
  const own = screen.getByLabelText("Its voltage rating");
  fireEvent.change(own, { target: { value: "35V" } });
  fireEvent.blur(own);
  await waitFor(() => expect(patch).toHaveBeenCalledWith({ capacitor_v: "35V" }));
});

test("the LED's negative on the frame is a fact to be said", () => {
  const patch = vi.fn(() => Promise.resolve());
  show(<Treatment position={position} patch={patch} cycle={cycle} />);
  fireEvent.click(screen.getByRole("radio", { name: "On the frame" }));
  expect(patch).toHaveBeenCalledWith({ chassis_negative: true });
});

test("a two-colour LED asks for its other colour", async () => {
  const two = { ...cycle, treatment: "two_colour" };
  show(<Treatment position={position} patch={() => Promise.resolve()} cycle={two} />);
  expect(await screen.findByRole("combobox", { name: "The other colour" })).toBeTruthy();
});

test("a sweep is sent when it is left, and its fit is drawn with its error", async () => {
  const patch = vi.fn(() => Promise.resolve());
  show(<SweepPart position={position} patch={patch} fit={fit} />);
  const area = screen.getByLabelText("Sweep: volts and amps, one reading a line");
  fireEvent.change(area, { target: { value: "2.6V 1mA" } });
  fireEvent.blur(area);
  await waitFor(() => expect(patch).toHaveBeenCalledWith({ sweep: "2.6V 1mA" }));
  const drawn = screen.getByRole("img", { name: /curve fitted/ });
  expect(drawn.querySelectorAll("path")).toHaveLength(3); // the curve and two crosses
  expect(screen.getByText(/fitted to 2 mV/).textContent).toContain("Rs 8 Ω");
});

test("a refused sweep stays typed with its reason", async () => {
  const patch = vi.fn(() =>
    Promise.reject(new Refused(422, [{ field: "sweep", message: "Line 1: two values." }])),
  );
  show(<SweepPart position={position} patch={patch} fit={null} />);
  const area = screen.getByLabelText<HTMLTextAreaElement>(
    "Sweep: volts and amps, one reading a line",
  );
  fireEvent.change(area, { target: { value: "2.6V" } });
  fireEvent.blur(area);
  expect(await screen.findByText("Line 1: two values.")).toBeTruthy();
  expect(area.value).toBe("2.6V");
});
