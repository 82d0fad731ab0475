import { useDeferredValue } from "react";
import { Link } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useFind } from "../../api/queries";

const List = styled.ul`
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 14px;
    min-height: 44px;
    border-top: 1px solid var(--rule-soft);
  }
  a {
    font-weight: 650;
    text-underline-offset: 0.2em;
  }
`;

const WAYS: Record<Schemas["FoundOut"]["kind"], (id: string) => string> = {
  lamp: (id) => `/position/${id}`,
  circuit: (id) => `/equipment/${id.replace("/", "/fitted/")}`,
  dim: (id) => `/equipment/${id.replace("/", "/dim/")}`,
  start: (id) => `/add?start=${id}`,
  trouble: (id) => `/trouble?is=${id}`,
  item: (id) => `/equipment/${id}`,
  part: () => "/drawer",
  led: () => "/drawer",
};

interface Props {
  /** What is asked for. */
  asked: string;
  /** The items that are shown already. */
  shown: readonly Schemas["BenchItem"][];
  /** Whether no item is shown. */
  none: boolean;
}

/** What the server finds beyond the rows: lamps by their values, and parts of the drawer. */
export default function AlsoFound({ asked, shown, none }: Props) {
  const late = useDeferredValue(asked);
  const answer = useFind(late);
  if (!asked) return null;
  const here = new Set(
    shown.flatMap((e) => [
      e.id,
      ...e.positions.map((p) => p.id),
      ...e.lights.map((light) => `${e.id}/${light.id}`),
    ]),
  );
  const more = (answer.data?.found ?? []).filter((f) => !here.has(f.id));
  if (more.length === 0) {
    return none && !answer.isFetching ? (
      <p role="status">Nothing has “{asked}”: neither lamp, item nor part.</p>
    ) : null;
  }
  return (
    <List data-found="" aria-label="Also found">
      {more.map((f) => (
        <li key={f.id}>
          <Link to={WAYS[f.kind](f.id)}>{f.name}</Link>
          <span>{f.line}</span>
        </li>
      ))}
    </List>
  );
}
