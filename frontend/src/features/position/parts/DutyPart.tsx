import styled from "styled-components";

import type { Report } from "../../../api/client";
import { GradeMark } from "../../../ui/GradeMark";
import { Disclosed } from "../../../ui/Disclosed";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedFlags } from "../../../ui/record/SavedFlags";
import { SavedText } from "../../../ui/record/SavedText";
import { JobCircuits } from "./JobCircuits";
import type { Position } from "./part";

const Said = styled.div`
  padding: 8px 12px;
  border: 2px solid var(--stop);
  border-radius: 4px;
  p:first-child {
    font-weight: 650;
  }
`;

interface SaidProps {
  duty: Report["duty"];
}

/** That a lamp is not swapped as it stands, and what would settle it. */
export function ClosedByDuty({ duty }: SaidProps) {
  return (
    <Said role="status">
      <p>
        <GradeMark grade="stop" bare /> {duty.line}
      </p>
      <p>{duty.settle}</p>
      {duty.likely.length > 0 && <p>It may be: {duty.likely.slice(0, 4).join("; ")}.</p>}
    </Said>
  );
}

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** None where the position cannot be worked out. */
  report: Report | undefined;
}

/** What the lamp is for, asked before anything is worked out: to be seen, to light, or to do. */
export function DutyPart({ position, report }: Props) {
  const duty = report?.duty;
  const asked =
    position.purpose === "do" ||
    (position.cues ?? []).length > 0 ||
    position.second_job ||
    (duty?.likely.length ?? 0) > 0;
  return (
    <>
      <SavedChoice field="purpose" label="What is it for?" said />
      <SavedFlags field="cues" label="Seen of it" />
      {asked && <SavedChoice field="second_job" label="What else it does" />}
      {position.second_job && position.second_job !== "none" && (
        <SavedText
          field="job_given_to"
          label="The part that takes that job"
          hint="100R 5W beside it"
        />
      )}
      {position.second_job && <JobCircuits position={position} />}
      {duty?.closed && <ClosedByDuty duty={duty} />}
      {duty && !duty.closed && duty.line && <p>{duty.line}</p>}
      <Disclosed label="What the dead lamp shows">
        <SavedFlags field="dead" label="Seen on it" />
      </Disclosed>
      {duty?.died.map((line) => (
        <p key={line}>{line}</p>
      ))}
    </>
  );
}
