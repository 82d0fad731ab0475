/** What a backup was made for, in words. */
export const REASONS: Readonly<Record<string, string>> = {
  start: "At a start",
  hourly: "By itself",
  update: "Before an update",
  restore: "Before a backup was brought back",
  export: "Before the whole bench was saved",
  asked: "Asked for",
};

const DAY = new Intl.DateTimeFormat(undefined, { weekday: "short", day: "numeric", month: "long" });
const TIME = new Intl.DateTimeFormat(undefined, { hour: "2-digit", minute: "2-digit" });

/** When a backup was made, by this device's clock. */
export function whenMade(at: string): string {
  const then = new Date(at);
  const today = then.toDateString() === new Date().toDateString();
  return `${today ? "Today" : DAY.format(then)}, ${TIME.format(then)}`;
}
