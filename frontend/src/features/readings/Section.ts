import styled from "styled-components";

export const Section = styled.section`
  margin-bottom: 18px;
  h2 {
    font-size: 1.15rem;
    border-bottom: 2px solid var(--ink);
    margin-bottom: 4px;
  }
`;

export const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 14px;
    padding: 6px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
  li > span {
    flex: 1 1 260px;
  }
  small {
    display: block;
    font-size: 0.9rem;
    color: var(--ink-soft);
  }
`;
