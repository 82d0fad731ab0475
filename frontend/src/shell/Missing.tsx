import { Link } from "react-router";
import styled from "styled-components";

import { Refused } from "../api/client";

const Wrap = styled.div`
  padding: 32px 0;
  display: grid;
  gap: 10px;
  justify-items: start;
`;

const Title = styled.h1`
  font-size: 1.5rem;
`;

/** What stands where a view cannot be shown. */
export function Missing({ problem }: { problem: unknown }) {
  const gone = problem instanceof Refused && problem.status === 404;
  return (
    <Wrap role="alert">
      <Title>{gone ? "That is not on the bench any more" : "No answer from the server"}</Title>
      <p>
        {gone
          ? "It was deleted, or the address is mistyped. Undo on the bench brings deleted equipment back."
          : "Nothing typed is lost. It is asked again by itself; check that Swap Glow is running."}
      </p>
      <Link to="/">Back to the bench</Link>
    </Wrap>
  );
}
