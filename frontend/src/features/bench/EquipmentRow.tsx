import { Link } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { AlikeLamps, runsOf } from "../../ui/AlikeLamps";
import { Light } from "../../ui/Lamp";
import { Movers } from "../../ui/Movers";

const Item = styled.li`
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr) auto;
  gap: 4px 20px;
  align-items: start;
  padding: 10px 0;
  border-top: 1.5px solid var(--rule);
  @media (max-width: 760px) {
    grid-template-columns: 1fr auto;
  }
`;

const Name = styled(Link)`
  display: inline-block;
  min-height: 24px;
  font-size: 1.125rem;
  font-weight: 650;
  text-decoration-thickness: 1.5px;
  text-underline-offset: 0.2em;
`;

const Model = styled.p`
  font-size: 0.9rem;
  color: var(--ink-soft);
`;

const Lamps = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
  gap: 6px 18px;
  margin: 0;
  padding: 0;
  list-style: none;
  @media (max-width: 760px) {
    grid-column: 1 / -1;
    order: 3;
  }
`;

interface RowProps {
  /** The item of equipment. */
  item: Schemas["BenchItem"];
  /** Whether nothing is above it. */
  first: boolean;
  /** Whether nothing is below it. */
  last: boolean;
  /** Whether it can be moved. */
  arranging: boolean;
  /** Up is -1, down is 1. */
  onMove: (by: number) => void;
}

/** An item on the bench with all that lights in it. */
export function EquipmentRow({ item, arranging, ...moves }: RowProps) {
  return (
    <Item>
      <div>
        <Name to={`/equipment/${item.id}`}>{item.name}</Name>
        <Model>{item.maker_model}</Model>
        {item.promised && <Model>Promised for {item.promised}</Model>}
      </div>
      <Lamps aria-label={`Lamps of ${item.name}`}>
        {runsOf(item.positions).map((run) => (
          <AlikeLamps key={run[0]?.id} lamps={run} />
        ))}
        {item.lights.map((light) => (
          <Light key={light.id} item={item.id} light={light} />
        ))}
        {item.positions.length + item.lights.length === 0 && <li>No lamps yet</li>}
      </Lamps>
      {arranging && (
        <div>
          <Movers name={item.name} {...moves} />
        </div>
      )}
    </Item>
  );
}
