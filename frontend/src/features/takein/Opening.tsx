import { useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { inPassing } from "../../saving/useSave";
import { SmallButton } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import type { SaveFields } from "../../ui/record/record";
import { inOrder, Lines } from "../../ui/record/Lines";

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
  /** The steps by key. */
  steps: Record<string, Schemas["OpeningStep"]>;
  /** Save what was typed of a step under its key. */
  onSave: SaveFields;
}

/** How the case opens, step by step, and backwards for closing it. */
export function Opening({ id, steps, onSave }: Props) {
  const [closing, setClosing] = useState("open");
  return (
    <>
      <Choice label="Read it" value={closing} options={DIRECTIONS} onChange={setClosing} />
      {Object.keys(steps).length === 0 && (
        <p>Screws, springs, lens order: write each down as it comes off.</p>
      )}
      {closing === "close" ? (
        <Closing steps={steps} onSave={onSave} />
      ) : (
        <Lines
          id={`${id}.opening`}
          label="Step"
          add="Add a step"
          fields={[["text", "What came off, and where it goes"]]}
          numbered
          lines={steps}
          onSave={onSave}
        />
      )}
    </>
  );
}

/** The steps backwards, each ticked as its part is back in place. */
function Closing({ steps, onSave }: Omit<Props, "id">) {
  const backwards = inOrder(steps)
    .map(([key, step], n) => ({ key, step, n }))
    .toReversed();
  return (
    <Steps>
      {backwards.map(({ key, step, n }) => (
        <Step key={key} data-done={step.closed ?? false}>
          <b>{n + 1}</b>
          <span>{step.text}</span>
          <SmallButton
            aria-label={`${step.closed ? "Not back" : "Back in place"}: ${step.text ?? ""}`}
            onPress={() => inPassing(onSave({ [key]: { closed: !step.closed } }))}
          >
            {step.closed ? "Not back" : "Back in place"}
          </SmallButton>
        </Step>
      ))}
    </Steps>
  );
}
