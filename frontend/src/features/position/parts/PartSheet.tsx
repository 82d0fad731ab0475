import type { Report, Schemas } from "../../../api/client";
import { inPassing, useSave } from "../../../saving/useSave";
import { RecordContext, type RecordScope } from "../../../ui/record/record";
import { useSaveFields } from "../../../ui/record/useSaveFields";
import { Sheet } from "../../../ui/Sheet";
import { RailEditor } from "../../equipment/RailEditor";
import { DriverPart } from "./DriverPart";
import { JobPart } from "./JobPart";
import { LedPart } from "./LedPart";
import { OldLampPart } from "./OldLampPart";
import { RectificationPart } from "./RectificationPart";
import { ResistorPart } from "./ResistorPart";
import { SwapsPart } from "./SwapsPart";
import { TITLES, type Part, type Position, type Take, type Try } from "./part";

interface Props {
  /** Which part is open; none while the sheet is shut. */
  part: Part | undefined;
  /** Shut it. */
  onClose: () => void;
  /** The lamp position as it is kept. */
  position: Position;
  /** The rail that feeds the lamp, as it is kept. */
  rail: Schemas["RailAnswer"];
  /** None where the position cannot be worked out. */
  report?: Report;
  /** The curve fitted through the sweep, if there is one. */
  fit: Schemas["SweepReport"] | null;
  /** Try changes without saving them. */
  onTry: Try;
}

/** The sheet that edits one part of the position. */
export function PartSheet({ part, onClose, position, rail, report, fit, onTry }: Props) {
  const save = useSave();
  const saveFields = useSaveFields(`/api/positions/${position.id}`);
  const record: RecordScope = {
    id: position.id,
    shape: "position",
    values: position,
    took: position.took,
    save: saveFields,
  };
  const take: Take = (changes, label) =>
    inPassing(save("POST", `/api/positions/${position.id}/take`, { changes }, { label }));
  const tried: Try = (label, changes) => {
    onTry(label, changes);
    onClose();
  };
  return (
    <Sheet
      title={part ? TITLES[part] : ""}
      open={part !== undefined}
      onClose={onClose}
      wide={part === "swaps"}
    >
      <RecordContext value={record}>
        {part === "rail" && <RailEditor rail={rail} />}
        {part === "driver" && <DriverPart position={position} rail={rail} report={report} />}
        {part === "swaps" && <SwapsPart position={position} onTry={tried} />}
        {part === "resistor" && <ResistorPart position={position} />}
        {part === "led" && <LedPart position={position} rail={rail} fit={fit} take={take} />}
        {part === "rectification" && report?.cycle && <RectificationPart cycle={report.cycle} />}
        {part === "lamp" && <OldLampPart position={position} />}
        {part === "job" && <JobPart position={position} />}
      </RecordContext>
    </Sheet>
  );
}
