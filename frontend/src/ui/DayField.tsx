import { lazy, Suspense } from "react";
import styled from "styled-components";

import type { DayProps } from "./DayParts";

/* What a date field is made of is large, and most visits enter no day. */
const Parts = lazy(() => import("./DayParts"));

const Waiting = styled.p`
  min-height: 66px;
  margin: 0;
  font-size: 0.9rem;
  font-weight: 600;
`;

/** A day, or a day and a time: its parts are typed or stepped one by one. */
export function DayField(props: DayProps) {
  return (
    <Suspense fallback={<Waiting>{props.label}</Waiting>}>
      <Parts {...props} />
    </Suspense>
  );
}
