import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import type { Schemas } from "../../api/client";
import { answer, show } from "../../test/providers";
import { stillWide } from "../../test/still";
import { DimRule } from "./DimRule";
import { DimTable } from "./DimTable";
import { DotCard } from "./DotCard";
import { SayHow } from "./SayHow";

beforeEach(() => {
  stillWide();
  answer({});
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const row = (ohm: number, told: boolean) => ({
  ohm,
  text: `${ohm} Ω`,
  current: `${ohm} c`,
  light: `${ohm} l`,
  told,
});

const said: Schemas["Dimming"] = {
  problem: "",
  rows: [row(470, false), row(1000, true), row(2200, true), row(4700, true), row(47000, true)],
  trials: [
    {
      id: "",
      ohm: 470,
      text: "470 Ω",
      verdict: "Too bright",
      light: "as it was",
      at: "",
    },
    { id: "t", ohm: 1000, text: "1 kΩ", verdict: "Too dim", light: "0.4 ×", at: "" },
  ],
  low_ohm: 900,
  high_ohm: 4000,
  next: "2.2 kΩ",
  next_ohm: 2200,
  right: "",
  line: "It lies between.",
  step: "",
  amps: null,
};

test("the rule says what was tried and where the light wanted lies", () => {
  show(<DimRule said={said} />);
  expect(screen.getByRole("img").getAttribute("aria-label")).toBe(
    "470 Ω: too bright, 1 kΩ: too dim. It lies between.",
  );
});

test("what is fitted cannot be deleted, a trial can; only values near what is wanted are listed", () => {
  const onStrike = vi.fn(() => Promise.resolve());
  show(<DimTable said={said} onStrike={onStrike} />);
  const buttons = screen.getAllByRole("button");
  expect(buttons.length).toBe(1);
  fireEvent.click(screen.getByRole("button", { name: "Delete the trial with 1 kΩ" }));
  expect(onStrike).toHaveBeenCalledWith("t");
  expect(screen.queryByText("47000 Ω")).toBeNull();
  expect(screen.getByText("2200 l")).toBeTruthy();
});

test("a verdict is of the resistor in the field, and a second press while it is kept does nothing", async () => {
  let keep: (value: unknown) => void = () => undefined;
  const onSay = vi.fn(() => new Promise((done) => (keep = done)));
  show(<SayHow draft="dim.with" next="2.2 kΩ" onSay={onSay} />);
  const bright = await screen.findByRole("button", { name: "Too bright" });
  fireEvent.change(screen.getByLabelText("With this in it"), { target: { value: "3k3" } });
  fireEvent.click(bright);
  fireEvent.click(bright);
  const from = { draft: "dim.with", text: "3k3", label: "With this in it" };
  expect(onSay.mock.calls).toEqual([["3k3", "bright", from]]);
  keep(undefined);
  await waitFor(() => expect(bright.hasAttribute("disabled")).toBe(false));
});

test("a screen of the dot card is a look at the LED as it is fitted", async () => {
  const onSay = vi.fn(() => Promise.resolve());
  show(<DotCard fitted="470 Ω" onSay={onSay} />);
  fireEvent.click(await screen.findByRole("button", { name: "25 %" }));
  expect(onSay).toHaveBeenCalledWith("470 Ω", "right", 0.25);
});
