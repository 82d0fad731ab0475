import styled from "styled-components";

import type { Report } from "../../api/client";
import { Figure } from "../../ui/Figure";

const Line = styled.p`
  flex: none;
  margin: 2px 0;
  font-size: 1.05rem;
  @media (max-width: 1000px) {
    order: 2;
  }
`;

interface Props {
  /** What the strings carry. */
  current: Report["current"];
}

/** What each string of a swept part carries, and what stands over each LED of it. */
function Swept({ inside }: { inside: NonNullable<Report["current"]["inside"]> }) {
  return (
    <Line>
      {inside.strings > 1 ? `Each of its ${inside.strings} strings ` : "Its string "}
      <Figure shown={inside.amps} />
      {inside.volts && (
        <>
          , <Figure shown={inside.volts} /> over each LED
        </>
      )}
      .
    </Line>
  );
}

/** Where several strings stand in one place: what one carries, what all take, and each other kind's own. */
export function Strings({ current }: Props) {
  const { usual, lamp, strings, inside } = current;
  const alone = strings.length === 0 && lamp.value <= usual.value * 1.001;
  return (
    <>
      {!alone && <Together usual={usual} lamp={lamp} strings={strings} />}
      {inside && <Swept inside={inside} />}
    </>
  );
}

/** What one string carries, what all take, and each other kind's own. */
function Together({ usual, lamp, strings }: Pick<Report["current"], "usual" | "lamp" | "strings">) {
  return (
    <Line>
      One string <Figure shown={usual} />, all of them <Figure shown={lamp} />.
      {strings.map((s) => (
        <span key={s.name}>
          {" "}
          {s.name}: {s.count > 1 ? `${s.count} × ` : ""}
          <Figure shown={s.usual} />, at the most <Figure shown={s.most} />, through{" "}
          <Figure shown={s.each} />.
        </span>
      ))}
    </Line>
  );
}
