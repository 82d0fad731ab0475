import { useDeferredValue, useState } from "react";
import styled from "styled-components";

import { Refused, type Schemas } from "../../api/client";
import { useQuick } from "../../api/queries";
import { Findings } from "../../instruments/Findings";
import { Unseen } from "../../ui/Unseen";
import { KeepSheet } from "./quick/KeepSheet";
import { QuickAnswer } from "./quick/QuickAnswer";
import { QuickCurrents } from "./quick/QuickCurrents";
import { QuickParts } from "./quick/QuickParts";
import { QuickInputs } from "./quick/QuickInputs";
import { useQuickTexts } from "./quick/useQuickTexts";

const Results = styled.div`
  display: grid;
  grid-template-columns: 300px 400px minmax(0, 1fr);
  gap: 12px 28px;
  align-items: start;
  padding-top: 8px;
  border-top: 2px solid var(--ink);
  margin-top: 4px;
  transition: opacity 0.1s;
  &[data-stale="true"] {
    opacity: 0.45;
  }
  @media (max-width: 1100px) {
    grid-template-columns: 1fr 1fr;
  }
  @media (max-width: 760px) {
    grid-template-columns: 1fr;
  }
`;

const Judged = styled.div`
  max-height: 230px;
  overflow: hidden;
  & > section {
    max-height: 230px;
  }
`;

interface Props {
  /** Where a sum may be kept. */
  equipment: Schemas["BenchItem"][];
}

/** Rail, LED, how many, how much: the resistor, before anything is saved. */
export function QuickSum({ equipment }: Props) {
  const { texts, input, ready, taken } = useQuickTexts();
  const [keeping, setKeeping] = useState(false);
  const quick = useQuick(useDeferredValue(input), ready);
  const refused = ready && quick.error instanceof Refused ? quick.error : undefined;
  const report = quick.data?.report;
  // What is typed can be kept while its answer is still on the way: the server works it out anew.
  const keepable = ready && !refused;
  const current = keepable && !quick.isPlaceholderData;

  return (
    <section aria-label="Quick sum" data-sum="">
      <Unseen as="h1">Bench: quick sum</Unseen>
      <QuickInputs texts={texts} refused={refused} />
      {report ? (
        <Results data-stale={!current} aria-live="polite" aria-busy={quick.isFetching}>
          <QuickAnswer
            report={report}
            keepable={keepable}
            onKeep={() => setKeeping(true)}
            taken={taken.label}
            onPutBack={taken.putBack}
          />
          <div>
            <QuickCurrents report={report} />
            <QuickParts needs={report.needs} />
          </div>
          <Judged>
            <Findings findings={report.findings} diagnoses={[]} act="Use" onTry={taken.take} />
          </Judged>
        </Results>
      ) : (
        <Results>
          <p>
            Type the rail as you read it, such as 24V, 13.8 or 12.0-14.4V. The answer stands here.
          </p>
        </Results>
      )}
      {report && (
        <KeepSheet
          open={keeping}
          onClose={() => setKeeping(false)}
          quick={input}
          equipment={equipment}
          onKept={() => {
            texts.rail.clear();
            taken.putBack();
            setKeeping(false);
          }}
        />
      )}
    </section>
  );
}
