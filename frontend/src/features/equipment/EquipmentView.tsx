import { useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useEquipment, useSave } from "../../api/queries";
import { Missing } from "../../shell/Missing";
import { Shell } from "../../shell/Shell";
import { useUndo } from "../../shell/useUndo";
import { Button } from "../../ui/Button";
import { useRefusal } from "../../ui/record/useRefusal";
import { Refusal } from "../../ui/Refusal";
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

const Title = styled.h1`
  font-size: 1.9rem;
  line-height: 1.15;
  font-weight: 650;
  margin-bottom: 12px;
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
  gap: 4px;
`;

/** One item: its facts, its rails, its lamps. */
export default function EquipmentView() {
  const { id = "" } = useParams();
  const query = useEquipment(id);
  const item = query.data;
  const undo = useUndo(id, item?.steps);
  if (query.isError && !item) {
    return (
      <Shell>
        <Missing problem={query.error} />
      </Shell>
    );
  }
  return <Shell undo={undo}>{item && <Item item={item} />}</Shell>;
}

interface Props {
  /** The item of equipment. */
  item: Schemas["EquipmentOut"];
}

function Item({ item }: Props) {
  const go = useNavigate();
  const save = useSave();
  const { refusal, tell } = useRefusal();
  const reorder = (what: "rails" | "positions", from: number, by: number) => {
    const ids = item[what].map((x) => x.id);
    const [moved] = ids.splice(from, 1);
    if (moved) ids.splice(from + by, 0, moved);
    void save("POST", `/api/equipment/${item.id}/${what}/order`, { ids });
  };
  return (
    <>
      <Top>
        <Title>{item.name}</Title>
        <Acts>
          <Button onPress={() => void go(`/equipment/${item.id}/take-in`)}>Take-in sheet</Button>
          <TakeOut id={item.id} />
        </Acts>
      </Top>
      <Columns>
        <EquipmentFacts item={item} />
        <div>
          <Refusal why={refusal} />
          <RailList
            equipment={item.id}
            rails={item.rails}
            act={tell}
            onMove={(from, by) => reorder("rails", from, by)}
          />
          <LampList
            equipment={item.id}
            lamps={item.positions}
            act={tell}
            onMove={(from, by) => reorder("positions", from, by)}
          />
        </div>
      </Columns>
    </>
  );
}
