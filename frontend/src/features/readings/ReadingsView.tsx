import { Link, useParams } from "react-router";
import styled from "styled-components";

import { usePosition, useReport } from "../../api/queries";
import { NextThing } from "../../instruments/NextThing";
import { useKeepReading } from "../../instruments/useKeepReading";
import { notYet } from "../../shell/notYet";
import { Shell } from "../../shell/Shell";
import { ViewHead, ViewTitle } from "../../ui/ViewHead";
import { SurveyPart } from "./Survey";
import { TakeReading } from "./TakeReading";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 480px) minmax(0, 1fr);
  gap: 14px 40px;
  margin-top: 14px;
  @media (max-width: 900px) {
    grid-template-columns: 1fr;
  }
`;

/** Readings before the swap: take them, see what they say together, and what to read next. */
export default function ReadingsView() {
  const { id = "" } = useParams();
  const view = usePosition(id);
  const answer = useReport(id, {});
  const keepReading = useKeepReading(id);
  const report = answer.data?.report;
  if (!view.data || !report) return notYet(view);
  const { position } = view.data;
  return (
    <Shell
      title={`Readings of ${position.name}, ${view.data.equipment_name}`}
      steps={view.data.steps}
      up={`/equipment/${position.equipment}`}
    >
      <ViewHead>
        <ViewTitle>{position.name}: readings before the swap</ViewTitle>
        <Link to={`/position/${id}`}>Back to the lamp</Link>
      </ViewHead>
      <NextThing positionId={id} step={report.next_step} onRead={keepReading} />
      <Columns>
        {position.mains ? (
          <p>
            This lamp is marked as connected with the mains. No live readings are taken or kept
            here.
          </p>
        ) : (
          <TakeReading id={id} />
        )}
        <SurveyPart id={id} survey={report.survey} stops={report.next_step.stops} />
      </Columns>
    </Shell>
  );
}
