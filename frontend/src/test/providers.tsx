import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactElement } from "react";
import { MemoryRouter } from "react-router";
import { vi } from "vitest";

import type { Schemas } from "../api/client";
import { RecordContext, type RecordScope } from "../ui/record/record";
import served from "./catalogue.json";

/** The catalogue as the server has it. */
export const catalogue = served as Schemas["Catalogue"];

// jsdom has no CSS.escape, which overlays use to find their triggers.
Object.assign(globalThis, { CSS: { escape: (text: string) => text } });

/** Render with what every view stands in: queries that do not retry, and a router. */
export function show(element: ReactElement) {
  const queries = new QueryClient({
    defaultOptions: { queries: { retry: false, networkMode: "always" } },
  });
  return render(
    <QueryClientProvider client={queries}>
      <MemoryRouter>{element}</MemoryRouter>
    </QueryClientProvider>,
  );
}

type Answers = Record<string, unknown>;

/** Render fields of one record. */
export function showRecord(element: ReactElement, record: Partial<RecordScope>) {
  const scope = { id: "r", shape: "position", values: {}, save: async () => undefined, ...record };
  return show(<RecordContext value={scope}>{element}</RecordContext>);
}

/**
 * Stand in for the server: answers by path; anything but the catalogue that is not given is a fault
 * of the test.
 */
export function answer(given: Answers) {
  const answers: Answers = { "/api/catalogue": catalogue, ...given };
  const asked: { path: string; method: string; body: unknown }[] = [];
  const stub = vi.fn(async (input: Request | string, init?: RequestInit) => {
    const request = typeof input === "string" ? null : input;
    const path = request ? new URL(request.url).pathname : String(input);
    const text = request ? await request.text() : typeof init?.body === "string" ? init.body : "";
    asked.push({
      path,
      method: request?.method ?? init?.method ?? "GET",
      body: text ? JSON.parse(text) : undefined,
    });
    const found = answers[path];
    if (found === undefined) throw new Error(`the test has no answer for ${path}`);
    const { status = 200, body = found } = (found as { status?: number; body?: unknown }) ?? {};
    return new Response(status === 204 ? null : JSON.stringify(body), {
      status,
      headers: { "Content-Type": "application/json" },
    });
  });
  vi.stubGlobal("fetch", stub);
  return asked;
}
