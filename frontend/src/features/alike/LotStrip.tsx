import { scaleLinear } from "d3-scale";
import { Link } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useWidth } from "../../instruments/useWidth";
import { say } from "../../ui/say";

type Lot = Schemas["Lot"];

const Strip = styled.figure`
  margin: 14px 0 0;
  svg {
    display: block;
    width: 100%;
    overflow: visible;
  }
  text {
    font: 600 15px var(--mono);
    fill: var(--ink);
  }
  p {
    max-width: 70ch;
    font-size: 1.1rem;
  }
`;

const Names = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
  font-size: 1.05rem;
  a {
    display: inline-flex;
    gap: 8px;
    align-items: center;
    min-height: 44px;
    text-underline-offset: 0.2em;
  }
  b {
    font-family: var(--mono);
  }
  [data-odd="true"] {
    color: var(--stop);
    font-weight: 650;
  }
`;

const HEIGHT = 74;
const LINE = 40;
/** Room for a figure beside either end. */
const EDGE = 88;

interface Props {
  lot: Lot;
}

/** Readings of alike lamps on one axis, with where the others will read. */
export function LotStrip({ lot }: Props) {
  const [ref, width] = useWidth<HTMLElement>();
  const all = [...lot.read.map((r) => r.reading), lot.low, lot.high].filter((s) => s !== null);
  const values = all.map((s) => s.value);
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const room = Math.max((most - least) * 0.1, lot.parts.value);
  const x = scaleLinear([least - room, most + room], [EDGE, Math.max(width - EDGE, EDGE + 1)]);
  return (
    <Strip ref={ref} aria-label={`${lot.label}: ${lot.read.length} of ${lot.of} lamps read`}>
      <h2>
        {lot.label}: {lot.read.length} of {lot.of} lamps read
      </h2>
      <svg height={HEIGHT} aria-hidden="true">
        {lot.low && lot.high && (
          <g>
            <rect
              x={x(lot.low.value)}
              width={x(lot.high.value) - x(lot.low.value)}
              y={LINE - 14}
              height={28}
              fill="var(--fits-soft)"
            />
            <text x={x(lot.low.value)} y={HEIGHT - 2} textAnchor="end">
              {say(lot.low)}
            </text>
            <text x={x(lot.high.value)} y={HEIGHT - 2}>
              {say(lot.high)}
            </text>
          </g>
        )}
        <line x1={0} x2={width} y1={LINE} y2={LINE} stroke="var(--ink)" strokeWidth="1.5" />
        {lot.read.map((r) => (
          <g key={r.id} transform={`translate(${x(r.reading.value)} ${LINE})`}>
            {r.odd ? (
              <path d="M-8 0L0 -8L8 0L0 8Z" fill="var(--stop)" />
            ) : (
              <circle r="6.5" fill="var(--ink)" />
            )}
          </g>
        ))}
      </svg>
      <p role="status">{lot.line}</p>
      <Names>
        {lot.read.map((r) => (
          <li key={r.id}>
            <Link to={`/position/${r.id}`} data-odd={r.odd}>
              {r.name} <b>{say(r.reading)}</b>
            </Link>
          </li>
        ))}
      </Names>
    </Strip>
  );
}
