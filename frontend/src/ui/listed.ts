import { css } from "styled-components";

/** The frame of what drops down from a field. */
export const dropped = css`
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
`;

/** One line of it. */
export const listed = css`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 44px;
  padding: 4px 12px;
  border-radius: 3px;
  cursor: pointer;
  outline-offset: -3px;
  &[data-focused] {
    background: var(--rule-soft);
  }
  &[data-selected] {
    font-weight: 650;
  }
`;
