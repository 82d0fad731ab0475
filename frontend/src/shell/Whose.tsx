import styled from "styled-components";

import { useMe } from "../api/queries";

const Said = styled.span`
  white-space: nowrap;
  padding: 2px 8px;
  border: 1.5px solid var(--mark);
  border-radius: 4px;
  font-size: 0.9rem;
  font-weight: 650;
`;

/** What is to be known of this page beside what it shows: that it is the demo's, or only looks. */
export function Whose() {
  const me = useMe().data;
  if (!me) return null;
  if (me.paired && !me.may_write) return <Said>Only looks</Said>;
  return me.demo ? <Said>Demo</Said> : null;
}
