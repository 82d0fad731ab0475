import { useState } from "react";
import { ToggleButton } from "react-aria-components";
import styled from "styled-components";

import { useCompared, usePast } from "../../../api/queries";
import { Staircase } from "../../../instruments/Staircase";
import { inPassing, useSave } from "../../../saving/useSave";
import { Mode, SmallButton } from "../../../ui/Button";
import { option } from "../../../ui/option";

const Steps = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  & > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 12px;
    align-items: center;
    padding: 6px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
  time {
    display: block;
    font-size: 0.875rem;
    color: var(--ink-soft);
  }
`;

const Acts = styled.div`
  display: flex;
  gap: 6px;
  align-items: center;
`;

/* Always in sight, and behind the list for those who tab. */
const Foot = styled.div`
  position: sticky;
  bottom: 0;
  padding: 6px 0;
  background: var(--sheet);
  /* The panel's own margin under it would let the list show through. */
  box-shadow: 0 24px 0 var(--sheet);
`;

const Pick = styled(ToggleButton)`
  ${option}
  min-height: 36px;
  padding: 0 10px;
`;

/* The staircase as it stood, no taller than it is read. */
const Then = styled.div`
  height: 300px;
  margin-top: 8px;
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th {
    font-weight: 500;
    text-align: left;
  }
  td {
    font-family: var(--mono);
    text-align: right;
    overflow-wrap: anywhere;
  }
  th,
  td {
    padding: 4px 0 4px 8px;
    border-bottom: 1px solid var(--rule-soft);
  }
`;

const when = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" });

/** The lamp's log: what was done, read, tried and built; two moments are compared, and one gone back to. */
export function EarlierPart({ id }: { id: string }) {
  const past = usePast(id);
  const save = useSave();
  const [picked, setPicked] = useState<readonly number[]>([]);
  const [comparing, setComparing] = useState(false);
  if (past.isError && !past.data) return <p role="alert">{past.error.message}</p>;
  if (!past.data) return <p role="status">Looking them up.</p>;
  const back = (step: number) =>
    inPassing(
      save(
        "POST",
        `/api/positions/${id}/back`,
        { step },
        { label: "Go back", done: "Went back to an earlier state." },
      ),
    );
  const pick = (step: number, on: boolean) =>
    setPicked((old) => (on ? [...old.slice(-1), step] : old.filter((s) => s !== step)));
  return (
    <>
      <p>
        {comparing
          ? "Mark one moment to see what changed since, or two."
          : "All that was done at this lamp."}
      </p>
      {past.data.states.length === 0 && <p>Nothing was changed yet.</p>}
      {comparing && picked.length > 0 && <Comparison id={id} steps={picked} />}
      <Steps>
        {past.data.states.map((state) => (
          <li key={state.step}>
            <span>
              {state.kind !== "change" && `${state.kind}: `}
              {state.label}
              <time dateTime={state.at}>
                {when.format(new Date(state.at))}
                {state.by && `, ${state.by}`}
              </time>
            </span>
            <Acts>
              {comparing && (
                <Pick
                  isSelected={picked.includes(state.step)}
                  aria-label={`Compare: ${state.label}, ${when.format(new Date(state.at))}`}
                  onChange={(on) => pick(state.step, on)}
                >
                  Compare
                </Pick>
              )}
              <GoBack state={state} onBack={back} />
            </Acts>
          </li>
        ))}
      </Steps>
      {past.data.states.length > 0 && (
        <Foot>
          <Mode isSelected={comparing} onChange={setComparing}>
            Compare moments
          </Mode>
        </Foot>
      )}
    </>
  );
}

interface GoBackProps {
  state: NonNullable<ReturnType<typeof usePast>["data"]>["states"][number];
  onBack: (step: number) => void;
}

/** The way back to a moment of the lamp's own fields. */
function GoBack({ state, onBack }: GoBackProps) {
  if (state.now) return <span>as it is now</span>;
  if (!state.own) return null;
  return (
    <SmallButton
      aria-label={`Go back to: ${state.label}, ${when.format(new Date(state.at))}`}
      onPress={() => onBack(state.step)}
    >
      Go back
    </SmallButton>
  );
}

interface ComparisonProps {
  id: string;
  /** One moment, or two. */
  steps: readonly number[];
}

/** What differs between two moments, and what it did. */
function Comparison({ id, steps }: ComparisonProps) {
  const [first = 0, second] = [...steps].sort((a, b) => a - b);
  const [chosen, setChosen] = useState<string>();
  const found = useCompared(id, first, second).data;
  if (!found) return <p role="status">Comparing.</p>;
  const rows = [...found.changes, ...found.figures.filter((f) => f.was !== f.now)];
  return (
    <section aria-label="Compared">
      <h3>{second === undefined ? "Then and now" : "The earlier and the later"}</h3>
      {found.refused && <p>{found.refused}</p>}
      {rows.length === 0 ? (
        <p>Nothing differs.</p>
      ) : (
        <Table>
          <tbody>
            {rows.map((r, n) => (
              <tr key={n}>
                <th scope="row">{r.what}</th>
                <td>{r.was}</td>
                <td>{r.now}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {found.then.length > 0 && (
        <Then>
          <Staircase
            snapshots={found.then}
            cycle={null}
            runtime={null}
            chosen={chosen}
            onChoose={setChosen}
            onEdit={() => undefined}
          />
        </Then>
      )}
    </section>
  );
}
