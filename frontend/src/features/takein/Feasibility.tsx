import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { SavedChoice } from "../../ui/record/SavedChoice";
import { SavedText } from "../../ui/record/SavedText";
import { RecordContext, useRecord, within } from "../../ui/record/record";
import { Lines } from "../../ui/record/Lines";

const Verdict = styled.p`
  font-size: 1.35rem;
  font-weight: 650;
  line-height: 1.2;
  &[data-verdict="leave"] {
    color: var(--stop);
  }
  &[data-verdict="think"] {
    color: var(--mind);
  }
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
`;

interface Props {
  /** As typed. */
  sheet: Schemas["FeasibilityInput"];
  /** What the server makes of it. */
  advice: Schemas["Advice"];
}

/** Whether the swap should be done at all: what was found, and what it comes to. */
export function Feasibility({ sheet, advice }: Props) {
  const record = useRecord();
  const save = within("feasibility", record.save);
  return (
    <RecordContext
      value={{ ...record, shape: "feasibility", values: sheet, prefix: "feasibility.", save }}
    >
      <Verdict data-verdict={advice.verdict}>{advice.line}</Verdict>
      {advice.reasons.length > 0 && <p>{advice.reasons.join(" ")}</p>}
      {advice.open.length > 0 && advice.verdict !== "unknown" && (
        <p>Not known yet: {advice.open.join(", ")}.</p>
      )}
      <SavedChoice field="access" label="The case opens by" said />
      <SavedChoice field="brittle" label="Plastic and glass" said />
      <SavedChoice field="serviceable" label="Can it be opened again afterwards?" said />
      <Pair>
        <SavedText field="hours" label="Hours" hint="At the bench, all told" />
        <SavedText field="price" label="Price of parts" hint="9.50, in your own money" />
      </Pair>
      <Lines
        id={`${record.id}.others`}
        label="Instead of it"
        add="Add an alternative"
        fields={[
          ["what", "What"],
          ["price", "Price"],
        ]}
        lines={sheet.others ?? {}}
        onSave={within("others", save)}
      />
      <SavedText
        field="overruled"
        label="Decided otherwise, because"
        hint="The advice stays; your reason stands beside it"
      />
    </RecordContext>
  );
}
