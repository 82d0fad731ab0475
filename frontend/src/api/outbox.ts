/**
 * Saves that wait for the connection. Each is written to local storage before it is sent and taken
 * out when the server has answered, so that neither a reload nor a dropped connection loses one.
 * Sending twice is harmless: the client makes the keys, and patches set values.
 */
import { Refused, type Problem } from "./client";

export interface Save {
  id: string;
  method: "PUT" | "PATCH" | "POST" | "DELETE";
  path: string;
  body?: unknown;
}

type Settle = { resolve: (value: unknown) => void; reject: (reason: unknown) => void };

const KEY = "swapglow.outbox";
const RETRY_MS = 2000;
const listeners = new Set<() => void>();
const waiting = new Map<string, Settle>();
let queue: Save[] = read();
let sending = false;
let offline = false;

function read(): Save[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "[]") as Save[];
  } catch {
    return [];
  }
}

function write(next: Save[]) {
  queue = next;
  localStorage.setItem(KEY, JSON.stringify(queue));
  listeners.forEach((tell) => tell());
}

async function send(save: Save): Promise<unknown> {
  const token = /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? "";
  const response = await fetch(save.path, {
    method: save.method,
    headers: { "Content-Type": "application/json", "X-CSRFToken": token },
    ...(save.body === undefined ? {} : { body: JSON.stringify(save.body) }),
  });
  if (response.status >= 500) throw new TypeError("The server is not well.");
  const text = await response.text();
  const data = text ? (JSON.parse(text) as unknown) : undefined;
  if (!response.ok) {
    throw new Refused(response.status, (data as { errors?: Problem[] } | undefined)?.errors ?? []);
  }
  return data;
}

async function flush() {
  if (sending) return;
  sending = true;
  try {
    for (let next = queue[0]; next; next = queue[0]) {
      const { id } = next;
      try {
        const value = await send(next);
        offline = false;
        write(queue.filter((s) => s.id !== id));
        waiting.get(id)?.resolve(value);
      } catch (problem) {
        if (!(problem instanceof Refused)) {
          offline = true;
          write(queue);
          window.setTimeout(() => void flush(), RETRY_MS);
          return;
        }
        write(queue.filter((s) => s.id !== id));
        waiting.get(id)?.reject(problem);
      }
      waiting.delete(id);
    }
  } finally {
    sending = false;
  }
}

/** Queue a save; the promise settles when the server has answered, however late. */
export function save<T = unknown>(
  method: Save["method"],
  path: string,
  body?: unknown,
): Promise<T> {
  const entry: Save = { id: crypto.randomUUID(), method, path, body };
  const settled = new Promise<unknown>((resolve, reject) => {
    waiting.set(entry.id, { resolve, reject });
  });
  write([...queue, entry]);
  void flush();
  return settled as Promise<T>;
}

/** How many saves wait for a connection that is down; 0 while all is well. */
export function unsaved(): number {
  return offline ? queue.length : 0;
}

export function subscribe(tell: () => void): () => void {
  listeners.add(tell);
  return () => listeners.delete(tell);
}

/** Send what an earlier visit could not, and again whenever the connection comes back. */
export function start(): void {
  window.addEventListener("online", () => void flush());
  void flush();
}
