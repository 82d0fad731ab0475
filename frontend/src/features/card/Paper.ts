import styled from "styled-components";

/** One sheet, A4 or Letter: what fits both. */
export const Paper = styled.article`
  max-width: 186mm;
  margin: 12px auto 40px;
  padding: 10mm;
  border: 1.5px solid var(--rule);
  background: var(--sheet);
  h2 {
    margin-top: 4mm;
    font-size: 1.05rem;
    border-bottom: 1.5px solid var(--ink);
  }
  @media print {
    max-width: none;
    margin: 0;
    padding: 0;
    border: 0;
    /* Paint of bands is what a card is read by. */
    print-color-adjust: exact;
  }
  @media (max-width: 600px) {
    padding: 12px;
  }
`;
