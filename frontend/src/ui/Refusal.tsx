import styled from "styled-components";

const Line = styled.p`
  font-size: 0.9rem;
  font-weight: 600;
  color: var(--stop);
`;

interface Props {
  /** Why something was not saved; nothing is shown without it. */
  why: string | undefined;
}

/** Why something was not saved, where it was tried. */
export function Refusal({ why }: Props) {
  return why === undefined ? null : <Line role="alert">{why}</Line>;
}
