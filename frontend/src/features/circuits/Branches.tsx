import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { Figure } from "../../ui/Figure";

const Row = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 14px 28px;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
`;

const Branch = styled.li`
  min-width: 190px;
  font-size: 0.95rem;
  strong {
    display: block;
  }
`;

const Draw = styled.svg`
  display: block;
  height: 130px;
  text {
    font: 500 12px var(--mono);
    fill: var(--ink);
  }
`;

const TOP = 12;
const H = 112;
const STEP = 62;

interface Props {
  stairs: Schemas["BranchStair"][];
}

/** One stair a branch, side by side on one scale of volts. */
export function Branches({ stairs }: Props) {
  const most = Math.max(...stairs.map((s) => s.steps.reduce((sum, t) => sum + t.volts, 0)), 1e-9);
  return (
    <Row aria-label="Branches">
      {stairs.map((s) => (
        <Branch key={s.id}>
          <strong>{s.label}</strong>
          <Stairs steps={s.steps} most={most} />
          <Figure shown={s.amps} />
          {s.after && (
            <>
              {" then "}
              <Figure shown={s.after} />
            </>
          )}
          <div>{s.light}</div>
        </Branch>
      ))}
    </Row>
  );
}

interface StairsProps {
  /** Volts that each part keeps, from the feed down. */
  steps: Schemas["BranchStep"][];
  /** The highest feed, which fills the height. */
  most: number;
}

function Stairs({ steps, most }: StairsProps) {
  const wide = steps.length * STEP + 90;
  const y = (volts: number) => TOP + H - (volts / most) * H;
  const below = (n: number) => steps.slice(n).reduce((sum, t) => sum + t.volts, 0);
  const treads = steps.map(({ label, volts }, n) => ({
    label,
    volts,
    x: (n + 1) * STEP - 22,
    from: below(n),
    to: below(n + 1),
  }));
  const path = `M0 ${y(below(0))}${treads.map((t) => `H${t.x}V${y(t.to)}`).join("")}H${wide}`;
  const words = steps.map((t) => `${t.label} ${t.volts.toPrecision(3)} V`).join(", ");
  return (
    <Draw width={wide} viewBox={`0 0 ${wide} ${H + TOP + 6}`} role="img" aria-label={words}>
      <path d={path} fill="none" stroke="var(--ink)" strokeWidth="2.5" />
      {treads.map((t) => (
        <text key={t.label} x={t.x + 5} y={Math.min(y((t.from + t.to) / 2) + 4, y(t.to) - 5)}>
          {`${t.volts.toPrecision(3)} V ${t.label}`}
        </text>
      ))}
    </Draw>
  );
}
