import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { useSwaps } from "../../../api/queries";
import { inPassing } from "../../../saving/useSave";
import { SmallButton } from "../../../ui/Button";
import { Flags } from "../../../ui/Flags";
import { GradeMark } from "../../../ui/GradeMark";
import { SwapBar } from "./SwapBar";
import { useRecord } from "../../../ui/record/record";
import type { Position, Try } from "./part";

type Swap = Schemas["Swap"];

const ROWS = [
  ["current", "Current"],
  ["light", "Beside old lamp"],
  ["heat", "Heat in parts"],
  ["off", "When off"],
  ["parts", "Parts, and points of light"],
  ["reversible", "Going back"],
  ["stock", "Stock"],
  ["school", "Whose way"],
] as const;

/* One under the other, so that the instruments stay in sight while one is previewed. */
const Column = styled.article`
  padding: 10px 0 14px;
  border-top: 3px solid var(--rule);
  &[data-best="true"] {
    border-top: 7px solid var(--mark);
  }
`;

const Top = styled.div`
  display: flex;
  align-items: start;
  justify-content: space-between;
  gap: 12px;
`;

/* How it looks, in a dark cell of its own in both looks. */
const Seen = styled.span`
  display: grid;
  flex: none;
  place-content: center;
  width: 40px;
  height: 40px;
  border-radius: 5px;
  background: #050606;
  forced-color-adjust: none;
  span {
    width: 22px;
    height: 22px;
    border: 1px solid #4a4c48;
    border-radius: 50%;
  }
`;

const Title = styled.h3`
  flex: 1;
  font-size: 1.08rem;
  font-weight: 650;
  line-height: 1.2;
`;

const Why = styled.p`
  font-size: 0.95rem;
  line-height: 1.3;
  padding: 4px 0 8px;
`;

const Figures = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 4px 14px;
  margin: 0;
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

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** Preview changes without saving them. */
  onTry: Try;
}

/** The swaps that matter, ranked by what is weighed, each with why it wins or loses. */
export function SwapsPart({ position, onTry }: Props) {
  const { save } = useRecord();
  const answer = useSwaps(position.id);
  const swaps = answer.data;
  if (answer.isError) return <p role="alert">{answer.error.message}</p>;
  if (!swaps) return <p role="status">Working out the swaps.</p>;
  return (
    <>
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
      <div>
        {swaps.swaps.map((s) => (
          <SwapColumn
            key={s.id}
            swap={s}
            scale={swaps.scale}
            byChance={swaps.by_chance}
            onTry={onTry}
          />
        ))}
      </div>
    </>
  );
}

interface SwapColumnProps {
  /** The swap of this column. */
  swap: Swap;
  /** The scale that all bars share. */
  scale: Schemas["Swaps"]["scale"];
  /** Whether its band is where 90 % of the samples lie, or its ends. */
  byChance: boolean;
  /** Preview changes without saving them. */
  onTry: Try;
}

function SwapColumn({ swap, scale, byChance, onTry }: SwapColumnProps) {
  return (
    <Column data-best={swap.best} aria-label={swap.label}>
      <Top>
        <Seen aria-hidden="true">
          <span style={{ background: swap.colour }} />
        </Seen>
        <Title>{swap.label}</Title>
        {Object.keys(swap.changes).length > 0 && (
          <SmallButton
            aria-label={`Preview: ${swap.label}`}
            onPress={() => onTry(swap.label, swap.changes)}
          >
            Preview
          </SmallButton>
        )}
      </Top>
      <Why>
        {swap.grade === "stop" && <GradeMark grade="stop" />} {swap.why}
      </Why>
      {scale && swap.bar && <SwapBar bar={swap.bar} scale={scale} words={said(swap, "current")} />}
      <Figures>
        {ROWS.map(([key, label]) => (
          <div key={key}>
            <dt>
              {label}
              {key === "current" && (byChance ? ", and where yours lands" : ", and its ends")}
            </dt>
            <dd>{said(swap, key)}</dd>
          </div>
        ))}
      </Figures>
    </Column>
  );
}

function said(s: Swap, key: (typeof ROWS)[number][0]): string {
  if (key === "school") return s.school ? `${s.school}${s.ours ? ", ours" : ""}` : "–";
  if (key === "current" && s.band) return `${s.current}, ${s.band}`;
  if (key === "parts" && s.points) return `${s.parts}, ${s.points}`;
  return String(s[key]) || "–";
}
