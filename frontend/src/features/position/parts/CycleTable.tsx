import styled from "styled-components";

import type { Report } from "../../../api/client";
import { say } from "../../../ui/say";

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th,
  td {
    padding: 4px 6px 4px 0;
    text-align: left;
    border-bottom: 1px solid var(--rule-soft);
    font-weight: 500;
  }
  thead th {
    font-size: 0.875rem;
    border-bottom: 2px solid var(--ink);
  }
  td {
    font-family: var(--mono);
    font-size: 0.875rem;
    letter-spacing: -0.04em;
  }
`;

interface Props {
  /** What the supply's cycle comes to. */
  cycle: NonNullable<Report["cycle"]>;
}

/** What a cycle comes to at each level: currents, how long it is lit, reverse volts, flicker. */
export function CycleTable({ cycle }: Props) {
  const slowest = cycle.levels[0]?.limit;
  return (
    <>
      <Table>
        <thead>
          <tr>
            <th scope="col">Level</th>
            <th scope="col">Average</th>
            <th scope="col">Crest</th>
            <th scope="col">Lit</th>
            <th scope="col">Reverse</th>
            <th scope="col">Flicker</th>
          </tr>
        </thead>
        <tbody>
          {cycle.levels.map((l) => (
            <tr key={l.label}>
              <th scope="row">{l.label}</th>
              <td>{say(l.average)}</td>
              <td>{say(l.peak)}</td>
              <td>{l.conduction_deg}°</td>
              <td>{say(l.reverse)}</td>
              <td>{l.flicker_hz ? `${l.modulation.toFixed(0)} % ${say(l.flicker_hz)}` : "none"}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p>
        Flicker is (highest − lowest) ÷ (highest + lowest). Low-risk is{" "}
        {slowest == null ? "any" : `${Number(slowest.toPrecision(3))} %`} at the slowest here (IEEE
        1789-2015).
      </p>
    </>
  );
}
