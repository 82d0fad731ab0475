import createClient from "openapi-fetch";

import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Report = Schemas["Report"];
export type Shown = Schemas["Shown"];
export type Finding = Schemas["Finding"];
export type Changes = Record<string, number | string | null>;
export type Problem = Schemas["FieldProblem"];

export const client = createClient<paths>({
  baseUrl: window.location.origin,
  fetch: (request) => globalThis.fetch(request),
});

client.use({
  onRequest({ request }) {
    const token = /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1];
    if (token && request.method !== "GET") request.headers.set("X-CSRFToken", token);
    return request;
  },
});

/** A refusal by the server, field by field. */
export class Refused extends Error {
  readonly problems: Problem[];
  readonly status: number;
  /** All of the answer. */
  readonly body: unknown;

  constructor(status: number, problems: Problem[], body?: unknown) {
    super(problems.map((p) => p.message).join(" ") || `The server answered ${status}.`);
    this.status = status;
    this.body = body;
    this.problems = problems;
  }

  /** The message for one field, if it was refused. */
  of(...fields: string[]): string | undefined {
    return this.problems.find((p) => fields.includes(p.field))?.message;
  }
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or a Refused. A lost connection stays fetch's TypeError. */
export async function unwrap<T>(pending: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await pending;
  if (response.ok) return data as T;
  const problems = (error as { errors?: Problem[] } | undefined)?.errors ?? [];
  throw new Refused(response.status, problems);
}
