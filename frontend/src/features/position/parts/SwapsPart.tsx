import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { useSwaps } from "../../../api/queries";
import { inPassing } from "../../../saving/useSave";
import { Button } from "../../../ui/Button";
import { Flags } from "../../../ui/Flags";
import { GradeMark } from "../../../ui/GradeMark";
import { useRecord } from "../../../ui/record/record";
import type { Position, Try } from "./part";

type Swap = Schemas["Swap"];

const ROWS = [
  ["current", "Current"],
  ["inside", "Within limits"],
  ["heat", "Heat in parts"],
  ["light", "Beside old lamp"],
  ["off", "When off"],
  ["reversible", "Going back"],
  ["parts", "Parts, and points of light"],
  ["stock", "Stock"],
  ["school", "School"],
] as const;

/* One column a swap, one row a figure; on a phone they stand one under the other. */
const Table = styled.div`
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  grid-template-rows: repeat(${ROWS.length + 3}, auto);
  column-gap: 14px;
  @media (max-width: 900px) {
    display: block;
  }
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 6px 24px;
  p {
    flex: 1 1 320px;
  }
`;

const Column = styled.article`
  display: grid;
  grid-row: span ${ROWS.length + 3};
  grid-template-rows: subgrid;
  min-width: 0;
  padding-top: 8px;
  border-top: 3px solid var(--rule);
  &[data-best="true"] {
    border-top: 7px solid var(--mark);
    padding-top: 4px;
  }
  @media (max-width: 900px) {
    display: block;
    margin-bottom: 22px;
  }
`;

const Title = styled.h3`
  font-size: 1.08rem;
  font-weight: 650;
  line-height: 1.2;
  margin-bottom: 6px;
`;

const Why = styled.p`
  font-size: 0.95rem;
  line-height: 1.3;
  padding-bottom: 8px;
`;

const Figure = styled.div`
  padding: 3px 0;
  border-top: 1px solid var(--rule-soft);
  dt {
    font-size: 0.8125rem;
    color: var(--ink-soft);
  }
  dd {
    margin: 0;
    font: 600 1rem/1.25 var(--mono);
    letter-spacing: -0.03em;
    overflow-wrap: anywhere;
  }
`;

const Acts = styled.div`
  padding-top: 10px;
`;

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** Try changes without saving them. */
  onTry: Try;
}

/** The swaps that matter side by side, ranked by what is weighed, each with why it wins or loses. */
export function SwapsPart({ position, onTry }: Props) {
  const { save } = useRecord();
  const answer = useSwaps(position.id);
  const swaps = answer.data;
  if (answer.isError) return <p role="alert">{answer.error.message}</p>;
  if (!swaps) return <p role="status">Working out the swaps.</p>;
  return (
    <>
      <Head>
        <Flags
          label="What matters most here"
          options={swaps.weights}
          chosen={swaps.asked}
          onChange={(weigh) =>
            inPassing(
              save({
                weigh: Object.fromEntries(swaps.weights.map(({ id }) => [id, weigh.includes(id)])),
              }),
            )
          }
        />
        <p>
          {swaps.weighed} weighed at every corner{swaps.by_chance ? " and by chance" : ""}; these
          matter. What you pick counts four times.
        </p>
      </Head>
      <Table>
        {swaps.swaps.map((s) => (
          <SwapColumn key={s.id} swap={s} byChance={swaps.by_chance} onTry={onTry} />
        ))}
      </Table>
    </>
  );
}

interface SwapColumnProps {
  /** The swap of this column. */
  swap: Swap;
  /** Whether its band is where 90 % of the samples lie, or its ends. */
  byChance: boolean;
  /** Try changes without saving them. */
  onTry: Try;
}

function SwapColumn({ swap, byChance, onTry }: SwapColumnProps) {
  return (
    <Column data-best={swap.best} aria-label={swap.label}>
      <Title>{swap.label}</Title>
      <Why>
        {swap.grade === "stop" && <GradeMark grade="stop" />} {swap.why}
      </Why>
      {ROWS.map(([key, label]) => (
        <Figure as="dl" key={key} style={{ margin: 0 }}>
          <dt>
            {label}
            {key === "current" && (byChance ? ", and where 90 % lie" : ", and its ends")}
          </dt>
          <dd>{said(swap, key)}</dd>
        </Figure>
      ))}
      <Acts>
        {Object.keys(swap.changes).length > 0 && (
          <Button onPress={() => onTry(swap.label, swap.changes)}>Try</Button>
        )}
      </Acts>
    </Column>
  );
}

function said(s: Swap, key: (typeof ROWS)[number][0]): string {
  if (key === "school") return s.school ? `${s.school}${s.ours ? ", ours" : ""}` : "–";
  if (key === "current" && s.band) return `${s.current}, ${s.band}`;
  if (key === "parts" && s.points) return `${s.parts}, ${s.points}`;
  return String(s[key]) || "–";
}
