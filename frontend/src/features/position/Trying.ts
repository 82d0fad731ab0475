import styled from "styled-components";

/** The bar that stands where the next thing is while something is tried or nothing can be worked out. */
export const Trying = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 8px 14px;
  border: 2px dashed var(--mark);
  border-radius: 4px;
  background: var(--mark-soft);
  p {
    flex: 1;
    font-size: 1.15rem;
    font-weight: 600;
  }
`;
