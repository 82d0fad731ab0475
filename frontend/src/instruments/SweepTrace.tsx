import type { Schemas } from "../api/client";
import { Trace } from "./Trace";

interface Props {
  /** The curve fitted through the sweep. */
  fit: Schemas["SweepReport"];
}

const oneLed = (fit: Props["fit"]) => ({
  id: "each",
  points: fit.each.map((p) => [p.volts, p.amps] as const),
  stroke: "pencil" as const,
  dash: "5 4",
});

/** The readings of a sweep, the curve fitted through them, and how far it misses them. */
export function SweepTrace({ fit }: Props) {
  return (
    <>
      <Trace
        label="Readings of the sweep and the curve fitted through them"
        curves={[
          {
            id: "fit",
            points: fit.curve.map((p) => [p.volts, p.amps] as const),
            stroke: "mark",
          },
          ...(fit.each.length > 0 ? [oneLed(fit)] : []),
        ]}
        marks={fit.points.map((p) => [p.volts, p.amps] as const)}
        xUnit="volts across it"
        yUnit="mA"
        yScale={1e3}
      />
      {fit.each.length > 0 && <p>Full line: all of it. Dashed: one LED of it.</p>}
      <p>
        {fit.line} Is {fit.i_s.number} {fit.i_s.unit}, n {fit.n.toFixed(2)}, Rs {fit.r_s.number}{" "}
        {fit.r_s.unit}; largest left over {fit.worst.number} {fit.worst.unit}.
      </p>
    </>
  );
}
