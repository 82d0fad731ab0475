import styled from "styled-components";

/** What a view is called. */
export const ViewTitle = styled.h1`
  font-size: 1.45rem;
  font-weight: 650;
  line-height: 1.2;
`;

/** A view's title with the way back beside it. */
export const ViewHead = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
  margin-bottom: 8px;
  a {
    display: inline-flex;
    align-items: center;
    min-height: 32px;
    text-underline-offset: 0.2em;
  }
`;
