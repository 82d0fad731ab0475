import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render } from "@testing-library/react";
import type { ReactElement } from "react";
import { MemoryRouter } from "react-router";
import { vi } from "vitest";

import type { Schemas } from "../api/client";
import { allDrafts, putBack } from "../saving/drafts";
import { allNotices, unsay } from "../saving/notices";
import { teachSaves } from "../saving/saves";
import { RecordContext, type RecordScope } from "../ui/record/record";
import { useSaveFields } from "../ui/record/useSaveFields";
import served from "./catalogue.json";

/** The catalogue as the server has it. */
export const catalogue = served as Schemas["Catalogue"];

// jsdom has no CSS.escape, which overlays use to find their triggers.
Object.assign(globalThis, { CSS: { escape: (text: string) => text } });

/** Render with what every view stands in: queries that do not retry, and a router at an address. */
export function show(element: ReactElement, at = "/") {
  const queries = new QueryClient({
    defaultOptions: { queries: { retry: false, networkMode: "always" } },
  });
  teachSaves(queries);
  return render(
    <QueryClientProvider client={queries}>
      <MemoryRouter initialEntries={[at]}>{element}</MemoryRouter>
    </QueryClientProvider>,
  );
}

/** Press a button. */
export const press = (element: HTMLElement) => fireEvent.click(element);

/** Bodies of what was saved at a path, in turn. */
export const savedAt = (asked: readonly { path: string; body: unknown }[], path: string) =>
  asked.filter((a) => a.path === path).map((a) => a.body);

type Answers = Record<string, unknown>;

/** Forget what an earlier test typed, saved and was told. */
export function forget() {
  localStorage.clear();
  for (const [key] of [...allDrafts()]) putBack(key);
  for (const { id } of allNotices()) unsay(id);
}

/**
 * Leave what a test has shown. What is typed is forgotten first: a field that goes from the screen saves it, and
 * that save would be sent again in the next test.
 */
export function leave() {
  forget();
  cleanup();
}

function InRecord({ of, children }: { of: Partial<RecordScope>; children: ReactElement }) {
  const save = useSaveFields("/api/record");
  const scope = { id: "r", shape: "position", values: {}, save, ...of };
  return <RecordContext value={scope}>{children}</RecordContext>;
}

/** Render fields of one record, which is saved at /api/record. */
export const showRecord = (element: ReactElement, record: Partial<RecordScope>) =>
  show(<InRecord of={record}>{element}</InRecord>);

/**
 * Stand in for the server: answers by path, a promise when it is kept, a function when it is asked; anything but the
 * catalogue that is not given is a fault of the test.
 */
export function answer(own: Answers) {
  const answers: Answers = { "/api/catalogue": catalogue, ...own };
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
    const given = answers[path];
    const found = await (typeof given === "function" ? (given as () => unknown)() : given);
    if (found === undefined) throw new Error(`the test has no answer for ${path}`);
    const whole = found as { status?: number; body?: unknown; headers?: Record<string, string> };
    const { status = 200, body = found, headers = {} } = whole;
    return new Response(status === 204 ? null : JSON.stringify(body), {
      status,
      headers: { "Content-Type": "application/json", ...headers },
    });
  });
  vi.stubGlobal("fetch", stub);
  return asked;
}
