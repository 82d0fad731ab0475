import styled from "styled-components";

import type { Report } from "../../../api/client";
import { Figure } from "../../../ui/Figure";
import { SmallButton } from "../../../ui/Button";
import { say } from "../../../ui/say";

const Table = styled.table`
  width: 100%;
  margin-bottom: 10px;
  border-collapse: collapse;
  caption {
    text-align: left;
    font-weight: 600;
  }
  th,
  td {
    padding: 4px 8px 4px 0;
    border-bottom: 1px solid var(--rule-soft);
    text-align: left;
    vertical-align: baseline;
  }
  td:not(:last-child) {
    font-size: 1.15rem;
    white-space: nowrap;
  }
  small {
    display: block;
    font-size: 0.9rem;
    font-weight: 400;
  }
`;

interface Props {
  /** The sister's readings, each with this lamp's beside it. */
  rows: Report["sister"];
  /** What may be read, as it is called. */
  kinds: readonly { id: string; label: string }[];
  /** Strike a reading. */
  onStrike: (id: string) => void;
}

/** A good lamp of the same kind beside this one: what both share is no fault of either. */
export function SisterReadings({ rows, kinds, onStrike }: Props) {
  return (
    <Table>
      <caption>Beside its sister</caption>
      <thead>
        <tr>
          <td />
          <th scope="col">Sister</th>
          <th scope="col">This lamp</th>
          <td />
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.id}>
            <th scope="row">
              {kinds.find((k) => k.id === r.kind)?.label ?? r.kind}
              <small>{r.line}</small>
            </th>
            <td>
              <Figure shown={r.sister} />
            </td>
            <td>{r.own && <Figure shown={r.own} />}</td>
            <td>
              <SmallButton
                aria-label={`Delete ${say(r.sister)} of the sister`}
                onPress={() => onStrike(r.id)}
              >
                Delete
              </SmallButton>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
