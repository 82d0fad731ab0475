import type { ReactNode } from "react";
import { Link } from "react-router";
import styled from "styled-components";

const Wrap = styled.div`
  padding: 32px 0;
  display: grid;
  gap: 10px;
  justify-items: start;
`;

const Title = styled.h1`
  font-size: 1.5rem;
`;

interface Props {
  /** What is wrong. */
  title: string;
  /** What it means, and what helps. */
  words: string;
  /** What can be done about it here. */
  children?: ReactNode;
}

/** What stands instead of a view, with the way back. */
export function Instead({ title, words, children }: Props) {
  return (
    <Wrap role="alert">
      <Title>{title}</Title>
      <p>{words}</p>
      {children}
      <Link to="/">Back to the bench</Link>
    </Wrap>
  );
}
