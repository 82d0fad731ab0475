import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { Refused } from "../api/client";
import { answer, show, showRecord } from "../test/providers";
import { Choice } from "./Choice";
import { Field } from "./Field";
import { QuantityControl } from "./record/QuantityControl";
import { SavedChoice } from "./record/SavedChoice";
import { SavedFlags } from "./record/SavedFlags";
import { SavedText } from "./record/SavedText";
import { Sheet } from "./Sheet";

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const refusal = new Refused(422, [{ field: "low", message: "The lowest is above the usual." }]);
const value = { text: "12V", source: "assumed" as const, note: "" };

function type(label: string, text: string) {
  const field = screen.getByLabelText<HTMLInputElement>(label);
  fireEvent.change(field, { target: { value: text } });
  return field;
}

test("a quantity says what it took and is saved when it is left", async () => {
  answer({ "/api/took": { took: "12.5 V", error: "" } });
  const onSave = vi.fn(async () => undefined);
  show(<QuantityControl id="q" name="low" label="Lowest" unit="V" value={value} onSave={onSave} />);
  const field = type("Lowest", "12V5");
  expect(await screen.findByText("Taken as 12.5 V")).toBeTruthy();
  fireEvent.blur(field);
  await waitFor(() =>
    expect(onSave).toHaveBeenCalledWith({ text: "12V5", source: "assumed", note: "" }),
  );
});

test("a refused quantity keeps what was typed and says why", async () => {
  answer({ "/api/took": { took: "14 V", error: "" } });
  const onSave = vi.fn(() => Promise.reject(refusal));
  show(<QuantityControl id="q" name="low" label="Lowest" unit="V" value={value} onSave={onSave} />);
  const field = type("Lowest", "14V");
  fireEvent.blur(field);
  await waitFor(() => expect(screen.getByText("The lowest is above the usual.")).toBeTruthy());
  expect(field.value).toBe("14V");
  expect(field.getAttribute("aria-invalid")).toBe("true");
});

test("what cannot be read is said while it is typed", async () => {
  answer({ "/api/took": { took: "", error: '"12X" is not a voltage.' } });
  show(
    <QuantityControl
      id="q"
      name="low"
      label="Lowest"
      unit="V"
      value={value}
      onSave={async () => undefined}
    />,
  );
  type("Lowest", "12X");
  await waitFor(() => expect(screen.getByText('"12X" is not a voltage.')).toBeTruthy());
});

test("another source alone is a change worth saving", async () => {
  answer({ "/api/took": { took: "12 V", error: "" } });
  const onSave = vi.fn(async () => undefined);
  show(<QuantityControl id="q" name="low" label="Lowest" unit="V" value={value} onSave={onSave} />);
  fireEvent.click(await screen.findByRole("radio", { name: "Measured" }));
  await waitFor(() =>
    expect(onSave).toHaveBeenCalledWith({ text: "12V", source: "measured", note: "" }),
  );
});

test("leaving a field untouched saves nothing", () => {
  answer({ "/api/took": { took: "12 V", error: "" } });
  const onSave = vi.fn(async () => undefined);
  show(<QuantityControl id="q" name="low" label="Lowest" unit="V" value={value} onSave={onSave} />);
  fireEvent.blur(screen.getByLabelText("Lowest"));
  expect(onSave).not.toHaveBeenCalled();
});

test("a text's draft outlives a reload until it is saved", async () => {
  answer({});
  const owner = { id: "t", shape: "equipment", values: { owner: "" } };
  const first = showRecord(<SavedText label="Owner" field="owner" />, owner);
  type("Owner", "the night shift");
  first.unmount();
  const save = vi.fn(async () => undefined);
  showRecord(<SavedText label="Owner" field="owner" />, { ...owner, save });
  const field = screen.getByLabelText<HTMLInputElement>("Owner");
  expect(field.value).toBe("the night shift");
  fireEvent.keyDown(field, { key: "Enter" });
  await waitFor(() => expect(save).toHaveBeenCalledWith({ owner: "the night shift" }));
  await waitFor(() => expect(localStorage.getItem("swapglow.draft.t.owner")).toBeNull());
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

test("what is refused says why beside it", async () => {
  answer({});
  const save = vi.fn(() => Promise.reject(new Refused(422, [{ field: "", message: "Not both." }])));
  showRecord(<SavedFlags field="weigh" label="What matters" />, { values: { weigh: [] }, save });
  fireEvent.click(await screen.findByRole("button", { name: "Least heat" }));
  expect((await screen.findByRole("alert")).textContent).toBe("Not both.");
  expect(save).toHaveBeenCalledWith({ weigh: ["heat"] });
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
    answer({});
    const save = vi.fn(async () => undefined);
    showRecord(<SavedChoice field={field} label="It" />, { values: { [field]: value }, save });
    fireEvent.click(await screen.findByRole("radio", { name: label }));
    await waitFor(() => expect(save).toHaveBeenCalledWith({ [field]: sent }));
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
