import type { ReactElement, ReactNode } from "react";
import styled from "styled-components";

import type { Finding } from "../api/client";
import { GradeMark } from "../ui/GradeMark";

export const Item = styled.li`
  padding: 8px 0 10px;
  border-top: 1.5px solid var(--rule);
  &:first-child {
    border-top: 0;
    padding-top: 0;
  }
`;

export const Message = styled.p`
  font-size: 1.0625rem;
  line-height: 1.3;
`;

export const Head = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
`;

const Reason = styled.p`
  font-size: 0.95rem;
  color: var(--ink-soft);
`;

interface Props {
  /** One judgement. */
  finding: Finding;
  /** What opens its reason, which is then no part of what is drawn at first. */
  trigger?: ReactNode;
  /** The reason as it is opened; in full where nothing opens it. */
  reason?: ReactNode;
  /** What goes around all but what may be done. */
  around?: (inside: ReactNode) => ReactElement;
  /** What may be done about it. */
  children?: ReactNode;
}

/** A judgement with its grade, its reason and what may be done: drawn alike wherever one stands. */
export function FindingItem({ finding, trigger, reason, around, children }: Props) {
  const inside = (
    <>
      <Head>
        <GradeMark grade={finding.grade} />
        {trigger}
      </Head>
      <Message>{finding.message}</Message>
      {reason ?? <Reason>{reasonOf(finding)}</Reason>}
    </>
  );
  return (
    <Item data-finding={finding.id}>
      {around ? around(inside) : inside}
      {children}
    </Item>
  );
}

/** Why a judgement matters, with its figure and its limit where it has them. */
export function reasonOf({ why, figure, limit }: Finding): string {
  return limit ? `${why} Here ${figure}; limit ${limit}.` : why;
}
