import type { Finding, Report, Schemas, Shown } from "../api/client";

/** A figure for tests. */
export function shown(
  value: number,
  number: string,
  unit: string,
  source: Shown["source"] = "computed",
): Shown {
  return { value, number, unit, source, origin: `made for a test: ${number} ${unit}` };
}

export const finding: Finding = {
  id: "over-drive-ceiling",
  grade: "mind",
  message: "The drive reaches 12 mA; the limit set here is 10 mA.",
  figure: "12 mA",
  limit: "10 mA",
  why: "Cooler and longer-lived under the limit.",
  remedies: [{ id: "larger-resistor", label: "Fit 1.5 kΩ", changes: { resistor_ohm: 1500 } }],
  first: "",
};

type Diagnosis = Report["diagnoses"][number];

/** A reading that is off. */
export const off: Diagnosis = {
  id: "r1",
  kind: "current",
  state: "on",
  reading: shown(0.0004, "400", "µA", "measured"),
  expected: shown(0.004, "4", "mA"),
  low: shown(0.0035, "3.5", "mA"),
  high: shown(0.0045, "4.5", "mA"),
  agrees: false,
  line: "400 µA is under the expected 4 mA.",
  cannot: "",
  since: "",
};

/** Two causes of it. */
export const trouble: NonNullable<Report["trouble"]> = {
  line: "2 causes would read so.",
  causes: [
    {
      id: "wrong-decade",
      message: "One multiplier band off.",
      share: 0.7,
      share_text: "70 %",
      reads: [shown(0.0004, "400", "µA")],
      at: ["resistor"],
      parts: [],
    },
    {
      id: "other-rail",
      message: "The rail is at 5 V.",
      share: 0.3,
      share_text: "30 %",
      reads: [shown(0.0004, "400", "µA")],
      at: ["rail"],
      parts: [],
    },
  ],
};

export const staircase: Schemas["Staircase"] = {
  top_v: 24,
  stairs: [
    {
      id: "rail",
      kind: "rail",
      label: "Rail",
      detail: "feed",
      drop: { low: 0, usual: 0, high: 0 },
      level: { low: 20, usual: 22, high: 24 },
      text: "22.0 V",
      source: "measured",
    },
    {
      id: "resistor",
      kind: "resistor",
      label: "Resistor",
      detail: "4.7 kΩ",
      drop: { low: 18, usual: 20, high: 22 },
      level: { low: 2, usual: 2, high: 2 },
      text: "20.0 V",
      source: "computed",
    },
    {
      id: "led1",
      kind: "led",
      label: "LED",
      detail: "Red 5 mm",
      drop: { low: 2, usual: 2, high: 2 },
      level: { low: 0, usual: 0, high: 0 },
      text: "2.00 V",
      source: "assumed",
    },
    {
      id: "ground",
      kind: "ground",
      label: "Ground",
      detail: "",
      drop: { low: 0, usual: 0, high: 0 },
      level: { low: 0, usual: 0, high: 0 },
      text: "0 V",
      source: "computed",
    },
  ],
};

export const step: Report["next_step"] = {
  id: "rail_usual",
  act: "Read the rail",
  meter: "DC volts, 200 V range",
  points: "feed to ground",
  state: "as it usually runs",
  expect: "about 22 V",
  reading: "rail_usual",
  why: "The resistor is sized on it.",
  caution: "Mains in the case: leave it to someone qualified.",
  meanings: [],
  example: "24.1V",
  stops: false,
  chain: [],
};

export const uncertainty: Report["uncertainty"] = {
  share: 0.4,
  line: "3.5 mA to 4.5 mA, most of it from the usual rail (±500 µA). 1 figure assumed.",
  items: [
    {
      id: "rail_usual",
      label: "Usual rail",
      text: "22 V",
      source: "assumed",
      swing_a: 0.001,
      swing_text: "±500 µA",
      stake: { loss: "LED", line: "the LED: 24 mA of 20 mA" },
    },
    {
      id: "resistor",
      label: "Resistor's tolerance",
      text: "±5 %",
      source: "marked",
      swing_a: 0.0004,
      swing_text: "±200 µA",
      stake: { loss: "nothing", line: "" },
    },
  ],
};

/** Two places side by side: a dark one, and the brightest. */
const face = { shape: "tip", wide: 1, columns: 2, rows: 1, levels: btoa("\u0000\u00ff") };

export const glow: Report["glow"] = {
  lamps: [
    {
      id: "old",
      label: "Old lamp",
      colour: "#806040",
      hue: "#ffb060",
      ramp: ["#000000", "#806040"],
      face,
      halo: 0.2,
      veil: [0.3, 0],
      lightness: 50,
      ratio_text: "the old lamp",
      amount: shown(0.2, "200", "mcd"),
    },
    {
      id: "low",
      label: "LED, lowest",
      colour: "#800000",
      hue: "#ff0000",
      ramp: ["#000000", "#800000"],
      face,
      halo: 0.4,
      veil: [0.3, 0],
      lightness: 76,
      ratio_text: "2.1 × the old lamp",
      amount: shown(0.42, "420", "mcd"),
    },
    {
      id: "usual",
      label: "LED, usual",
      colour: "#ff0000",
      hue: "#ff0000",
      ramp: ["#000000", "#ff0000"],
      face,
      halo: 0.5,
      veil: [0.3, 0],
      lightness: 100,
      ratio_text: "4.2 × the old lamp",
      amount: shown(0.84, "840", "mcd"),
    },
  ],
  levels: ["Lowest", "Usual"],
  looked_at: "Seen directly",
  room: "workshop",
  wall: "#1d1d1d",
  lines: ["As far as its light is known: 2.1 to 8.4 × the old lamp."],
  suits: [],
  flicker: null,
};

export const supply: Report["supply"] = { label: "Regulated DC" };

const level = (label: string, mA: number): NonNullable<Report["cycle"]>["levels"][number] => ({
  label,
  average: shown(mA / 1e3, String(mA), "mA"),
  peak: shown(mA / 400, String(mA * 2.5), "mA"),
  reverse: shown(0.7, "700", "mV"),
  conduction_deg: 150,
  flicker_hz: shown(100, "100", "Hz"),
  modulation: 100,
  limit: 8,
});

/** A bridge on a winding, three instants long. */
export const cycle: NonNullable<Report["cycle"]> = {
  rectification: "bridge",
  why: "Both half-cycles, no reverse volts.",
  options: [
    { id: "bridge", label: "Bridge", asks: [] },
    { id: "inverse_diode", label: "Inverse diode across the LED", asks: [] },
  ],
  levels: [level("mains low", 3), level("usual", 4), level("mains high", 5)],
  crest: shown(13, "13", "V"),
  capacitor: null,
  capacitor_rating: null,
  ripple: null,
  diode_reverse: shown(13, "13", "V"),
  diode_rating: shown(50, "50", "V"),
  polarity: "The bridge's + to the LED's long leg.",
  degrees: [0, 90, 180],
  amps: [
    [0, 0.008, 0],
    [0, 0.01, 0],
    [0, 0.012, 0],
  ],
};
