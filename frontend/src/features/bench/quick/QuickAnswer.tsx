import styled from "styled-components";

import type { Report } from "../../../api/client";
import { MainButton } from "../../../ui/Button";
import { Figure } from "../../../ui/Figure";

const Huge = styled(Figure)`
  font-size: 4.4rem;
  line-height: 1;
  font-weight: 650;
  letter-spacing: -0.03em;
`;

const Mid = styled(Figure)`
  font-size: 1.3rem;
  font-weight: 600;
`;

const Pair = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  align-items: baseline;
  margin: 4px 0 0;
  dt {
    font-size: 0.95rem;
    color: var(--ink-soft);
  }
  dd {
    margin: 0;
  }
`;

const Keep = styled.div`
  margin-top: 10px;
`;

interface Props {
  /** The position's report. */
  report: Report;
  /** Whether what is typed now can be kept. */
  keepable: boolean;
  /** Ask where to keep it. */
  onKeep: () => void;
}

/** The resistor, and what it must stand. */
export function QuickAnswer({ report, keepable, onKeep }: Props) {
  const { sizing, power } = report;
  return (
    <div>
      {sizing.preferred ? (
        <Huge shown={sizing.preferred} />
      ) : (
        <p>No resistor: the rail does not reach the LEDs.</p>
      )}
      <Pair>
        <dt>Exact</dt>
        <dd>{sizing.exact ? <Mid shown={sizing.exact} /> : "none"}</dd>
        <dt>Headroom</dt>
        <dd>
          <Mid shown={sizing.headroom} />
        </dd>
        <dt>Rounding</dt>
        <dd>{sizing.rounding}</dd>
        <dt>Heat in it</dt>
        <dd>
          <Mid shown={power.each} />
        </dd>
        <dt>Rating to fit</dt>
        <dd>{power.to_fit ? <Mid shown={power.to_fit} /> : "none large enough"}</dd>
      </Pair>
      <Keep>
        <MainButton isDisabled={!keepable} onPress={onKeep}>
          Keep as a lamp
        </MainButton>
      </Keep>
    </div>
  );
}
