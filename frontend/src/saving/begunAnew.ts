const NOTE = "swapglow.said-after-reload";

/** Load the page anew, for all it knows may be another bench now; what was done is said after it. */
export function begunAnew(said: string, path: string): void {
  sessionStorage.setItem(NOTE, said);
  window.location.assign(path);
}

/** What was to be said after the page was loaded anew; once. */
export function saidBefore(): string | undefined {
  const said = sessionStorage.getItem(NOTE) ?? undefined;
  sessionStorage.removeItem(NOTE);
  return said;
}
