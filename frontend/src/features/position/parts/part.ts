import type { Changes, Schemas } from "../../../api/client";

/** A part of the position: a section of one of the panels. */
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
  rectification: "Rectification",
  led: "What goes into the holder",
  resistor: "Series resistor",
  lamp: "Old lamp",
  looks: "How it is looked at",
  swaps: "Options, the best first",
  readings: "Readings",
  job: "Build and card",
  earlier: "History",
};

/** The panels in the order of the work, each as it is called in the head, with its sections. */
export const PANELS: readonly (readonly [string, readonly [Part, ...Part[]]])[] = [
  ["Supply", ["rail", "driver", "rectification"]],
  ["LED and resistor", ["led", "resistor"]],
  ["Old lamp and looks", ["lamp", "looks"]],
  ["Options", ["swaps"]],
  ["Readings", ["readings"]],
  ["Build and card", ["job"]],
  ["History", ["earlier"]],
];

const PARTS = PANELS.flatMap(([, parts]) => parts);

/** The part of this name. */
export const partNamed = (name: string): Part | undefined => PARTS.find((part) => part === name);

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
