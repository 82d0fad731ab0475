import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";

import type { Report } from "../../../api/client";
import { useCatalogue } from "../../../api/queries";
import { Leads } from "../../../instruments/Leads";
import { ReadingEntry } from "../../../instruments/ReadingEntry";
import { useKeepReading } from "../../../instruments/useKeepReading";
import { inPassing, useSave } from "../../../saving/useSave";
import { SmallButton } from "../../../ui/Button";
import { OneOfSome } from "../../../ui/OneOfSome";
import { useListFocus } from "../../../ui/useListFocus";
import { say } from "../../../ui/say";
import type { Position } from "./part";
import { SisterReadings } from "./SisterReadings";

const Taken = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 12px;
    padding: 4px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
`;

/** The views beside this one: what was read before the swap, and what may be wrong. */
function Beside({ id }: { id: string }) {
  return (
    <p>
      <Link to={`/position/${id}/readings`}>Readings before the swap</Link>{" "}
      <Link to={`/trouble?lamp=${id}`}>What is wrong with it?</Link>
    </p>
  );
}

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** None where the position cannot be worked out. */
  report: Report | undefined;
}

/** Any reading at any time: what was read, where the leads went, and what it says. */
export function ReadingsPart({ position, report }: Props) {
  const choices = useCatalogue().data?.choices;
  const every = choices?.["bench_reading.what"] ?? [];
  const dead = choices?.["bench_reading.power_off"] ?? [];
  const kinds = position.mains ? dead : every;
  const has = report?.snapshots.map((s) => s.id) ?? [];
  const states = (choices?.["reading_after.state"] ?? []).filter(
    (s) => s.id === "on" || has.includes(s.id),
  );
  const save = useSave();
  const keepReading = useKeepReading(position.id);
  const [chosen, setChosen] = useState("current");
  const [state, setState] = useState("on");
  const [whose, setWhose] = useState("this");
  const what = kinds.some((k) => k.id === chosen) ? chosen : (kinds[0]?.id ?? chosen);
  const taken = [...(report?.diagnoses ?? [])].reverse();
  const { list, gone } = useListFocus<HTMLUListElement>(taken.length);
  const strike = (reading: string) => {
    gone(taken.findIndex((d) => d.id === reading));
    inPassing(
      save("DELETE", `/api/readings/after/${reading}`, undefined, {
        label: "Delete a reading",
        done: "Deleted the reading.",
      }),
    );
  };
  return (
    <>
      {position.mains && (
        <p>
          This lamp is marked as connected with the mains. Only what is read with the plug out is
          kept here.
        </p>
      )}
      <OneOfSome label="What did you read?" value={what} options={kinds} onChange={setChosen} />
      {states.length > 1 && !dead.some((k) => k.id === what) && (
        <OneOfSome label="In which state?" value={state} options={states} onChange={setState} />
      )}
      <OneOfSome
        label="Of which lamp?"
        value={whose}
        options={choices?.["reading_after.whose"] ?? []}
        onChange={setWhose}
      />
      <Leads what={what} />
      <ReadingEntry
        key={`${what}.${whose}`}
        at={whose === "this" ? "" : `.${whose}`}
        whose={whose}
        positionId={position.id}
        kind={what}
        meter=""
        state={state}
        example=""
        onRead={keepReading}
      />
      {report && report.sister.length > 0 && (
        <SisterReadings rows={report.sister} kinds={every} onStrike={strike} />
      )}
      <Beside id={position.id} />
      {taken.length > 0 && (
        <Taken ref={list} aria-label="Readings after the swap">
          {taken.map((d) => (
            <li key={d.id}>
              <span>
                {every.find((k) => k.id === d.kind)?.label ?? d.kind}
                {d.state !== "on" &&
                  `, ${states.find((s) => s.id === d.state)?.label ?? d.state}`}: {say(d.reading)},{" "}
                {d.since ? `not compared: ${d.since}` : d.agrees ? "agrees" : "off"}
              </span>
              <SmallButton aria-label={`Delete ${say(d.reading)}`} onPress={() => strike(d.id)}>
                Delete
              </SmallButton>
            </li>
          ))}
        </Taken>
      )}
    </>
  );
}
