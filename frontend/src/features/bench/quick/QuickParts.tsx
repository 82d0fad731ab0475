import styled from "styled-components";

import type { Report } from "../../../api/client";

/* Whatever the figures assume is built: nothing is in the circuit that is not in this list. */
const Built = styled.section`
  margin-top: 10px;
  h2 {
    font-size: 0.95rem;
  }
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
    margin: 2px 0 0;
    padding: 0;
    list-style: none;
  }
`;

interface Props {
  /** Everything in the circuit that was summed. */
  needs: Report["needs"];
}

/** The parts that the sum is of: the rectifier and its capacitor among them, where the rail alternates. */
export function QuickParts({ needs }: Props) {
  return (
    <Built aria-label="Built from">
      <h2>Built from</h2>
      <ul>
        {needs.map((need) => (
          <li key={`${need.kind} ${need.label}`}>
            {need.count} × {need.label}
          </li>
        ))}
      </ul>
    </Built>
  );
}
