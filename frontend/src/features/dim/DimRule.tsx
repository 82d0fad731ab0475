import { scaleLog } from "d3-scale";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useWidth } from "../../instruments/useWidth";

const H = 118;
const AXIS = 66;
const EDGE = 26;

const Draw = styled.svg`
  display: block;
  width: 100%;
  height: ${H}px;
  text {
    font: 500 12px var(--mono);
    fill: var(--ink-soft);
  }
  text[data-said] {
    font: 600 13px var(--sans);
    fill: var(--ink);
  }
`;

interface Props {
  said: Schemas["Dimming"];
}

/** Resistors on one line: what was tried, where the light wanted lies, what comes next. */
export function DimRule({ said }: Props) {
  const [room, width] = useWidth<HTMLDivElement>();
  const ohms = said.rows.map((r) => r.ohm);
  const least = Math.min(...ohms, ...said.trials.map((t) => t.ohm));
  const most = Math.max(
    said.high_ohm * 2,
    said.next_ohm * 1.5,
    ...said.trials.map((t) => t.ohm * 1.5),
  );
  const x = scaleLog([least, most], [EDGE, Math.max(width - EDGE, EDGE + 1)]).clamp(true);
  const named = said.rows.filter((r) => r.ohm <= most && isRound(r.ohm));
  return (
    <div ref={room}>
      <Draw viewBox={`0 0 ${width} ${H}`} role="img" aria-label={words(said)}>
        <rect
          x={x(said.low_ohm)}
          y={AXIS - 30}
          width={Math.max(2, x(said.high_ohm) - x(said.low_ohm))}
          height={30}
          fill="var(--fits-soft)"
        />
        <line x1={EDGE} x2={width - EDGE} y1={AXIS} y2={AXIS} stroke="var(--ink)" strokeWidth="2" />
        {said.rows
          .filter((r) => r.ohm <= most)
          .map((r) => (
            <line
              key={r.ohm}
              x1={x(r.ohm)}
              x2={x(r.ohm)}
              y1={AXIS}
              y2={AXIS + 6}
              stroke="var(--ink)"
            />
          ))}
        {named.map((r) => (
          <text key={r.ohm} x={x(r.ohm)} y={AXIS + 22} textAnchor="middle">
            {r.text}
          </text>
        ))}
        {said.trials.map((t, k) => (
          <g key={t.id || "fitted"}>
            <path d={`M${x(t.ohm)} ${AXIS}v-14`} stroke="var(--ink)" strokeWidth="2" />
            <circle
              cx={x(t.ohm)}
              cy={AXIS - 20}
              r="7"
              fill="var(--ground)"
              stroke="var(--ink)"
              strokeWidth="2"
            />
            <text x={x(t.ohm)} y={AXIS - 16} textAnchor="middle">
              {k}
            </text>
          </g>
        ))}
        {said.next_ohm > 0 && (
          <g>
            <path
              d={`M${x(said.next_ohm)} ${AXIS + 2}v-40m-7 0h14l-7 12z`}
              fill="var(--mark)"
              stroke="var(--mark)"
              strokeWidth="2.5"
            />
            <text data-said="" x={x(said.next_ohm)} y={18} textAnchor="middle">
              {said.next}
            </text>
          </g>
        )}
      </Draw>
    </div>
  );
}

/** A one, a two or a five of its decade, near enough. */
const isRound = (ohm: number) => {
  const lead = ohm / 10 ** Math.floor(Math.log10(ohm) + 1e-9);
  return Math.abs(lead - 1) < 0.01 || Math.abs(lead - 2.2) < 0.01 || Math.abs(lead - 4.7) < 0.01;
};

const words = (said: Schemas["Dimming"]) =>
  `${said.trials.map((t) => `${t.text}: ${t.verdict.toLowerCase()}`).join(", ")}. ${said.line}`;
