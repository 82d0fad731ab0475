import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { answer, forget, leave, press, savedAt, show } from "../../test/providers";
import { BenchView } from "./BenchView";
import { wide } from "../../test/still";

const lamp = {
  id: "p1",
  name: "Dial",
  stage: "sizing",
  rail: "Main, 12 V",
  glow_colour: "#ff8800",
  glow_lightness: 60,
  grade: "stop",
  line: "It will not light.",
  next_act: "Read the rail",
  fresh: true,
};
const bench = {
  equipment: [
    { id: "e1", name: "Tide gauge", maker_model: "drum recorder", positions: [lamp], lights: [] },
    { id: "e2", name: "Fog bell", maker_model: "", positions: [], lights: [] },
  ],
  steps: { undo: { id: 7, label: "delete Barograph" }, redo: null },
};
beforeEach(() => {
  forget();
  vi.stubGlobal("matchMedia", wide);
});
afterEach(() => {
  leave();
  vi.unstubAllGlobals();
});

function open(more: Record<string, unknown> = {}) {
  const asked = answer({ "/api/bench": bench, ...more });
  show(<BenchView />);
  return asked;
}

test("every item shows its lamps with stage, gravest grade and next thing", async () => {
  open();
  const link = await screen.findByRole("link", { name: /Dial/ });
  await waitFor(() => expect(link.textContent).toContain("Sizing. Next: Read the rail"));
  expect(within(link).getByRole("img", { name: "Stop" })).toBeTruthy();
  expect(screen.getByText("No lamps yet")).toBeTruthy();
});

test("undo says what it would undo, redo is off where there is nothing", async () => {
  open();
  const undo = await screen.findByRole("button", { name: "Undo delete Barograph" });
  expect(undo.hasAttribute("data-disabled")).toBe(false);
  expect(screen.getByRole("button", { name: "Redo" }).hasAttribute("data-disabled")).toBe(true);
});

test("the first item cannot go up, the last cannot go down", async () => {
  open();
  press(await screen.findByRole("button", { name: "Arrange" }));
  const up = await screen.findByRole("button", { name: "Move Tide gauge up" });
  expect(up.hasAttribute("data-disabled")).toBe(true);
  expect(
    screen.getByRole("button", { name: "Move Fog bell down" }).hasAttribute("data-disabled"),
  ).toBe(true);
});

test.each([
  ["Move Fog bell up", { key: "e2", before: "e1" }],
  ["Move Tide gauge down", { key: "e1", before: null }],
])("%s says before which it comes", async (name, body) => {
  const asked = open({ "/api/equipment/move": { status: 204 } });
  press(await screen.findByRole("button", { name: "Arrange" }));
  fireEvent.click(await screen.findByRole("button", { name }));
  await waitFor(() => expect(savedAt(asked, "/api/equipment/move")).toEqual([body]));
});

const done = { ...lamp, id: "p2", name: "Tail", stage: "done", grade: "mind" };
const many = {
  ...bench,
  equipment: [
    ...bench.equipment,
    { id: "e3", name: "Lantern", maker_model: "", positions: [done], lights: [] },
  ],
};

test("one field finds items by their lamps, rails and next things, wherever they stand", async () => {
  open({ "/api/bench": many });
  await screen.findByRole("link", { name: "Fog bell" });
  const names = () =>
    screen
      .queryAllByRole("link", { name: /^(Tide gauge|Fog bell|Lantern)$/ })
      .map((l) => l.textContent);
  fireEvent.change(screen.getByRole("searchbox", { name: "Find" }), {
    target: { value: "12 v dial" },
  });
  expect(names()).toEqual(["Tide gauge"]);
  fireEvent.change(screen.getByRole("searchbox"), { target: { value: "lantern" } });
  expect(names()).toEqual(["Lantern"]);
  fireEvent.change(screen.getByRole("searchbox"), { target: { value: "capstan" } });
  expect(names()).toEqual([]);
  expect(await screen.findByText(/^Nothing has “capstan”/)).toBeTruthy();
});

test("what is asked for before the bench has come is gone to when it comes", async () => {
  let come: (bench: object) => void = () => {};
  answer({ "/api/bench": new Promise((known) => (come = known)) });
  show(<BenchView />);
  const find = await screen.findByRole("searchbox", { name: "Find" });
  find.focus();
  fireEvent.change(find, { target: { value: "lantern" } });
  fireEvent.keyDown(find, { key: "Enter" });
  come(many);
  const link = await screen.findByRole("link", { name: "Lantern" });
  await waitFor(() => expect(document.activeElement).toBe(link));
});

test("finished items fold away; a remark that was accepted is no warning", async () => {
  open({ "/api/bench": many });
  const fold = await screen.findByRole("button", { name: "Show the archive (1)" });
  expect(screen.queryByRole("link", { name: "Lantern" })).toBeNull();
  press(fold);
  const tail = screen.getByRole("link", { name: /^Tail/ });
  expect(tail.textContent).toContain("Done, its remark accepted.");
  expect(within(tail).queryByRole("img")).toBeNull();
});

test("an empty bench says how to begin", async () => {
  answer({
    "/api/bench": { equipment: [], steps: { undo: null, redo: null } },
  });
  show(<BenchView />);
  expect(await screen.findByText(/Nothing here yet/)).toBeTruthy();
});

test("a refused rail is told at its field and kept", async () => {
  open({
    "/api/quick": { status: 422, body: { errors: [{ field: "rail", message: "Not a voltage." }] } },
  });
  const rail = await screen.findByLabelText<HTMLInputElement>("Rail");
  fireEvent.change(rail, { target: { value: "a lot" } });
  expect(await screen.findByText("Not a voltage.")).toBeTruthy();
  expect(rail.value).toBe("a lot");
  expect(localStorage.getItem("swapglow.draft/only/quick.rail")).toContain("a lot");
});

test("a count that is refused is told at its field", async () => {
  const asked = open({
    "/api/quick": {
      status: 422,
      body: { errors: [{ field: "position.in_series", message: "A whole number." }] },
    },
  });
  fireEvent.change(await screen.findByLabelText("In series"), { target: { value: "none" } });
  fireEvent.change(screen.getByLabelText("Rail"), { target: { value: "12V" } });
  expect(await screen.findByText("A whole number.")).toBeTruthy();
  const sent = asked.findLast((a) => a.path === "/api/quick")?.body;
  expect(sent).toMatchObject({ rail: "12V", position: { in_series: "none" } });
});

test("keys are told on ?", async () => {
  open();
  await screen.findByRole("link", { name: /Dial/ });
  fireEvent.keyDown(window, { key: "?" });
  expect(await screen.findByRole("dialog", { name: "Keys" })).toBeTruthy();
});

test("l turns the look, and typing does not", async () => {
  open();
  await screen.findByRole("link", { name: /Dial/ });
  fireEvent.keyDown(window, { key: "l" });
  expect(document.documentElement.dataset.look).toBe("lamp");
  fireEvent.keyDown(screen.getByLabelText("Rail"), { key: "l" });
  expect(document.documentElement.dataset.look).toBe("lamp");
});
