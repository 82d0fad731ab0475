import { Link, useNavigate } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useBench } from "../../api/queries";
import { inPassing, useSave } from "../../saving/useSave";
import { Button } from "../../ui/Button";
import { BringIn } from "../equipment/Files";
import { Lamp } from "../../ui/Lamp";
import { moved, Movers } from "../../ui/Movers";
import { Missing } from "../../shell/Missing";
import { Shell } from "../../shell/Shell";
import { useOnce } from "../../ui/useOnce";
import { QuickSum } from "./QuickSum";

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  justify-content: space-between;
  margin: 16px 0 4px;
`;

const Title = styled.h2`
  font-size: 1.35rem;
  font-weight: 650;
`;

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

const Acts = styled.div`
  display: flex;
  gap: 4px;
`;

/** The opening screen: the quick sum, and all equipment in work. */
export function BenchView() {
  const bench = useBench();
  const save = useSave();
  const go = useNavigate();

  const add = useOnce(async () => {
    const id = crypto.randomUUID();
    const label = "Add equipment";
    await save("PUT", `/api/equipment/${id}`, { name: "New equipment" }, { label });
    await go(`/equipment/${id}`);
  });
  const remove = (id: string, name: string) => {
    const more = { label: `Delete ${name}`, done: `Deleted ${name}.` };
    inPassing(save("DELETE", `/api/equipment/${id}`, undefined, more));
  };
  const move = (from: number, by: number) => {
    const body = moved(bench.data?.equipment ?? [], from, by);
    if (body) inPassing(save("POST", "/api/equipment/move", body, { label: "Move" }));
  };
  const items = bench.data?.equipment ?? [];

  return (
    <Shell steps={bench.data?.steps}>
      <QuickSum equipment={items} />
      <Head>
        <Title>On the bench</Title>
        <Acts>
          <BringIn />
          <Button isDisabled={add.busy} onPress={() => void add.act()}>
            Add equipment
          </Button>
        </Acts>
      </Head>
      {bench.isError && !bench.data && <Missing problem={bench.error} />}
      {bench.data && items.length === 0 && (
        <p>
          Nothing here yet. Do a quick sum above and keep it, or add the equipment that is open in
          front of you.
        </p>
      )}
      <Lamps as="ul" style={{ display: "block" }}>
        {items.map((e, k) => (
          <EquipmentRow
            key={e.id}
            item={e}
            first={k === 0}
            last={k === items.length - 1}
            onMove={(by) => move(k, by)}
            onDelete={() => remove(e.id, e.name)}
          />
        ))}
      </Lamps>
    </Shell>
  );
}

interface RowProps {
  /** The item of equipment. */
  item: Schemas["BenchItem"];
  /** Whether nothing is above it. */
  first: boolean;
  /** Whether nothing is below it. */
  last: boolean;
  /** Up is -1, down is 1. */
  onMove: (by: number) => void;
  /** Delete it. */
  onDelete: () => void;
}

function EquipmentRow({ item, ...moves }: RowProps) {
  return (
    <Item>
      <div>
        <Name to={`/equipment/${item.id}`}>{item.name}</Name>
        <Model>{item.maker_model}</Model>
      </div>
      <Lamps>
        {item.positions.map((p) => (
          <Lamp key={p.id} lamp={p} />
        ))}
        {item.positions.length === 0 && <li>No lamps yet</li>}
      </Lamps>
      <Acts>
        <Movers name={item.name} {...moves} />
      </Acts>
    </Item>
  );
}
