import type { ReactNode } from "react";
import styled from "styled-components";

import { Button } from "../../ui/Button";

const List = styled.ul`
  display: grid;
  grid-auto-flow: row;
  gap: 0 36px;
  max-width: 46rem;
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    border-top: 1px solid var(--rule);
  }
  /* Many go down one column and then the next. */
  &[data-many="true"] {
    grid-template-rows: repeat(6, auto);
    grid-auto-flow: column;
    grid-auto-columns: 1fr;
    max-width: none;
  }
  &[data-many="true"] button {
    min-height: 92px;
    font-size: 1.3rem;
  }
  @media (max-width: 760px) {
    &[data-many="true"] {
      grid-template-rows: none;
      grid-auto-flow: row;
    }
    &[data-many="true"] button {
      min-height: 56px;
      font-size: 1.125rem;
    }
  }
`;

/** One answer, as wide as its row. */
export const Answer = styled(Button)`
  width: 100%;
  min-height: 56px;
  border: 0;
  border-radius: 0;
  padding: 4px 6px;
  font-size: 1.125rem;
  text-align: left;
  white-space: normal;
`;

interface Props {
  /** Whether they are a dozen, with nothing beside them. */
  many?: boolean;
  children: readonly ReactNode[] | ReactNode;
}

/** The answers to a question, one under the other. */
export function Answers({ many = false, children }: Props) {
  const each = (Array.isArray(children) ? (children as readonly ReactNode[]) : [children]).flat();
  return (
    <List data-many={many}>
      {each.map((child, k) => (
        <li key={k}>{child}</li>
      ))}
    </List>
  );
}
