import { Missing } from "./Missing";
import { Shell } from "./Shell";

/** What a view waits for. */
interface Asked {
  isError: boolean;
  error: unknown;
  data?: unknown;
}

/**
 * What stands in a view's place: nothing while it loads, or why it cannot be shown.
 *
 * A function and not a component: React then keeps the frame, and a sheet open in it, when the view replaces this.
 * @param gone whether it came, and what the address names is not in it
 */
export function notYet(query: Asked, gone = false) {
  const failed = query.isError && query.data === undefined;
  return <Shell>{(failed || gone) && <Missing problem={query.error} gone={gone} />}</Shell>;
}
