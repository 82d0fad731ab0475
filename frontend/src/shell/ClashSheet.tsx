import styled from "styled-components";

import { Button, MainButton } from "../ui/Button";
import { Sheet } from "../ui/Sheet";
import type { useSteps } from "./useSteps";

const Both = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 14px;
  margin: 0;
  padding: 8px 0;
  border-top: 1.5px solid var(--rule);
  dt {
    font-size: 0.9rem;
    color: var(--ink-soft);
  }
  dd {
    margin: 0;
    overflow-wrap: anywhere;
  }
`;

interface Props {
  /** What steps back and forth, and the step that met later work. */
  steps: ReturnType<typeof useSteps>;
}

/** A field was changed again since the step: both are shown, and one is chosen. */
export default function ClashSheet({ steps }: Props) {
  const { clash, act, dismiss } = steps;
  return (
    <Sheet title="Changed again since" open={clash !== undefined} onClose={dismiss}>
      <p>Later work stands where this step would be taken back.</p>
      {clash?.clashes.map((c) => (
        <Both key={`${c.record} ${c.field} ${c.later}`}>
          <dt>Of</dt>
          <dd>
            {c.record}: {c.field}
          </dd>
          <dt>Put back</dt>
          <dd>{c.earlier}</dd>
          <dt>Now</dt>
          <dd>{c.later}</dd>
        </Both>
      ))}
      {clash && (
        <>
          <MainButton onPress={() => void act(clash.which, clash.step, "later")}>
            Keep what is there now
          </MainButton>
          <Button onPress={() => void act(clash.which, clash.step, "earlier")}>
            Put the earlier back
          </Button>
          <Button onPress={dismiss}>Leave all as it is</Button>
        </>
      )}
    </Sheet>
  );
}
