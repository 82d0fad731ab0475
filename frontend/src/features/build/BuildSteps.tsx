import { useState } from "react";
import { FileTrigger, ToggleButton } from "react-aria-components";
import styled from "styled-components";

import { Refused, type Report, type Schemas } from "../../api/client";
import { upload } from "../../api/upload";
import { Bands } from "../../instruments/Bands";
import { ReadAloud } from "../../instruments/ReadAloud";
import { ReadingEntry } from "../../instruments/ReadingEntry";
import { useKeepReading } from "../../instruments/useKeepReading";
import { BoardWayRound, ChipWayRound, LedWayRound } from "../../instruments/WayRound";
import { FromDrawer } from "./FromDrawer";
import { draftOf } from "../../saving/drafts";
import type { FromField } from "../../saving/saves";
import { SmallButton } from "../../ui/Button";
import { option } from "../../ui/option";
import { Refusal } from "../../ui/Refusal";
import { SavedChoice } from "../../ui/record/SavedChoice";
import { useThumb } from "../../ui/useNarrow";
import { TextControl } from "../../ui/record/TextControl";
import { useRecord } from "../../ui/record/record";
import { Unsaved } from "../../ui/record/Unsaved";
import { useAutosavedField } from "../../ui/record/useAutosavedField";

const List = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Row = styled.li`
  display: grid;
  grid-template-columns: 2.2ch minmax(0, 1fr) auto;
  gap: 2px 12px;
  padding: 10px 0;
  border-bottom: 1px solid var(--rule-soft);
  & > b {
    font: 650 1.1rem var(--mono);
    color: var(--ink-soft);
  }
  form {
    max-width: 380px;
  }
  @media (max-width: 760px) {
    grid-template-columns: 2.2ch minmax(0, 1fr);
    & > :nth-child(3) {
      grid-column: 2;
    }
  }
  &[data-done="true"] > div > strong {
    color: var(--ink-soft);
    text-decoration: line-through;
  }
`;

const Act = styled.strong`
  display: block;
  font-size: 1.15rem;
  line-height: 1.3;
`;

const Why = styled.p`
  color: var(--ink-soft);
`;

const Facts = styled.dl`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0 14px;
  margin: 4px 0 0;
  dt {
    color: var(--ink-soft);
  }
  dd {
    margin: 0;
    font: 600 1.1rem var(--mono);
  }
`;

const Tick = styled(ToggleButton)`
  ${option}
  align-self: start;
  min-width: 92px;
  min-height: 48px;
  /* By thumb, from either side of the phone. */
  @media (max-width: 760px) {
    width: 100%;
    min-height: 56px;
    font-size: 1.1rem;
  }
`;

/* Every step has these: they are there, and say no more than that. */
const Quiet = styled(SmallButton)`
  padding: 0 4px;
  border-color: transparent;
  background: none;
  font-weight: 500;
  text-decoration: underline;
  text-underline-offset: 0.2em;
`;

const Written = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: end;
  margin-top: 6px;
  img {
    height: 56px;
    border: 1.5px solid var(--rule);
    border-radius: 4px;
  }
`;

const Note = styled.div`
  display: grid;
  flex: 1 1 100%;
  grid-template-columns: minmax(0, 1fr) 110px;
  gap: 0 10px;
`;

const Printed = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 0 14px;
  max-width: 480px;
`;

type Step = Report["build"][number];
type Position = Schemas["PositionAnswer"];

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  report: Report;
}

/** The steps by phase; where one must stop and look there is something to tick, the rest is read. */
export function BuildSteps({ position, report }: Props) {
  const phases = [...new Set(report.build.map((s) => s.phase))];
  const ticks = report.build.filter((s) => s.tick);
  const done = ticks.filter((s) => position.steps?.[s.id]?.done).length;
  return (
    <>
      <p role="status">
        {done} of {ticks.length} looked at and ticked.
      </p>
      {phases.map((phase) => {
        const steps = report.build.filter((s) => s.phase === phase);
        return (
          <section key={phase} aria-label={steps[0]?.phase_label ?? ""}>
            <h2>{steps[0]?.phase_label}</h2>
            <List>
              {steps.map((s) => (
                <BuildStep
                  key={s.id}
                  step={s}
                  number={report.build.indexOf(s) + 1}
                  position={position}
                  marks={report.sizing.marks}
                />
              ))}
            </List>
          </section>
        );
      })}
    </>
  );
}

interface StepProps {
  step: Step;
  number: number;
  position: Position;
  /** How the resistor is marked. */
  marks: Report["sizing"]["marks"];
}

function BuildStep({ step, number, position, marks }: StepProps) {
  const { save } = useRecord();
  const thumb = useThumb();
  const keepReading = useKeepReading(position.id);
  // Of a step that nobody wrote at there is nothing that could have been seen.
  const known = position.steps?.[step.id] !== undefined;
  const put: Put = (fields, was, at) =>
    save(
      { steps: { [step.id]: fields } },
      was && known ? { steps: { [step.id]: was } } : undefined,
      at,
    );
  const done = useAutosavedField<boolean>({
    id: `position.${position.id}.steps.${step.id}.done`,
    label: step.act,
    names: [`steps.${step.id}.done`],
    kept: position.steps?.[step.id]?.done ?? false,
    save: (value, was, at) =>
      put({ done: value, at: value ? new Date().toISOString() : "" }, asWas("done", was), at),
  });
  return (
    <Row data-done={done.value}>
      <b>{number}</b>
      <div>
        <Act>{step.act}</Act>
        {step.why && <Why>{step.why}</Why>}
        {step.facts.length > 0 && (
          <Facts>
            {step.facts.map((f) => (
              <div key={f.label} style={{ display: "contents" }}>
                <dt>{f.label}</dt>
                <dd>{f.text}</dd>
              </div>
            ))}
          </Facts>
        )}
        <Drawn step={step} marks={marks} />
        {step.takes_parts && !done.value && <FromDrawer position={position.id} />}
        {step.reading && (
          <ReadingEntry
            at={`.${step.id}`}
            positionId={position.id}
            kind={step.reading}
            meter=""
            state={step.state}
            example=""
            onRead={keepReading}
          />
        )}
        <Noted number={number} id={step.id} position={position} onPut={put} />
        {thumb && (
          <ReadAloud
            of={step.act}
            text={[step.act, step.why, ...step.facts.map((f) => `${f.label} ${f.text}`)]}
          />
        )}
      </div>
      {step.tick && (
        <div>
          <Tick
            isSelected={done.value}
            aria-label={`${done.value ? "Looked" : "Look"}: ${step.act}`}
            onChange={(looked) => {
              done.type(looked);
              done.commit();
            }}
          >
            {done.value ? "Looked" : "Look"}
          </Tick>
          <Unsaved field={done} bare />
        </div>
      )}
    </Row>
  );
}

/** What belongs to a step as a drawing: the resistor's bands, or which way round a part sits. */
function Drawn({ step, marks }: Pick<StepProps, "step" | "marks">) {
  if (step.picture === "") return null;
  if (step.picture === "bands") return marks && <Bands marks={marks} />;
  return (
    <>
      {step.picture === "chip" ? <ChipWayRound /> : <LedWayRound />}
      {step.board && <BoardWayRound board={step.board} />}
      <Printed>
        <SavedChoice field="board_mark" label="What the board prints" />
        {step.board && <SavedChoice field="board_side" label="Seen from the parts' side" />}
      </Printed>
    </>
  );
}

/** Save fields of a step; the others stay. */
type Put = (
  fields: Record<string, unknown>,
  was: Record<string, unknown> | undefined,
  at: FromField,
) => Promise<unknown>;

const asWas = (field: string, was: unknown) => (was === undefined ? undefined : { [field]: was });

interface NotedProps {
  number: number;
  /** The step's key. */
  id: string;
  position: Position;
  onPut: Put;
}

/** A step's note, minutes and photograph; the field opens where something is to be written. */
function Noted({ number, id, position, onPut }: NotedProps) {
  const at = `position.${position.id}.steps.${id}`;
  // What was typed before the page closed is shown where it was typed.
  const [writing, setWriting] = useState(
    () => draftOf(`${at}.note`) !== undefined || draftOf(`${at}.minutes`) !== undefined,
  );
  const kept = position.steps?.[id];
  const noted = Boolean(kept?.note || kept?.minutes || kept?.photo);
  return (
    <Written>
      {writing || noted ? (
        <Note>
          <TextControl
            id={`${at}.note`}
            names={[`steps.${id}.note`]}
            label={`Note on ${number}`}
            saved={kept?.note ?? ""}
            long
            onSave={(note, was, at) => onPut({ note }, asWas("note", was), at)}
          />
          <TextControl
            id={`${at}.minutes`}
            names={[`steps.${id}.minutes`]}
            label="Minutes"
            saved={kept?.minutes ?? ""}
            onSave={(minutes, was, at) => onPut({ minutes }, asWas("minutes", was), at)}
          />
        </Note>
      ) : (
        <Quiet aria-label={`Note on step ${number}`} onPress={() => setWriting(true)}>
          Note
        </Quiet>
      )}
      <Picture id={id} number={number} position={position} photo={kept?.photo ?? ""} />
    </Written>
  );
}

interface PictureProps {
  /** The step's key. */
  id: string;
  number: number;
  position: Position;
  /** The key of the photograph that belongs to the step. */
  photo: string;
}

/** A photograph of a step: taken with the phone, kept with the item's. */
function Picture({ id, number, position, photo }: PictureProps) {
  const { save } = useRecord();
  const thumb = useThumb();
  const [wrong, setWrong] = useState("");
  const add = async (file: File) => {
    const key = crypto.randomUUID();
    try {
      await upload(`/api/equipment/${position.equipment}/photos/${key}`, file);
      setWrong("");
      await save({ steps: { [id]: { photo: key } } });
    } catch (problem) {
      setWrong(
        problem instanceof Refused
          ? problem.message
          : "The connection dropped: the photograph is not in yet. Take it in again.",
      );
    }
  };
  return (
    <>
      {photo && <img src={`/api/photos/${photo}/picture.jpg`} alt={`Step ${number}`} />}
      <FileTrigger
        acceptedFileTypes={["image/*"]}
        {...(thumb && { defaultCamera: "environment" })}
        onSelect={(files) => files?.[0] && void add(files[0])}
      >
        <Quiet aria-label={`Photograph of step ${number}`}>Photograph</Quiet>
      </FileTrigger>
      <Refusal why={wrong || undefined} />
    </>
  );
}
