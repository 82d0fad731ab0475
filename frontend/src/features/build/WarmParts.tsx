import styled from "styled-components";

import type { Report } from "../../api/client";
import { ReadingEntry } from "../../instruments/ReadingEntry";
import { useKeepReading } from "../../instruments/useKeepReading";
import { Figure } from "../../ui/Figure";

const Row = styled.li`
  form {
    max-width: 380px;
  }
  padding: 8px 0;
  border-bottom: 1px solid var(--rule-soft);
  strong {
    font: 650 1.5rem var(--mono);
  }
`;

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Soft = styled.p`
  font-size: 0.95rem;
  color: var(--ink-soft);
`;

interface Props {
  /** The position's key. */
  positionId: string;
  /** Whether it is on the mains: then nothing is read of it lit. */
  mains: boolean;
  report: Report;
}

/** What each part should feel like after half an hour, and what it means when it does not. */
export function WarmParts({ positionId, mains, report }: Props) {
  const keepReading = useKeepReading(positionId);
  const { warmth } = report;
  return (
    <section aria-label="After half an hour">
      <h2>After half an hour</h2>
      {warmth.length === 0 && <p>Nothing here has a body to feel.</p>}
      <List>
        {warmth.map((w) => (
          <Row key={w.part}>
            {w.label}:{" "}
            <strong>
              <Figure shown={w.usual} />
            </strong>
            , {w.finger}.
            <Soft>
              A thermocouple reads <Figure shown={w.low} /> to <Figure shown={w.high} />.
            </Soft>
            {report.diagnoses
              .filter((d) => d.kind === w.reading)
              .slice(-1)
              .map((d) => (
                <p key={d.id}>{d.line}</p>
              ))}
            {!mains && (
              <ReadingEntry
                positionId={positionId}
                kind={w.reading}
                meter=""
                example=""
                onRead={keepReading}
              />
            )}
          </Row>
        ))}
      </List>
      {warmth[0] && (
        <>
          <Soft>{warmth[0].hotter}</Soft>
          <Soft>{warmth[0].cooler}</Soft>
        </>
      )}
    </section>
  );
}
