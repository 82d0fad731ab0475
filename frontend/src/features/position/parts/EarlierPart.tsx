import styled from "styled-components";

import { usePast } from "../../../api/queries";
import { inPassing, useSave } from "../../../saving/useSave";
import { SmallButton } from "../../../ui/Button";

const Steps = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: 1fr auto;
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

const when = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" });

/** The lamp's earlier states by date and step; one of them is gone back to as a step of its own. */
export function EarlierPart({ id }: { id: string }) {
  const past = usePast(id);
  const save = useSave();
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
  return (
    <>
      <p>The lamp as it stood after each step. Readings stay as they are.</p>
      {past.data.states.length === 0 && <p>Nothing was changed yet.</p>}
      <Steps>
        {past.data.states.map((state) => (
          <li key={state.step}>
            <span>
              {state.label}
              <time dateTime={state.at}>{when.format(new Date(state.at))}</time>
            </span>
            {state.now ? (
              <span>as it is now</span>
            ) : (
              <SmallButton
                aria-label={`Go back to: ${state.label}, ${when.format(new Date(state.at))}`}
                onPress={() => back(state.step)}
              >
                Go back
              </SmallButton>
            )}
          </li>
        ))}
      </Steps>
    </>
  );
}
