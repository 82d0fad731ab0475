import type { Changes, Schemas } from "../../../api/client";

/** A part of the position that has a sheet of its own. */
export type Part =
  "rail" | "driver" | "resistor" | "led" | "lamp" | "job" | "rectification" | "swaps";

export type Position = Schemas["PositionAnswer"];

/** What a remedy or a swap would do to the position, tried before it is taken. */
export type Try = (label: string, changes: Changes) => void;

/** Take changes over into the position, by the names the core has for them. */
export type Take = (changes: Changes, label: string) => void;

export const TITLES: Record<Part, string> = {
  rail: "Supply rail",
  driver: "Driver",
  resistor: "Series resistor",
  led: "LED",
  lamp: "Original lamp",
  job: "Job",
  rectification: "Rectification",
  swaps: "Swaps side by side",
};

type Stair = Exclude<Schemas["Stair"]["kind"], "ground">;

/** The sheet that each step of the staircase opens. */
export const SHEET_OF_STAIR: Record<Stair, Part> = {
  rail: "rail",
  source: "rail",
  feed: "driver",
  lamps: "driver",
  driver: "driver",
  rectifier: "rectification",
  regulator: "resistor",
  resistor: "resistor",
  diode: "resistor",
  inside: "led",
  led: "led",
};
