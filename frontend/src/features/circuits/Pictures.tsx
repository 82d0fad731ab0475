import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { CurveKey, STROKES, type Stroke } from "../../instruments/CurveKey";
import { Trace } from "../../instruments/Trace";

const OF: Record<Schemas["Curve"]["of"], Stroke> = { old: "pencil", new: "ink", after: "mark" };

const Drawn = styled.div`
  max-width: 640px;
`;

interface Props {
  /** Curves over one axis, old and new. */
  picture: Schemas["Picture"];
}

/** Light or volts over what is turned, told or run: the old lamp, the LED, and what is meant. */
export function Pictured({ picture }: Props) {
  return (
    <Drawn>
      <Trace
        label={picture.label}
        curves={picture.curves.map((c) => ({
          id: c.label,
          points: c.points.map((p) => [p.x, p.y] as const),
          stroke: OF[c.of],
          dash: STROKES[OF[c.of]],
        }))}
        xUnit={picture.across}
        yUnit={picture.up}
        height={230}
      />
      <CurveKey lines={picture.curves.map((c) => ({ label: c.label, stroke: OF[c.of] }))} />
    </Drawn>
  );
}
