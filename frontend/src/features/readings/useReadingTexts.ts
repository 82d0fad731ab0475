import { useState } from "react";

import { Refused, type Schemas } from "../../api/client";
import { useSave } from "../../api/queries";
import { useDraft } from "../../api/useDraft";

type Reading = Schemas["NewReadingBefore"];

/** A reading being written: its texts and choices, and how it is kept. */
export function useReadingTexts(position: string) {
  const save = useSave();
  const text = useDraft(`taken.${position}.text`, "");
  const state = useDraft(`taken.${position}.state`, "");
  const meter = useDraft(`taken.${position}.meter`, "");
  const note = useDraft(`taken.${position}.note`, "");
  const [chosen, setChosen] = useState({
    function: "dc_volts",
    points: "lamp",
    lamp: "in",
    true_rms: "false",
  });
  const [refusal, setRefusal] = useState<Refused>();
  const keep = async () => {
    // The field is free for the next reading at once; a refused one comes back to it.
    const typed = text.value;
    text.clear();
    try {
      await save("PUT", `/api/readings/before/${crypto.randomUUID()}`, {
        ...chosen,
        true_rms: chosen.true_rms === "true",
        position,
        text: typed,
        state: state.value,
        meter: meter.value,
        note: note.value,
      } as Reading);
      note.clear();
      setRefusal(undefined);
    } catch (problem) {
      if (problem instanceof Refused) {
        text.type(typed);
        setRefusal(problem);
      }
    }
  };
  return {
    text,
    state,
    meter,
    note,
    chosen,
    choose: (part: Partial<typeof chosen>) => setChosen((old) => ({ ...old, ...part })),
    refusal,
    forget: () => setRefusal(undefined),
    keep,
  };
}
