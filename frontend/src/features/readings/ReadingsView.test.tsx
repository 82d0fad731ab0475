import { fireEvent, screen, waitFor } from "@testing-library/react";
import { Route, Routes } from "react-router";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { answer, forget, leave, savedAt, show } from "../../test/providers";
import { step } from "../../test/report";
import ReadingsView from "./ReadingsView";
import { wide } from "../../test/still";

const survey = {
  readings: [
    { id: "t1", text: "7.4 V AC at the lamp's contacts, lamp in", corrected: "", why: "" },
    {
      id: "t2",
      text: "100 mA AC",
      corrected: "110 mA",
      why: "the range adds 5 Ω to a loop of 50 Ω",
    },
  ],
  inferences: [
    {
      id: "wave",
      statement: "AC: next to nothing on the DC range.",
      basis: "both ranges",
      sets: { kind: "winding" },
    },
    { id: "polarity", statement: "Polarity.", basis: "a reading", sets: {} },
  ],
  contradictions: [
    { id: "x", message: "11 V in is over 9 V out.", likeliest: "The two are exchanged." },
  ],
  truth: {
    line: "The logic is inverted.",
    rows: [{ state: "off", volts: "9 V", lit: true, closed: "open, inferred" }],
  },
  plan: [step, { ...step, id: "led_vf", act: "Read this LED's forward voltage" }],
};

let asked: ReturnType<typeof answer>;

function open(mains = false, more: Record<string, unknown> = {}) {
  asked = answer({
    "/api/positions/p1": {
      position: { id: "p1", name: "Porch", equipment: "e1", mains },
      rail: {},
      steps: { undo: null, redo: null },
      siblings: [],
    },
    "/api/positions/p1/assess": { report: { survey, next_step: step } },
    "/api/positions/p1/infer/wave": {},
    "/api/readings/before/t1": { status: 204 },
    ...more,
  });
  show(
    <Routes>
      <Route path="/position/:id/readings" element={<ReadingsView />} />
    </Routes>,
    "/position/p1/readings",
  );
  return screen.findByRole("heading", { name: /Porch/ });
}

beforeEach(() => {
  forget();
  vi.stubGlobal("matchMedia", wide);
});
afterEach(() => {
  leave();
  vi.unstubAllGlobals();
});

test("readings stand with what the meter did to them, contradictions above them", async () => {
  await open();
  expect(screen.getByText(/110 mA without the meter/)).toBeTruthy();
  expect(screen.getByRole("alert").textContent).toContain("exchanged");
  expect(screen.getByText("The logic is inverted.")).toBeTruthy();
  expect(screen.getByText("Read this LED's forward voltage")).toBeTruthy();
});

test("an inference that sets something can be taken over, another only read", async () => {
  await open();
  const takes = screen.getAllByRole("button", { name: /^Use it/ });
  expect(takes).toHaveLength(1);
  fireEvent.click(takes[0] as HTMLElement);
  await waitFor(() => expect(asked.map((a) => a.path)).toContain("/api/positions/p1/infer/wave"));
});

test("a reading is sent with its meter, its points and the lamp", async () => {
  const key = "0b0c7a52-6f53-4a10-9a53-0d8c1b8f7f01";
  vi.stubGlobal("crypto", { randomUUID: () => key });
  await open(false, { [`/api/readings/before/${key}`]: {} });
  fireEvent.click(await screen.findByRole("radio", { name: "AC volts" }));
  fireEvent.click(screen.getByRole("radio", { name: "Out" }));
  const form = screen.getByRole("form", { name: "Take a reading" });
  const field = form.querySelectorAll<HTMLInputElement>(
    'input[type="text"]',
  )[0] as HTMLInputElement;
  fireEvent.change(field, { target: { value: "8.8V" } });
  // Pressed twice, it is one reading.
  fireEvent.submit(form);
  fireEvent.submit(form);
  expect(field.value).toBe("");
  const path = `/api/readings/before/${key}`;
  await waitFor(() => expect(savedAt(asked, path)).toHaveLength(1));
  expect(savedAt(asked, path)).toMatchObject([
    { function: "ac_volts", text: "8.8V", lamp: "out", points: "lamp" },
  ]);
});

test("a refused reading comes back to its field with the reason", async () => {
  const key = "0b0c7a52-6f53-4a10-9a53-0d8c1b8f7f01";
  vi.stubGlobal("crypto", { randomUUID: () => key });
  const errors = [{ field: "text", message: "No voltage." }];
  await open(false, { [`/api/readings/before/${key}`]: { status: 422, body: { errors } } });
  const form = screen.getByRole("form", { name: "Take a reading" });
  const field = form.querySelectorAll<HTMLInputElement>(
    'input[type="text"]',
  )[0] as HTMLInputElement;
  fireEvent.change(field, { target: { value: "8 apples" } });
  fireEvent.submit(form);
  expect(await screen.findByText("No voltage.")).toBeTruthy();
  expect(field.value).toBe("8 apples");
});

test("what is on the mains takes no reading", async () => {
  await open(true);
  expect(screen.queryByRole("form", { name: "Take a reading" })).toBeNull();
  expect(screen.getByText(/No live readings/)).toBeTruthy();
});

test("a reading is struck", async () => {
  await open();
  fireEvent.click(screen.getByRole("button", { name: /^Delete 7.4 V/ }));
  await waitFor(() =>
    expect(asked.some((a) => a.method === "DELETE" && a.path === "/api/readings/before/t1")).toBe(
      true,
    ),
  );
});
