import styled from "styled-components";

import { useRow } from "../api/queries";
import { Figure } from "../ui/Figure";
import { GlowCell, Glowing } from "./Glowing";

const Row = styled.ol`
  flex: 1;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  grid-auto-rows: minmax(112px, 1fr);
  gap: 4px 6px;
  min-height: 0;
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
  font-size: 0.875rem;
  line-height: 1.2;
`;

const Lamp = styled.li`
  display: flex;
  flex-direction: column;
  min-width: 0;
  overflow-wrap: anywhere;
`;

const Cell = styled(GlowCell)`
  flex: 1;
  min-height: 64px;
  border-radius: 4px;
`;

const Amount = styled(Figure)`
  color: #f2ede0;
  outline-color: #ffd27a !important;
`;

interface Props {
  /** Whose lamps they are. */
  equipment: string;
  /** The colour of what stands around them. */
  wall: string;
}

/** All lamps of the item in a row, as bright beside each other as they will be. */
export function Neighbours({ equipment, wall }: Props) {
  const row = useRow(equipment).data;
  if (!row) return <p role="status">Working out the lamps beside it</p>;
  return (
    <>
      <Row aria-label="All lamps of this item">
        {row.lamps.map((lamp) => (
          <Lamp key={lamp.id}>
            <Cell style={{ background: wall }}>
              <Glowing lamp={lamp} />
            </Cell>
            <span>{lamp.label}</span>
            <Amount shown={lamp.amount} />
          </Lamp>
        ))}
      </Row>
      {row.without.map((why) => (
        <p key={why}>{why}</p>
      ))}
    </>
  );
}
