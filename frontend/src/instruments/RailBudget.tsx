import styled from "styled-components";

import type { Schemas } from "../api/client";
import { Figure } from "../ui/Figure";
import { GradeMark } from "../ui/GradeMark";
import { useWidth } from "./useWidth";

type Budget = Schemas["RailBudget"];
type Taken = Budget["taken"][number];

const HEIGHT = 34;
const GAP = 62;
/** Where the first bar begins; its name and the limits' stand above. */
const FIRST = 26;
const FILLS = ["var(--fits-soft)", "var(--drive-soft)"];
/** Where what is drawn is this small a part of the scale, it is drawn once more, enlarged. */
const SMALL = 0.2;
/** Narrower than this a part of a bar bears no name. */
const NAMED = 56;

const Box = styled.figure`
  margin: 6px 0 14px;
  svg {
    display: block;
    width: 100%;
    overflow: visible;
  }
  text {
    font-family: var(--sans);
    font-size: 14px;
    fill: var(--ink);
  }
  text[data-soft="true"] {
    fill: var(--ink-soft);
  }
  rect {
    stroke: var(--ground);
    stroke-width: 2;
  }
`;

const Facts = styled.p`
  font-size: 1.05rem;
  b {
    font-size: 1.35rem;
    letter-spacing: -0.02em;
  }
`;

const Shares = styled.ul`
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 2px;
  font-size: 0.98rem;
`;

const Judged = styled.p`
  display: flex;
  gap: 8px;
  align-items: baseline;
  margin: 4px 0;
`;

const WHEN: Record<Taken["lit"], string> = {
  always: "",
  sometimes: ", now and then",
  single: ", one at a time",
};

interface Props {
  /** What the rail gives to its lamps. */
  budget: Budget;
  /** The rail's name. */
  name: string;
}

/** A rail's budget: what each lamp takes of it before the swap and after it, against what it may give. */
export function RailBudget({ budget, name }: Props) {
  return (
    <Box aria-label={`What hangs on ${name}`}>
      <Totals budget={budget} />
      <Drawing budget={budget} />
      {budget.findings.map((f) => (
        <Judged key={f.id}>
          <GradeMark grade={f.grade} />
          <span>
            {f.message} {f.why}
          </span>
        </Judged>
      ))}
      <ByLamp budget={budget} />
    </Box>
  );
}

interface BudgetProps {
  /** What the rail gives to its lamps. */
  budget: Budget;
}

function Totals({ budget }: BudgetProps) {
  const { usual_before: before, usual_after: after, hours_before, hours_after } = budget;
  return (
    <Facts>
      <b>
        <Figure shown={after} />
      </b>{" "}
      together after the swaps
      {before && (
        <>
          , <Figure shown={before} /> before
        </>
      )}
      .
      {hours_after && (
        <>
          {" "}
          The battery lasts <Figure shown={hours_after} />
          {hours_before && (
            <>
              , <Figure shown={hours_before} /> before
            </>
          )}
          . {budget.hours_line}
        </>
      )}
    </Facts>
  );
}

function Drawing({ budget }: BudgetProps) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const { taken, others, usual_before: before, usual_after: after } = budget;
  const scale = Math.max(budget.scale_a, before?.value ?? 0, after.value, 1e-12) * 1.04;
  const at = (amps: number) => (amps / scale) * width;
  const enlarged = after.value > 0 && after.value < SMALL * scale;
  const extra = others?.value ?? 0;
  const lit = parts(taken, (t) => t.after.value, extra);
  const rows = [
    ...(before ? [["Before", parts(taken, (t) => t.before?.value ?? 0, extra)] as const] : []),
    ["After", lit] as const,
  ];
  const top = (row: number) => FIRST + row * GAP;
  const high = top(rows.length - 1) + HEIGHT;
  const below = high + 34;
  return (
    <div ref={ref}>
      <svg height={enlarged ? below + HEIGHT + 6 : high + 8} role="img" aria-label={budget.line}>
        {rows.map(([label, of], k) => (
          <g key={label}>
            <text x={0} y={top(k) - 7} data-soft="true">
              {label}
            </text>
            <Bar parts={of} y={top(k)} at={at} />
          </g>
        ))}
        {enlarged && (
          <>
            <path
              d={`M0 ${high} L0 ${below} M${at(after.value)} ${high} L${width} ${below}`}
              stroke="var(--rule)"
              fill="none"
            />
            <Bar parts={lit} y={below} at={(amps) => (amps / after.value) * width} />
          </>
        )}
        <Limits budget={budget} at={at} scale={scale} low={high + 4} />
      </svg>
    </div>
  );
}

interface LimitsProps extends BudgetProps {
  /** From amps to pixels. */
  at: (amps: number) => number;
  /** The largest current drawn, A. */
  scale: number;
  /** Where the marks end. */
  low: number;
}

function Limits({ budget, at, scale, low }: LimitsProps) {
  return budget.limits
    .filter((limit) => limit.amps.value <= scale)
    .map((limit) => (
      <g key={limit.id}>
        <line
          x1={at(limit.amps.value)}
          x2={at(limit.amps.value)}
          y1={FIRST - 20}
          y2={low}
          stroke="var(--stop)"
          strokeWidth={3}
        />
        <text x={at(limit.amps.value) - 8} y={FIRST - 7} textAnchor="end">
          {limit.label} {limit.amps.number} {limit.amps.unit}
        </text>
      </g>
    ));
}

function ByLamp({ budget }: BudgetProps) {
  return (
    <Shares>
      {budget.taken.map((t) => (
        <li key={t.id}>
          {t.name}
          {WHEN[t.lit]}: <Figure shown={t.after} />
          {t.before && (
            <>
              , <Figure shown={t.before} /> before
            </>
          )}
          ; {t.line}.
        </li>
      ))}
      {budget.others && (
        <li>
          What else hangs on it: <Figure shown={budget.others} />.
        </li>
      )}
      {budget.left_out.map((why) => (
        <li key={why}>Not counted: {why}</li>
      ))}
    </Shares>
  );
}

interface Part {
  id: string;
  name: string;
  amps: number;
}

/** A bar's parts: each lamp, then what else hangs on the rail; of lamps lit one at a time the largest alone. */
function parts(taken: readonly Taken[], amps: (t: Taken) => number, others: number): Part[] {
  const singles = taken.filter((t) => t.lit === "single");
  const most = singles.reduce<Taken | undefined>(
    (a, b) => (a && amps(a) >= amps(b) ? a : b),
    undefined,
  );
  const lamps = taken
    .filter((t) => t.lit !== "single" || t === most)
    .map((t) => ({ id: t.id, name: t.name, amps: amps(t) }));
  return others ? [...lamps, { id: "others", name: "Others", amps: others }] : lamps;
}

interface BarProps {
  parts: readonly Part[];
  y: number;
  /** From amps to pixels. */
  at: (amps: number) => number;
}

function Bar({ parts, y, at }: BarProps) {
  return parts.map((part, k) => {
    const before = parts.slice(0, k).reduce((sum, p) => sum + p.amps, 0);
    const wide = at(part.amps);
    const fill = FILLS[k % FILLS.length];
    return (
      <g key={part.id}>
        <rect
          x={at(before)}
          y={y}
          width={Math.max(wide, 1)}
          height={HEIGHT}
          fill={part.id === "others" ? "var(--dim-soft)" : fill}
        />
        {wide >= NAMED && (
          <text x={at(before) + 8} y={y + HEIGHT / 2 + 5}>
            {fitting(part.name, wide - 16)}
          </text>
        )}
      </g>
    );
  });
}

/** So much of a name as finds room; the list below has all of it. */
function fitting(name: string, room: number) {
  const most = Math.floor(room / 8);
  return name.length <= most ? name : `${name.slice(0, Math.max(most - 1, 1))}…`;
}
