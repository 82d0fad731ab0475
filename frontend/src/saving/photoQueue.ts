/**
 * Photographs on their way to the server, each with a line of its own. They wait in this browser's IndexedDB, so that
 * they survive a reload and a cut line; the server takes each once, by its key. One tab sends at a time.
 */
import { createStore, del, entries, get, set } from "idb-keyval";

import { Refused } from "../api/client";
import { upload } from "../api/upload";
import { alone } from "./tab";

interface Photograph {
  /** The key it gets on the server. */
  id: string;
  /** The item it is of. */
  item: string;
  /** The file's name. */
  name: string;
  file: Blob;
  /** When it was picked, to keep the order. */
  at: number;
  /** Why the server refused it. */
  refused?: string;
}

export interface PhotoLine {
  id: string;
  item: string;
  name: string;
  state: "waiting" | "sending" | "done" | "refused";
  /** Why it was refused. */
  why?: string | undefined;
}

const RETRY_MS = 2000;
/** How long a photograph that is in stays in the list. */
const DONE_MS = 4000;
const room = createStore("swapglow-photographs", "waiting");

/** What could not be put into IndexedDB: it waits as long as the page is open. */
const memory = new Map<string, Photograph>();
let lines: readonly PhotoLine[] = [];
let working = false;
const listeners = new Set<() => void>();
let whenIn: (item: string) => void = () => undefined;

function put(next: readonly PhotoLine[]): void {
  lines = next;
  listeners.forEach((listener) => listener());
}

const mark = (id: string, state: PhotoLine["state"], why?: string) =>
  put(lines.map((line) => (line.id === id ? { ...line, state, why } : line)));

export const allPhotos = (): readonly PhotoLine[] => lines;

export function subscribePhotos(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Send what an earlier visit could not; `told` hears of each item that has got a photograph. */
export async function openPhotos(told: (item: string) => void): Promise<void> {
  whenIn = told;
  const found = await entries<string, Photograph>(room).catch(() => []);
  const kept = found.map(([, photo]) => photo).sort((a, b) => a.at - b.at);
  put(kept.map(lineOf));
  void work();
}

const lineOf = ({ id, item, name, refused }: Photograph): PhotoLine => ({
  id,
  item,
  name,
  state: refused === undefined ? "waiting" : "refused",
  why: refused,
});

/** Take photographs in: each gets its line, is kept in this browser, and is sent in turn. */
export async function addPhotos(item: string, files: readonly File[]): Promise<void> {
  const now = Date.now();
  const made = files.map((file, n) => ({
    id: crypto.randomUUID(),
    item,
    name: file.name || `Photograph ${n + 1}`,
    file,
    at: now + n,
  }));
  put([...lines, ...made.map(lineOf)]);
  for (const photo of made) {
    memory.set(photo.id, photo);
    await set(photo.id, photo, room)
      .then(() => memory.delete(photo.id))
      .catch(() => undefined);
  }
  await work();
}

/** Take a refused photograph off the list. */
export function dropPhoto(id: string): void {
  put(lines.filter((line) => line.id !== id));
  forget(id);
}

function forget(id: string): void {
  memory.delete(id);
  void del(id, room).catch(() => undefined);
}

async function work(): Promise<void> {
  if (working) return;
  working = true;
  try {
    await alone("photographs", async () => {
      for (;;) {
        const next = lines.find((line) => line.state === "waiting");
        if (!next) return;
        if (!(await send(next))) await new Promise((go) => setTimeout(go, RETRY_MS));
      }
    });
  } finally {
    working = false;
  }
}

/** Send one; says whether the next can follow at once. */
async function send(line: PhotoLine): Promise<boolean> {
  const photo =
    memory.get(line.id) ?? (await get<Photograph>(line.id, room).catch(() => undefined));
  if (!photo) {
    // Another tab has sent it meanwhile.
    put(lines.filter((l) => l.id !== line.id));
    return true;
  }
  mark(line.id, "sending");
  try {
    await upload(`/api/equipment/${photo.item}/photos/${photo.id}`, photo.file);
  } catch (problem) {
    if (!(problem instanceof Refused) || problem.status >= 500) {
      mark(line.id, "waiting");
      return false;
    }
    mark(line.id, "refused", problem.message);
    void set(photo.id, { ...photo, refused: problem.message }, room).catch(() => undefined);
    return true;
  }
  forget(line.id);
  mark(line.id, "done");
  whenIn(photo.item);
  setTimeout(() => put(lines.filter((l) => l.id !== line.id)), DONE_MS);
  return true;
}
