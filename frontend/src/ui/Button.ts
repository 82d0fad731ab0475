import { Button as AriaButton, ToggleButton } from "react-aria-components";
import styled, { css } from "styled-components";

/* Targets are 44 px high: dirty hands, arm's length. Paper has no buttons. */
const framed = css`
  min-height: 44px;
  padding: 0 16px;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  background: transparent;
  font-weight: 600;
  cursor: pointer;
  white-space: nowrap;
  @media print {
    display: none;
  }
  &[data-hovered] {
    background: var(--rule-soft);
  }
`;

/** A button that names its act. */
export const Button = styled(AriaButton)`
  ${framed}
  &[data-pressed] {
    background: var(--ink);
    color: var(--ground);
  }
  &[data-disabled] {
    border-color: var(--rule);
    color: var(--ink-soft);
    cursor: default;
  }
`;

/** The one act a view is for. */
export const MainButton = styled(Button)`
  background: var(--mark);
  border-color: var(--mark);
  color: var(--on-mark);
  &[data-hovered] {
    background: var(--ink);
    border-color: var(--ink);
    color: var(--ground);
  }
  &[data-disabled] {
    background: none;
    color: var(--ink-soft);
  }
`;

/** A mode of the view that is on or off. */
export const Mode = styled(ToggleButton)`
  ${framed}
  &[data-selected] {
    background: var(--ink);
    color: var(--ground);
  }
`;

/** A quieter act inside a row. */
export const SmallButton = styled(Button)`
  min-height: 36px;
  padding: 0 10px;
  font-size: 0.9rem;
  border-width: 1px;
  white-space: normal;
  text-align: left;
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;
