import styled from "styled-components";

import type { Report } from "../api/client";
import { Trace } from "./Trace";

type Cycle = NonNullable<Report["cycle"]>;

const Key = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 0.875rem;
  svg {
    margin-right: 6px;
    vertical-align: middle;
  }
`;

const STYLES = [
  ["pencil", "2 4"],
  ["ink", ""],
  ["mark", "9 4"],
] as const;

/** The LED's current over one cycle at the three levels of the supply. */
export function CycleTrace({ cycle }: { cycle: Cycle }) {
  const curves = cycle.amps.map((amps, k) => ({
    id: String(k),
    points: amps.map((a, n) => [cycle.degrees[n] ?? 0, a] as const),
    stroke: STYLES[k]?.[0] ?? "ink",
    ...(STYLES[k]?.[1] ? { dash: STYLES[k][1] } : {}),
  }));
  return (
    <div>
      <Trace
        label="LED current over one cycle"
        curves={curves}
        xUnit="degrees of the cycle"
        yUnit="mA"
        yScale={1e3}
        height={206}
      />
      <Key>
        {cycle.levels.map((level, k) => (
          <li key={level.label}>
            <svg width="30" height="8" aria-hidden="true">
              <line
                x2="30"
                y1="4"
                y2="4"
                stroke={`var(--${STYLES[k]?.[0] ?? "ink"})`}
                strokeWidth="3"
                strokeDasharray={STYLES[k]?.[1] ?? ""}
              />
            </svg>
            {level.label}
          </li>
        ))}
      </Key>
    </div>
  );
}
