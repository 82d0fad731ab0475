import type { Report, Schemas } from "../../../api/client";
import { inPassing, useSave } from "../../../saving/useSave";
import { Panel } from "../../../ui/Panel";
import { RailEditor } from "../../equipment/RailEditor";
import { DriverPart } from "./DriverPart";
import { EarlierPart } from "./EarlierPart";
import { HolderPart } from "./HolderPart";
import { JobPart } from "./JobPart";
import { LooksPart } from "./LooksPart";
import { ClosedByDuty } from "./DutyPart";
import { OldLampPart } from "./OldLampPart";
import { ReadingsPart } from "./ReadingsPart";
import { RectificationPart } from "./RectificationPart";
import { say } from "../../../ui/say";
import { ResistorPart } from "./ResistorPart";
import { SwapsPart } from "./SwapsPart";
import { TITLES, type Part, type Take, type Try } from "./part";

interface Props {
  /** Which part is open. */
  part: Part;
  /** Shut it. */
  onClose: () => void;
  /** What the server answers for this view. */
  view: Schemas["PositionView"];
  /** None where the position cannot be worked out. */
  report: Report | undefined;
  /** Preview changes without saving them. */
  onTry: Try;
}

/** The panel that edits one part of the position. */
export function PartPanel({ part, onClose, view, report, onTry }: Props) {
  const save = useSave();
  const { position, rail, fit } = view;
  const take: Take = (changes, label) =>
    inPassing(save("POST", `/api/positions/${position.id}/take`, { changes }, { label }));
  return (
    <Panel title={part === "rail" ? rail.name : TITLES[part]} onClose={onClose} place={part}>
      {part === "rail" && <RailEditor rail={rail} />}
      {part === "driver" && <DriverPart position={position} rail={rail} report={report} />}
      {part === "swaps" &&
        (report?.duty.closed ? (
          <ClosedByDuty duty={report.duty} />
        ) : (
          <SwapsPart position={position} onTry={onTry} />
        ))}
      {part === "resistor" && (
        <ResistorPart
          position={position}
          marks={report?.sizing.marks}
          each={report?.sizing.marks ? say(report.sizing.each) : undefined}
        />
      )}
      {part === "led" && <HolderPart position={position} rail={rail} fit={fit} take={take} />}
      {part === "rectification" && report?.cycle && <RectificationPart cycle={report.cycle} />}
      {part === "lamp" && <OldLampPart position={position} report={report} />}
      {part === "looks" && <LooksPart position={position} report={report} onTry={onTry} />}
      {part === "readings" && <ReadingsPart position={position} report={report} />}
      {part === "job" && <JobPart position={position} />}
      {part === "earlier" && <EarlierPart id={position.id} />}
    </Panel>
  );
}
