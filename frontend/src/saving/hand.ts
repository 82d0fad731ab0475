/** The name that somebody chose on this device: a cookie, so that every request carries it. */

const NAME = "hand";
/** As much as the server keeps. */
export const LONGEST_NAME = 40;

export function chosenName(): string {
  const found = new RegExp(`(?:^|; )${NAME}=([^;]*)`).exec(document.cookie)?.[1] ?? "";
  try {
    return decodeURIComponent(found);
  } catch {
    return "";
  }
}

export function chooseName(name: string): void {
  const kept = encodeURIComponent(name.trim().slice(0, LONGEST_NAME));
  document.cookie = `${NAME}=${kept}; path=/; SameSite=Strict; Max-Age=31536000`;
}
