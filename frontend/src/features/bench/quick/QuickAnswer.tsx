import styled from "styled-components";

import type { Report } from "../../../api/client";
import { MainButton, SmallButton } from "../../../ui/Button";
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

const Taken = styled.p`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  margin-top: 6px;
  font-weight: 600;
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
  /** What was taken of the findings, in words; "" for nothing. */
  taken: string;
  /** Take that back. */
  onPutBack: () => void;
}

/** The resistor, and what it must stand. */
export function QuickAnswer({ report, keepable, onKeep, taken, onPutBack }: Props) {
  const { sizing, power } = report;
  return (
    <div>
      {sizing.preferred ? (
        <Huge shown={sizing.each} />
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
        <dt>All together</dt>
        <dd>
          <Mid shown={report.current.lamp} />
        </dd>
        {report.current.fuse && (
          <>
            <dt>Smallest fuse</dt>
            <dd>
              <Mid shown={report.current.fuse} />
            </dd>
          </>
        )}
      </Pair>
      {taken && (
        <Taken>
          <span>{taken}</span>
          <SmallButton onPress={onPutBack}>Put back</SmallButton>
        </Taken>
      )}
      <Keep>
        <MainButton isDisabled={!keepable} onPress={onKeep}>
          Keep as a lamp
        </MainButton>
      </Keep>
    </div>
  );
}
