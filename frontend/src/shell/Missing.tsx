import { Link } from "react-router";
import styled from "styled-components";

import { Refused } from "../api/client";

const GONE = "That is not on the bench any more";
const NOWHERE = "Nothing is at this address";

const Wrap = styled.div`
  padding: 32px 0;
  display: grid;
  gap: 10px;
  justify-items: start;
`;

const Title = styled.h1`
  font-size: 1.5rem;
`;

/** What stands where a view cannot be shown; without a problem there is no view of that address. */
export function Missing({ problem }: { problem?: unknown }) {
  const gone = problem instanceof Refused && (problem.status === 404 || problem.status === 422);
  const [title, words] =
    problem === undefined
      ? [NOWHERE, "It may be mistyped, or cut short where it was copied."]
      : gone
        ? [GONE, "It was deleted, or the address is mistyped. Undo on the bench brings it back."]
        : [
            "No answer from the server",
            "Nothing typed is lost. It is asked again by itself; check that Swap Glow is running.",
          ];
  return (
    <Wrap role="alert">
      <Title>{title}</Title>
      <p>{words}</p>
      <Link to="/">Back to the bench</Link>
    </Wrap>
  );
}
