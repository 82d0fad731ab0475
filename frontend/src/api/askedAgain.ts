import { Refused } from "./client";

/** How often a question is asked again while nothing answers, and while the server says that it is not well just now. */
const UNANSWERED = 30;
const UNWELL = 4;

/**
 * Whether a question that failed is asked again: a busy database or a fault may be over in a moment, what was asked
 * for wrongly stays wrong.
 */
export function askedAgain(count: number, problem: Error): boolean {
  if (!(problem instanceof Refused)) return count < UNANSWERED;
  return problem.status >= 500 && count < UNWELL;
}
