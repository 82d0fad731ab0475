import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { Figure } from "../../ui/Figure";

const All = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  > li {
    padding: 10px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 14px;
  span {
    font-size: 1.2rem;
  }
`;

/* One wire through what it goes through; where it should not go it is dashed, as a pencilled wire is. */
const Way = styled.ol<{ $wanted: boolean }>`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 0;
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
  li {
    display: flex;
    align-items: center;
  }
  li:not(:last-child)::after {
    content: "";
    width: 26px;
    border-top: 3px ${(p) => (p.$wanted ? "solid var(--ink)" : "dashed var(--stop)")};
  }
  b {
    padding: 3px 10px;
    border: 2px solid ${(p) => (p.$wanted ? "var(--ink)" : "var(--stop)")};
    border-radius: 3px;
    font-weight: 600;
  }
`;

interface Props {
  /** The ways that current takes. */
  paths: Schemas["FlowPath"][];
}

/** Where current goes, from its feed to ground: a path that nobody meant is drawn as one. */
export function Paths({ paths }: Props) {
  return (
    <All aria-label="Where current goes">
      {paths.map((p) => (
        <li key={p.id}>
          <Head>
            <strong>{p.state}</strong>
            <span>
              <Figure shown={p.amps} />
            </span>
            {p.said}
            {!p.wanted && ": nobody meant that path"}
          </Head>
          <Way $wanted={p.wanted} aria-label={`Path: ${p.state}`}>
            {p.stations.map((s, n) => (
              <li key={n}>
                <b>{s}</b>
              </li>
            ))}
          </Way>
        </li>
      ))}
    </All>
  );
}
