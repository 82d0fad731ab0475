import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { answer } from "../../test/providers";
import { step } from "../../test/report";
import ReadingsView from "./ReadingsView";

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
      steps: { undo: "", redo: "" },
      siblings: [],
    },
    "/api/positions/p1/assess": { report: { survey, next_step: step } },
    "/api/positions/p1/infer/wave": {},
    "/api/readings/before/t1": { status: 204 },
    ...more,
  });
  render(
    <QueryClientProvider
      client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}
    >
      <MemoryRouter initialEntries={["/position/p1/readings"]}>
        <Routes>
          <Route path="/position/:id/readings" element={<ReadingsView />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return screen.findByRole("heading", { name: /Porch/ });
}

beforeEach(() => {
  localStorage.clear();
  vi.stubGlobal("matchMedia", () => ({ matches: false }));
});
afterEach(() => {
  cleanup();
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
  const takes = screen.getAllByRole("button", { name: /^Take over/ });
  expect(takes).toHaveLength(1);
  fireEvent.click(takes[0] as HTMLElement);
  await waitFor(() => expect(asked.map((a) => a.path)).toContain("/api/positions/p1/infer/wave"));
});

test("a reading is sent with its meter, its points and the lamp", async () => {
  const put = vi.fn();
  await open(false);
  await screen.findByRole("radio", { name: "AC volts" });
  vi.stubGlobal(
    "fetch",
    vi.fn((_: string, init?: RequestInit) => {
      put(init?.method, JSON.parse(String(init?.body ?? "null")));
      return Promise.resolve(new Response("{}"));
    }),
  );
  fireEvent.click(screen.getByRole("radio", { name: "AC volts" }));
  fireEvent.click(screen.getByRole("radio", { name: "Out" }));
  const form = screen.getByRole("form", { name: "Take a reading" });
  const field = form.querySelectorAll<HTMLInputElement>(
    'input[type="text"]',
  )[0] as HTMLInputElement;
  fireEvent.change(field, { target: { value: "8.8V" } });
  fireEvent.submit(form);
  await waitFor(() => expect(put).toHaveBeenCalled());
  expect(put.mock.calls[0]).toEqual([
    "PUT",
    expect.objectContaining({ function: "ac_volts", text: "8.8V", lamp: "out", points: "lamp" }),
  ]);
  expect(field.value).toBe("");
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
