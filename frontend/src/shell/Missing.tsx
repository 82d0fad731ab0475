import { Refused } from "../api/client";
import { Instead } from "./Instead";

const GONE = "That is not on the bench any more";
const NOWHERE = "Nothing is at this address";

/** What stands where a view cannot be shown; without a problem there is no view of that address. */
export function Missing({ problem, gone: lost = false }: { problem?: unknown; gone?: boolean }) {
  if (problem instanceof Refused && problem.status === 401) {
    return <Instead title="Not paired with the bench" words={problem.message} />;
  }
  const refused = problem instanceof Refused && (problem.status === 404 || problem.status === 422);
  const gone = lost || refused;
  const [title, words] =
    problem === undefined
      ? [NOWHERE, "It may be mistyped, or cut short where it was copied."]
      : gone
        ? [GONE, "It was deleted, or the address is mistyped. Undo on the bench brings it back."]
        : [
            "No answer from the server",
            "Nothing typed is lost. It is asked again by itself; check that Swap Glow is running.",
          ];
  return <Instead title={title} words={words} />;
}
