import styled from "styled-components";

import type { Report } from "../../../api/client";
import { GlowCell, Glowing } from "../../../instruments/Glowing";
import { inPassing } from "../../../saving/useSave";
import { Button, SmallButton } from "../../../ui/Button";
import { useRecord } from "../../../ui/record/record";
import type { Try } from "./part";

const Row = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Look = styled.li`
  display: grid;
  width: 92px;
  gap: 1px;
  font-size: 0.875rem;
  line-height: 1.25;
  strong {
    font-family: var(--mono);
  }
`;

/* A small viewing box, dark in both looks. */
const Cell = styled(GlowCell)`
  height: 72px;
  border-radius: 5px;
  background: #050606;
`;

interface Props {
  trials: NonNullable<Report["trials"]>;
  /** Preview changes without saving them. */
  onTry: Try;
}

/** The looks that were taken, as a row of small glow boxes, and what they come to. */
export function TrialsPart({ trials, onTry }: Props) {
  const { save } = useRecord();
  return (
    <section aria-label="Trials">
      <h3>Trials</h3>
      <Row>
        {trials.rows.map((t) => (
          <Look key={t.id}>
            <Cell>
              <Glowing lamp={t.lamp} />
            </Cell>
            <strong>{t.ohm}</strong>
            <span>{t.verdict}</span>
            {!t.counts && <span>in another light</span>}
            {t.at && <span>{t.at}</span>}
            {t.note && <span>{t.note}</span>}
            <SmallButton
              aria-label={`Delete the trial with ${t.ohm}`}
              onPress={() => inPassing(save({ trials: { [t.id]: null } }))}
            >
              Delete
            </SmallButton>
          </Look>
        ))}
      </Row>
      <p>{trials.line}</p>
      <p>{trials.step}</p>
      {trials.next_label && (
        <Button onPress={() => onTry(trials.next_label, trials.next_changes)}>
          {trials.next_label}
        </Button>
      )}
    </section>
  );
}
