import { expect, test } from "vitest";

import { askedAgain } from "./askedAgain";
import { Refused } from "./client";

const refused = (status: number) => new Refused(status, [{ field: "", message: "busy" }]);

test.each([
  ["a busy database", refused(503), 3, true],
  ["a busy database for too long", refused(503), 4, false],
  ["a fault", refused(500), 0, true],
  ["what cannot be worked out", refused(422), 0, false],
  ["what is not there", refused(404), 0, false],
  ["no answer at all", new TypeError("failed to fetch"), 29, true],
  ["no answer for most of a minute", new TypeError("failed to fetch"), 30, false],
])("%s", (_, problem, count, again) => {
  expect(askedAgain(count, problem)).toBe(again);
});
