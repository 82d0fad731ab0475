import type { Schemas } from "../../api/client";

/** Where a thing is done: readings before the swap by themselves, all else along the build. */
export const wayTo = (t: Schemas["DayTask"]) =>
  `/position/${t.lamp_id}/${t.kind === "read" ? "readings" : "build"}`;
