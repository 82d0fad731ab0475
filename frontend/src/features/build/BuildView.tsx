import { Link, useParams } from "react-router";
import styled from "styled-components";

import { useCatalogue, usePosition, useReport } from "../../api/queries";
import { notYet } from "../../shell/notYet";
import { Shell } from "../../shell/Shell";
import { GradeMark } from "../../ui/GradeMark";
import { RecordContext } from "../../ui/record/record";
import { Lines } from "../../ui/record/Lines";
import { SavedText } from "../../ui/record/SavedText";
import { useSaveFields } from "../../ui/record/useSaveFields";
import { ViewHead, ViewTitle } from "../../ui/ViewHead";
import { BuildSteps } from "./BuildSteps";
import { LookAgain } from "./LookAgain";
import { ShopHabits } from "./ShopHabits";
import { WarmParts } from "./WarmParts";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 14px 48px;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
  h2 {
    margin-top: 18px;
    font-size: 1.2rem;
    border-bottom: 2px solid var(--ink);
  }
`;

const Judged = styled.p`
  margin: 4px 0 8px;
  font-size: 1.0625rem;
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 14px;
`;

/** Building it: the steps with their figures, the test before and after, what is warm, and what it took. */
export default function BuildView() {
  const { id = "" } = useParams();
  const view = usePosition(id);
  const answer = useReport(id, {});
  const save = useSaveFields(`/api/positions/${id}`);
  const results = useCatalogue().data?.choices["check.before"] ?? [];
  if (!view.data || (!answer.data && !answer.isError)) return notYet(view);
  const { position, equipment_name } = view.data;
  const report = answer.data?.report;
  const record = {
    id: `position.${id}`,
    shape: "position",
    values: position,
    unread: position.unread,
    save,
  };
  const says = Object.fromEntries((report?.checks ?? []).map((c) => [c.id, c.line]));
  return (
    <Shell
      title={`Build, ${position.name}, ${equipment_name}`}
      steps={view.data.steps}
      up={`/position/${id}`}
    >
      <RecordContext value={record}>
        <ViewHead>
          <ViewTitle>{position.name}: build</ViewTitle>
          <Link to={`/position/${id}`}>Back to the lamp</Link>
          <Link to={`/position/${id}/card`}>Job card to print</Link>
        </ViewHead>
        <Columns>
          <div>
            {report ? (
              <BuildSteps position={position} report={report} />
            ) : (
              <p role="status">{answer.error?.message}</p>
            )}
          </div>
          <div>
            <section aria-label="Before and after">
              <h2>Before and after</h2>
              <Judged>
                {report?.checks.some((c) => c.judged === "worse" || c.judged === "changed") && (
                  <GradeMark grade="stop" />
                )}{" "}
                {report?.checks_line}
              </Judged>
              <Lines
                id={`position.${id}.checks`}
                label="Check"
                add="Add a check"
                fields={[
                  ["what", "What is done, and in which state"],
                  ["should", "What should be seen"],
                ]}
                choices={[
                  ["before", "Before the swap", results],
                  ["after", "After it", results],
                ]}
                lines={position.checks ?? {}}
                says={says}
                onSave={(lines, was, at) => save({ checks: lines }, was && { checks: was }, at)}
              />
            </section>
            {report && <WarmParts positionId={id} mains={position.mains} report={report} />}
            <WhatItTook lookAgain={position.look_again ?? ""} />
            <ShopHabits />
          </div>
        </Columns>
      </RecordContext>
    </Shell>
  );
}

interface TookProps {
  /** When to look at the lamp again, as a date; "" for never. */
  lookAgain: string;
}

/** Hours and price of the job, and when to look at it again. */
function WhatItTook({ lookAgain }: TookProps) {
  return (
    <section aria-label="What it took">
      <h2>What it took</h2>
      <Pair>
        <SavedText field="hours" label="Hours" hint="1.5 h, 40 min" />
        <SavedText field="cost" label="Parts, price" />
      </Pair>
      <LookAgain date={lookAgain} />
    </section>
  );
}
