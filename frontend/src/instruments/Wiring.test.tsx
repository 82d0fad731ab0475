/** A wiring picture is pressed, walked with the arrows, and shows what each part carries. */
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";

import type { Schemas } from "../api/client";
import Wiring from "./Wiring";

afterEach(cleanup);

const part = (id: string, left: number, row: number, more: Partial<Schemas["DrawnPart"]> = {}) => ({
  id,
  symbol: "resistor" as const,
  name: [id],
  value: "",
  opens: "",
  pencil: false,
  shape: "M-22 -8H22V8H-22Z",
  turned: false,
  left,
  right: left + 1,
  row,
  base: null,
  ...more,
});

/** A feed, a resistor and an LED in a row; a resistor across the LED on the row under it. */
const drawing: Schemas["Drawing"] = {
  parts: [
    part("led", 1, 0, { opens: "led", name: ["LED"] }),
    part("ballast", 0, 0, { opens: "ohm", value: "470 Ω", pencil: true }),
    part("across", 1, 1, { value: "1 kΩ" }),
    part("feed", 0, 2, { right: 2, opens: "volts", value: "12 V" }),
  ],
  nodes: [
    { id: "in", across: 0, rows: [0, 2], dots: [] },
    { id: "mid", across: 1, rows: [0, 1], dots: [0] },
    { id: "0", across: 2, rows: [0, 1, 2], dots: [1] },
  ],
};

test("a press on a part says which; what has no field is only looked at", () => {
  const onPress = vi.fn();
  render(<Wiring drawing={drawing} label="Ours" onPress={onPress} />);
  fireEvent.click(screen.getByRole("button", { name: "ballast 470 Ω" }));
  expect(onPress).toHaveBeenLastCalledWith(
    expect.objectContaining({ id: "ballast", opens: "ohm" }),
  );
  expect(screen.queryByRole("button", { name: /^across/ })).toBeNull();
  expect(screen.getByRole("img", { name: "across 1 kΩ" })).toBeTruthy();
});

test("it is one stop of the Tab key; arrows follow the current, Enter presses", () => {
  const onPress = vi.fn();
  render(<Wiring drawing={drawing} label="Ours" onPress={onPress} />);
  const stops = () =>
    screen.getAllByRole("button").flatMap((b) => (b.tabIndex === 0 ? [b.dataset.part] : []));
  expect(stops()).toEqual(["ballast"]);
  const first = screen.getByRole("button", { name: /^ballast/ });
  first.focus();
  fireEvent.keyDown(first, { key: "End" });
  expect(stops()).toEqual(["led"]);
  expect(document.activeElement?.getAttribute("data-part")).toBe("led");
  fireEvent.keyDown(document.activeElement ?? first, { key: "Enter" });
  expect(onPress).toHaveBeenLastCalledWith(expect.objectContaining({ id: "led" }));
  fireEvent.keyDown(document.activeElement ?? first, { key: "ArrowRight" });
  expect(stops()).toEqual(["led"]);
  fireEvent.keyDown(document.activeElement ?? first, { key: "ArrowLeft" });
  expect(stops()).toEqual(["feed"]);
});

test("a state writes what each part carries at it, and a contact as it stands then", () => {
  const reads = [{ part: "ballast", volts: "4.7 V", amps: "10 mA", shape: "M-22 0H22" }];
  const { container } = render(<Wiring drawing={drawing} label="Ours" reads={reads} />);
  // Without onPress no part is a button.
  expect(screen.queryAllByRole("button")).toEqual([]);
  expect(screen.getByRole("img", { name: "ballast 470 Ω 4.7 V 10 mA" })).toBeTruthy();
  const shape = container.querySelector('[data-part="ballast"] > path');
  expect(shape?.getAttribute("d")).toBe("M-22 0H22");
  expect(container.querySelector('text[data-pencil="true"]')?.textContent).toBe("470 Ω");
});

test("wires end where parts do: a node runs over the rows on which something meets it", () => {
  const { container } = render(<Wiring drawing={drawing} label="Ours" />);
  const wire = (id: string) => container.querySelector(`[data-node="${id}"] > path`);
  const [, x, top, bottom] = /M([\d.]+) ([\d.]+)V([\d.]+)/.exec(
    wire("0")?.getAttribute("d") ?? "",
  ) ?? ["", "", "", ""];
  const leads = [...container.querySelectorAll('[data-leads="across"] > path')];
  // The lead to the right of the resistor across ends on the node's line, between its first and its last row.
  const end = /L([\d.]+) ([\d.]+)$/.exec(leads[1]?.getAttribute("d") ?? "");
  expect(end?.[1]).toBe(x);
  expect(Number(end?.[2])).toBeGreaterThan(Number(top));
  expect(Number(end?.[2])).toBeLessThan(Number(bottom));
});

test("leads stand on their points, and a suspected part bears the numbers of its causes", () => {
  const probes = { red: { across: 0, row: 0 }, black: { across: 1, row: 0 }, in_series: false };
  const { container, rerender } = render(
    <Wiring
      drawing={drawing}
      label="Ours"
      probes={probes}
      suspects={[["ballast"], ["led", "ballast"]]}
      onPress={vi.fn()}
    />,
  );
  expect(screen.getByRole("button", { name: "ballast 470 Ω, cause 1 and 2" })).toBeTruthy();
  expect(screen.getByRole("button", { name: "LED, cause 2" })).toBeTruthy();
  const [red, black] = screen
    .getByRole("img", { name: /red and black lead/ })
    .querySelectorAll("circle");
  const wire = container.querySelector('[data-leads="ballast"] path')?.getAttribute("d") ?? "";
  expect(wire.startsWith(`M${red?.getAttribute("cx")} ${red?.getAttribute("cy")}L`)).toBe(true);
  expect(Number(black?.getAttribute("cx"))).toBeGreaterThan(Number(red?.getAttribute("cx")));
  rerender(
    <Wiring
      drawing={drawing}
      label="Ours"
      probes={{ ...probes, in_series: true }}
      onPress={vi.fn()}
    />,
  );
  expect(screen.getByRole("img", { name: /open the loop/ })).toBeTruthy();
});
