import styled from "styled-components";

import type { Report } from "../../api/client";
import { inPassing, useSave } from "../../saving/useSave";
import { SmallButton } from "../../ui/Button";
import { useListFocus } from "../../ui/useListFocus";
import { List, Section } from "./Section";
import { SwitchStates } from "./SwitchStates";

const Off = styled.div`
  padding: 10px 14px;
  border: 2px solid var(--stop);
  border-radius: 4px;
  margin-bottom: 14px;
  p:first-child {
    font-weight: 650;
  }
`;

type Survey = Report["survey"];

interface Props {
  /** The position's key. */
  id: string;
  /** What the readings before the swap say. */
  survey: Survey;
  /** Whether nothing may be powered: then nothing further is asked. */
  stops: boolean;
}

/** What the readings say: where they cannot both be right, what was read, what follows, what is next. */
export function SurveyPart({ id, survey, stops }: Props) {
  const save = useSave();
  return (
    <div>
      {survey.contradictions.map((c) => (
        <Off key={c.id} role="alert">
          <p>{c.message}</p>
          <p>{c.likeliest}</p>
        </Off>
      ))}
      <ReadingsTaken
        readings={survey.readings}
        onDelete={(reading) => {
          const more = { label: "Delete a reading", done: "Deleted the reading." };
          inPassing(save("DELETE", `/api/readings/before/${reading}`, undefined, more));
        }}
      />
      {survey.truth && <SwitchStates truth={survey.truth} />}
      {survey.inferences.length > 0 && (
        <Inferences
          inferences={survey.inferences}
          onTakeOver={(name) =>
            inPassing(
              save("POST", `/api/positions/${id}/infer/${name}`, undefined, { label: "Use it" }),
            )
          }
        />
      )}
      {!stops && survey.plan.length > 1 && <Plan steps={survey.plan.slice(1)} />}
    </div>
  );
}

interface ReadingsTakenProps {
  /** The readings, oldest first. */
  readings: Survey["readings"];
  /** Delete it. */
  onDelete: (reading: string) => void;
}

function ReadingsTaken({ readings, onDelete }: ReadingsTakenProps) {
  const { list, gone } = useListFocus<HTMLUListElement>(readings.length);
  return (
    <Section aria-label="Readings taken">
      <h2>Readings taken</h2>
      {readings.length === 0 && (
        <p>None yet. Begin with volts at the lamp&apos;s contacts, lamp in, on DC and AC.</p>
      )}
      <List ref={list}>
        {readings.map((r, at) => (
          <li key={r.id}>
            <span>
              {r.text}
              {r.why && (
                <small>
                  {r.corrected} without the meter: {r.why}
                </small>
              )}
            </span>
            <SmallButton
              aria-label={`Delete ${r.text}`}
              onPress={() => {
                gone(at);
                onDelete(r.id);
              }}
            >
              Delete
            </SmallButton>
          </li>
        ))}
      </List>
    </Section>
  );
}

interface InferencesProps {
  /** What follows from them. */
  inferences: Survey["inferences"];
  /** Take an inference over into the position. */
  onTakeOver: (name: string) => void;
}

function Inferences({ inferences, onTakeOver }: InferencesProps) {
  return (
    <Section aria-label="What they say">
      <h2>What they say, inferred</h2>
      <List>
        {inferences.map((i) => (
          <li key={i.id}>
            <span>
              {i.statement}
              <small>From {i.basis}.</small>
            </span>
            {Object.keys(i.sets ?? {}).length > 0 && (
              <SmallButton aria-label={`Use it: ${i.statement}`} onPress={() => onTakeOver(i.id)}>
                Use it
              </SmallButton>
            )}
          </li>
        ))}
      </List>
    </Section>
  );
}

interface PlanProps {
  /** In the order they are done. */
  steps: Survey["plan"];
}

function Plan({ steps }: PlanProps) {
  return (
    <Section aria-label="Still worth reading">
      <h2>Then</h2>
      <List>
        {steps.map((step) => (
          <li key={step.id}>
            <span>
              {step.act}
              <small>
                {step.meter}; {step.points}; {step.state}. Expect {step.expect}.
              </small>
            </span>
          </li>
        ))}
      </List>
    </Section>
  );
}
