import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { Section } from "./Section";

const Table = styled.table`
  border-collapse: collapse;
  margin-bottom: 6px;
  th,
  td {
    padding: 6px 26px 6px 0;
    text-align: left;
    border-bottom: 1px solid var(--rule-soft);
  }
  thead th {
    font-size: 0.9rem;
    border-bottom: 1.5px solid var(--ink);
  }
  td:nth-child(2) {
    font-family: var(--mono);
  }
`;

interface Props {
  /** The table of switch states. */
  truth: Schemas["Truth"];
}

/** What stands at the lamp in each state of its switch, and what that makes of the contact. */
export function SwitchStates({ truth }: Props) {
  return (
    <Section aria-label="Switch states">
      <h2>Switch states</h2>
      <Table>
        <thead>
          <tr>
            <th scope="col">Switch</th>
            <th scope="col">At the lamp</th>
            <th scope="col">Volts stand</th>
            <th scope="col">Contact</th>
          </tr>
        </thead>
        <tbody>
          {truth.rows.map((row) => (
            <tr key={row.state}>
              <th scope="row">{row.state}</th>
              <td>{row.volts}</td>
              <td>{row.lit ? "yes" : "no"}</td>
              <td>{row.closed}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p>{truth.line}</p>
    </Section>
  );
}
