import { fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import type { Schemas } from "../../api/client";
import { Flags } from "../../ui/Flags";
import { answer, catalogue, forget, leave, show } from "../../test/providers";
import { BringIn, TakeOut } from "../equipment/Files";
import { Lines } from "../../ui/record/Lines";
import { RailEditor } from "../equipment/RailEditor";

const empty = { text: "", source: "assumed" as const, note: "" };
const winding: Schemas["RailAnswer"] = {
  id: "r1",
  equipment: "e1",
  name: "Bell",
  kind: "winding",
  levels: ["mains low", "usual", "mains high"],
  read_at: "feed",
  usual: { ...empty, text: "8.2Vac" },
  low: empty,
  high: empty,
  details: { grounded: { ...empty, text: "no" } },
  fuse: "",
  rated: "",
  others: "",
  echo: { usual: "8.2 V" },
  reads: "8.2 V RMS, 50 Hz",
  unread: [],
};
// A kind that asks for a quantity, a choice and a count, whatever the real kinds ask for.
const kind: Schemas["SupplyOut"] = {
  id: "winding",
  label: "AC winding",
  expect: "A sine: its peak is 1.414 times what the meter reads.",
  read_at_offered: false,
  position_fields: [],
  driver_note: "",
  details: [
    { id: "hertz", label: "Frequency", unit: "Hz", hint: "50Hz", options: [], long: false, at: "" },
    {
      id: "grounded",
      label: "One leg on the frame?",
      unit: null,
      hint: "Continuity",
      options: [
        { id: "unknown", label: "Not known" },
        { id: "yes", label: "Yes" },
        { id: "no", label: "No" },
      ],
      long: false,
      at: "",
    },
    {
      id: "cells",
      label: "Cells in series",
      unit: null,
      hint: "1, 3",
      options: [],
      long: false,
      at: "",
    },
  ],
};

beforeEach(forget);
afterEach(() => {
  leave();
  vi.unstubAllGlobals();
});

function railEditor(more: Record<string, unknown> = {}) {
  const asked = answer({
    "/api/catalogue": { ...catalogue, supplies: [kind] },
    "/api/echo": { echo: "8.2 V", error: "" },
    "/api/rails/r1": winding,
    ...more,
  });
  show(<RailEditor rail={winding} />);
  return asked;
}

test("a rail asks for what its kind needs, and says what it reads as", async () => {
  railEditor();
  expect(await screen.findByText(/its peak is 1.414 times/)).toBeTruthy();
  expect(screen.getByLabelText("Volts, mains low")).toBeTruthy();
  expect(screen.getByLabelText("Frequency")).toBeTruthy();
  expect(screen.getByText("Reads as 8.2 V RMS, 50 Hz.")).toBeTruthy();
  expect(screen.queryByText("Where it was read")).toBeNull();
});

test("a choice of the kind is sent as a detail", async () => {
  const asked = railEditor();
  await screen.findByText(/its peak/);
  expect(screen.getByRole<HTMLInputElement>("radio", { name: "No" }).checked).toBe(true);
  fireEvent.click(screen.getByRole("radio", { name: "Yes" }));
  await waitFor(() => expect(asked.some((a) => a.method === "PATCH")).toBe(true));
  const sent = asked.find((a) => a.method === "PATCH")?.body as {
    details: Record<string, { text: string }>;
  };
  expect(sent.details.grounded?.text).toBe("yes");
});

test("a count is sent as it is typed, when the field is left", async () => {
  const asked = railEditor();
  const cells = await screen.findByLabelText("Cells in series");
  fireEvent.change(cells, { target: { value: "3" } });
  fireEvent.blur(cells);
  await waitFor(() => expect(asked.some((a) => a.method === "PATCH")).toBe(true));
  const sent = asked.find((a) => a.method === "PATCH")?.body as {
    details: Record<string, { text: string }>;
  };
  expect(sent.details.cells?.text).toBe("3");
});

test("a refused detail stays typed with its reason", async () => {
  railEditor({
    "/api/rails/r1": { status: 422, body: { errors: [{ field: "cells", message: "1 to 400." }] } },
  });
  const cells = await screen.findByLabelText<HTMLInputElement>("Cells in series");
  fireEvent.change(cells, { target: { value: "lots" } });
  fireEvent.blur(cells);
  expect(await screen.findByText("1 to 400.")).toBeTruthy();
  expect(cells.value).toBe("lots");
});

test("lines are added, written and deleted one by one", async () => {
  const onSave = vi.fn(() => Promise.resolve());
  show(
    <Lines
      id="x"
      label="Part"
      add="Add a part"
      fields={[
        ["what", "What"],
        ["where", "Kept where"],
      ]}
      lines={{
        b: { what: "lens", where: "", place: 1 },
        a: { what: "lamp", where: "bag 1", place: 0 },
      }}
      says={{ b: "Not found yet." }}
      onSave={onSave}
    />,
  );
  expect(screen.getByText("Not found yet.")).toBeTruthy();
  const second = screen.getAllByLabelText("Kept where")[1] as HTMLTextAreaElement;
  fireEvent.change(second, { target: { value: "shelf C" } });
  fireEvent.blur(second);
  await waitFor(() =>
    expect(onSave).toHaveBeenCalledWith(
      { b: { where: "shelf C" } },
      { b: { where: "" } },
      expect.objectContaining({ draft: "x.b.where" }),
    ),
  );
  fireEvent.click(screen.getByRole("button", { name: "Add a part" }));
  expect(onSave).toHaveBeenLastCalledWith({ [keyOfLast(onSave)]: { place: 2 } });
  // It is there to be written in before the server has answered.
  expect(screen.getAllByLabelText("What")).toHaveLength(3);
  fireEvent.click(screen.getByRole("button", { name: "Delete part lamp" }));
  expect(onSave).toHaveBeenLastCalledWith({ a: null });
  expect(screen.getAllByLabelText("What")).toHaveLength(2);
});

const keyOfLast = (onSave: { mock: { calls: unknown[][] } }) =>
  Object.keys((onSave.mock.calls.at(-1)?.[0] as object | undefined) ?? {})[0] ?? "";

test("any of several flags, in their own order", () => {
  const onChange = vi.fn();
  show(
    <Flags
      label="Dangers in it"
      options={[
        { id: "mains", label: "Mains inside" },
        { id: "static", label: "Old logic" },
      ]}
      chosen={["static"]}
      onChange={onChange}
    />,
  );
  fireEvent.click(screen.getByRole("button", { name: "Mains inside" }));
  expect(onChange).toHaveBeenCalledWith(["mains", "static"]);
});

function choose(file: File) {
  const input = document.querySelector<HTMLInputElement>('input[type="file"]');
  if (!input) throw new Error("there is no file input");
  Object.defineProperty(input, "files", { value: [file] });
  fireEvent.change(input);
}

test("an import says what it will do, and does it only when told", async () => {
  const asked = answer({
    "/api/import/look": {
      name: "Pier clock",
      replaces: "Pier clock",
      lines: ["1 supply rail, 2 lamp positions.", "Pier clock is here already."],
    },
    "/api/import": { id: "e1", name: "Pier clock" },
  });
  show(<BringIn />);
  fireEvent.click(screen.getByRole("button", { name: "Bring in a file" }));
  choose(new File(["{}"], "a.json"));
  expect(await screen.findByText("Pier clock is here already.")).toBeTruthy();
  expect(asked.map((a) => a.path)).toEqual(["/api/import/look"]);
  fireEvent.click(screen.getByRole("button", { name: "Bring it in as a copy" }));
  await waitFor(() => expect(asked.map((a) => a.path)).toContain("/api/import"));
});

test("a refused file says where and why, and offers nothing to do", async () => {
  answer({
    "/api/import/look": {
      status: 422,
      body: { errors: [{ field: "line 3", message: "line 3: It is not JSON." }] },
    },
  });
  show(<BringIn />);
  fireEvent.click(screen.getByRole("button", { name: "Bring in a file" }));
  choose(new File(["{"], "a.json"));
  expect(await screen.findByText("line 3: It is not JSON.")).toBeTruthy();
  expect(screen.getByText("Nothing was brought in.")).toBeTruthy();
  expect(screen.queryByRole("button", { name: /Bring it in/ })).toBeNull();
});

test("a dropped connection brings in nothing and says so", async () => {
  vi.stubGlobal(
    "fetch",
    vi.fn(() => Promise.reject(new TypeError("down"))),
  );
  show(<TakeOut id="e1" lamps={[{ id: "p1", name: "Dial" }]} />);
  fireEvent.click(screen.getByRole("button", { name: "Files" }));
  choose(new File(["lamp"], "a.csv"));
  expect(await screen.findByText(/The connection dropped/)).toBeTruthy();
});

test("documents and readings are links that need no script", () => {
  answer({});
  show(<TakeOut id="e1" lamps={[{ id: "p1", name: "Dial" }]} />);
  fireEvent.click(screen.getByRole("button", { name: "Files" }));
  const link = screen.getByRole<HTMLAnchorElement>("link", { name: "Readings (CSV)" });
  expect(link.getAttribute("href")).toBe("/api/equipment/e1/readings.csv");
});
