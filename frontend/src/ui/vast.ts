import type { FormEvent } from "react";
import { css } from "styled-components";

/**
 * More characters than any field keeps, and more than a browser breaks into lines in good time: an unbroken
 * text of a quarter of a million holds a page up for half a minute. Such a text stands on one line.
 */
export const VAST = 20_000;

export const onOneLine = css`
  &[data-vast="true"] {
    white-space: pre;
    overflow: auto;
  }
`;

/** Tell the field before the text is put in: by the time it is drawn anew it would have been laid out. */
export function beforeVast(e: FormEvent<HTMLTextAreaElement>): void {
  const { data } = e as FormEvent & { data?: string | null };
  if ((data?.length ?? 0) > VAST) e.currentTarget.dataset.vast = "true";
}
