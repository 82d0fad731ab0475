import styled from "styled-components";

import { Pages } from "../../ui/Pages";

const Title = styled.h1`
  font-size: 1.9rem;
  font-weight: 650;
`;

const PAGES = [
  ["/drawer", "What is there"],
  ["/drawer/marks", "Marks"],
  ["/drawer/buy", "To buy"],
] as const;

/** The head of the drawer's pages. */
export function DrawerHead({ title }: { title: string }) {
  return (
    <>
      <Title>{title}</Title>
      <Pages label="The drawer" pages={PAGES} />
    </>
  );
}
