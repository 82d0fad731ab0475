import type { Changes, Schemas } from "../../../api/client";

/** A part of the position that has a panel of its own. */
export type Part =
  | "rail"
  | "driver"
  | "rectification"
  | "resistor"
  | "led"
  | "lamp"
  | "looks"
  | "swaps"
  | "readings"
  | "job"
  | "earlier";

export type Position = Schemas["PositionAnswer"];

/** What a remedy or a swap would do to the position, tried before it is taken. */
export type Try = (label: string, changes: Changes) => void;

/** Take changes over into the position, by the names the core has for them. */
export type Take = (changes: Changes, label: string) => void;

export const TITLES: Record<Part, string> = {
  rail: "Supply rail",
  driver: "Driver",
  resistor: "Series resistor",
  led: "What goes into the holder",
  lamp: "Old lamp",
  looks: "How it is looked at",
  job: "Job",
  rectification: "Rectification",
  swaps: "Swaps, the best first",
  readings: "Readings",
  earlier: "Earlier states",
};

/** The parts in the order of the current's way, then what is done with them, each as it is called in the head. */
export const TABS: readonly (readonly [Part, string])[] = [
  ["rail", "Rail"],
  ["driver", "Driver"],
  ["rectification", "Rectification"],
  ["resistor", "Resistor"],
  ["led", "LED"],
  ["lamp", "Old lamp"],
  ["looks", "Looks"],
  ["swaps", "Swaps"],
  ["readings", "Readings"],
  ["job", "Job"],
  ["earlier", "Earlier"],
];

/** The instrument that a part belongs to: on a phone its panel stands under it. */
export type Instrument = "head" | "glow" | "rule" | "findings" | "stairs";

export const BELONGS_TO: Record<Part, Instrument> = {
  rail: "stairs",
  driver: "stairs",
  rectification: "stairs",
  resistor: "rule",
  led: "glow",
  lamp: "glow",
  looks: "glow",
  swaps: "findings",
  readings: "head",
  job: "head",
  earlier: "head",
};

type Stair = Exclude<Schemas["Stair"]["kind"], "ground">;

/** The panel that each step of the staircase opens. */
export const PANEL_OF_STAIR: Record<Stair, Part> = {
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
