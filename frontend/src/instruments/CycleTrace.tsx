import type { Report } from "../api/client";
import { CurveKey, STROKES } from "./CurveKey";
import { Trace } from "./Trace";

type Cycle = NonNullable<Report["cycle"]>;

const LEVELS = ["pencil", "ink", "mark"] as const;

/** The LED's current over one cycle at the three levels of the supply. */
export function CycleTrace({ cycle }: { cycle: Cycle }) {
  const stroke = (k: number) => LEVELS[k] ?? "ink";
  return (
    <div>
      <Trace
        label="LED current over one cycle"
        curves={cycle.amps.map((amps, k) => ({
          id: String(k),
          points: amps.map((a, n) => [cycle.degrees[n] ?? 0, a] as const),
          stroke: stroke(k),
          dash: STROKES[stroke(k)],
        }))}
        xUnit="degrees of the cycle"
        yUnit="mA"
        yScale={1e3}
        height={206}
      />
      <CurveKey lines={cycle.levels.map((l, k) => ({ label: l.label, stroke: stroke(k) }))} />
    </div>
  );
}
