import { afterEach, expect, test, vi } from "vitest";

import { dayOf } from "./dates";

afterEach(() => vi.unstubAllEnvs());

test.each([
  ["Pacific/Kiritimati", "2031-05-21"],
  ["America/Los_Angeles", "2031-05-20"],
  ["UTC", "2031-05-20"],
])("the day of an instant is that of the bench in %s", (zone, day) => {
  // 20:30 in Greenwich: past midnight where clocks are fourteen hours ahead (IANA time zones).
  vi.stubEnv("TZ", zone);
  expect(dayOf(new Date(Date.UTC(2031, 4, 20, 20, 30)))).toBe(day);
});
