import { useState } from "react";
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { Figure } from "../ui/Figure";
import { GradeMark } from "../ui/GradeMark";
import { answer, press, show } from "../test/providers";
import { cycle, finding, off, shown, staircase, step, trouble, uncertainty } from "../test/report";
import { Findings } from "./Findings";
import { LifeTrace } from "./LifeTrace";
import { NextThing } from "./NextThing";
import { PencilLine } from "./PencilLine";
import { Staircase } from "./Staircase";

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test("a finding is told by word, and its remedy is tried with its changes", () => {
  const onTry = vi.fn();
  show(<Findings findings={[finding]} diagnoses={[]} onTry={onTry} />);
  expect(screen.getByRole("img", { name: "Mind" })).toBeTruthy();
  press(screen.getByRole("button", { name: "Preview: Fit 1.5 kΩ" }));
  expect(onTry).toHaveBeenCalledWith("Fit 1.5 kΩ", { resistor_ohm: 1500 });
});

test("why opens the reason with figure and limit", () => {
  show(<Findings findings={[finding]} diagnoses={[]} />);
  press(screen.getByRole("button", { name: /^why/ }));
  expect(screen.getByText(/Here 12 mA; limit 10 mA/)).toBeTruthy();
});

test("without a way to try, no remedy is offered", () => {
  show(<Findings findings={[finding]} diagnoses={[]} />);
  expect(screen.queryByRole("button", { name: /^Preview/ })).toBeNull();
});

test("a reading that is off stands first with its causes in order, and can be struck", () => {
  const onStrike = vi.fn();
  show(<Findings findings={[finding]} diagnoses={[off]} trouble={trouble} onStrike={onStrike} />);
  const first = screen.getAllByRole("listitem")[0];
  expect(first?.textContent).toContain("Read 400µA. Expected 4mA, from 3.5mA to 4.5mA.");
  const causes = within(screen.getByRole("list", { name: "Likely causes" })).getAllByRole(
    "listitem",
  );
  expect(causes.map((c) => c.textContent)).toEqual([
    "70 % One multiplier band off. It would show 400 µA.",
    "30 % The rail is at 5 V. It would show 400 µA.",
  ]);
  press(screen.getByRole("button", { name: "delete this reading" }));
  expect(onStrike).toHaveBeenCalledWith("r1");
});

test("only the newest reading is judged", () => {
  const newer = { ...off, id: "r2", agrees: true, line: "4 mA agrees." };
  show(<Findings findings={[]} diagnoses={[off, newer]} />);
  expect(screen.getByText("4 mA agrees.")).toBeTruthy();
  expect(screen.queryByText(/400 µA/)).toBeNull();
});

const snapshot = (id: string, label: string, drawn: typeof staircase) => ({
  id,
  label,
  staircase: drawn,
  glow: null,
  rule: null,
  reads: {},
  line: "",
});

const steady = {
  chosen: undefined,
  onChoose: () => undefined,
  snapshots: [snapshot("now", "Steady", staircase)],
  cycle: null,
  runtime: null,
};

test("each step of the staircase opens its part, ground has none", () => {
  const onEdit = vi.fn();
  show(<Staircase {...steady} onEdit={onEdit} />);
  const steps = screen.getAllByRole("button");
  expect(steps.map((s) => s.textContent)).toEqual([
    "Rail22.0 Vfeed",
    "Resistor↓drops 20.0 V4.7 kΩ",
    "LED↓drops 2.00 VRed 5 mm",
  ]);
  steps.forEach(press);
  expect(onEdit.mock.calls.map((c) => c[0] as string)).toEqual(["rail", "resistor", "led"]);
});

test("an assumed figure is drawn in pencil, a measured one is not", () => {
  show(<Staircase {...steady} onEdit={() => undefined} />);
  expect(screen.getByText(/2\.00 V/).dataset.pencil).toBe("true");
  expect(screen.getByText("22.0 V").dataset.pencil).toBe("false");
});

test("the band between lowest and highest rail is drawn around the usual line", () => {
  show(<Staircase {...steady} onEdit={() => undefined} />);
  const paths = [...document.querySelectorAll("path")].map((p) => p.getAttribute("d") ?? "");
  // The band and the line, and a bracket around each fall: a drop, not volts to ground.
  expect(paths).toHaveLength(4);
  expect(paths.every((d) => d.startsWith("M") && !d.includes("NaN"))).toBe(true);
});

test("a figure tells where it came from when it is focused", async () => {
  show(<Figure shown={shown(0.004, "4", "mA", "measured")} />);
  fireEvent.keyDown(document.body, { key: "Tab" });
  screen.getByRole("button").focus();
  await waitFor(() =>
    expect(screen.getByRole("tooltip").textContent).toContain("Measured: made for a test"),
  );
});

test.each(["stop", "mind", "note"] as const)("the grade %s has a shape and a name", (grade) => {
  show(<GradeMark grade={grade} bare />);
  expect(screen.getByRole("img").getAttribute("aria-label")?.toLowerCase()).toBe(grade);
  expect(document.querySelectorAll("path")).toHaveLength(2);
});

test("the next thing says meter, points, state and what to expect", () => {
  show(<NextThing positionId="p" step={step} onRead={() => undefined} />);
  const text = screen.getByRole("region", { name: "Next thing on the bench" }).textContent ?? "";
  for (const part of [step.act, step.meter, step.points, step.state, step.expect, step.caution]) {
    expect(text).toContain(part);
  }
});

test("a reading is sent with what it is of, and the field is empty again", async () => {
  const onRead = vi.fn<(reading: object) => void>();
  show(<NextThing positionId="p" step={step} onRead={onRead} />);
  const field = screen.getByLabelText<HTMLInputElement>("Reading");
  fireEvent.change(field, { target: { value: "21.8V" } });
  fireEvent.submit(field.form as HTMLFormElement);
  await waitFor(() => expect(onRead).toHaveBeenCalled());
  expect(onRead.mock.calls[0]?.[0]).toMatchObject({
    what: "rail_usual",
    text: "21.8V",
    burden: "",
  });
  await waitFor(() => expect(field.value).toBe(""));
});

test("one press keeps what is seen, and a second one straight after it keeps nothing more", async () => {
  answer({});
  const onRead = vi.fn<(reading: object) => void>();
  show(<NextThing positionId="p" step={{ ...step, reading: "look" }} onRead={onRead} />);
  const dark = await screen.findByRole("button", { name: "Dark" });
  press(dark);
  press(dark);
  expect(onRead).toHaveBeenCalledTimes(1);
  expect(onRead.mock.calls[0]?.[0]).toMatchObject({ what: "look", text: "dark", state: "on" });
  expect(screen.queryByLabelText("Reading")).toBeNull();
});

test("a look that is off is said in words, without a band", () => {
  const seen = shown(0, "Dark", "");
  const lit = shown(1, "Lit as it should be", "");
  const line = "Seen: dark. Switched on, it should be lit.";
  const dark = { ...off, kind: "look", reading: seen, expected: lit, low: lit, high: lit, line };
  show(<Findings findings={[]} diagnoses={[dark]} />);
  expect(screen.getByText(line)).toBeTruthy();
});

test("a typed reading outlives a reload", () => {
  const first = show(<NextThing positionId="p" step={step} onRead={() => undefined} />);
  fireEvent.change(screen.getByLabelText("Reading"), { target: { value: "21.8V" } });
  first.unmount();
  show(<NextThing positionId="p" step={step} onRead={() => undefined} />);
  expect(screen.getByLabelText<HTMLInputElement>("Reading").value).toBe("21.8V");
});

test("a current is asked for with what the meter adds", () => {
  show(
    <NextThing positionId="p" step={{ ...step, reading: "current" }} onRead={() => undefined} />,
  );
  expect(screen.getByLabelText<HTMLInputElement>("Meter adds").value).toBe("5R");
});

test("where there is nothing to read there is no field", () => {
  show(<NextThing positionId="p" step={{ ...step, reading: null }} onRead={() => undefined} />);
  expect(screen.queryByLabelText("Reading")).toBeNull();
});

test("the pencil line opens every figure behind the result", async () => {
  show(<PencilLine uncertainty={uncertainty} />);
  press(screen.getByRole("button", { name: /most of it from the usual rail/ }));
  const rows = await screen.findAllByRole("row");
  expect(rows.map((r) => r.textContent)).toEqual([
    "FigureValueFromMoves the currentWrong, it costs",
    "Usual rail22 Vassumed±500 µAthe LED: 24 mA of 20 mA",
    "Resistor's tolerance±5 %marked±200 µA",
  ]);
});

test("the staircase follows the instant chosen, and a cycle is drawn as curves with their units", () => {
  const later = { ...staircase, stairs: staircase.stairs.map((s) => ({ ...s, text: "1.00 V" })) };
  const snapshots = [
    snapshot("crest", "Crest", staircase),
    { ...snapshot("back", "Reverse crest", later), line: "Off: 1 mA in the LED." },
  ];
  function Chosen() {
    const [chosen, choose] = useState<string>();
    const rest = { snapshots, cycle, runtime: null, onEdit: () => undefined };
    return <Staircase {...rest} chosen={chosen} onChoose={choose} />;
  }
  show(<Chosen />);
  expect(screen.getByText("22.0 V")).toBeTruthy();
  fireEvent.click(screen.getByRole("radio", { name: "Reverse crest" }));
  expect(screen.queryByText("22.0 V")).toBeNull();
  expect(screen.getByText("Off: 1 mA in the LED.")).toBeTruthy();
  fireEvent.click(screen.getByRole("radio", { name: "Over the cycle" }));
  const drawn = screen.getByRole("img", { name: "LED current over one cycle" });
  expect(drawn.querySelectorAll("path")).toHaveLength(3);
  expect(drawn.textContent).toContain("mA");
  expect(drawn.textContent).toContain("degrees");
});

test("a battery's life says hours after and before the swap", () => {
  const points = [
    { hours: 0, volts: 3.2, light: 1 },
    { hours: 40, volts: 2.5, light: 0.2 },
  ];
  show(
    <LifeTrace
      runtime={{
        line: "Counted with this lamp lit all the time.",
        led: shown(38, "38", "h"),
        lamp: shown(7, "7", "h"),
        led_curve: points,
        lamp_curve: points,
      }}
    />,
  );
  expect(screen.getByText("38 h")).toBeTruthy();
  expect(screen.getByText("7 h")).toBeTruthy();
  expect(screen.getByText(/Counted with this lamp lit/)).toBeTruthy();
});

test("the next thing says what each answer would mean", () => {
  const meanings = [{ answer: "next to nothing", means: "it is AC" }];
  show(<NextThing positionId="p1" step={{ ...step, meanings }} onRead={() => Promise.resolve()} />);
  expect(screen.getByText("next to nothing").closest("li")?.textContent).toContain("it is AC");
});

test("a walk of several readings is one form with a field for each", async () => {
  const onRead = vi.fn();
  const walk = { ...step, reading: "supply_volts", chain: ["supply_volts", "led_volts"] };
  show(<NextThing positionId="p1" step={walk} onRead={onRead} />);
  const fields = await screen.findAllByRole<HTMLInputElement>("textbox");
  expect(fields).toHaveLength(2);
  fireEvent.change(fields[0] as HTMLInputElement, { target: { value: "12V" } });
  fireEvent.change(fields[1] as HTMLInputElement, { target: { value: "1.9V" } });
  press(screen.getByRole("button", { name: "Keep these readings" }));
  await waitFor(() => expect(onRead).toHaveBeenCalledTimes(2));
  expect(onRead.mock.calls.map(([r]) => [r.what, r.text])).toEqual([
    ["supply_volts", "12V"],
    ["led_volts", "1.9V"],
  ]);
});

test("a reading of another circuit is told as no verdict", () => {
  const since = "1.2 kΩ was fitted, now 3.3 kΩ";
  const gone = {
    ...off,
    agrees: true,
    since,
    line: `10 mA was read on another circuit: ${since}.`,
  };
  show(<Findings findings={[]} diagnoses={[gone]} />);
  expect(screen.getByText(/1.2 kΩ was fitted, now 3.3 kΩ/)).toBeTruthy();
  expect(screen.queryByText("Agrees")).toBeNull();
});
