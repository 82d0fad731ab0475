import { scaleLinear } from "d3-scale";
import type { KeyboardEvent } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useWidth } from "../../instruments/useWidth";

const Rows = styled.div`
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) auto;
  column-gap: 10px;
  align-items: center;
  padding-top: 8px;
  border-top: 2px solid var(--ink);
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr) auto;
  }
`;

const Name = styled.label`
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  font-weight: 600;
  line-height: 1.15;
  input {
    width: 20px;
    height: 20px;
    accent-color: var(--mark);
  }
  @media (max-width: 700px) {
    grid-column: 1 / -1;
    min-height: 34px;
  }
`;

const Track = styled.svg`
  display: block;
  width: 100%;
  height: 46px;
  overflow: visible;
  cursor: pointer;
  text {
    font: 500 12px var(--mono);
    fill: var(--ink-soft);
  }
`;

const Value = styled.span`
  font: 700 1.2rem var(--mono);
  text-align: right;
  white-space: nowrap;
`;

const Barred = styled.span`
  grid-column: 2 / -1;
  color: var(--mind);
`;

const EDGE = 18;

type Match = Schemas["MatchReport"];
type Row = Match["rows"][number];

interface Props {
  match: Match;
  /** Which value each lamp stands at. */
  picks: readonly number[];
  /** Which level all of them were last set to, if any. */
  level: number | undefined;
  /** Move one lamp to one of its values. */
  onMove: (lamp: number, value: number) => void;
  /** Move all of them to a level. */
  onTogether: (level: number) => void;
  /** Take a lamp out of the group. */
  onOut: (row: Row) => void;
}

/** One line of light for all: a cursor for each lamp, and one that moves them together. */
export function MatchRule(props: Props) {
  const { match, picks, level, onMove, onTogether, onOut } = props;
  const [room, span] = useWidth<HTMLDivElement>();
  const x = scaleLinear([match.low, match.high], [EDGE, Math.max(span - EDGE, EDGE + 1)]).clamp(
    true,
  );
  const at = match.levels[level ?? match.best];
  return (
    <Rows>
      <Name as="span">All together</Name>
      <div ref={room}>
        <Track
          tabIndex={0}
          role="slider"
          aria-label="All together"
          aria-valuemin={0}
          aria-valuemax={match.levels.length - 1}
          aria-valuenow={level ?? Math.max(match.best, 0)}
          aria-valuetext={at ? `${at.text}. ${at.line}` : "no level"}
          onKeyDown={(e) => steps(e, (by) => onTogether((level ?? match.best) + by))}
          onClick={(e) => onTogether(nearest(match.levels, x.invert(within(e))))}
        >
          {match.levels
            .filter((_, k) => k % Math.ceil(match.levels.length / (span > 500 ? 6 : 3)) === 0)
            .map((l) => (
              <text key={l.text} x={x(l.octaves)} y="9" textAnchor="middle">
                {l.text}
              </text>
            ))}
          {match.levels.map((l, k) => (
            <line
              key={l.octaves}
              x1={x(l.octaves)}
              x2={x(l.octaves)}
              y1={k % 4 === 0 ? 12 : 17}
              y2="25"
              stroke="var(--ink)"
            />
          ))}
          {at && <path d={`M${x(at.octaves)} 26l-9 14h18z`} fill="var(--mark)" />}
        </Track>
      </div>
      <Value>{at?.text}</Value>
      {match.rows.map((row, n) => (
        <OneLamp
          key={row.id}
          row={row}
          pick={picks[n] ?? row.now}
          x={x}
          onMove={(k) => onMove(n, k)}
          onOut={() => onOut(row)}
        />
      ))}
    </Rows>
  );
}

interface OneProps {
  row: Row;
  pick: number;
  /** Pixels across, from octaves. */
  x: (octaves: number) => number;
  onMove: (value: number) => void;
  onOut: () => void;
}

function OneLamp({ row, pick, x, onMove, onOut }: OneProps) {
  const value = row.values[pick];
  const name = (
    <Name>
      <input type="checkbox" checked onChange={onOut} aria-label={`${row.name} in the group`} />
      <span>{row.name}</span>
    </Name>
  );
  if (row.barred || !value) {
    return (
      <>
        {name}
        <Barred>{row.barred}</Barred>
      </>
    );
  }
  const fits = row.values.filter((v) => v.fits).map((v) => x(v.octaves));
  const left = Math.min(...fits);
  const right = Math.max(...fits);
  return (
    <>
      {name}
      <Track
        tabIndex={0}
        role="slider"
        aria-label={row.name}
        aria-valuemin={0}
        aria-valuemax={row.values.length - 1}
        aria-valuenow={row.values.length - 1 - pick}
        aria-valuetext={`${value.text}, ${value.light}${value.fits ? "" : ", past its limits"}`}
        onKeyDown={(e) => steps(e, (by) => onMove(bounded(pick - by, row.values.length)))}
        onClick={(e) => onMove(closest(row, x, within(e)))}
      >
        <rect
          x={left}
          y="20"
          width={Math.max(2, right - left)}
          height="8"
          fill="var(--fits-soft)"
        />
        {row.values
          .filter((v) => v.fits)
          .map((v) => (
            <circle
              key={v.ohm}
              cx={x(v.octaves)}
              cy="24"
              r={v.at_hand ? 4 : 2}
              fill={v.at_hand ? "var(--ink)" : "var(--ink-soft)"}
            />
          ))}
        <path
          d={`M${x(value.octaves)} 10v28`}
          stroke={value.fits ? "var(--mark)" : "var(--stop)"}
          strokeWidth="4"
        />
      </Track>
      <Value>{value.text}</Value>
    </>
  );
}

/** Arrow keys, page keys and ends, as steps of light. */
function steps(e: KeyboardEvent, move: (by: number) => void) {
  const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 4, PageDown: -4 }[
    e.key
  ];
  if (by === undefined) return;
  e.preventDefault();
  move(by);
}

const within = (e: { clientX: number; currentTarget: Element }) =>
  e.clientX - e.currentTarget.getBoundingClientRect().left;

const bounded = (k: number, length: number) => Math.min(Math.max(k, 0), length - 1);

const nearest = (levels: Match["levels"], octaves: number) =>
  levels.reduce((best, l, k) => {
    const so = levels[best];
    return so && Math.abs(l.octaves - octaves) < Math.abs(so.octaves - octaves) ? k : best;
  }, 0);

const closest = (row: Row, x: OneProps["x"], at: number) =>
  row.values.reduce((best, v, k) => {
    const so = row.values[best];
    return so && Math.abs(x(v.octaves) - at) < Math.abs(x(so.octaves) - at) ? k : best;
  }, 0);
