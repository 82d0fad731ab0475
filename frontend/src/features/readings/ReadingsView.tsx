import { Link, useParams } from "react-router";
import styled from "styled-components";

import { usePosition, useReport } from "../../api/queries";
import { inPassing, useSave } from "../../saving/useSave";
import { NextThing } from "../../instruments/NextThing";
import { Missing } from "../../shell/Missing";
import { Shell } from "../../shell/Shell";
import { SurveyPart } from "./Survey";
import { TakeReading } from "./TakeReading";

const Title = styled.h1`
  font-size: 1.45rem;
  font-weight: 650;
  line-height: 1.2;
`;

const Top = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
  margin-bottom: 8px;
  a {
    display: inline-flex;
    align-items: center;
    min-height: 32px;
    text-underline-offset: 0.2em;
  }
`;

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
  const save = useSave();
  const report = answer.data?.report;
  if (view.isError && !view.data) {
    return (
      <Shell>
        <Missing problem={view.error} />
      </Shell>
    );
  }
  if (!view.data || !report) return <Shell>{null}</Shell>;
  const { position } = view.data;
  return (
    <Shell
      title={`Readings of ${position.name}, ${view.data.equipment_name}`}
      steps={view.data.steps}
      up={`/equipment/${position.equipment}`}
    >
      <Top>
        <Title>{position.name}: readings before the swap</Title>
        <Link to={`/position/${id}`}>Back to the lamp</Link>
      </Top>
      <NextThing
        positionId={id}
        step={report.next_step}
        onRead={(reading, field) =>
          inPassing(save("POST", `/api/positions/${id}/reading`, reading, { field }))
        }
      />
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
