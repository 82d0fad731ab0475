import { Button, OverlayArrow, Tooltip, TooltipTrigger } from "react-aria-components";
import styled from "styled-components";

import type { Shown } from "../api/client";

const Bare = styled(Button)`
  display: inline-flex;
  align-items: baseline;
  gap: 0.25em;
  min-height: 24px;
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  font-family: var(--mono);
  text-align: left;
  cursor: help;
  white-space: nowrap;
  &[data-pencil="true"] {
    color: var(--pencil);
    text-decoration: underline dotted 2px;
    text-underline-offset: 0.18em;
    font-style: italic;
  }
`;

const Unit = styled.span`
  font-size: 0.62em;
  font-weight: 500;
`;

const Slip = styled(Tooltip)`
  max-width: 320px;
  padding: 8px 12px;
  border-radius: 4px;
  background: var(--ink);
  color: var(--ground);
  font: 400 0.95rem/1.35 var(--sans);
`;

const WORDS: Record<Shown["source"], string> = {
  measured: "Measured",
  marked: "As marked",
  assumed: "Assumed",
  computed: "Computed",
};

interface Props {
  /** The figure, with its unit and origin. */
  shown: Shown;
  /** Rests on an assumption: drawn in pencil. */
  pencil?: boolean;
  /** For styled-components. */
  className?: string;
}

/** A figure that says where it came from when it is pointed at or focused. */
export function Figure({ shown, pencil, className }: Props) {
  return (
    <TooltipTrigger delay={250}>
      <Bare className={className} data-pencil={pencil ?? shown.source === "assumed"}>
        <span>{shown.number}</span>
        <Unit>{shown.unit}</Unit>
      </Bare>
      <Slip>
        <OverlayArrow />
        {WORDS[shown.source]}: {shown.origin}.
      </Slip>
    </TooltipTrigger>
  );
}
