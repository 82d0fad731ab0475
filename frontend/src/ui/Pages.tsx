import { NavLink } from "react-router";
import styled from "styled-components";

const Row = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
  margin: 2px 0 14px;
  border-bottom: 1.5px solid var(--rule);
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    text-decoration: none;
  }
  a[aria-current="page"] {
    font-weight: 700;
    box-shadow: inset 0 -3px var(--mark);
  }
  @media print {
    display: none;
  }
`;

interface Props {
  /** What the pages belong to. */
  label: string;
  /** Each page's way and name. */
  pages: readonly (readonly [string, string])[];
}

/** The pages of one place, beside each other. */
export function Pages({ label, pages }: Props) {
  return (
    <Row aria-label={label}>
      {pages.map(([to, name]) => (
        <NavLink key={to} to={to} end>
          {name}
        </NavLink>
      ))}
    </Row>
  );
}
