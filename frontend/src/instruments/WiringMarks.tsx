import type { Schemas } from "../api/client";
import { place, type Plan, type Point } from "./wiringPlan";

interface ProbedProps {
  probes: Schemas["Probes"];
  plan: Plan;
}

/** The meter's leads: red and black on their points, or a meter in the opened loop. */
export function Probed({ probes, plan }: ProbedProps) {
  const red = place(probes.red.across, probes.red.row, plan);
  const black = place(probes.black.across, probes.black.row, plan);
  if (probes.in_series) {
    return (
      <g role="img" aria-label="The next reading: open the loop here, the meter in the gap">
        <circle cx={red.x} cy={red.y} r="12" fill="var(--sheet)" stroke="var(--mark)" />
        <text x={red.x} y={red.y + 5} textAnchor="middle">
          A
        </text>
      </g>
    );
  }
  return (
    <g role="img" aria-label="The next reading: red and black lead on the marked points">
      <circle cx={red.x} cy={red.y} r="9" fill="var(--stop)" stroke="var(--ground)" />
      <circle cx={black.x} cy={black.y} r="9" fill="var(--ink)" stroke="var(--ground)" />
      <path
        d={`M${red.x - 5} ${red.y}h10m-5 -5v10M${black.x - 5} ${black.y}h10`}
        stroke="var(--ground)"
        strokeWidth="2.5"
      />
    </g>
  );
}

interface SuspectedProps {
  causes: readonly number[];
  middle: Point;
  plan: Plan;
}

/** A part that a fault may be in: the numbers of the causes, in a frame beside its symbol. */
export function Suspected({ causes, middle, plan }: SuspectedProps) {
  const wide = 10 + causes.length * 12;
  // Above its right end; upright at the left, where no text is.
  const x = plan.upright ? middle.x - 22 - wide : middle.x + 24;
  const y = plan.upright ? middle.y - 11 : middle.y - 24;
  return (
    <>
      <rect x={x} y={y} width={wide} height="20" rx="3" fill="var(--sheet)" stroke="var(--stop)" />
      <text x={x + wide / 2} y={y + 15} textAnchor="middle">
        {causes.join(" ")}
      </text>
    </>
  );
}
