import { useIsFetching, useIsMutating, useQueryClient, type Query } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { useLocation, useNavigate } from "react-router";

import { Refused, type Schemas } from "../api/client";
import { say, unsay, unsayStep, type Notice } from "../saving/notices";
import { useSave } from "../saving/useSave";

type Which = "undo" | "redo";

/** A step that meets later work: what both have, and which way it goes. */
export interface Clash {
  which: Which;
  step: number;
  clashes: Schemas["ClashOut"][];
}

const SAVES = { mutationKey: ["save"] };
const stepsOf = ({ state }: Query) =>
  (state.data as { steps?: Schemas["Steps"] } | undefined)?.steps;

/** Whether a view's steps are the newest: no change is on its way, and what they came with is not asked for anew. */
function useUpToDate(steps: Schemas["Steps"] | undefined): () => boolean {
  const queries = useQueryClient();
  // Drawn anew as these come and go; what holds is asked of the client, for it knows before anything is drawn.
  useIsMutating(SAVES);
  useIsFetching({ predicate: (query) => stepsOf(query) !== undefined });
  return () =>
    queries.isMutating(SAVES) === 0 &&
    queries
      .getQueryCache()
      .getAll()
      .some((query) => query.state.fetchStatus === "idle" && stepsOf(query) === steps);
}

/**
 * Take a step back or do it again; where later work stands, somebody is asked. What is pressed while a change is on
 * its way, or is not in the view yet, waits for that: the step meant is the newest.
 *
 * `steps` are those of the view; `up` is the view to go to where what is looked at goes with the step.
 */
export function useSteps(steps: Schemas["Steps"] | undefined, up: string) {
  const save = useSave();
  const go = useNavigate();
  const { pathname } = useLocation();
  const [clash, setClash] = useState<Clash>();
  const act = async (which: Which, step: number, choice: Schemas["StepIn"]["choice"] = "ask") => {
    setClash(undefined);
    const label = which === "undo" ? "Undo" : "Redo";
    try {
      const { data } = await save("POST", `/api/${which}`, { step, choice });
      const done = data as Schemas["Done"];
      unsayStep(step);
      if (done.gone.some((key) => pathname.includes(key))) {
        // What was looked at is gone with it: the view it stood in is shown, with the way to bring it back.
        say({ text: `Took back: ${done.label}. Redo brings it again.` });
        await go(done.gone.some((key) => up.includes(key)) ? "/" : up);
      }
    } catch (problem) {
      if (!(problem instanceof Refused)) return;
      const { clashes = [] } = (problem.body ?? {}) as Partial<Schemas["Clashes"]>;
      if (clashes.length) {
        setClash({ which, step, clashes });
        return;
      }
      const stuck = which === "undo" && problem.status === 409 ? { stuck: step } : {};
      say({ text: `${label}: not done. ${problem.message}`, ...stuck });
    }
  };
  const pass = async (notice: Notice) => {
    unsay(notice.id);
    await save(
      "POST",
      "/api/undo/pass",
      { step: notice.stuck },
      { label: "Leave this step" },
    ).catch(() => undefined);
  };
  const upToDate = useUpToDate(steps);
  const wanted = useRef<Which>(undefined);
  const take = () => {
    const which = wanted.current;
    if (!which || !upToDate()) return;
    wanted.current = undefined;
    const step = steps?.[which];
    if (step) void act(which, step.id);
  };
  const takeNow = useEffectEvent(take);
  // At every drawing: what is waited for may come and go between two.
  useEffect(() => takeNow());
  const want = (which: Which) => {
    wanted.current = which;
    take();
  };
  return { act, pass, want, clash, dismiss: () => setClash(undefined) };
}
