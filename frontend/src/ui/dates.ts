/** A day as it is kept, where the bench is: "2031-05-20". */
export function dayOf(at: Date): string {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

/** Today where the bench is. */
export const today = () => dayOf(new Date());

/** Whether a text is a day as it is kept, or a day and a time. */
export const isDay = (text: string) => /^\d{4}-\d\d-\d\d( \d\d:\d\d)?$/.test(text);
