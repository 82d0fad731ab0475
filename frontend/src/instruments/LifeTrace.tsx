import styled from "styled-components";

import type { Report } from "../api/client";
import { Trace } from "./Trace";

type Runtime = NonNullable<Report["runtime"]>;

const Facts = styled.p`
  font-size: 1.05rem;
  b {
    font-family: var(--mono);
    font-size: 1.3rem;
    letter-spacing: -0.02em;
  }
`;

const Counted = styled.p`
  font-size: 0.875rem;
  line-height: 1.25;
  color: var(--ink-soft);
`;

/** How the light fades as the battery runs down, after the swap and before it. */
export function LifeTrace({ runtime }: { runtime: Runtime }) {
  const percent = (share: number) => share * 100;
  const curve = (points: Runtime["led_curve"]) =>
    points.map((p) => [p.hours, percent(p.light)] as const);
  return (
    <div>
      <Facts>
        <b>
          {runtime.led.number} {runtime.led.unit}
        </b>{" "}
        of light
        {runtime.lamp && (
          <>
            , before the swap{" "}
            <b>
              {runtime.lamp.number} {runtime.lamp.unit}
            </b>{" "}
            (dashed)
          </>
        )}
        .
      </Facts>
      <Counted>{runtime.line}</Counted>
      {runtime.led_curve.length > 0 && (
        <Trace
          label="Light over the life of the battery"
          curves={[
            { id: "led", points: curve(runtime.led_curve), stroke: "ink" },
            ...(runtime.lamp_curve.length
              ? [
                  {
                    id: "lamp",
                    points: curve(runtime.lamp_curve),
                    stroke: "mark" as const,
                    dash: "9 4",
                  },
                ]
              : []),
          ]}
          xUnit="hours"
          yUnit="% of first light"
          height={166}
        />
      )}
    </div>
  );
}
