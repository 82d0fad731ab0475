import styled from "styled-components";

import type { Schemas } from "../../../api/client";

const Draw = styled.svg`
  display: block;
  width: 100%;
  height: 40px;
  text {
    font: 500 12px var(--mono);
    fill: var(--ink-soft);
  }
`;

const W = 340;
const EDGE = 4;

interface Props {
  /** Where the least, usual and most current lie on the scale, 0 to 1. */
  bar: readonly number[];
  /** The scale that all bars share. */
  scale: NonNullable<Schemas["Swaps"]["scale"]>;
  /** What it shows, in words. */
  words: string;
}

/** Where the current lands, on the one scale of all swaps, before the drive limit. */
export function SwapBar({ bar, scale, words }: Props) {
  const x = (share: number) => EDGE + share * (W - 2 * EDGE);
  const [low = 0, usual = 0, high = 0] = bar;
  return (
    <Draw viewBox={`0 0 ${W} 40`} role="img" aria-label={`Current: ${words}`}>
      <rect
        x={x(scale.limit)}
        y="4"
        width={W - EDGE - x(scale.limit)}
        height="16"
        fill="var(--over-soft)"
      />
      <line x1={EDGE} x2={W - EDGE} y1="20" y2="20" stroke="var(--rule)" />
      <rect
        x={x(low)}
        y="7"
        width={Math.max(2, x(high) - x(low))}
        height="10"
        fill="var(--mark)"
        opacity="0.4"
      />
      <line x1={x(usual)} x2={x(usual)} y1="3" y2="21" stroke="var(--mark)" strokeWidth="4" />
      <text x={EDGE} y="35">
        {scale.low}
      </text>
      <text x={x(scale.limit)} y="35" textAnchor={scale.limit > 0.8 ? "end" : "middle"}>
        limit
      </text>
      {scale.limit < 0.72 && (
        <text x={W - EDGE} y="35" textAnchor="end">
          {scale.high}
        </text>
      )}
    </Draw>
  );
}
