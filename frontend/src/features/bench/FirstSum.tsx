import styled from "styled-components";

import { useDraft } from "../../saving/useDraft";

const Steps = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 34px;
  margin: 0 0 12px;
  padding: 10px 14px;
  border: 2px solid var(--mark);
  border-radius: 4px;
  background: var(--sheet);
  list-style: none;
  counter-reset: step;
  li {
    counter-increment: step;
    font-size: 1.0625rem;
  }
  li::before {
    content: counter(step);
    margin-right: 0.6em;
    font: 650 1.2rem var(--mono);
    color: var(--mark);
  }
  li[aria-current] {
    font-weight: 650;
  }
`;

/** On an empty bench: the first sum, a step at a time. Which step is next follows what is typed. */
export default function FirstSum() {
  const rail = useDraft("quick.rail", "").value.trim();
  const led = useDraft("quick.led", "").value;
  const drive = useDraft("quick.drive", "").value;
  const chosen = led !== "" || drive !== "";
  const current = rail === "" ? 0 : chosen ? 2 : 1;
  const steps = [
    "Type what feeds the lamp under Rail.",
    "Choose the LED, and its current under Drive.",
    "Press “Keep as a lamp”.",
  ];
  return (
    <Steps aria-label="The first sum">
      {steps.map((text, n) => (
        <li key={text} aria-current={n === current ? "step" : undefined}>
          {text}
        </li>
      ))}
    </Steps>
  );
}
