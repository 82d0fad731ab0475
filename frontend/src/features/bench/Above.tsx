import { Link } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
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

/** What stands above the bench: the quick sum, and what has come back. */
export function Above({ equipment, due = [] }: Props) {
  return (
    <>
      <QuickSum equipment={equipment} />
      <LookAgain due={due} />
    </>
  );
}
