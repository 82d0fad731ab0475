/** What the records' changes have come to, as far as this page knows: another number says that somebody changed them. */

let known: number | undefined;

/** A save of this page was answered: its own change is no news, unless somebody else's came between. */
export function ownChange(now: number): void {
  if (known === undefined || now === known + 1) known = now;
}

/** Whether somebody else changed the records since this was asked last. */
export function changedElsewhere(now: number): boolean {
  const changed = known !== undefined && now !== known;
  known = now;
  return changed;
}
