import styled from "styled-components";

import { useCatalogue } from "../api/queries";
import { Sketch } from "./Sketch";

const Draw = styled(Sketch)`
  text {
    text-anchor: middle;
  }
`;

const W = 330;
const WIRE = 30;
/** Half the gap where the loop is opened. */
const GAP = 13;

/** Where the points of the loop stand across, in the order of the current's way; a part between each two. */
const POINTS = ["rail", "after_driver", "after_resistor", "ground"] as const;
const STEP = 100;
const PARTS = ["driver", "resistor", "LED"] as const;
const place = (k: number) => 15 + k * STEP;
const at = (point: string) => place(Math.max(POINTS.indexOf(point as (typeof POINTS)[number]), 0));

interface Props {
  /** What is read. */
  what: string;
}

/** Where the meter's leads go for a reading: across a part, or the loop opened and the meter put in. */
export function Leads({ what }: Props) {
  const leads = useCatalogue().data?.leads[what];
  if (!leads) return null;
  const series = leads.mode === "series";
  // Between two points that are one here there is nothing to draw: it is said.
  if (!series && leads.red === leads.black) return <p>{leads.line}</p>;
  const a = at(leads.red) - (series ? GAP : 0);
  const b = at(leads.black) + (series ? GAP : 0);
  const middle = (a + b) / 2;
  return (
    <Draw viewBox={`0 0 ${W} 96`} role="img" aria-label={leads.line}>
      <path d={`M${place(0)} ${WIRE}H${place(3)}`} stroke="var(--ink)" strokeWidth="2" />
      {series && <path d={`M${a} ${WIRE}H${b}`} stroke="var(--sheet)" strokeWidth="5" />}
      {PARTS.map((part, k) => (
        <g key={part}>
          <rect
            x={place(k) + 25}
            y={WIRE - 9}
            width="50"
            height="18"
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth="1.5"
          />
          <text x={place(k) + 50} y={WIRE - 14}>
            {part}
          </text>
        </g>
      ))}
      <text x="15" y={WIRE - 14}>
        rail
      </text>
      <path d={`M${place(3)} ${WIRE}v9m-8 0h16m-12 4h8`} stroke="var(--ink)" strokeWidth="2" />
      <path
        d={`M${a} ${WIRE}V62H${middle - 16}`}
        fill="none"
        stroke="var(--stop)"
        strokeWidth="2.5"
      />
      <path
        d={`M${b} ${WIRE}V62H${middle + 16}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="2.5"
      />
      <circle cx={a} cy={WIRE} r="5" fill="var(--stop)" />
      <circle cx={b} cy={WIRE} r="5" fill="var(--ink)" />
      <circle cx={middle} cy="62" r="16" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      <text x={middle} y="67">
        {leads.meter}
      </text>
      <text x={Math.min(Math.max(middle, 64), W - 64)} y="93">
        {series ? "loop opened, meter in it" : "red left, black right"}
      </text>
    </Draw>
  );
}
