import { useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { SmallButton } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Lines } from "./Lines";

const Step = styled.li`
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 4px 0;
  border-bottom: 1px solid var(--rule-soft);
  & > span {
    flex: 1;
  }
  &[data-done="true"] > span {
    text-decoration: line-through;
    color: var(--ink-soft);
  }
  b {
    font: 600 1.05rem var(--mono);
    min-width: 2ch;
  }
`;

const Steps = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
`;

/** The record is read forwards at opening and backwards at closing. */
const DIRECTIONS = [
  { id: "open", label: "Opening" },
  { id: "close", label: "Closing, backwards" },
];

interface Props {
  /** The equipment's key. */
  id: string;
  /** In the order they are done. */
  steps: Schemas["OpeningStep"][];
  /** Save it; rejects where the server refuses. */
  onSave: (steps: Schemas["OpeningStep"][]) => Promise<unknown>;
}

/** How the case opens, step by step, and backwards for closing it. */
export function Opening({ id, steps, onSave }: Props) {
  const [closing, setClosing] = useState("open");
  return (
    <>
      <Choice label="Read it" value={closing} options={DIRECTIONS} onChange={setClosing} />
      {steps.length === 0 && <p>Screws, springs, lens order: write each down as it comes off.</p>}
      {closing === "close" ? (
        <Closing steps={steps} onSave={onSave} />
      ) : (
        <Lines
          id={`${id}.opening`}
          label="Step"
          add="Add a step"
          fields={[["text", "What came off, and where it goes"]]}
          numbered
          lines={steps.map((s) => ({ text: s.text }))}
          onSave={(lines) =>
            onSave(lines.map((l, k) => ({ text: l.text ?? "", closed: steps[k]?.closed ?? false })))
          }
        />
      )}
    </>
  );
}

/** The steps backwards, each ticked as its part is back in place. */
function Closing({ steps, onSave }: Omit<Props, "id">) {
  const backwards = steps.map((step, n) => ({ step, n })).toReversed();
  return (
    <Steps>
      {backwards.map(({ step, n }) => (
        <Step key={n} data-done={step.closed ?? false}>
          <b>{n + 1}</b>
          <span>{step.text}</span>
          <SmallButton
            aria-label={`${step.closed ? "Not back" : "Back in place"}: ${step.text}`}
            onPress={() =>
              void onSave(steps.map((s, k) => (k === n ? { ...s, closed: !s.closed } : s)))
            }
          >
            {step.closed ? "Not back" : "Back in place"}
          </SmallButton>
        </Step>
      ))}
    </Steps>
  );
}
