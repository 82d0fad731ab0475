import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import styled from "styled-components";

const Draw = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  text {
    font: 500 12px var(--mono);
    fill: var(--ink-soft);
  }
`;

interface Curve {
  id: string;
  points: readonly (readonly [number, number])[];
  /** "ink" is the usual level; the others are told apart by their dashes as well. */
  stroke: "ink" | "mark" | "pencil";
  dash?: string;
  label?: string;
}

interface Props {
  /** Its name on screen. */
  label: string;
  /** What is drawn, each with its stroke. */
  curves: Curve[];
  /** Single readings, drawn as crosses. */
  marks?: readonly (readonly [number, number])[];
  /** The horizontal axis's unit. */
  xUnit: string;
  /** The vertical axis's unit. */
  yUnit: string;
  /** What values are multiplied by for the axis. */
  yScale?: number;
  /** Pixels. */
  height?: number;
  /** Keep zero in sight on the upright axis. */
  fromZero?: boolean;
}

const W = 460;
const LEFT = 56;
const RIGHT = 18;
const TOP = 28;
const BOTTOM = 40;

/** Curves over one axis, both axes labelled with their units. */
export function Trace({
  label,
  curves,
  marks = [],
  xUnit,
  yUnit,
  yScale = 1,
  height = 190,
  fromZero = true,
}: Props) {
  const all = [...curves.flatMap((c) => c.points), ...marks];
  const xs = all.map((p) => p[0]);
  const ys = all.map((p) => p[1] * yScale);
  const x = scaleLinear([Math.min(...xs), Math.max(...xs)], [LEFT, W - RIGHT]);
  const low = Math.min(...ys, ...(fromZero ? [0] : []));
  const y = scaleLinear([low, Math.max(...ys, low + 1e-9)], [height - BOTTOM, TOP]).nice(4);
  const path = line<readonly [number, number]>(
    (p) => x(p[0]),
    (p) => y(p[1] * yScale),
  );
  return (
    <Draw viewBox={`0 0 ${W} ${height}`} role="img" aria-label={label}>
      {y.ticks(4).map((t) => (
        <g key={t}>
          <line x1={LEFT} x2={W - RIGHT} y1={y(t)} y2={y(t)} stroke="var(--rule-soft)" />
          <text x={LEFT - 6} y={y(t) + 4} textAnchor="end">
            {y.tickFormat(4)(t)}
          </text>
        </g>
      ))}
      <text x={2} y={12}>
        {yUnit}
      </text>
      {x.ticks(5).map((t) => (
        <text key={t} x={x(t)} y={height - BOTTOM + 16} textAnchor="middle">
          {x.tickFormat(5)(t)}
        </text>
      ))}
      <text x={W - RIGHT} y={height - 6} textAnchor="end">
        {xUnit}
      </text>
      {curves.map((c) => (
        <path
          key={c.id}
          d={path(c.points) ?? ""}
          fill="none"
          stroke={`var(--${c.stroke})`}
          strokeWidth="2.5"
          {...(c.dash ? { strokeDasharray: c.dash } : {})}
        />
      ))}
      {marks.map(([mx, my], k) => (
        <path
          key={k}
          d={`M${x(mx) - 4} ${y(my * yScale) - 4}l8 8m0-8l-8 8`}
          stroke="var(--ink)"
          strokeWidth="2"
        />
      ))}
    </Draw>
  );
}
