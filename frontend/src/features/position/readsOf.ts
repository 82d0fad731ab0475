import type { Report } from "../../api/client";
import { say } from "../../ui/say";

/** What each scale of the slide rule reads under the cursor, by the scale's id. */
export function readsOf(report: Report): Record<string, string> {
  const usual = report.glow.lamps.find((g) => g.id === "usual");
  return {
    ohm: say(report.sizing.each),
    low: say(report.current.low),
    usual: say(report.current.usual),
    high: say(report.current.high),
    power: say(report.power.each),
    glow: usual?.ratio_text.replace(" the old lamp", "") ?? "",
  };
}
