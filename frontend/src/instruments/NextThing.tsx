import styled from "styled-components";

import type { Report, Schemas } from "../api/client";
import type { FromField } from "../saving/saves";
import { useDraft } from "../saving/useDraft";
import { inPassing } from "../saving/useSave";
import { MainButton } from "../ui/Button";
import { Field } from "../ui/Field";

const Wrap = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 20px;
  align-items: center;
  padding: 8px 14px;
  border: 2px solid var(--mark);
  border-radius: 4px;
  background: var(--sheet);
  @media (max-width: 760px) {
    grid-template-columns: 1fr;
  }
`;

const Act = styled.h2`
  font-size: 1.3rem;
  line-height: 1.2;
  font-weight: 650;
  small {
    font: inherit;
    color: var(--mark);
    margin-right: 0.5em;
  }
`;

const How = styled.p`
  font-size: 0.98rem;
  b {
    font-family: var(--mono);
    font-weight: 650;
    font-size: 0.95rem;
    letter-spacing: -0.03em;
    white-space: nowrap;
  }
`;

const Means = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 0.9rem;
  b {
    font-weight: 650;
  }
`;

const Why = styled.p`
  font-size: 0.9rem;
  color: var(--ink-soft);
`;

const Take = styled.form`
  display: grid;
  grid-template-columns: 132px auto;
  &[data-kind="current"] {
    grid-template-columns: 126px 92px auto;
  }
  gap: 8px;
  align-items: start;
  & > button {
    margin-top: 22px;
  }
  @media (max-width: 760px) {
    grid-template-columns: 1fr auto;
    &[data-kind="current"] {
      grid-template-columns: 1fr 1fr auto;
    }
  }
`;

interface Props {
  /** The position's key; names the draft. */
  positionId: string;
  /** The next thing to do. */
  step: Report["next_step"];
  /** Keep a reading; rejects where the server refuses. */
  onRead: (reading: Schemas["BenchReading"], field: FromField) => Promise<unknown>;
}

/** The one thing to do now, and where its reading is typed. */
export function NextThing({ positionId, step, onRead }: Props) {
  return (
    <Wrap aria-label="Next thing on the bench">
      <div>
        <Act>
          <small>Next</small>
          {step.act}
        </Act>
        <How>
          {step.meter}; {step.points}; {step.state}. Expect <b>{step.expect}</b>.
        </How>
        {step.meanings.length > 0 && (
          <Means>
            {step.meanings.map((m) => (
              <li key={m.answer}>
                <b>{m.answer}</b>: {m.means}
              </li>
            ))}
          </Means>
        )}
        <Why>
          {step.why} {step.caution}
        </Why>
      </div>
      {step.reading !== null && (
        <Entry
          key={step.reading}
          positionId={positionId}
          kind={step.reading}
          meter={step.meter}
          example={step.example}
          onRead={onRead}
        />
      )}
    </Wrap>
  );
}

interface EntryProps {
  /** The position's key; names the draft. */
  positionId: string;
  /** Which of the readings after the swap it is, or which figure it gives. */
  kind: string;
  /** What the meter is set to; kept as a note. */
  meter: string;
  /** How such a reading is written. */
  example: string;
  /** Keep a reading; rejects where the server refuses. */
  onRead: Props["onRead"];
}

function Entry({ positionId, kind, meter, example, onRead }: EntryProps) {
  const draft = useDraft(`reading.${positionId}.${kind}`, "", "Reading");
  const burden = useDraft(`burden.${positionId}`, "5R", "Meter adds");
  const isCurrent = kind === "current";
  const read = () => {
    // The field is empty at once: a second press finds nothing to read.
    const text = draft.take();
    if (text === undefined) return;
    const field = {
      draft: draft.key,
      text,
      names: ["text"],
      beside: { burden: burden.key },
      label: "Reading",
    };
    const reading = {
      id: crypto.randomUUID(),
      what: kind,
      text,
      burden: isCurrent ? burden.value : "",
      note: meter,
    };
    inPassing(onRead(reading, field));
  };
  return (
    <Take
      data-kind={isCurrent ? "current" : "volts"}
      onSubmit={(e) => {
        e.preventDefault();
        read();
      }}
    >
      <Field
        label="Reading"
        value={draft.value}
        onChange={draft.type}
        error={draft.refused}
        placeholder={example}
      />
      {isCurrent ? (
        <Field
          label="Meter adds"
          value={burden.value}
          onChange={burden.type}
          error={burden.refused}
        />
      ) : null}
      <MainButton type="submit">Read</MainButton>
    </Take>
  );
}
