import { useState } from "react";

import type { Schemas } from "../api/client";
import { SmallButton } from "./Button";
import { Lamp } from "./Lamp";

type Summary = Schemas["Summary"];

/** This many lamps in a row that show the same are folded into one line. */
const MANY = 4;

const shows = ({ stage, rail, glow_colour, glow_lightness, grade, line, next_act }: Summary) =>
  JSON.stringify([stage, rail, glow_colour, glow_lightness, grade, line, next_act]);

/** Lamps in their order, those in a row that show the same together where there are many of them. */
export function runsOf(lamps: readonly Summary[]): Summary[][] {
  const runs: Summary[][] = [];
  for (const lamp of lamps) {
    const last = runs.at(-1);
    if (last?.[0] && shows(last[0]) === shows(lamp)) last.push(lamp);
    else runs.push([lamp]);
  }
  return runs.flatMap((run) => (run.length >= MANY ? [run] : run.map((lamp) => [lamp])));
}

interface Props {
  /** Lamps that show the same; one or more. */
  lamps: readonly Summary[];
}

/** A lamp, with those that show the same behind a press. */
export function AlikeLamps({ lamps: [first, ...rest] }: Props) {
  const [open, setOpen] = useState(false);
  if (!first) return null;
  return (
    <>
      <Lamp lamp={first} />
      {rest.length > 0 && (
        <li>
          <SmallButton aria-expanded={open} onPress={() => setOpen(!open)}>
            {rest.length} more show the same: {rest[0]?.name} to {rest.at(-1)?.name}
          </SmallButton>
        </li>
      )}
      {open && rest.map((lamp) => <Lamp key={lamp.id} lamp={lamp} />)}
    </>
  );
}
