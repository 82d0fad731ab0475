import { TextArea } from "react-aria-components";
import styled from "styled-components";

import { onOneLine } from "./vast";

/** Several lines of text; pulled taller where there are many. */
export const Area = styled(TextArea)`
  width: 100%;
  min-height: 84px;
  padding: 8px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: 4px;
  background: var(--sheet);
  resize: vertical;
  &[data-words="false"] {
    font-family: var(--mono);
  }
  &[data-invalid] {
    border-color: var(--stop);
    border-width: 2.5px;
  }
  ${onOneLine}
`;
