/** Whether a letter alone is a key of the bench; who speaks to the machine turns that off (WCAG 2.1.4). */
const PLACE = "swapglow.keys";

export const singleKeys = {
  on: () => localStorage.getItem(PLACE) !== "off",
  set: (on: boolean) => localStorage.setItem(PLACE, on ? "on" : "off"),
};
