import { useState } from "react";
import { useParams } from "react-router";
import styled from "styled-components";

import type { Report, Schemas } from "../../api/client";
import { usePosition, useReport } from "../../api/queries";
import { inPassing, useSave } from "../../saving/useSave";
import { NextThing } from "../../instruments/NextThing";
import { Missing } from "../../shell/Missing";
import { Shell } from "../../shell/Shell";
import { Button, MainButton } from "../../ui/Button";
import { Instruments } from "./Instruments";
import { PartSheet } from "./parts/PartSheet";
import type { Part } from "./parts/part";
import { PositionHead } from "./PositionHead";
import { Trying } from "./Trying";
import { Unsolved } from "./Unsolved";
import { useTrial } from "./useTrial";

/* The workspace fills the window and no more; a taller window gives the height to the instruments. */
const Frame = styled.div`
  @media (min-width: 1001px) {
    display: flex;
    flex-direction: column;
    height: calc(100dvh - 74px);
    min-height: 700px;
  }
`;

/** The workspace: next thing, staircase, glow box, findings and slide rule, working together. */
export default function PositionView() {
  const { id = "" } = useParams();
  return <Workspace key={id} id={id} />;
}

interface WorkspaceProps {
  /** The position's key. */
  id: string;
}

function Workspace({ id }: WorkspaceProps) {
  const view = usePosition(id);
  const trying = useTrial(id);
  const answer = useReport(id, trying.changes);
  const untouched = Object.keys(trying.changes).length === 0;
  const report = answer.isError && untouched ? undefined : answer.data?.report;
  if (view.isError && !view.data) {
    return (
      <Shell>
        <Missing problem={view.error} />
      </Shell>
    );
  }
  if (!view.data || (!report && !answer.isError)) return <Shell>{null}</Shell>;
  return (
    <Shell steps={view.data.steps} up={`/equipment/${view.data.position.equipment}`}>
      <Bench
        view={view.data}
        report={report}
        trying={trying}
        problem={answer.error?.message ?? ""}
      />
    </Shell>
  );
}

interface BenchProps {
  /** What the server answers for this view. */
  view: Schemas["PositionView"];
  /** None where the position cannot be worked out. */
  report: Report | undefined;
  /** Why it cannot. */
  problem: string;
  /** What is tried before it is taken. */
  trying: ReturnType<typeof useTrial>;
}

function Bench({ view, report, problem, trying }: BenchProps) {
  const save = useSave();
  const [part, setPart] = useState<Part>();
  const { position } = view;
  return (
    <>
      {report ? (
        <Frame>
          <PositionHead view={view} alternates={report.cycle !== null} onEdit={setPart} />
          {trying.trial ? (
            <Trying role="status">
              <p>Trying: {trying.trial.label}</p>
              <MainButton onPress={trying.fit}>Fit</MainButton>
              <Button onPress={trying.putBack}>Put back</Button>
            </Trying>
          ) : (
            <NextThing
              positionId={position.id}
              step={report.next_step}
              onRead={(reading, field) =>
                save("POST", `/api/positions/${position.id}/reading`, reading, { field })
              }
            />
          )}
          <Instruments
            report={report}
            cursor={trying.cursor}
            onMove={trying.move}
            onEdit={setPart}
            onTry={trying.tryOut}
            onStrike={(reading) => {
              const more = { label: "Delete a reading", done: "Deleted the reading." };
              inPassing(save("DELETE", `/api/readings/after/${reading}`, undefined, more));
            }}
          />
        </Frame>
      ) : (
        <>
          <PositionHead view={view} alternates={false} />
          <Unsolved why={problem} onEdit={setPart} />
        </>
      )}
      <PartSheet
        part={part}
        onClose={() => setPart(undefined)}
        position={position}
        rail={view.rail}
        {...(report ? { report } : {})}
        fit={view.fit}
        onTry={trying.tryOut}
      />
    </>
  );
}
