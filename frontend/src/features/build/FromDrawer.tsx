import styled from "styled-components";

import { useDrawn } from "../../api/queries";
import { GradeMark } from "../../ui/GradeMark";

const List = styled.ul`
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
  font: 600 1.05rem var(--mono);
`;

/** Where a lamp's parts lie, how many are left then, and what is not there. */
export function FromDrawer({ position }: { position: string }) {
  const drawn = useDrawn(position).data;
  if (!drawn) return null;
  return (
    <List aria-label="Out of the drawer">
      {drawn.lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
      {drawn.short.map((line) => (
        <li key={line}>
          <GradeMark grade="mind" bare /> Not there: {line}
        </li>
      ))}
    </List>
  );
}
