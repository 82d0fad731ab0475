import styled from "styled-components";

import type { Report } from "../../../api/client";
import { Figure } from "../../../ui/Figure";

const Cell = styled(Figure)`
  font-size: 1.3rem;
  font-weight: 600;
  @media (max-width: 360px) {
    font-size: 1.125rem;
  }
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  caption {
    text-align: left;
    font-size: 0.95rem;
    font-weight: 600;
  }
  th {
    font-weight: 500;
    font-size: 0.9rem;
    color: var(--ink-soft);
    text-align: left;
    padding: 4px 10px 4px 0;
  }
  td {
    padding: 4px 10px 4px 0;
    border-top: 1px solid var(--rule-soft);
  }
  tbody th {
    border-top: 1px solid var(--rule-soft);
  }
  tr[data-usual="true"] td:nth-child(3) {
    font-weight: 700;
  }
`;

const RAILS = [
  ["low", "Lowest rail"],
  ["usual", "Usual rail"],
  ["high", "Highest rail"],
] as const;
const LEDS = [
  ["highest", "Highest Vf"],
  ["typical", "Typical Vf"],
  ["lowest", "Lowest Vf"],
] as const;

interface Props {
  /** The position's report. */
  report: Report;
}

/** The current at each corner of rail and LED. */
export function QuickCurrents({ report }: Props) {
  const at = (rail: string, led: string) =>
    report.current.corners.find((c) => c.rail === rail && c.led === led)?.current;
  return (
    <Table>
      <caption>Current</caption>
      <thead>
        <tr>
          <td />
          {LEDS.map(([key, label]) => (
            <th key={key} scope="col">
              {label}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {RAILS.map(([rail, label]) => (
          <tr key={rail} data-usual={rail === "usual"}>
            <th scope="row">{label}</th>
            {LEDS.map(([led]) => {
              const shown = at(rail, led);
              return <td key={led}>{shown && <Cell shown={shown} />}</td>;
            })}
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
