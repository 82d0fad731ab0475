import { Link } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useDay } from "../../api/queries";
import { wayTo } from "../day/wayTo";
import { QuickSum } from "./QuickSum";

const Due = styled.section`
  margin-top: 14px;
  padding: 6px 14px;
  border: 2px solid var(--mark);
  border-radius: 4px;
  background: var(--sheet);
  ul {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 24px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  a {
    display: inline-flex;
    align-items: center;
    min-height: 36px;
    font-weight: 650;
    text-underline-offset: 0.2em;
  }
`;

const Hand = styled(Due)`
  border-color: var(--ink);
`;

/** So many are named. */
const FEW = 5;

/** Lamps whose day has come: they come back by themselves. */
function LookAgain({ due }: { due: Schemas["DueOut"][] }) {
  if (due.length === 0) return null;
  return (
    <Due aria-label="To look at again">
      <h2>To look at again</h2>
      <ul>
        {due.map((d) => (
          <li key={d.id}>
            <Link to={`/position/${d.id}/build`}>{d.name}</Link> {d.item}, since {d.on}
          </li>
        ))}
      </ul>
    </Due>
  );
}

interface Props {
  equipment: Schemas["BenchItem"][];
  /** None until the bench is there. */
  due: Schemas["DueOut"][] | undefined;
}

/** What can be taken in hand at once: the first of the bench day. */
function Now() {
  const day = useDay(4, "").data;
  const [first] = day?.blocks ?? [];
  const late = day?.late ?? [];
  if (!first && late.length === 0) return null;
  return (
    <Hand aria-label="Needs a hand now">
      <h2>Needs a hand now</h2>
      {late.length > 0 && <strong>Late: {late.join(", ")}</strong>}
      {first && (
        <ul>
          <li>{first.label}:</li>
          {first.tasks.slice(0, FEW).map((t) => (
            <li key={t.lamp_id}>
              <Link to={wayTo(t)} aria-label={`${t.label}: ${t.lamp}`}>
                {t.lamp}
              </Link>
            </li>
          ))}
          {first.tasks.length > FEW && <li>and {first.tasks.length - FEW} more</li>}
          <li>
            <Link to="/day">The whole day</Link>
          </li>
        </ul>
      )}
    </Hand>
  );
}

/** What stands above the bench: the quick sum, what needs a hand, and what has come back. */
export function Above({ equipment, due = [] }: Props) {
  return (
    <>
      <QuickSum equipment={equipment} />
      <Now />
      <LookAgain due={due} />
    </>
  );
}
