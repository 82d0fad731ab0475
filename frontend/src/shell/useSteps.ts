import { useState } from "react";
import { useLocation, useNavigate } from "react-router";

import { Refused, type Schemas } from "../api/client";
import { say, unsayStep } from "../saving/notices";
import { useSave } from "../saving/useSave";

type Which = "undo" | "redo";

/** A step that meets later work: what both have, and which way it goes. */
export interface Clash {
  which: Which;
  step: number;
  clashes: Schemas["ClashOut"][];
}

/**
 * Take a step back or do it again; where later work stands, somebody is asked.
 * `up` is the view to go to where what is looked at goes with the step.
 */
export function useSteps(up: string) {
  const save = useSave();
  const go = useNavigate();
  const { pathname } = useLocation();
  const [clash, setClash] = useState<Clash>();
  const act = async (which: Which, step: number, choice: Schemas["StepIn"]["choice"] = "ask") => {
    setClash(undefined);
    try {
      const label = which === "undo" ? "Undo" : "Redo";
      const { data } = await save("POST", `/api/${which}`, { step, choice }, { label });
      const done = data as Schemas["Done"];
      unsayStep(step);
      if (done.gone.some((key) => pathname.includes(key))) {
        // What was looked at is gone with it: the view it stood in is shown, with the way to bring it back.
        say({ text: `Took back: ${done.label}. Redo brings it again.` });
        await go(done.gone.some((key) => up.includes(key)) ? "/" : up);
      }
    } catch (problem) {
      const found = problem instanceof Refused ? (problem.body as Schemas["Clashes"]) : undefined;
      if (found?.clashes?.length) setClash({ which, step, clashes: found.clashes });
    }
  };
  return { act, clash, dismiss: () => setClash(undefined) };
}
