import { useState } from "react";
import styled from "styled-components";

import type { Report } from "../../../api/client";
import { GlowCell, Glowing } from "../../../instruments/Glowing";
import { inPassing } from "../../../saving/useSave";
import { Button, SmallButton } from "../../../ui/Button";
import { useRecord } from "../../../ui/record/record";
import { TwoInOne } from "../../photograph/TwoInOne";
import type { Position, Try } from "./part";

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
  width: 108px;
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
  /** Whose they are. */
  position: Position;
  /** Preview changes without saving them. */
  onTry: Try;
}

/** The looks that were taken, as a row of small glow boxes, and what they come to. */
export function TrialsPart({ trials, position, onTry }: Props) {
  const { save } = useRecord();
  const [photographing, setPhotographing] = useState<string>();
  const open = trials.rows.find((t) => t.id === photographing);
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
            {t.photographed && <span>Photographed: {t.photographed}</span>}
            {Object.keys(t.taught).length > 0 && (
              <SmallButton
                aria-label={`Take the photographed light of ${t.ohm} for this LED's own`}
                onPress={() => onTry("The photographed light", t.taught)}
              >
                Take its light
              </SmallButton>
            )}
            <SmallButton
              aria-label={`Photograph of the trial with ${t.ohm} and the old lamp`}
              onPress={() => setPhotographing(t.id)}
            >
              Photograph
            </SmallButton>
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
      {trials.proposals.map((p) => (
        <Button key={p.label} onPress={() => onTry(p.label, p.changes)}>
          {p.label}
        </Button>
      ))}
      {open && (
        <TwoInOne
          position={position.id}
          equipment={position.equipment}
          trial={open}
          onClose={() => setPhotographing(undefined)}
        />
      )}
    </section>
  );
}
