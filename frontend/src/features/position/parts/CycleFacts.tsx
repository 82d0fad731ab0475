import styled from "styled-components";

import type { Report } from "../../../api/client";
import { say } from "../../../ui/say";

const Facts = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 14px;
  margin: 0;
  dd {
    margin: 0;
    font: 600 1.05rem var(--mono);
  }
`;

interface Props {
  /** What the supply's cycle comes to. */
  cycle: NonNullable<Report["cycle"]>;
}

/** What the parts of the rectification must stand, and which way round they go. */
export function CycleFacts({ cycle }: Props) {
  return (
    <>
      <Facts>
        <dt>Highest crest</dt>
        <dd>{say(cycle.crest)}</dd>
        {cycle.diode_reverse && (
          <>
            <dt>Diode stands</dt>
            <dd>
              {say(cycle.diode_reverse)}
              {cycle.diode_rating ? `, fit ${say(cycle.diode_rating)}` : ""}
            </dd>
          </>
        )}
        {cycle.capacitor && (
          <>
            <dt>Capacitor</dt>
            <dd>
              {say(cycle.capacitor)}
              {cycle.capacitor_rating ? `, ${say(cycle.capacitor_rating)} or more` : ""}
            </dd>
          </>
        )}
        {cycle.ripple && (
          <>
            <dt>Ripple</dt>
            <dd>{say(cycle.ripple)}</dd>
          </>
        )}
      </Facts>
      {cycle.polarity && <p>{cycle.polarity}</p>}
    </>
  );
}
