import styled from "styled-components";

import type { Report } from "../../api/client";
import { Figure } from "../../ui/Figure";

const Row = styled.li`
  padding: 8px 0;
  border-bottom: 1px solid var(--rule-soft);
  strong {
    font: 650 1.5rem var(--mono);
  }
`;

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Soft = styled.p`
  font-size: 0.95rem;
  color: var(--ink-soft);
`;

/** What each part should feel like after half an hour, and what it means when it does not. */
export function WarmParts({ warmth }: { warmth: Report["warmth"] }) {
  return (
    <section aria-label="After half an hour">
      <h2>After half an hour</h2>
      {warmth.length === 0 && <p>Nothing here has a body to feel.</p>}
      <List>
        {warmth.map((w) => (
          <Row key={w.part}>
            {w.label}:{" "}
            <strong>
              <Figure shown={w.usual} />
            </strong>
            , {w.finger}.
            <Soft>
              A thermocouple reads <Figure shown={w.low} /> to <Figure shown={w.high} />.
            </Soft>
          </Row>
        ))}
      </List>
      {warmth[0] && (
        <>
          <Soft>{warmth[0].hotter}</Soft>
          <Soft>{warmth[0].cooler}</Soft>
        </>
      )}
    </section>
  );
}
