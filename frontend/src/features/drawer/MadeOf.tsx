import styled from "styled-components";

import { useMade } from "../../api/queries";
import { GradeMark } from "../../ui/GradeMark";
import { SmallButton } from "../../ui/Button";

const List = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: 150px minmax(0, 1fr) auto;
    gap: 2px 14px;
    align-items: center;
    padding: 8px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
  @media (max-width: 760px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
  }
`;

const Draw = styled.svg`
  display: block;
  width: 150px;
  height: 56px;
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
`;

const Soft = styled.span`
  display: block;
  font-size: 0.95rem;
  color: var(--ink-soft);
`;

/** Where the bodies lie in the drawing of each way: middle of each, across and down. */
const PLACES: Record<string, readonly (readonly [number, number])[]> = {
  one: [[75, 28]],
  "series-beside": [
    [50, 14],
    [100, 14],
    [75, 42],
  ],
  "beside-series": [
    [48, 14],
    [48, 42],
    [110, 28],
  ],
};

const places = (way: string, count: number): readonly (readonly [number, number])[] => {
  if (PLACES[way]) return PLACES[way];
  const each = Array.from({ length: count }, (_, k) => k);
  return way === "series"
    ? each.map((k) => [75 + (k - (count - 1) / 2) * 42, 28] as const)
    : each.map((k) => [75, 28 + (k - (count - 1) / 2) * 19] as const);
};

/** Wires between the bodies, and out to both sides. */
const WIRES: Record<string, string> = {
  one: "M8 28H142",
  series: "M8 28H142",
  parallel: "M8 28H30M120 28H142M30 9V47M120 9V47",
  "series-beside": "M8 28H22M128 28H142M22 14V42M128 14V42M22 14H128M22 42H128",
  "beside-series": "M8 28H22M22 14V42M74 14V42M22 14H74M22 42H74M74 28H142",
};

function Together({ way, count, words }: { way: string; count: number; words: string }) {
  const found = places(way, count);
  return (
    <Draw viewBox="0 0 150 56" role="img" aria-label={words}>
      <path d={WIRES[way] ?? ""} />
      {way === "parallel" && found.map(([, y]) => <path key={y} d={`M30 ${y}H120`} />)}
      {found.map(([x, y]) => (
        <rect key={`${x} ${y}`} x={x - 14} y={y - 6} width="28" height="12" fill="var(--sheet)" />
      ))}
    </Draw>
  );
}

interface Props {
  /** The resistance that is wanted, as typed. */
  ohm: string;
  /** The lamp it would go into; it is judged there. */
  position?: string;
  /** Take one: its value as it is typed. */
  onTake?: (value: string) => void;
}

/** What a resistance can be made of out of the drawer, drawn as it is put together. */
export function MadeOf({ ohm, position, onTake }: Props) {
  const answer = useMade(ohm, position);
  const made = answer.data?.made;
  return (
    <section aria-label={`${ohm} made of what is there`}>
      <h2>{ohm} made of what is there</h2>
      {answer.isError && <p role="alert">{answer.error.message}</p>}
      {made?.length === 0 && <p>Nothing in the drawer comes within a fifth of it.</p>}
      <List>
        {made?.map((m) => (
          <li key={`${m.drawn} ${m.parts.join(" ")}`}>
            <Together way={m.drawn} count={m.parts.length} words={m.way} />
            <span>
              <strong>{m.parts.join(" + ")}</strong>, {m.way}: {m.text}, {m.error}
              {m.parts.length > 1 && <Soft>Heat: {m.shares.join(", ")}</Soft>}
              {m.current && <Soft>Low, usual, high: {m.current}</Soft>}
              {(m.grade === "stop" || m.grade === "mind") && (
                <Soft>
                  <GradeMark grade={m.grade} /> {m.why}
                </Soft>
              )}
            </span>
            {onTake && m.grade !== "stop" && (
              <SmallButton
                aria-label={`Take ${m.text} of ${m.parts.join(" + ")}`}
                onPress={() => onTake(m.typed)}
              >
                Take
              </SmallButton>
            )}
          </li>
        ))}
      </List>
    </section>
  );
}
