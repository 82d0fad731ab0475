import styled from "styled-components";

import type { Report } from "../../../api/client";
import { Figure } from "../../../ui/Figure";

const Bars = styled.dl`
  display: grid;
  grid-template-columns: 4.5rem minmax(0, 1fr) auto;
  align-items: center;
  gap: 6px 10px;
  margin: 0;
  dd {
    margin: 0;
  }
`;

const Bar = styled.dd`
  height: 18px;
  border-left: 2px solid var(--ink);
  span {
    display: block;
    min-width: 2px;
    height: 100%;
    background: var(--mark);
  }
  &[data-old="true"] span {
    background: var(--ink-soft);
  }
`;

interface Props {
  heat: Report["heat"];
}

/** Heat in the lamp's place before and after, on one scale. */
export function HeatPart({ heat }: Props) {
  const most = Math.max(heat.before?.value ?? 0, heat.after.value, 1e-9);
  const wide = (watts: number) => `${(watts / most) * 100}%`;
  return (
    <section aria-label="Heat in its place">
      <h3>Heat in its place</h3>
      <Bars>
        {heat.before && (
          <>
            <dt>Old lamp</dt>
            <Bar data-old="true">
              <span style={{ width: wide(heat.before.value) }} />
            </Bar>
            <dd>
              <Figure shown={heat.before} />
            </dd>
          </>
        )}
        <dt>Now</dt>
        <Bar>
          <span style={{ width: wide(heat.after.value) }} />
        </Bar>
        <dd>
          <Figure shown={heat.after} />
        </dd>
      </Bars>
      <p>{heat.line}</p>
    </section>
  );
}
