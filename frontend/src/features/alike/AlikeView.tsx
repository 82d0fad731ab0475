import { Link, useParams } from "react-router";
import styled from "styled-components";

import { useAlike, usePosition } from "../../api/queries";
import { notYet } from "../../shell/notYet";
import { Shell } from "../../shell/Shell";
import { ViewHead, ViewTitle } from "../../ui/ViewHead";
import { Copies } from "./Copies";
import { LotStrip } from "./LotStrip";
import { OtherLamps } from "./OtherLamps";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 380px);
  gap: 20px 48px;
  align-items: start;
  margin-top: 12px;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** Lamps that are alike: judged by a few readings, changed together, and made from one. */
export default function AlikeView() {
  const { id = "" } = useParams();
  const view = usePosition(id);
  const alike = useAlike(id);
  if (!view.data) return notYet(view);
  if (!alike.data) return notYet(alike);
  const { position, equipment_name } = view.data;
  const { others, lots, live } = alike.data;
  const many = others.filter((o) => o.alike).length;
  return (
    <Shell
      title={`Lamps like ${position.name}, ${equipment_name}`}
      steps={view.data.steps}
      up={`/position/${id}`}
    >
      <ViewHead>
        <ViewTitle>Lamps like {position.name}</ViewTitle>
        <Link to={`/position/${id}`}>{position.name}</Link>
        <Link to={`/equipment/${position.equipment}`}>{equipment_name}</Link>
        {many > 0 && <Link to={`/position/${id}/card?alike`}>One card for all {many + 1}</Link>}
      </ViewHead>
      {lots.map((lot) => (
        <LotStrip key={lot.kind} lot={lot} />
      ))}
      {many > 0 && live && lots.length === 0 && (
        <p>
          None of these {many + 1} lamps has been read. Read the current of three of them: the
          others are then judged by how far the three differ.
        </p>
      )}
      <Columns>
        <OtherLamps id={id} name={position.name} others={others} />
        <Copies id={id} name={position.name} />
      </Columns>
    </Shell>
  );
}
