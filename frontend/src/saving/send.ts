import { Refused, type Problem } from "../api/client";
import { notePaired } from "./paired";
import { ownChange } from "./pulse";

/** How long an answer may take before it is asked for again. */
const PATIENCE_MS = 30_000;
const STRANGE =
  "Something other than Swap Glow answered. See whether it is running, then save again.";

export type Method = "PUT" | "PATCH" | "POST" | "DELETE";

/** What came of a save: the answer, and the step by which it can be taken back. */
export interface Saved<T = unknown> {
  data: T;
  step: number | undefined;
}

/**
 * Send a save once. Its key is the same each time it is sent, so that the server takes it once.
 *
 * Rejects with a Refused where the server answered and took nothing, with any other error where no answer came.
 */
export async function send(
  key: string,
  method: Method,
  path: string,
  body?: unknown,
): Promise<Saved> {
  const token = /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? "";
  const response = await fetch(path, {
    method,
    headers: { "Content-Type": "application/json", "X-CSRFToken": token, "X-Save": key },
    signal: AbortSignal.timeout(PATIENCE_MS),
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  notePaired(response.status);
  const answer = await read(response);
  if (!response.ok) {
    const { errors = [] } = answer as { errors?: Problem[] };
    throw new Refused(response.status, errors, answer);
  }
  const changes = Number(response.headers.get("X-Pulse") ?? "");
  if (changes) ownChange(changes);
  const step = Number(response.headers.get("X-Step") ?? "");
  return { data: answer, step: step || undefined };
}

async function read(response: Response): Promise<unknown> {
  const text = await response.text();
  if (text === "" && response.ok) return undefined;
  try {
    const answer: unknown = JSON.parse(text);
    if (typeof answer === "object" && answer !== null) return answer;
  } catch {
    // It is not ours; said below.
  }
  throw new Refused(response.status, [{ field: "", message: STRANGE, now: null }]);
}
