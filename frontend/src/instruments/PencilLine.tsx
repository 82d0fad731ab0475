import { Button, Dialog, DialogTrigger, Popover } from "react-aria-components";
import styled from "styled-components";

import type { Report } from "../api/client";

const Line = styled(Button)`
  display: flex;
  align-items: center;
  gap: 12px;
  width: 100%;
  min-height: 36px;
  padding: 4px 0;
  border: 0;
  border-top: 1.5px dotted var(--pencil);
  background: none;
  text-align: left;
  font-size: 1rem;
  color: var(--pencil);
  cursor: pointer;
  svg {
    flex: none;
  }
`;

const Sheet = styled(Popover)`
  width: min(640px, 96vw);
  max-height: 80vh;
  overflow: auto;
  padding: 12px 16px;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th,
  td {
    padding: 6px 8px 6px 0;
    text-align: left;
    border-top: 1px solid var(--rule-soft);
  }
  th {
    font-weight: 600;
  }
  td.num {
    font-family: var(--mono);
    white-space: nowrap;
  }
  td[data-loss="unit"],
  td[data-loss="fuse"] {
    color: var(--stop);
    font-weight: 600;
  }
  td[data-pencil="true"] {
    color: var(--pencil);
    font-style: italic;
    text-decoration: underline dotted 2px;
    text-underline-offset: 0.18em;
  }
`;

/* How far a figure moves the current, beside the one that moves it most. */
const Swing = styled.div`
  height: 4px;
  background: var(--ink-soft);
`;

interface Props {
  /** What rests on assumptions. */
  uncertainty: Report["uncertainty"];
}

/** What still rests on pencil; opens the list of every figure behind the result. */
export function PencilLine({ uncertainty }: Props) {
  const most = Math.max(...uncertainty.items.map((i) => i.swing_a), 0);
  return (
    <DialogTrigger>
      <Line>
        <Bar share={uncertainty.share} />
        <span>{uncertainty.line}</span>
      </Line>
      <Sheet placement="top start">
        <Dialog aria-label="Ink and pencil">
          <Table>
            <thead>
              <tr>
                <th scope="col">Figure</th>
                <th scope="col">Value</th>
                <th scope="col">From</th>
                <th scope="col">Moves the current</th>
                <th scope="col">Wrong, it costs</th>
              </tr>
            </thead>
            <tbody>
              {uncertainty.items.map((i) => (
                <tr key={i.id}>
                  <td>{i.label}</td>
                  <td className="num" data-pencil={i.source === "assumed"}>
                    {i.text}
                  </td>
                  <td>{i.source}</td>
                  <td className="num">
                    {i.swing_text}
                    <Swing style={{ width: `${(100 * i.swing_a) / Math.max(most, 1e-12)}%` }} />
                  </td>
                  <td data-loss={i.stake.loss}>
                    {i.source === "assumed" && (i.stake.line || "nothing but light")}
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Dialog>
      </Sheet>
    </DialogTrigger>
  );
}

function Bar({ share }: { share: number }) {
  return (
    <svg width="120" height="12" aria-hidden="true">
      <rect width={120 * (1 - share)} height="12" fill="var(--ink)" />
      <rect
        x={120 * (1 - share) + 0.75}
        y="0.75"
        width={Math.max(0, 120 * share - 1.5)}
        height="10.5"
        fill="none"
        stroke="var(--pencil)"
        strokeWidth="1.5"
        strokeDasharray="3 2"
      />
    </svg>
  );
}
