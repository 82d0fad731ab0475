import { Refused, type Problem } from "./client";

/** Send a file with its fields; it is asked for again where the connection drops, so it never waits in a queue. */
export async function upload<T>(
  path: string,
  file: Blob,
  fields: Record<string, string> = {},
): Promise<T> {
  const token = /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? "";
  const body = new FormData();
  body.append("file", file);
  for (const [name, text] of Object.entries(fields)) body.append(name, text);
  const response = await fetch(path, {
    method: "POST",
    headers: { "X-CSRFToken": token },
    body,
  });
  const data = (await response.json().catch(() => undefined)) as unknown;
  if (!response.ok) {
    throw new Refused(response.status, (data as { errors?: Problem[] } | undefined)?.errors ?? []);
  }
  return data as T;
}
