import { Disclosure, DisclosurePanel, Button as AriaButton, Heading } from "react-aria-components";
import styled from "styled-components";

import type { Changes, Finding, Report } from "../api/client";
import { SmallButton } from "../ui/Button";
import { Figure } from "../ui/Figure";
import { GradeMark } from "../ui/GradeMark";
import { say } from "../ui/say";
import { Unseen } from "../ui/Unseen";
import { Announce } from "./Announce";
import { FindingItem, Head, Item, Message, reasonOf } from "./FindingItem";

const Wrap = styled.section`
  position: relative;
  height: 100%;
  overflow: auto;
  padding-right: 6px;
`;

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Why = styled(AriaButton)`
  min-height: 28px;
  padding: 0 4px;
  margin-left: -4px;
  border: 0;
  background: none;
  font-size: 0.9rem;
  color: var(--ink-soft);
  text-decoration: underline;
  text-underline-offset: 0.2em;
  cursor: pointer;
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;

const Panel = styled(DisclosurePanel)`
  font-size: 0.95rem;
  color: var(--ink-soft);
  &[hidden] {
    display: none;
  }
`;

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 4px;
`;

const Bare = styled(Heading)`
  margin: 0;
  font: inherit;
`;

interface Props {
  /** The judgements, the gravest first. */
  findings: Finding[];
  /** What each reading after the swap says; the newest stands first. */
  diagnoses: Report["diagnoses"];
  /** What is wrong by all readings that are off. */
  trouble?: Report["trouble"];
  /** Preview a remedy on all instruments until it is used or put back. */
  onTry?: (label: string, changes: Changes) => void;
  /** What a press on a remedy does: "Preview" where nothing is changed by it. */
  act?: string;
  /** Delete the newest reading. */
  onStrike?: (readingId: string) => void;
}

/** Judgements with figure, limit, reason and remedies; the newest reading's diagnosis comes first. */
export function Findings(props: Props) {
  const { findings, diagnoses, trouble = null, act = "Preview", onTry, onStrike } = props;
  const latest = diagnoses[diagnoses.length - 1];
  return (
    <Wrap aria-label="Findings" tabIndex={0} role="region">
      <Unseen as="h2">Findings</Unseen>
      <Announce findings={findings} />
      {!latest && findings.length === 0 && <Message>Nothing to mind with these figures.</Message>}
      <List>
        {latest && (
          <Diagnosis diagnosis={latest} trouble={trouble} {...(onStrike ? { onStrike } : {})} />
        )}
        {findings.map((f) => (
          <FindingItem
            key={f.id}
            finding={f}
            around={(inside) => <Disclosure>{inside}</Disclosure>}
            trigger={
              <Bare level={3}>
                <Why slot="trigger" aria-label={`why: ${f.message}`}>
                  why
                </Why>
              </Bare>
            }
            reason={<Panel>{reasonOf(f)}</Panel>}
          >
            {onTry && f.remedies.length > 0 && (
              <Acts>
                {f.remedies.map((r) => (
                  <SmallButton key={r.id} onPress={() => onTry(r.label, r.changes ?? {})}>
                    {act}: {r.label}
                  </SmallButton>
                ))}
              </Acts>
            )}
          </FindingItem>
        ))}
      </List>
    </Wrap>
  );
}

interface DiagnosisProps {
  /** What the reading says. */
  diagnosis: Report["diagnoses"][number];
  /** What is wrong by all readings together. */
  trouble: Report["trouble"];
  /** Delete the newest reading. */
  onStrike?: (readingId: string) => void;
}

const Causes = styled.ol`
  margin: 4px 0 0;
  padding-left: 1.3em;
  font-size: 0.95rem;
`;

/* How likely a cause is beside the others, seen before it is read. */
const Share = styled.span`
  display: block;
  height: 5px;
  margin-top: 5px;
  background: var(--ink-soft);
`;

function Diagnosis({ diagnosis, trouble, onStrike }: DiagnosisProps) {
  return (
    <Item data-diagnosis={diagnosis.since ? "since" : diagnosis.agrees ? "agrees" : "off"}>
      <Head>
        {diagnosis.since ? (
          <GradeMark grade="note" />
        ) : diagnosis.agrees ? (
          <Agrees />
        ) : (
          <GradeMark grade="stop" />
        )}
        {onStrike && <Why onPress={() => onStrike(diagnosis.id)}>delete this reading</Why>}
      </Head>
      {diagnosis.agrees || say(diagnosis.low) === say(diagnosis.high) ? (
        <Message>{diagnosis.line}</Message>
      ) : (
        <Message>
          Read <Figure shown={diagnosis.reading} />. Expected <Figure shown={diagnosis.expected} />,
          from <Figure shown={diagnosis.low} /> to <Figure shown={diagnosis.high} />.
        </Message>
      )}
      {diagnosis.cannot && <Message>{diagnosis.cannot}</Message>}
      {trouble && <Message>{trouble.line}</Message>}
      {trouble && trouble.causes.length > 0 && (
        <Causes aria-label="Likely causes">
          {trouble.causes.map((c) => (
            <li key={c.id}>
              <Share aria-hidden="true" style={{ width: `${c.share * 100}%` }} />
              <b>{c.share_text}</b> {c.message} It would show {c.reads.map(say).join(", ")}.
            </li>
          ))}
        </Causes>
      )}
    </Item>
  );
}

const Good = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  font-weight: 700;
  color: var(--fits);
`;

function Agrees() {
  return (
    <Good>
      <svg width="22" height="22" aria-hidden="true">
        <path d="M3 12l6 6L20 4" fill="none" stroke="currentColor" strokeWidth="2.5" />
      </svg>
      Agrees
    </Good>
  );
}
