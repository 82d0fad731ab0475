import { useState } from "react";
import { Link, useParams } from "react-router";
import styled from "styled-components";

import { Refused, type Schemas } from "../api/client";
import { usePosition, useReport, useSave } from "../api/queries";
import { useDraft } from "../api/useDraft";
import { MainButton, SmallButton } from "../controls/Button";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { NextThing } from "../instruments/NextThing";
import { Missing } from "../shell/Missing";
import { Shell } from "../shell/Shell";
import { useUndo } from "../shell/useUndo";

const Title = styled.h1`
  font-size: 1.45rem;
  font-weight: 650;
  line-height: 1.2;
  margin-bottom: 8px;
  a {
    font-size: 1rem;
    font-weight: 400;
    margin-left: 14px;
    text-underline-offset: 0.2em;
  }
`;

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 480px) minmax(0, 1fr);
  gap: 14px 40px;
  margin-top: 14px;
  @media (max-width: 900px) {
    grid-template-columns: 1fr;
  }
`;

const Form = styled.form`
  display: grid;
  gap: 10px;
  align-content: start;
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
`;

const Section = styled.section`
  margin-bottom: 18px;
  h2 {
    font-size: 1.15rem;
    border-bottom: 2px solid var(--ink);
    margin-bottom: 4px;
  }
`;

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 14px;
    padding: 6px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
  li > span {
    flex: 1 1 260px;
  }
  small {
    display: block;
    font-size: 0.9rem;
    color: var(--ink-soft);
  }
`;

const Off = styled.div`
  padding: 10px 14px;
  border: 2px solid var(--stop);
  border-radius: 4px;
  margin-bottom: 14px;
  p:first-child {
    font-weight: 650;
  }
`;

const Table = styled.table`
  border-collapse: collapse;
  margin-bottom: 6px;
  th,
  td {
    padding: 6px 26px 6px 0;
    text-align: left;
    border-bottom: 1px solid var(--rule-soft);
  }
  thead th {
    font-size: 0.9rem;
    border-bottom: 1.5px solid var(--ink);
  }
  td:nth-child(2) {
    font-family: var(--mono);
  }
`;

const FUNCTIONS = [
  ["dc_volts", "DC volts"],
  ["ac_volts", "AC volts"],
  ["dc_amps", "DC amps"],
  ["ac_amps", "AC amps"],
  ["ohms", "Ohms"],
] as const;
const POINTS = [
  ["lamp", "Lamp"],
  ["feed", "Feed"],
  ["driver", "Switch"],
  ["frame", "To frame"],
] as const;

type Taken = Schemas["TakenFields"];

/** Readings before the swap: take them, see what they say together, and what to read next. */
export default function ReadingsView() {
  const { id = "" } = useParams();
  const view = usePosition(id);
  const answer = useReport(id, {});
  const save = useSave();
  const report = answer.data?.report;
  const undo = useUndo(view.data?.position.equipment ?? "", view.data?.steps);
  if (view.isError && !view.data) {
    return (
      <Shell>
        <Missing problem={view.error} />
      </Shell>
    );
  }
  if (!view.data || !report) return <Shell>{null}</Shell>;
  const { position } = view.data;
  const { survey } = report;

  return (
    <Shell undo={undo}>
      <Title>
        {position.name}: readings before the swap
        <Link to={`/position/${id}`}>Back to the lamp</Link>
      </Title>
      <NextThing
        positionId={id}
        step={report.next_step}
        onRead={(reading) => save("POST", `/api/positions/${id}/reading`, reading)}
      />
      <Columns>
        {position.mains ? (
          <p>
            This lamp is marked as connected with the mains. No live readings are taken or kept
            here.
          </p>
        ) : (
          <Take id={id} />
        )}
        <div>
          {survey.contradictions.map((c) => (
            <Off key={c.id} role="alert">
              <p>{c.message}</p>
              <p>{c.likeliest}</p>
            </Off>
          ))}
          <Section aria-label="Readings taken">
            <h2>Readings taken</h2>
            {survey.readings.length === 0 && (
              <p>None yet. Begin with volts at the lamp&apos;s contacts, lamp in, on DC and AC.</p>
            )}
            <List>
              {survey.readings.map((r) => (
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
                    onPress={() => void save("DELETE", `/api/taken/${r.id}`)}
                  >
                    Delete
                  </SmallButton>
                </li>
              ))}
            </List>
          </Section>
          {survey.truth && (
            <Section aria-label="Switch states">
              <h2>Switch states</h2>
              <Table>
                <thead>
                  <tr>
                    <th scope="col">Switch</th>
                    <th scope="col">At the lamp</th>
                    <th scope="col">Volts stand</th>
                    <th scope="col">Contact</th>
                  </tr>
                </thead>
                <tbody>
                  {survey.truth.rows.map((row) => (
                    <tr key={row.state}>
                      <th scope="row">{row.state}</th>
                      <td>{row.volts}</td>
                      <td>{row.lit ? "yes" : "no"}</td>
                      <td>{row.closed}</td>
                    </tr>
                  ))}
                </tbody>
              </Table>
              <p>{survey.truth.line}</p>
            </Section>
          )}
          {survey.inferences.length > 0 && (
            <Section aria-label="What they say">
              <h2>What they say, inferred</h2>
              <List>
                {survey.inferences.map((i) => (
                  <li key={i.id}>
                    <span>
                      {i.statement}
                      <small>From {i.basis}.</small>
                    </span>
                    {Object.keys(i.sets ?? {}).length > 0 && (
                      <SmallButton
                        aria-label={`Take over: ${i.statement}`}
                        onPress={() => void save("POST", `/api/positions/${id}/infer/${i.id}`)}
                      >
                        Take over
                      </SmallButton>
                    )}
                  </li>
                ))}
              </List>
            </Section>
          )}
          {survey.plan.length > 1 && (
            <Section aria-label="Still worth reading">
              <h2>Then</h2>
              <List>
                {survey.plan.slice(1).map((step) => (
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
          )}
        </div>
      </Columns>
    </Shell>
  );
}

function Take({ id }: { id: string }) {
  const save = useSave();
  const text = useDraft(`taken.${id}.text`, "");
  const state = useDraft(`taken.${id}.state`, "");
  const meter = useDraft(`taken.${id}.meter`, "");
  const note = useDraft(`taken.${id}.note`, "");
  const [what, setWhat] = useState<Taken["function"]>("dc_volts");
  const [points, setPoints] = useState<NonNullable<Taken["points"]>>("lamp");
  const [lamp, setLamp] = useState<"in" | "out">("in");
  const [trueRms, setTrueRms] = useState<"no" | "yes">("no");
  const [refusal, setRefusal] = useState<Refused>();
  const read = async () => {
    // The field is free for the next reading at once; a refused one comes back to it.
    const typed = text.value;
    text.clear();
    try {
      await save("PUT", `/api/taken/${crypto.randomUUID()}`, {
        position: id,
        function: what,
        text: typed,
        points,
        lamp,
        state: state.value,
        meter: meter.value,
        true_rms: trueRms === "yes",
        note: note.value,
      } satisfies Taken);
      note.clear();
      setRefusal(undefined);
    } catch (problem) {
      if (problem instanceof Refused) {
        text.type(typed);
        setRefusal(problem);
      }
    }
  };
  const amps = what.endsWith("amps");
  return (
    <Form
      aria-label="Take a reading"
      onSubmit={(e) => {
        e.preventDefault();
        void read();
      }}
    >
      <Choice label="Meter on" value={what} options={FUNCTIONS} onChange={setWhat} />
      <Choice label="Between" value={points} options={POINTS} onChange={setPoints} />
      <Choice
        label="Old lamp"
        value={lamp}
        options={
          [
            ["in", "In"],
            ["out", "Out"],
          ] as const
        }
        onChange={setLamp}
      />
      <Field
        label="Reading"
        value={text.value}
        onChange={(t) => {
          setRefusal(undefined);
          text.type(t);
        }}
        hint={what === "ohms" ? "4.7R, or OL for open" : "12.4V, or lowest to highest: 11.8-12.6V"}
        error={
          refusal?.of("text") ?? (refusal && !refusal.of("meter") ? refusal.message : undefined)
        }
      />
      <Pair>
        <Field
          label="Switch"
          value={state.value}
          onChange={state.type}
          hint="off, on, brake …"
          words
        />
        <Field
          label={amps ? "Meter adds" : "Meter's input"}
          value={meter.value}
          onChange={meter.type}
          hint={amps ? "Empty takes 5 Ω" : "Empty takes 10 MΩ"}
          error={refusal?.of("meter")}
        />
      </Pair>
      {what.startsWith("ac") && (
        <Choice
          label="The meter reads"
          value={trueRms}
          options={
            [
              ["no", "RMS of a sine"],
              ["yes", "True RMS"],
            ] as const
          }
          onChange={setTrueRms}
        />
      )}
      <Field label="Note" value={note.value} onChange={note.type} hint="Range, condition" words />
      <MainButton type="submit">Keep the reading</MainButton>
    </Form>
  );
}
