import { css } from "styled-components";

/** A row of options that wraps. */
export const optionRow = css`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
`;

/** An option in sight: framed, and filled where it is chosen. */
export const option = css`
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid var(--ink-soft);
  border-radius: 4px;
  background: none;
  cursor: pointer;
  &[data-selected] {
    background: var(--ink);
    border-color: var(--ink);
    color: var(--ground);
    font-weight: 650;
  }
  @media (forced-colors: active) {
    &[data-selected] {
      forced-color-adjust: none;
      background: Highlight;
      color: HighlightText;
    }
  }
  &[data-hovered]:not([data-selected]) {
    border-color: var(--ink);
  }
`;
