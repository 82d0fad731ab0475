/** The number of changes that this page has seen. The server counts each change, so another number means news. */

let known: number | undefined;

/** Note the number that came with the answer to this page's own save. A gap shows that somebody else saved too. */
export function ownChange(now: number): void {
  if (known === undefined || now === known + 1) known = now;
}

/** Whether somebody else changed the records since this was asked last. */
export function changedElsewhere(now: number): boolean {
  const changed = known !== undefined && now !== known;
  known = now;
  return changed;
}
