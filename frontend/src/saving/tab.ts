/**
 * Which tab this is. Each holds a lock by its name for as long as it lives, so that the others can tell what a
 * closed or crashed one has left behind.
 */

const NAME = "swapglow.tab.";
let current = "only";

/** Whether this browser can lock; where it cannot, every visit is taken for the only one. */
const locks = (): LockManager | undefined => (navigator as { locks?: LockManager }).locks;

/** Begin as a tab of one's own: the one that this tab was before a reload, unless another holds its name. */
export async function takeTab(): Promise<void> {
  const before = sessionStorage.getItem(NAME);
  if (before !== null && (await hold(before))) return;
  const fresh = crypto.randomUUID();
  sessionStorage.setItem(NAME, fresh);
  await hold(fresh);
}

async function hold(name: string): Promise<boolean> {
  const manager = locks();
  if (!manager) return true;
  const held = await new Promise<boolean>((resolve) => {
    void manager.request(NAME + name, { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      return lock === null ? undefined : new Promise(() => undefined);
    });
  });
  if (held) current = name;
  return held;
}

export const thisTab = (): string => current;

/** Names of the tabs that are open. */
export async function openTabs(): Promise<Set<string>> {
  const held = (await locks()?.query())?.held ?? [];
  const names = held.map((lock) => lock.name ?? "").filter((name) => name.startsWith(NAME));
  return new Set([current, ...names.map((name) => name.slice(NAME.length))]);
}

/** Do something while no other tab does the same. */
export async function alone<T>(what: string, work: () => Promise<T>): Promise<T> {
  const manager = locks();
  return manager ? await manager.request(`swapglow.${what}`, work) : await work();
}
