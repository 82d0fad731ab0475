import { Missing } from "./Missing";
import { Shell } from "./Shell";

interface Props {
  /** What the view waits for. */
  query: { isError: boolean; error: unknown; data?: unknown };
  /** Whether it came, and what the address names is not in it. */
  gone?: boolean;
}

/** What stands in a view's place: nothing while it loads, or why it cannot be shown. */
export function NotYet({ query, gone = false }: Props) {
  const failed = query.isError && query.data === undefined;
  return <Shell>{(failed || gone) && <Missing problem={query.error} gone={gone} />}</Shell>;
}
