import type { ReactNode } from "react";
import { useParams } from "react-router";
import styled from "styled-components";

import type { Report, Schemas } from "../../api/client";
import { usePosition, useReport } from "../../api/queries";
import { NextThing } from "../../instruments/NextThing";
import { useKeepReading } from "../../instruments/useKeepReading";
import { notYet } from "../../shell/notYet";
import { Shell } from "../../shell/Shell";
import { useOpened } from "../../ui/panelPlace";
import { RecordContext } from "../../ui/record/record";
import { useSaveFields } from "../../ui/record/useSaveFields";
import { useNarrow, useThumb } from "../../ui/useNarrow";
import { Instruments } from "./Instruments";
import { PartPanel } from "./parts/PartPanel";
import { BELONGS_TO, PANELS, partNamed, type Part } from "./parts/part";
import { PositionHead } from "./PositionHead";
import { TryingBar } from "./Trying";
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

/* The panel stands beside the instruments: what is changed there is seen here. */
const Beside = styled.div`
  @media (min-width: 1001px) {
    display: grid;
    grid-template: minmax(0, 1fr) / minmax(0, 1fr);
    flex: 1;
    min-height: 0;
    gap: 18px;
    &[data-open="true"] {
      grid-template-columns: minmax(0, 1fr) minmax(360px, 32%);
    }
  }
`;

const Work = styled.div`
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
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
  if (!view.data || (!report && !answer.isError)) return notYet(view);
  const { position, equipment_name } = view.data;
  return (
    <Shell
      title={`${position.name}, ${equipment_name}`}
      steps={view.data.steps}
      up={`/equipment/${position.equipment}`}
    >
      <Bench
        view={view.data}
        report={report}
        stale={answer.isPlaceholderData}
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
  /** Whether the report is still the one before what was asked last. */
  stale: boolean;
  /** Why it cannot. */
  problem: string;
  /** What is tried before it is taken. */
  trying: ReturnType<typeof useTrial>;
}

function Bench({ view, report, stale, problem, trying }: BenchProps) {
  const { position } = view;
  const [opened, setOpened] = useOpened();
  const part = partNamed(opened);
  const setPart = (next: Part | undefined) => setOpened(next ?? "");
  const narrow = useNarrow();
  const saveFields = useSaveFields(`/api/positions/${position.id}`);
  const panel = part && (
    <PartPanel
      key={PANELS.findIndex(([, parts]) => parts.includes(part))}
      part={part}
      onClose={() => setPart(undefined)}
      view={view}
      report={report}
      onTry={trying.tryOut}
    />
  );
  const at = part && BELONGS_TO[part];
  const under = narrow && report && at !== "head" ? at : undefined;
  return (
    <RecordContext
      value={{
        id: position.id,
        shape: "position",
        values: position,
        echo: position.echo,
        unread: position.unread,
        save: saveFields,
      }}
    >
      <Frame>
        <PositionHead view={view} part={part} onEdit={setPart} />
        {narrow && under === undefined && panel}
        <Beside data-open={!narrow && panel !== undefined}>
          <Work>
            <Acts
              id={position.id}
              report={report}
              problem={problem}
              trying={trying}
              brief={part !== undefined}
              onEdit={setPart}
            />
            {report && (
              <Instruments
                position={position}
                report={report}
                stale={stale}
                trying={trying}
                beside={!narrow && panel !== undefined}
                under={under}
                panel={panel}
                onEdit={setPart}
              />
            )}
          </Work>
          {!narrow && panel}
        </Beside>
      </Frame>
    </RecordContext>
  );
}

interface ActsProps extends Pick<BenchProps, "report" | "problem" | "trying"> {
  id: string;
  /** Only the act and its field, for a panel takes the room. */
  brief: boolean;
  onEdit: (part: Part) => void;
}

/** What stands over the instruments: the next thing, or what is previewed, or why nothing can be worked out. */
function Acts({ id, report, problem, trying, brief, onEdit }: ActsProps): ReactNode {
  const keepReading = useKeepReading(id);
  const thumb = useThumb();
  const bar = trying.trial && (
    <TryingBar label={trying.trial.label} onUse={trying.fit} onPutBack={trying.putBack} />
  );
  if (!report) return bar ?? <Unsolved why={problem} onEdit={onEdit} />;
  // Where a thumb works the bar is at the bottom of the screen, and nothing moves for it.
  if (bar && !thumb) return bar;
  return (
    <>
      <NextThing
        positionId={id}
        step={report.next_step}
        brief={brief}
        onOther={() => onEdit("readings")}
        onRead={keepReading}
      />
      {bar}
    </>
  );
}
