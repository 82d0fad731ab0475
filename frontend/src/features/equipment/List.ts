import styled from "styled-components";

export const Section = styled.section`
  margin-bottom: 20px;
`;

export const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: center;
  justify-content: space-between;
  border-bottom: 2px solid var(--ink);
  h2 {
    font-size: 1.2rem;
  }
`;

export const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
`;

export const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule-soft);
`;

export const Acts = styled.div`
  display: flex;
  gap: 4px;
`;
