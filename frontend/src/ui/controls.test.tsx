import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { useState } from "react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { typed } from "../saving/drafts";
import { answer, forget, leave, press, savedAt, show, showRecord } from "../test/providers";
import { Choice } from "./Choice";
import { Field } from "./Field";
import { Picker } from "./Picker";
import { SavedChoice } from "./record/SavedChoice";
import { SavedFlags } from "./record/SavedFlags";
import { SavedQuantity } from "./record/SavedQuantity";
import { SavedCount, SavedText } from "./record/SavedText";
import { Sheet } from "./Sheet";

beforeEach(forget);
afterEach(() => {
  leave();
  vi.unstubAllGlobals();
});

const vf = { text: "2V", source: "assumed" as const, note: "" };
const taken = { "/api/echo": { echo: "2.1 V", error: "" }, "/api/record": {} };

function type(label: string, text: string) {
  const field = screen.getByLabelText<HTMLInputElement>(label);
  fireEvent.focus(field);
  fireEvent.change(field, { target: { value: text } });
  return field;
}

async function quantity(answers: Record<string, unknown> = taken) {
  const asked = answer(answers);
  showRecord(<SavedQuantity field="vf" label="Own Vf" />, { values: { vf } });
  await screen.findByLabelText("Own Vf");
  return asked;
}

const saves = (asked: ReturnType<typeof answer>) => savedAt(asked, "/api/record");

test("a quantity says what it took, and is saved with what was seen when it is left", async () => {
  const asked = await quantity();
  const field = type("Own Vf", "2V1");
  expect(await screen.findByText("Taken as 2.1 V")).toBeTruthy();
  fireEvent.blur(field);
  await waitFor(() => expect(saves(asked)).toEqual([{ vf: { ...vf, text: "2V1" }, was: { vf } }]));
});

test("a refused quantity keeps what was typed and says why; Put back brings what is saved", async () => {
  const errors = [{ field: "vf", message: "It is below zero." }];
  await quantity({ ...taken, "/api/record": { status: 422, body: { errors } } });
  const field = type("Own Vf", "14V");
  fireEvent.blur(field);
  await waitFor(() => expect(screen.getByText("It is below zero.")).toBeTruthy());
  expect(field.value).toBe("14V");
  expect(field.getAttribute("aria-invalid")).toBe("true");
  fireEvent.click(screen.getByRole("button", { name: "Put back" }));
  expect(field.value).toBe("2V");
});

test("what was changed elsewhere meanwhile is shown, and one of both is kept", async () => {
  const errors = [{ field: "vf", message: "Meanwhile vf was changed to 1.9V.", now: "1.9V" }];
  const asked = await quantity({ ...taken, "/api/record": { status: 409, body: { errors } } });
  fireEvent.blur(type("Own Vf", "2V1"));
  fireEvent.click(await screen.findByRole("button", { name: "Keep mine" }));
  // Sent again without what was seen: it is written whatever stands there.
  await waitFor(() => expect(saves(asked)[1]).toEqual({ vf: { ...vf, text: "2V1" } }));
  fireEvent.click(await screen.findByRole("button", { name: "Take theirs" }));
  expect(screen.getByLabelText<HTMLInputElement>("Own Vf").value).toBe("2V");
});

test("what cannot be read is said while it is typed", async () => {
  await quantity({ ...taken, "/api/echo": { echo: "", error: '"12X" is not a voltage.' } });
  type("Own Vf", "12X");
  await waitFor(() => expect(screen.getByText('"12X" is not a voltage.')).toBeTruthy());
});

test("another source alone is a change worth saving", async () => {
  const asked = await quantity();
  press(await screen.findByRole("button", { name: "Assumed: where Own Vf is from" }));
  press(await screen.findByRole("menuitemradio", { name: "Measured" }));
  await waitFor(() =>
    expect(saves(asked)).toEqual([{ vf: { ...vf, source: "measured" }, was: { vf } }]),
  );
});

test("a figure that is typed anew is asked once where it is from", async () => {
  const asked = await quantity();
  fireEvent.blur(type("Own Vf", "2V1"));
  const question = screen.getByRole("group", { name: "Where Own Vf is from" });
  press(within(question).getByRole("button", { name: "Marked" }));
  await waitFor(() =>
    expect(saves(asked).at(-1)).toMatchObject({ vf: { text: "2V1", source: "marked" } }),
  );
  expect(screen.queryByRole("group", { name: "Where Own Vf is from" })).toBeNull();
});

test("the first count of a field that showed nothing was seen as nothing, and not as a text", async () => {
  const asked = answer(taken);
  showRecord(<SavedCount field="dice" label="LEDs inside" none />, { values: { dice: null } });
  await screen.findByLabelText("LEDs inside");
  fireEvent.blur(type("LEDs inside", "3"));
  await waitFor(() => expect(saves(asked)).toEqual([{ dice: 3, was: { dice: null } }]));
});

test("leaving a field untouched saves nothing", async () => {
  const asked = await quantity();
  fireEvent.focus(screen.getByLabelText("Own Vf"));
  fireEvent.blur(screen.getByLabelText("Own Vf"));
  expect(saves(asked)).toEqual([]);
});

test("a field that goes from the screen is saved as if it had been left", async () => {
  const asked = answer({ "/api/record": {} });
  const owner = { id: "t", shape: "equipment", values: { owner: "" } };
  const first = showRecord(<SavedText label="Owner" field="owner" />, owner);
  type("Owner", "the night shift");
  first.unmount();
  await waitFor(() =>
    expect(saves(asked)).toEqual([{ owner: "the night shift", was: { owner: "" } }]),
  );
});

test("what is typed on while a save runs stays, and is saved after it", async () => {
  const asked = answer({ "/api/record": {} });
  showRecord(<SavedText label="Owner" field="owner" />, {
    shape: "equipment",
    values: { owner: "" },
  });
  const field = type("Owner", "Ann");
  fireEvent.keyDown(field, { key: "Enter" });
  type("Owner", "Ann Smith");
  await waitFor(() => expect(saves(asked)).toHaveLength(1));
  expect(field.value).toBe("Ann Smith");
  fireEvent.blur(field);
  await waitFor(() =>
    expect(saves(asked)).toEqual([
      { owner: "Ann", was: { owner: "" } },
      { owner: "Ann Smith", was: { owner: "Ann" } },
    ]),
  );
});

test("a choice shows the value that is saved, whether it is usual or not", async () => {
  answer({});
  const values = { ceiling: 0.7, rounding: "down" };
  showRecord(
    <>
      <SavedChoice field="ceiling" label="Drive limit" />
      <SavedChoice field="rounding" label="Rounding" />
    </>,
    { values },
  );
  const limit = await screen.findByRole("radiogroup", { name: "Drive limit" });
  const chosen = (group: HTMLElement) =>
    [...group.querySelectorAll("input")].find((i) => i.checked)?.closest("label")?.textContent;
  expect(chosen(limit)).toBe("0.7");
  expect(chosen(screen.getByRole("radiogroup", { name: "Rounding" }))).toBe("Next down");
});

test("a flag is sent by itself, and says beside it why it is refused", async () => {
  const errors = [{ field: "", message: "Not both." }];
  const asked = answer({ "/api/record": { status: 422, body: { errors } } });
  showRecord(<SavedFlags field="weigh" label="What matters" />, { values: { weigh: ["life"] } });
  fireEvent.click(await screen.findByRole("button", { name: "Least heat" }));
  expect((await screen.findByRole("alert")).textContent).toBe("Not both.");
  expect(saves(asked)).toEqual([{ weigh: { heat: true } }]);
});

test("a rating of 50 W stands by its name", async () => {
  answer({});
  showRecord(<SavedChoice field="rating_w" label="Power rating of each" />, {
    values: { rating_w: 50 },
  });
  const field = await screen.findByRole<HTMLInputElement>("combobox", {
    name: "Power rating of each",
  });
  expect(field.value).toBe("50 W");
});

test.each([
  ["ceiling", 0.5, "Rated", 1],
  ["mains", false, "Yes: no live readings", true],
  ["lead", "positive", "Negative", "negative"],
] as const)(
  "a choice of %s is saved as the kind of value it is",
  async (field, value, label, sent) => {
    const asked = answer({ "/api/record": {} });
    showRecord(<SavedChoice field={field} label="It" />, { values: { [field]: value } });
    fireEvent.click(await screen.findByRole("radio", { name: label }));
    await waitFor(() => expect(saves(asked)).toEqual([{ [field]: sent, was: { [field]: value } }]));
  },
);

test("an error takes the hint's place and is tied to the field", () => {
  show(
    <Field label="Rail" value="x" onChange={() => undefined} hint="24V" error="Not a voltage." />,
  );
  expect(screen.queryByText("24V")).toBeNull();
  const described = screen.getByLabelText("Rail").getAttribute("aria-describedby") ?? "";
  expect(
    described
      .split(" ")
      .some((id) => document.getElementById(id)?.textContent === "Not a voltage."),
  ).toBe(true);
});

test("a choice shows all its options and tells which was taken", () => {
  const onChange = vi.fn();
  const options = [
    { id: "up", label: "Next up" },
    { id: "nearest", label: "Nearest" },
  ];
  show(<Choice label="Rounding" value="up" options={options} onChange={onChange} />);
  expect(screen.getByRole("radiogroup", { name: "Rounding" })).toBeTruthy();
  fireEvent.click(screen.getByRole("radio", { name: "Nearest" }));
  expect(onChange).toHaveBeenCalledWith("nearest");
});

test("a sheet is named, and closes by its button and by Escape", () => {
  const onClose = vi.fn();
  show(
    <Sheet title="Driver" open onClose={onClose}>
      <p>Contact or transistor</p>
    </Sheet>,
  );
  expect(screen.getByRole("dialog", { name: "Driver" })).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Close" }));
  fireEvent.keyDown(screen.getByRole("dialog"), { key: "Escape" });
  expect(onClose).toHaveBeenCalledTimes(2);
});

test("a choice of nothing shows at once, before the server holds it", async () => {
  answer({ "/api/record": {} });
  typed("r.rating_w", "null", "50");
  showRecord(<SavedChoice field="rating_w" label="Power rating of each" />, {
    values: { rating_w: 50 },
  });
  const field = await screen.findByRole<HTMLInputElement>("combobox", {
    name: "Power rating of each",
  });
  expect(field.value).toBe("To fit");
});

test("a draft that another version kept in another form is left alone", async () => {
  answer({ "/api/record": {} });
  typed("r.owner", "not JSON", '""');
  showRecord(<SavedText label="Owner" field="owner" />, {
    shape: "equipment",
    values: { owner: "us" },
  });
  expect(screen.getByLabelText<HTMLInputElement>("Owner").value).toBe("us");
});

test("what is typed while an earlier text is being refused is saved over what was seen before both", async () => {
  const asked = answer({ "/api/record": {} });
  const errors = [{ field: "owner", message: "Not that." }];
  const answers = [{ status: 422, body: { errors } }, { status: 422, body: { errors } }, {}];
  vi.stubGlobal(
    "fetch",
    vi.fn(async (path: string, init?: RequestInit) => {
      asked.push({ path, method: "PATCH", body: JSON.parse(String(init?.body)) });
      const next = answers.shift() as { status?: number; body?: unknown };
      return new Response(JSON.stringify(next.body ?? {}), { status: next.status ?? 200 });
    }),
  );
  const owner = { id: "t", shape: "equipment", values: { owner: "us" } };
  showRecord(<SavedText label="Owner" field="owner" />, owner);
  const field = type("Owner", "much");
  fireEvent.blur(field);
  fireEvent.blur(type("Owner", "less"));
  // The refusal of the first is not told at the second, whose own is.
  expect(await screen.findByText("Not that.")).toBeTruthy();
  expect(field.value).toBe("less");
  fireEvent.blur(type("Owner", "least"));
  await waitFor(() => expect(saves(asked)).toHaveLength(3));
  expect(saves(asked)).toEqual(
    ["much", "less", "least"].map((owner) => ({ owner, was: { owner: "us" } })),
  );
  await waitFor(() => expect(screen.queryByText("Not that.")).toBeNull());
});

const LAMPS = [
  { id: "53", label: "No. 53, bayonet BA9s", detail: "14.4 V 0.12 A", words: "120 mA 53" },
  { id: "74", label: "No. 74, wedge T5", detail: "14 V 0.1 A", words: "100 mA 74" },
];

function picking() {
  const picked = vi.fn();
  show(<Picker label="Old lamp" value="53" items={LAMPS} onChange={picked} />);
  const field = screen.getByRole<HTMLInputElement>("combobox", { name: "Old lamp" });
  field.focus();
  return { field, picked };
}

test.each(["14V 0.1A", "14 V", "14v 100 ma", "0.1 A 14 V", "100mA", "wedge", "74"])(
  "an old lamp is found by %s, and leaving the field takes it",
  async (text) => {
    const { field, picked } = picking();
    fireEvent.change(field, { target: { value: text } });
    fireEvent.keyDown(field, { key: "Tab" });
    fireEvent.blur(field);
    await waitFor(() => expect(picked).toHaveBeenCalled());
    expect(picked.mock.calls.flat().every((id) => id === "74")).toBe(true);
  },
);

test("what is typed stays when an answer puts something there meanwhile; else that is shown", async () => {
  const picked = vi.fn();
  let answered: (id: string) => void = () => undefined;
  function Answered() {
    const [value, setValue] = useState("");
    answered = setValue;
    return <Picker label="Old lamp" value={value} items={LAMPS} onChange={picked} />;
  }
  show(<Answered />);
  const field = screen.getByRole<HTMLInputElement>("combobox", { name: "Old lamp" });
  field.focus();
  fireEvent.change(field, { target: { value: "wed" } });
  act(() => answered("53"));
  expect(field.value).toBe("wed");
  expect((await screen.findByRole("option")).textContent).toContain("wedge");
  fireEvent.keyDown(field, { key: "Enter" });
  await waitFor(() => expect(picked).toHaveBeenCalledWith("74"));
  act(() => answered("74"));
  expect(field.value).toBe("No. 74, wedge T5");
  act(() => answered("53"));
  expect(field.value).toBe("No. 53, bayonet BA9s");
});

test("what is called nothing here stays, is said to be none, and takes no old value", async () => {
  const { field, picked } = picking();
  fireEvent.change(field, { target: { value: "festoon" } });
  fireEvent.keyDown(field, { key: "Enter" });
  fireEvent.blur(field);
  expect((await screen.findByText(/Nothing is called/)).textContent).toContain("festoon");
  expect(field.value).toBe("festoon");
  expect(picked).not.toHaveBeenCalled();
});
