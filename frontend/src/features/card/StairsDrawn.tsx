import styled from "styled-components";

import type { Report } from "../../api/client";

type Stair = Report["snapshots"][number]["staircase"]["stairs"][number];

const Draw = styled.svg`
  display: block;
  width: 100%;
  text {
    font: 500 13px var(--sans);
    fill: var(--ink);
  }
  .value {
    font: 600 15px var(--mono);
  }
`;

const W = 680;
const H = 104;
const TOP = 10;

interface Props {
  /** From the rail down to ground. */
  stairs: Stair[];
  /** The highest volts, which fill the height. */
  most: number;
}

/** The staircase as it is drawn on paper: usual levels, each part under its step. */
export function StairsDrawn({ stairs, most }: Props) {
  const step = W / Math.max(stairs.length, 1);
  const y = (volts: number) => TOP + H - (Math.max(volts, 0) / Math.max(most, 1e-9)) * H;
  const treads = stairs.map((s, n) => `H${n * step}V${y(s.level.usual)}H${(n + 1) * step}`);
  const words = stairs.map((s) => `${s.label} ${s.text}`).join(", ");
  return (
    <Draw viewBox={`0 0 ${W} ${TOP + H + 58}`} role="img" aria-label={`Staircase: ${words}`}>
      <path d={`M0 ${TOP + H}H${W}`} stroke="var(--rule)" />
      <path
        d={`M0 ${y(stairs[0]?.level.usual ?? 0)}${treads.join("")}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.5}
      />
      {stairs.map((s, n) => (
        <g key={s.id} transform={`translate(${n * step + 2} ${TOP + H + 18})`}>
          <text>{s.label}</text>
          <text y={18} className="value">
            {s.text}
          </text>
          <text y={35}>{s.detail.length > step / 7 ? "" : s.detail}</text>
        </g>
      ))}
    </Draw>
  );
}
