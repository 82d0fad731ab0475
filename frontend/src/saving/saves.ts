/**
 * Saves as mutations of the query library: one after the other, kept in this browser from before they are sent
 * until they are answered, and resumed after a reload, a crash or a closed tab. One tab sends at a time.
 */
import {
  dehydrate,
  hydrate,
  notifyManager,
  type DehydratedState,
  type Mutation,
  type Query,
  type QueryClient,
} from "@tanstack/react-query";

import { Refused } from "../api/client";
import { draftOf, onItsWay, refused, settled } from "./drafts";
import { say } from "./notices";
import { send, type Method, type Saved } from "./send";
import { drop, keep, keptKeys, keysOfAllTabs, readKept, readOfAnyTab } from "./store";
import { alone, openTabs, thisTab } from "./tab";

/** The field that a save comes from: where the answer goes, whatever has become of the page since. */
export interface FromField {
  draft: string;
  text: string;
  /** What the typist saw there. */
  base?: string | undefined;
  /** The field's names for the server; a refusal of any other is told whole. */
  names: readonly string[];
  /** Drafts of other fields of the same form, by the server's name for them. */
  beside?: Record<string, string>;
  label?: string | undefined;
}

export interface Save {
  key: string;
  method: Method;
  path: string;
  body?: unknown;
  field?: FromField;
  /** What it is called where it is refused and no field is to blame. */
  label?: string;
  /** What is said when it is done, with a way to take it back. */
  done?: string;
}

type SaveMutation = Mutation<Saved, Error, Save>;

const KEY = ["save"] as const;
const PREFIX = "save/";
const OLD = "outbox";
const RETRY_MS = 2000;
const ADOPT_MS = 5000;
/** How often a server that is busy is asked again. */
const BUSY_TRIES = 3;
/** Answers after which a save waits and is sent again: this device is to be paired anew, or it asked too much. */
const WAITS: ReadonlySet<number> = new Set([401, 429]);
const channel =
  typeof BroadcastChannel === "undefined" ? undefined : new BroadcastChannel("swapglow");

const places = new Map<string, string>();
/** The last save of each field that was refused. */
const refusals = new Map<string, Save>();
let count = 0;

const asked = ["catalogue", "echo", "quick"];

/**
 * Ask anew for whatever a save may have changed. What is asked for the first time may be answered as it was before:
 * the library would wait for that and be content with it.
 */
export async function askAnew(client: QueryClient): Promise<void> {
  const changes = (q: Query) => !asked.includes(String(q.queryKey[0]));
  const begun = (q: Query) => changes(q) && q.state.data === undefined;
  await client.cancelQueries({ predicate: begun, fetchStatus: "fetching" });
  await client.invalidateQueries({ predicate: changes });
}

/** Teach the client how a save is sent, and what becomes of its answer. */
export function teachSaves(client: QueryClient): void {
  client.setMutationDefaults(KEY, {
    mutationFn: (save: Save) =>
      alone("saves", () => send(save.key, save.method, save.path, mended(save).body)),
    networkMode: "always",
    retry: (tries, problem) =>
      !(problem instanceof Refused) ||
      WAITS.has(problem.status) ||
      (problem.status === 503 && tries < BUSY_TRIES),
    retryDelay: RETRY_MS,
    gcTime: 0,
    onSuccess: (saved: Saved, save: Save) => {
      forget(save);
      channel?.postMessage("saved");
      const { field } = save;
      const whenShown = () => {
        if (field) settled(field.draft, field.text);
      };
      // In turn, after the views: they are told of the answer later than it is there, and the field that let go of its
      // text before would show what stood there earlier, and send that with whatever is pressed in between.
      void askAnew(client).then(() => notifyManager.schedule(whenShown));
      if (save.done) say({ text: save.done, step: saved.step });
    },
    onError: (problem: Error, save: Save) => {
      forget(save);
      const sent = mended(save);
      if (sent.field) refusals.set(sent.field.draft, sent);
      void askAnew(client);
      tellRefusal(problem, sent);
    },
  });
}

/** Make the client send saves, and send what earlier visits could not; nobody need wait for that. */
export async function openSaves(client: QueryClient): Promise<void> {
  teachSaves(client);
  channel?.addEventListener("message", () => void askAnew(client));
  await adopt(client);
  sendOld(client);
  window.setInterval(() => void adopt(client), ADOPT_MS);
}

/**
 * A save with what the typist saw in its field. Where that was a text of their own which the server has refused
 * since, what they saw is what they had seen before it.
 */
function mended(save: Save): Save {
  const { field } = save;
  const before = field && refusals.get(field.draft);
  if (!field || !before?.field || before.field.text !== field.base || before.key === save.key)
    return save;
  const { was } = (before.body ?? {}) as { was?: unknown };
  return {
    ...save,
    body: { ...(save.body as object), was },
    field: { ...field, base: before.field.base },
  };
}

function tellRefusal(problem: Error, save: Save): void {
  const answer = problem instanceof Refused ? problem : undefined;
  const { field } = save;
  if (field) {
    const own = answer?.problems.find((p) => field.names.includes(p.field));
    for (const p of answer?.problems ?? []) {
      const beside = field.beside?.[p.field];
      if (beside) refused(beside, draftOf(beside)?.text ?? "", { message: p.message });
    }
    const message = own?.message ?? problem.message;
    const { base, label = "" } = field;
    refused(field.draft, field.text, { message, now: own?.now ?? undefined, base, label });
  } else if (save.label && !(answer?.body as { clashes?: unknown } | undefined)?.clashes) {
    say({ text: `${save.label}: not done. ${problem.message}` });
  }
}

function forget(save: Save): void {
  const at = places.get(save.key);
  if (at !== undefined) drop(at);
  places.delete(save.key);
}

/** Keep a mutation as the library would, each in a place of its own: two tabs never write the same. */
function remember(client: QueryClient, mutation: SaveMutation, save: Save): void {
  // Counted, not timed: a clock that is set back must not turn two saves round.
  count = Math.max(count, ...keysOfAllTabs(PREFIX).map(turn)) + 1;
  const at = `${PREFIX}${thisTab()}/${count}`;
  const state = dehydrate(client, {
    shouldDehydrateMutation: (m) => m === (mutation as unknown),
    shouldDehydrateQuery: () => false,
  });
  for (const kept of state.mutations) {
    kept.state = {
      ...kept.state,
      variables: save,
      status: "pending",
      isPaused: true,
      submittedAt: Date.now(),
    };
  }
  places.set(save.key, at);
  keep(at, JSON.stringify(state));
}

/** Save; the promise settles when the server has answered, however late. */
export function save(client: QueryClient, what: Omit<Save, "key">): Promise<Saved> {
  const entry: Save = { ...what, key: crypto.randomUUID() };
  const mutation = client
    .getMutationCache()
    .build<Saved, Error, Save, unknown>(client, { mutationKey: KEY, scope: { id: "saves" } });
  remember(client, mutation, entry);
  if (entry.field) onItsWay(entry.field.draft);
  return mutation.execute(entry);
}

/** Saves that waited when this browser last ran the version before, which kept them all in one list. */
function sendOld(client: QueryClient): void {
  const kept = readKept(OLD);
  if (kept === undefined) return;
  drop(OLD);
  try {
    for (const { method, path, body } of JSON.parse(kept) as Omit<Save, "key">[]) {
      save(client, { method, path, body, label: "A change of your last visit" }).catch(
        () => undefined,
      );
    }
  } catch {
    // It is no list of ours.
  }
}

/** Take over the saves of this tab before its reload, and those of tabs that are no more. */
async function adopt(client: QueryClient): Promise<void> {
  await alone("adopt", async () => {
    const tabs = await openTabs();
    const known = new Set(places.values());
    count = Math.max(count, ...keysOfAllTabs(PREFIX).map(turn));
    const found = [...new Set([...keptKeys(PREFIX), ...keysOfAllTabs(PREFIX)])].sort(inTurn);
    for (const at of found) {
      const tab = at.slice(PREFIX.length).split("/")[0] ?? "";
      const text = readOfAnyTab(at);
      if (known.has(at) || text === undefined || (tab !== thisTab() && tabs.has(tab))) continue;
      try {
        const state = JSON.parse(text) as DehydratedState;
        const variables = state.mutations[0]?.state.variables as Save;
        if (tab !== thisTab()) {
          drop(at);
          count += 1;
          const mine = `${PREFIX}${thisTab()}/${count}`;
          keep(mine, text);
          places.set(variables.key, mine);
        } else {
          places.set(variables.key, at);
        }
        hydrate(client, state);
      } catch {
        drop(at);
      }
    }
  });
  void client.resumePausedMutations().catch(() => undefined);
}

const turn = (at: string) => Number(at.split("/")[2] ?? "") || 0;
const inTurn = (a: string, b: string) => turn(a) - turn(b);
