/** What is drawn lies where the figures say, in the colour of what it says. */
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import type { Report } from "../api/client";
import { TakeReading } from "../features/readings/TakeReading";
import { answer, forget, leave, savedAt, show } from "../test/providers";
import { cycle, staircase, step } from "../test/report";
import { stillWide } from "../test/still";
import { Bands } from "./Bands";
import { CycleTrace } from "./CycleTrace";
import { NextThing } from "./NextThing";
import { SlideRule } from "./SlideRule";
import { Staircase } from "./Staircase";

beforeEach(() => {
  stillWide();
  forget();
});
afterEach(() => {
  cleanup();
  leave();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

const number = (of: Element | null | undefined, name: string) => Number(of?.getAttribute(name));

/** A path's corners. */
const corners = (path: Element | undefined) =>
  [...(path?.getAttribute("d") ?? "").matchAll(/(-?[\d.]+),(-?[\d.]+)/g)].map(
    ([, x, y]) => [Number(x), Number(y)] as const,
  );

/** From a value to its pixel, by two labels of an axis. */
function axis(labels: readonly (readonly [number, number])[]) {
  const [first, last] = [labels[0], labels[labels.length - 1]];
  if (!first || !last) throw new Error("an axis without labels");
  const [v0, p0] = first;
  const [v1, p1] = last;
  return (value: number) => p0 + ((value - v0) / (v1 - v0)) * (p1 - p0);
}

const ZONES = [
  ["over", 100, 1000, "var(--over-soft)"],
  ["drive", 1000, 2000, "var(--drive-soft)"],
  ["fits", 2000, 8000, "var(--fits-soft)"],
  ["dim", 8000, 10_000, "var(--dim-soft)"],
] as const;

const tick = (ohm: number) => ({ at_ohm: ohm, text: `${ohm} Ω`, weight: 2 as const });
const rule = {
  low_ohm: 100,
  high_ohm: 10_000,
  cursor_ohm: 2200,
  values: [{ ohm: 2200, text: "2.2 kΩ", zone: "fits", in_drawer: false }],
  zones: ZONES.map(([id, from_ohm, to_ohm]) => ({ id, from_ohm, to_ohm, label: id })),
  hot: { id: "hot", from_ohm: 100, to_ohm: 500, label: "too hot" },
  scales: [
    { id: "ohm", label: "Each resistor", ticks: [tick(200), tick(5000)] },
    { id: "power", label: "In each part", ticks: [] },
  ],
} satisfies Report["rule"];

test("zones and the hot stretch lie on the rule where they begin and end, each in its colour", () => {
  const { container } = show(
    <SlideRule rule={rule} cursor={2200} reads={{}} onMove={() => undefined} />,
  );
  // A log scale through two of its own ticks.
  const [first, last] = [...container.querySelectorAll("text")]
    .filter((t) => / Ω$/.test(t.textContent ?? ""))
    .map((t) => number(t, "x"));
  if (first === undefined || last === undefined) throw new Error("no ticks");
  const at = (ohm: number) => first + (Math.log(ohm / 200) / Math.log(25)) * (last - first);
  const bands = [...container.querySelectorAll("rect")];
  for (const [id, from, to, fill] of ZONES) {
    const of = bands.filter((r) => r.getAttribute("fill") === fill);
    expect(of, id).toHaveLength(2);
    for (const band of of) {
      expect(number(band, "x")).toBeCloseTo(at(from), 3);
      expect(number(band, "x") + number(band, "width")).toBeCloseTo(at(to), 3);
    }
  }
  const hot = container.querySelector('line[stroke="var(--stop)"]');
  expect(number(hot, "x1")).toBeCloseTo(at(100), 3);
  expect(number(hot, "x2")).toBeCloseTo(at(500), 3);
  expect(screen.getByRole("slider").getAttribute("aria-valuetext")).toBe("2.2 kΩ, fits");
});

test("the staircase's line stands at the usual level and its band from lowest to highest", () => {
  const { container } = show(
    <Staircase
      chosen={undefined}
      onChoose={() => undefined}
      onEdit={() => undefined}
      cycle={null}
      runtime={null}
      snapshots={[
        { id: "now", label: "Steady", staircase, glow: null, rule: null, reads: {}, line: "" },
      ]}
    />,
  );
  // The labels are beside the drawing, at a percentage of its height.
  const high = Number(
    container.querySelector("svg[preserveAspectRatio]")?.getAttribute("viewBox")?.split(" ")[3],
  );
  const labels = [...container.querySelectorAll<HTMLElement>("span[style*=top]")].map(
    (t) =>
      [
        Number.parseFloat(t.textContent ?? ""),
        (Number.parseFloat(t.style.top) / 100) * high,
      ] as const,
  );
  const y = axis(labels);
  const [band, usual] = [...container.querySelectorAll("path")];
  expect(band?.getAttribute("fill")).toBe("var(--mark)");
  expect(usual?.getAttribute("stroke")).toBe("var(--ink)");
  const line = corners(usual).map(([, at]) => at);
  expect(line[0]).toBeCloseTo(y(22), 2);
  expect(line).toContainEqual(expect.closeTo(y(2), 2));
  expect(line[line.length - 1]).toBeCloseTo(y(0), 2);
  const edges = corners(band).map(([, at]) => at);
  expect(Math.min(...edges)).toBeCloseTo(y(24), 2);
  expect(edges).toContainEqual(expect.closeTo(y(20), 2));
  expect(edges.some((at) => Math.abs(at - y(22)) < 0.5)).toBe(false);
  // The resistor's fall is the one that the rule turns, from the rail down to the LED.
  const fall = container.querySelector('line[stroke="var(--mark)"]');
  expect([number(fall, "y1"), number(fall, "y2")]).toEqual([
    expect.closeTo(y(22), 2),
    expect.closeTo(y(2), 2),
  ]);
});

test("a cycle's curves pass through their figures, the usual one in ink", () => {
  const { container } = show(<CycleTrace cycle={cycle} />);
  const drawn = container.querySelector('svg[role="img"]');
  const texts = [...(drawn?.querySelectorAll("text") ?? [])];
  const y = axis(
    texts
      .filter(
        (t) => t.getAttribute("text-anchor") === "end" && /^[\d.]+$/.test(t.textContent ?? ""),
      )
      .map((t) => [Number(t.textContent), number(t, "y") - 4] as const),
  );
  const x = axis(
    texts
      .filter((t) => t.getAttribute("text-anchor") === "middle")
      .map((t) => [Number(t.textContent), number(t, "x")] as const),
  );
  const paths = [...(drawn?.querySelectorAll("path") ?? [])];
  expect(paths.map((p) => p.getAttribute("stroke"))).toEqual([
    "var(--pencil)",
    "var(--ink)",
    "var(--mark)",
  ]);
  paths.forEach((path, k) => {
    const amps = cycle.amps[k] ?? [];
    expect(corners(path)).toEqual(
      amps.map((a, n) => [
        expect.closeTo(x(cycle.degrees[n] ?? 0), 2),
        expect.closeTo(y(a * 1e3), 2),
      ]),
    );
  });
});

test("a current is sent with what the meter adds and what it was set to", async () => {
  const onRead = vi.fn<(reading: object) => Promise<void>>(async () => undefined);
  show(<NextThing positionId="p" step={{ ...step, reading: "current" }} onRead={onRead} />);
  const field = screen.getByLabelText<HTMLInputElement>("Reading");
  fireEvent.change(field, { target: { value: "4.1mA" } });
  fireEvent.change(screen.getByLabelText("Meter adds"), { target: { value: "2R2" } });
  fireEvent.submit(field.form as HTMLFormElement);
  await waitFor(() => expect(onRead).toHaveBeenCalledOnce());
  expect(onRead.mock.calls[0]?.[0]).toMatchObject({
    what: "current",
    text: "4.1mA",
    burden: "2R2",
    note: step.meter,
  });
});

test("a reading before the swap is sent with its meter and its note", async () => {
  const key = "0b0c7a52-6f53-4a10-9a53-0d8c1b8f7f02";
  vi.stubGlobal("crypto", { randomUUID: () => key });
  const path = `/api/readings/before/${key}`;
  const asked = answer({ [path]: {} });
  show(<TakeReading id="p1" />);
  fireEvent.click(await screen.findByRole("radio", { name: "DC amps" }));
  const type = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  type("Reading", "44mA");
  type("Meter adds", "0.8R");
  type("Note", "200 mA range");
  fireEvent.submit(screen.getByRole("form", { name: "Take a reading" }));
  await waitFor(() => expect(savedAt(asked, path)).toHaveLength(1));
  expect(savedAt(asked, path)).toMatchObject([
    { function: "dc_amps", text: "44mA", meter: "0.8R", note: "200 mA range" },
  ]);
});

test("a resistor's bands are drawn in their order and paint, the last one apart, and said in words", () => {
  show(<Bands marks={{ bands: ["yellow", "violet", "red", "gold"], chip: "472", code: "" }} />);
  const drawn = screen.getByRole("img", { name: "Bands: yellow, violet, red, gold" });
  const [, ...bands] = drawn.querySelectorAll("rect");
  expect(bands.map((b) => b.getAttribute("fill"))).toEqual([
    "#f2d21a",
    "#7a3fa0",
    "#c3241c",
    "#b8913a",
  ]);
  const x = bands.map((b) => number(b, "x"));
  const gaps = x.slice(1).map((v, n) => v - (x[n] ?? 0));
  expect(gaps[0]).toBe(gaps[1]);
  expect(gaps[2]).toBeGreaterThan(gaps[1] ?? 0);
  expect(screen.getByText("yellow, violet, red, gold; on a chip “472”")).toBeTruthy();
});
