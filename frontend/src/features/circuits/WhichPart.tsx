import { useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { inPassing } from "../../saving/useSave";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { OneOfSome } from "../../ui/OneOfSome";
import { useRecord } from "../../ui/record/record";

const Rule = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 24px;
  align-items: center;
  max-width: 60rem;
  @media (max-width: 600px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/* One line and a knob that a thumb can hold. */
const Slide = styled.input`
  appearance: none;
  width: 100%;
  height: 48px;
  margin: 0;
  background: linear-gradient(var(--ink), var(--ink)) center / 100% 3px no-repeat;
  &::-webkit-slider-thumb {
    appearance: none;
    width: 26px;
    height: 40px;
    border: 0;
    border-radius: 4px;
    background: var(--mark);
  }
  &::-moz-range-thumb {
    width: 26px;
    height: 40px;
    border: 0;
    border-radius: 4px;
    background: var(--mark);
  }
`;

const Reads = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 24px;
  align-items: baseline;
  strong {
    font-size: 1.6rem;
    font-weight: 650;
  }
`;

const Barred = styled.p`
  color: var(--stop);
  font-weight: 600;
`;

interface Props {
  /** Each part that may be changed, with what every value of it leaves. */
  rules: Schemas["PartRule"][];
  /** The id of the option that was decided on. */
  chosen: string;
}

/** Which resistor, and to what: a rule for each part, every place of it worked out by the server. */
export function WhichPart({ rules, chosen }: Props) {
  const [part, setPart] = useState(() =>
    Math.max(
      rules.findIndex((r) => r.points.some((p) => p.option === chosen)),
      0,
    ),
  );
  const rule = rules[Math.min(part, rules.length - 1)];
  if (!rule) return null;
  return (
    <>
      {rules.length > 1 && (
        <OneOfSome
          label="Which part"
          value={String(rules.indexOf(rule))}
          options={rules.map((r, n) => ({ id: String(n), label: r.label }))}
          onChange={(n) => setPart(Number(n))}
        />
      )}
      <One key={rule.id} rule={rule} chosen={chosen} />
    </>
  );
}

interface OneProps {
  /** The part, from the value it has. */
  rule: Schemas["PartRule"];
  /** The id of the option that was decided on. */
  chosen: string;
}

function One({ rule, chosen }: OneProps) {
  const { save } = useRecord();
  const there = rule.points.findIndex((p) => p.option === chosen);
  const [moved, setMoved] = useState<number | null>(null);
  const at = Math.min(moved ?? (there >= 0 ? there : rule.fitted), rule.points.length - 1);
  const point = rule.points[at];
  if (!point) return null;
  return (
    <Rule role="group" aria-label={rule.label}>
      <Slide
        type="range"
        aria-label={`Value of ${rule.label[0]?.toLowerCase()}${rule.label.slice(1)}`}
        aria-valuetext={`${point.value}: ${point.outcome.number} %. ${point.bars || point.light}`}
        min={0}
        max={rule.points.length - 1}
        step={1}
        value={at}
        onChange={(e) => setMoved(Number(e.target.value))}
      />
      <Button
        isDisabled={at === rule.fitted || point.bars !== "" || point.option === chosen}
        aria-label={`${point.option === chosen ? "Chosen" : "Choose this"}: ${point.label}`}
        onPress={() => inPassing(save({ chosen: point.option }))}
      >
        {point.option === chosen ? "Chosen" : "Choose this"}
      </Button>
      <Reads>
        <strong>{point.value}</strong>
        <strong>
          <Figure shown={point.outcome} />
        </strong>
        <span>{point.light}</span>
      </Reads>
      {point.bars && <Barred>{point.bars}</Barred>}
    </Rule>
  );
}
