import styled from "styled-components";

import type { Schemas } from "../../api/client";

/* As wide as what stands beside it leaves: so many compartments as a value can be read in. */
const Cabinet = styled.div`
  container-type: inline-size;
`;

const Decade = styled.ul`
  display: grid;
  grid-template-columns: repeat(12, minmax(0, 1fr));
  gap: 3px;
  margin: 0 0 3px;
  padding: 0;
  list-style: none;
  @container (max-width: 62em) {
    grid-template-columns: repeat(6, minmax(0, 1fr));
    margin-bottom: 10px;
  }
  @container (max-width: 34em) {
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }
`;

/* A compartment is seen from above: how far it is filled is how far it is inked. */
const Cell = styled.button`
  position: relative;
  width: 100%;
  min-height: 46px;
  padding: 4px 6px;
  border: 1.5px solid var(--ink);
  border-radius: 3px;
  background: var(--sheet);
  font: 600 0.98rem var(--mono);
  text-align: left;
  cursor: pointer;
  &[data-state="full"] {
    background: var(--ink);
    color: var(--ground);
  }
  &[data-state="low"] {
    background: linear-gradient(to top, var(--ink-soft) 8px, var(--sheet) 8px);
  }
  &[data-state="empty"] {
    border-style: dashed;
    color: var(--ink);
    text-decoration: line-through;
    text-decoration-thickness: 2px;
  }
  &[data-state="missing"] {
    border-color: transparent;
    background: none;
    color: var(--ink-soft);
    font-weight: 400;
  }
  &[aria-pressed="true"] {
    outline: 3px solid var(--mark);
    outline-offset: 1px;
  }
`;

const Key = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin: 8px 0 0;
  font-size: 0.95rem;
  span {
    display: inline-flex;
    align-items: center;
    gap: 6px;
  }
  i {
    width: 26px;
    height: 18px;
    border: 1.5px solid var(--ink);
    border-radius: 3px;
    background: var(--sheet);
  }
  i[data-state="full"] {
    background: var(--ink);
  }
  i[data-state="low"] {
    background: linear-gradient(to top, var(--ink-soft) 6px, var(--sheet) 6px);
  }
  i[data-state="empty"] {
    border-style: dashed;
  }
`;

type Picture = Schemas["DrawerPicture"];
type Compartment = Schemas["Compartment"];

interface Props {
  picture: Picture;
  /** The value of the compartment that is open. */
  open: string;
  onOpen: (compartment: Compartment) => void;
}

/** The resistors as they lie in the cabinet: a row a decade, and what is full, low, empty or missing. */
export function Compartments({ picture, open, onOpen }: Props) {
  const cell = (c: Compartment) => (
    <li key={c.text}>
      <Cell
        type="button"
        data-state={c.state}
        aria-pressed={open === c.text}
        aria-label={`${c.text}, ${c.said}`}
        onClick={() => onOpen(c)}
      >
        {c.text}
      </Cell>
    </li>
  );
  return (
    <Cabinet>
      {picture.decades.map((d) => (
        <Decade key={d.label} aria-label={d.label}>
          {d.compartments.map(cell)}
        </Decade>
      ))}
      {picture.others.length > 0 && (
        <>
          <p>Not of {picture.series}</p>
          <Decade aria-label={`Values that are not of ${picture.series}`}>
            {picture.others.map(cell)}
          </Decade>
        </>
      )}
      <Key aria-hidden="true">
        <span>
          <i data-state="full" /> full
        </span>
        <span>
          <i data-state="low" /> low
        </span>
        <span>
          <i data-state="empty" /> empty
        </span>
        <span>no frame: none kept</span>
      </Key>
    </Cabinet>
  );
}
