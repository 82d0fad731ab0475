import { expect, test } from "vitest";

import { spoken } from "./ReadAloud";

test.each([
  ["Expect 12.4 mA", "Expect 12.4 milliamps"],
  ["2.2\u00a0kΩ in the plus lead", "2.2 kilohms in the plus lead"],
  ["330 Ω, 5 V and 0.25 W", "330 ohms, 5 volts and 0.25 watts"],
  ["41 °C, or −20 °C", "41 degrees, or minus 20 degrees"],
  ["A lamp marked V", "A lamp marked V"],
  ["820 mV at 3 A", "820 millivolts at 3 amps"],
])("%s is said as it is meant", (text, words) => {
  expect(spoken(text)).toBe(words);
});
