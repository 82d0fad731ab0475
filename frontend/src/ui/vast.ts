import { css } from "styled-components";

/**
 * More characters than any field keeps, and more than a browser breaks into lines in good time: an unbroken
 * text of a quarter of a million holds a page up for half a minute. It stands on one line until it was refused.
 */
export const VAST = 20_000;

export const onOneLine = css`
  &[data-vast="true"] {
    white-space: pre;
    overflow: auto;
  }
`;
