import styled from "styled-components";

/** A small drawing of how something is held, put or joined. */
export const Sketch = styled.svg`
  display: block;
  flex: none;
  width: 100%;
  max-width: 330px;
  height: auto;
  text {
    font: 600 12.5px var(--sans);
    fill: var(--ink);
  }
`;
