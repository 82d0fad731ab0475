import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useEquipment } from "../../api/queries";
import { inPassing, useSave } from "../../saving/useSave";
import { notYet } from "../../shell/notYet";
import { Shell } from "../../shell/Shell";
import { Button, Mode } from "../../ui/Button";
import { moved } from "../../ui/Movers";
import { RecordContext } from "../../ui/record/record";
import { TitleField } from "../../ui/record/TitleField";
import { useSaveFields } from "../../ui/record/useSaveFields";
import { TakeOut } from "./Files";
import { EquipmentFacts } from "./EquipmentFacts";
import { LampList } from "./LampList";
import { RailList } from "./RailList";

const Columns = styled.div`
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  gap: 12px 40px;
  @media (max-width: 900px) {
    grid-template-columns: 1fr;
  }
`;

const Top = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  justify-content: space-between;
  gap: 4px 20px;
  margin-bottom: 8px;
`;

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
`;

/** One item: its facts, its rails, its lamps. */
export default function EquipmentView() {
  const { id = "" } = useParams();
  const query = useEquipment(id);
  const item = query.data;
  if (!item) return notYet(query);
  return (
    <Shell title={item.name} steps={item.steps}>
      <Item item={item} />
    </Shell>
  );
}

interface Props {
  /** The item of equipment. */
  item: Schemas["EquipmentOut"];
}

function Item({ item }: Props) {
  const go = useNavigate();
  const save = useSave();
  const saveFields = useSaveFields(`/api/equipment/${item.id}`);
  const [arranging, setArranging] = useState(false);
  const many = item.rails.length > 1 || item.positions.length > 1;
  const reorder = (what: "rails" | "positions", from: number, by: number) => {
    const body = moved(item[what], from, by);
    const path = `/api/equipment/${item.id}/${what}/move`;
    if (body) inPassing(save("POST", path, body, { label: "Move" }));
  };
  return (
    <RecordContext
      value={{
        id: item.id,
        shape: "equipment",
        values: item,
        unread: item.unread,
        save: saveFields,
      }}
    >
      <Top>
        <TitleField what="item" />
        <Acts>
          {many && (
            <Mode isSelected={arranging} onChange={setArranging}>
              Arrange
            </Mode>
          )}
          {item.positions.length > 1 && (
            <Button onPress={() => void go(`/equipment/${item.id}/match`)}>Match</Button>
          )}
          <Button onPress={() => void go(`/equipment/${item.id}/take-in`)}>Take-in sheet</Button>
          <TakeOut id={item.id} lamps={item.positions} />
        </Acts>
      </Top>
      <Columns>
        <EquipmentFacts item={item} />
        <div>
          <RailList
            equipment={item.id}
            rails={item.rails}
            arranging={arranging}
            onMove={(from, by) => reorder("rails", from, by)}
          />
          <LampList
            equipment={item.id}
            lamps={item.positions}
            lights={item.lights}
            arranging={arranging}
            onMove={(from, by) => reorder("positions", from, by)}
          />
        </div>
      </Columns>
    </RecordContext>
  );
}
