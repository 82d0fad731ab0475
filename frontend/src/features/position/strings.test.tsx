import { fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import type { Schemas } from "../../api/client";
import { RailBudget } from "../../instruments/RailBudget";
import { answer, forget, leave, savedAt, show, showRecord } from "../../test/providers";
import { shown } from "../../test/report";
import { stillWide } from "../../test/still";
import { BesidePart } from "./parts/BesidePart";
import type { Position } from "./parts/part";
import { Strings } from "./Strings";

let asked: ReturnType<typeof answer>;

beforeEach(() => {
  stillWide();
  forget();
  asked = answer({ "/api/echo": { echo: "", error: "" }, "/api/record": {} });
});
afterEach(() => {
  leave();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

const mA = (value: number) => shown(value * 1e-3, String(value), "mA");

const lamp = (id: string, before: number, after: number, lit: "always" | "single" = "always") => ({
  id,
  name: `Lamp ${id}`,
  lit,
  before: mA(before),
  after: mA(after),
  line: `${after} mA to ${after} mA from the lowest level to the highest`,
});

const budget: Schemas["RailBudget"] = {
  taken: [
    lamp("a", 300, 10),
    lamp("b", 200, 30),
    lamp("c", 80, 5, "single"),
    lamp("d", 100, 2, "single"),
  ],
  others: mA(100),
  before: mA(700),
  after: mA(145),
  usual_before: mA(700),
  usual_after: mA(145),
  limits: [{ id: "fuse", label: "Fuse", amps: mA(1000) }],
  hours_before: shown(8, "8", "h"),
  hours_after: shown(60, "60", "h"),
  hours_line: "Counted with both lamps.",
  findings: [
    {
      id: "rail-over-fuse",
      grade: "mind",
      message: "All that may be lit takes 900 mA.",
      figure: "900 mA",
      limit: "750 mA",
      why: "Three quarters at most.",
      remedies: [],
      first: "",
    },
  ],
  line: "4 lamps: 145 mA together at the usual level, 700 mA before.",
  origin: "solved together",
  scale_a: 1,
  left_out: ["Lamp e: it cannot be worked out"],
};

const bars = (svg: Element) =>
  [...svg.querySelectorAll("rect")].map((r) => Math.round(Number(r.getAttribute("width"))));

test("a budget is drawn to one scale: what each lamp takes before, after, and after once more enlarged", () => {
  show(<RailBudget budget={budget} name="Main" />);
  const svg = screen.getByRole("img", { name: budget.line });
  // 1.04 A across 1200 px before and after; 145 mA across all of it where it is enlarged. Of the two lit one at
  // a time the thirstier alone: d before, c after.
  const to = (amps: number) => Math.round((amps / 1040) * 1200);
  const large = (amps: number) => Math.round((amps / 145) * 1200);
  expect(bars(svg)).toEqual([
    ...[300, 200, 100, 100].map(to),
    ...[10, 30, 5, 100].map(to),
    ...[10, 30, 5, 100].map(large),
  ]);
  expect(screen.getByText("Fuse 1000 mA")).toBeTruthy();
  expect(Number(svg.querySelector("line")?.getAttribute("x1"))).toBeCloseTo(1000 * (1200 / 1040));
});

test("a budget says in words what it draws, what it minds and what it leaves out", () => {
  show(<RailBudget budget={budget} name="Main" />);
  const figure = screen.getByRole("figure", { name: "What hangs on Main" });
  expect(figure.textContent).toContain("145mA together after the swaps, 700mA before.");
  expect(figure.textContent).toContain("The battery lasts 60h, 8h before.");
  expect(screen.getByRole("img", { name: "Mind" })).toBeTruthy();
  expect(figure.textContent).toContain("Lamp c, one at a time: 5mA, 80mA before");
  expect(figure.textContent).toContain("What else hangs on it: 100mA.");
  expect(figure.textContent).toContain("Not counted: Lamp e: it cannot be worked out");
});

const position = {
  id: "p1",
  beside: {
    k1: {
      place: 0,
      name: "Night",
      led_id: "blue-3-diffused",
      vf: "",
      drive: "2mA",
      in_series: 2,
      count: 1,
      resistor: "",
    },
  },
} as unknown as Position;

test("a field of another string is saved under its own key, with what was seen there", async () => {
  showRecord(<BesidePart position={position} />, { id: "p1", values: position });
  const drive = await screen.findByLabelText("Drive wanted in it");
  expect((drive as HTMLInputElement).value).toBe("2mA");
  fireEvent.change(drive, { target: { value: "3mA" } });
  fireEvent.blur(drive);
  await waitFor(() =>
    expect(savedAt(asked, "/api/record")).toEqual([
      { beside: { k1: { drive: "3mA" } }, was: { beside: { k1: { drive: "2mA" } } } },
    ]),
  );
});

test("a string is added and struck at a press", async () => {
  showRecord(<BesidePart position={position} />, { id: "p1", values: position });
  fireEvent.click(await screen.findByRole("button", { name: "Add a string of other LEDs" }));
  // It has the focus, and its list is open.
  const made = await screen.findByRole("combobox", { name: "LED of string 3" });
  expect(document.activeElement).toBe(made);
  fireEvent.keyDown(made, { key: "Escape" });
  fireEvent.click(await screen.findByRole("button", { name: "Delete string 2" }));
  await waitFor(() => expect(savedAt(asked, "/api/record")).toHaveLength(2));
  const [added, gone] = savedAt(asked, "/api/record") as { beside: Record<string, unknown> }[];
  expect(Object.values(added?.beside ?? {})).toEqual([{ place: 1 }]);
  expect(gone).toEqual({ beside: { k1: null } });
});

const current = (lampMa: number, strings: Schemas["OtherString"][] = []) =>
  ({ usual: mA(4), lamp: mA(lampMa), strings }) as unknown as Parameters<
    typeof Strings
  >[0]["current"];

test("one string alone says nothing of strings", () => {
  const { container } = show(<Strings current={current(4)} />);
  expect(container.textContent).toBe("");
});

test("several strings say what one carries and what all take, each other kind by its name", () => {
  const other = {
    name: "Night",
    count: 2,
    usual: mA(1),
    most: mA(2),
    each: shown(4700, "4.7", "kΩ"),
  };
  const { container } = show(<Strings current={current(10, [other])} />);
  expect(container.textContent).toBe(
    "One string 4mA, all of them 10mA. Night: 2 × 1mA, at the most 2mA, through 4.7kΩ.",
  );
});

test.each([
  [2, shown(3.1, "3.1", "V"), "Each of its 2 strings 7mA, 3.1V over each LED."],
  [1, shown(3.1, "3.1", "V"), "Its string 7mA, 3.1V over each LED."],
  [2, null, "Each of its 2 strings 7mA."],
])("of a swept part with %d strings it says what each carries", (strings, volts, text) => {
  const inside = { strings, amps: mA(7), volts };
  const { container } = show(<Strings current={{ ...current(4), inside }} />);
  expect(container.textContent).toBe(text);
});

test("a swept part beside other strings is told with them", () => {
  const inside = { strings: 2, amps: mA(7), volts: null };
  const { container } = show(<Strings current={{ ...current(10), inside }} />);
  expect(container.textContent).toBe("One string 4mA, all of them 10mA.Each of its 2 strings 7mA.");
});
