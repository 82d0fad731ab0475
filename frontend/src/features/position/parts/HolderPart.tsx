import { useState } from "react";

import type { Schemas } from "../../../api/client";
import { useCatalogue } from "../../../api/queries";
import { inPassing } from "../../../saving/useSave";
import { Choice } from "../../../ui/Choice";
import { useRecord } from "../../../ui/record/record";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { LedPart } from "./LedPart";
import { ReadyMadePart } from "./ReadyMadePart";
import { TherePart } from "./TherePart";
import type { Position, Take } from "./part";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** The rail that feeds the lamp, as it is kept. */
  rail: Schemas["RailAnswer"];
  /** The curve fitted through the sweep, if there is one. */
  fit: Schemas["SweepReport"] | null;
  /** Take changes over into the position. */
  take: Take;
}

/** What goes into the holder is asked first, and only its own fields are shown. */
export function HolderPart({ position, rail, fit, take }: Props) {
  const catalogue = useCatalogue().data;
  const { save } = useRecord();
  const kept = position.goes_in;
  // An answer that has no figures yet stands here until they are typed.
  const [asked, setAsked] = useState<string>();
  const holder = asked ?? kept;
  const choose = (next: string) => {
    setAsked(next);
    const empties = catalogue?.holders[kept]?.empties ?? {};
    if (next !== kept && Object.keys(empties).length > 0) inPassing(save(empties));
  };
  const kind = catalogue?.supplies.find((s) => s.id === rail.kind);
  return (
    <>
      <Choice
        label="What goes in?"
        value={holder}
        options={Object.entries(catalogue?.holders ?? {}).map(([id, h]) => ({
          id,
          label: h.label,
        }))}
        onChange={choose}
      />
      {holder === "ready_made" && <ReadyMadePart position={position} take={take} />}
      {holder === "there" && <TherePart position={position} fit={fit} />}
      {holder === "leds" && <LedPart position={position} fit={fit} />}
      {kind?.position_fields.includes("glow_floor") && (
        <SavedChoice field="glow_floor" label="A battery lasts down to" />
      )}
      <p>{catalogue?.led_source}.</p>
    </>
  );
}
