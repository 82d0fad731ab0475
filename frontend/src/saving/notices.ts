/** What is said in passing: what was done, with its own way back, or what was not done and why. */

export interface Notice {
  id: number;
  text: string;
  /** The step that can be taken back; a notice belongs to its own and to no other. */
  step?: number | undefined;
  /** A step that cannot be undone, and can be left as it is. */
  stuck?: number | undefined;
}

const MOST = 4;
let notices: readonly Notice[] = [];
let next = 1;
const listeners = new Set<() => void>();

function put(list: readonly Notice[]): void {
  notices = list;
  listeners.forEach((listener) => listener());
}

export function say(notice: Omit<Notice, "id">): void {
  put([...notices.filter((n) => n.text !== notice.text), { ...notice, id: next }].slice(-MOST));
  next += 1;
}

export const unsay = (id: number): void => put(notices.filter((n) => n.id !== id));

/** The step was taken back, by whatever way: what was said of it goes. */
export const unsayStep = (step: number): void => put(notices.filter((n) => n.step !== step));

export const allNotices = (): readonly Notice[] => notices;

export function subscribeNotices(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
