import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { inPassing } from "../../saving/useSave";
import { SmallButton } from "../../ui/Button";

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  caption,
  th {
    text-align: left;
    font-weight: 600;
    font-size: 0.9375rem;
  }
  td {
    padding: 3px 12px 3px 0;
    border-top: 1px solid var(--rule-soft);
    font: 500 0.875rem var(--mono);
    letter-spacing: -0.04em;
  }
  td[data-words] {
    font-family: var(--sans);
  }
`;

const Both = styled.div`
  display: grid;
  gap: 14px 36px;
  @media (min-width: 1100px) {
    grid-template-columns: minmax(0, 380px) minmax(0, 1fr);
  }
  align-items: start;
`;

interface Props {
  said: Schemas["Dimming"];
  /** Delete a trial. */
  onStrike: (id: string) => Promise<unknown>;
}

/** What was tried, and what the others would make of current and light. */
export function DimTable({ said, onStrike }: Props) {
  const low = said.low_ohm / 1.6;
  const near = said.rows.filter((r) => r.ohm >= low && r.ohm <= said.high_ohm * 1.5);
  return (
    <Both>
      <Table>
        <caption>Trials</caption>
        <tbody>
          {said.trials.map((t, k) => (
            <tr key={t.id || "fitted"}>
              <td>{k}</td>
              <td>{t.text}</td>
              <td data-words="">{t.verdict}</td>
              <td data-words="">{t.at ? `${t.light}, ${t.at}` : t.light}</td>
              <td data-words="">
                {t.id ? (
                  <SmallButton
                    aria-label={`Delete the trial with ${t.text}`}
                    onPress={() => inPassing(onStrike(t.id))}
                  >
                    Delete
                  </SmallButton>
                ) : (
                  "fitted"
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <Table>
        <caption>Beside what is fitted</caption>
        <thead>
          <tr>
            <th>Resistor</th>
            <th>Current</th>
            <th>Light</th>
            <th>Told from now</th>
          </tr>
        </thead>
        <tbody>
          {near.map((r) => (
            <tr key={r.ohm}>
              <td>{r.text}</td>
              <td>{r.current}</td>
              <td>{r.light}</td>
              <td data-words="">{r.told ? "Yes" : "Hardly"}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Both>
  );
}
