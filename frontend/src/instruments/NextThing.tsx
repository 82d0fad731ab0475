import { lazy, Suspense, useEffect } from "react";
import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";

import type { Report, Schemas } from "../api/client";
import type { FromField } from "../saving/saves";
import { useThumb } from "../ui/useNarrow";
import { Leads } from "./Leads";
import { ReadAloud } from "./ReadAloud";
import { ReadingEntry } from "./ReadingEntry";

const fetchChain = () => import("./ChainEntry");
const ChainEntry = lazy(fetchChain);

const Wrap = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 20px;
  align-items: center;
  padding: 5px 14px;
  border: 2px solid var(--mark);
  border-radius: 4px;
  background: var(--sheet);
  &[data-stops="true"] {
    border-color: var(--stop);
    border-width: 3px;
  }
  @media (max-width: 760px) {
    grid-template-columns: 1fr;
  }
`;

const Act = styled.h2`
  font-size: 1.3rem;
  @media (max-width: 760px) {
    font-size: 1.75rem;
  }
  line-height: 1.2;
  font-weight: 650;
  small {
    font: inherit;
    color: var(--mark);
    margin-right: 0.5em;
  }
`;

const How = styled.p`
  font-size: 0.98rem;
  /* On a phone beside the vice: read at arm's length. */
  @media (max-width: 760px) {
    font-size: 1.25rem;
    line-height: 1.35;
  }
  b {
    font-family: var(--mono);
    font-weight: 650;
    font-size: 0.95rem;
    letter-spacing: -0.03em;
    white-space: nowrap;
    @media (max-width: 760px) {
      font-size: 1.5rem;
      white-space: normal;
    }
  }
`;

const Means = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 0.9rem;
  b {
    font-weight: 650;
  }
`;

const Why = styled.p`
  font-size: 0.9rem;
  color: var(--ink-soft);
`;

const Other = styled(AriaButton)`
  min-height: 28px;
  padding: 0;
  border: 0;
  background: none;
  font-size: 0.9rem;
  text-align: left;
  text-decoration: underline;
  text-underline-offset: 0.2em;
  cursor: pointer;
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;

const Side = styled.div`
  display: flex;
  gap: 18px;
  align-items: center;
  & > svg {
    width: 216px;
  }
  @media (max-width: 1100px) {
    flex-wrap: wrap;
  }
  @media (max-width: 760px) {
    display: block;
  }
`;

const Type = styled.div`
  flex: 1 0 auto;
  position: relative;
  & > button {
    position: absolute;
    right: 0;
    top: -5px;
  }
  /* Over several fields there is no free corner. */
  &[data-several="true"] > button {
    position: static;
  }
  @media (max-width: 760px) {
    & > button {
      position: static;
    }
  }
`;

interface Props {
  /** The position's key; names the draft. */
  positionId: string;
  /** The next thing to do. */
  step: Report["next_step"];
  /** Only the act and its field. */
  brief?: boolean;
  /** Asked for where something else was read. */
  onOther?: () => void;
  /** Keep a reading; its refusal comes back to the field. */
  onRead: (reading: Schemas["BenchReading"], field: FromField) => void;
}

/** The one thing to do now, and where its reading is typed. */
export function NextThing({ positionId, step, brief = false, onOther, onRead }: Props) {
  // Fetched while there is a connection, for when it is needed.
  useEffect(() => {
    fetchChain().catch(() => undefined);
  }, []);
  return (
    <Wrap aria-label="Next thing on the bench" data-stops={step.stops}>
      <div>
        <Act>
          <small>Next</small>
          {step.act}
        </Act>
        {step.meter && (
          <How>
            {step.meter}; {step.points}; {step.state}. Expect <b>{step.expect}</b>.
          </How>
        )}
        {!brief && <Because step={step} />}
        {!brief && <Aloud step={step} />}
      </div>
      {step.reading !== null && (
        <Side>
          {!brief && <Leads what={step.reading} />}
          <Type data-several={step.chain.length > 1}>
            {step.chain.length > 1 ? (
              <Suspense>
                <ChainEntry
                  positionId={positionId}
                  kinds={step.chain}
                  meter={step.meter}
                  onRead={onRead}
                />
              </Suspense>
            ) : (
              <ReadingEntry
                key={step.reading}
                positionId={positionId}
                kind={step.reading}
                meter={step.meter}
                example={step.example}
                onRead={onRead}
              />
            )}
            {onOther && !brief && <Other onPress={onOther}>I read something else</Other>}
          </Type>
        </Side>
      )}
    </Wrap>
  );
}

/** The step and what to expect, said while both hands hold probes. */
function Aloud({ step }: Pick<Props, "step">) {
  const thumb = useThumb();
  const expect = step.expect ? `Expect ${step.expect}` : "";
  if (!thumb) return null;
  return (
    <ReadAloud
      of={step.act}
      text={[step.act, step.meter, step.points, step.state, expect, step.caution]}
    />
  );
}

/** What the answers mean, why it is next, and what to be careful of. */
function Because({ step }: Pick<Props, "step">) {
  return (
    <>
      {step.meanings.length > 0 && (
        <Means>
          {step.meanings.map((m) => (
            <li key={m.means}>
              <b>{m.answer}</b>: {m.means}
            </li>
          ))}
        </Means>
      )}
      <Why>
        {step.why} {step.caution}
      </Why>
    </>
  );
}
