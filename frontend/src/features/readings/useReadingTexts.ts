import { useState } from "react";

import type { Schemas } from "../../api/client";
import { useShop } from "../../api/queries";
import { useDraft } from "../../saving/useDraft";
import { inPassing, useSave } from "../../saving/useSave";

type Reading = Schemas["NewReadingBefore"];

/** A reading being written: its texts and choices, and how it is kept. */
export function useReadingTexts(position: string) {
  const save = useSave();
  const text = useDraft(`taken.${position}.text`, "", "Reading");
  const state = useDraft(`taken.${position}.state`, "");
  const meter = useDraft(`taken.${position}.meter`, "", "Meter");
  const note = useDraft(`taken.${position}.note`, "");
  const [chosen, setChosen] = useState({
    function: "dc_volts",
    points: "lamp",
    lamp: "in",
  });
  // The shop's own meter, until another is chosen.
  const usual = String(useShop().data?.true_rms ?? false);
  const [rms, setRms] = useState<string>();
  const true_rms = rms ?? usual;
  const keep = () => {
    // The field is free for the next reading at once, so that a second press finds nothing; a refused one
    // comes back to it.
    const typed = text.take();
    if (typed === undefined) return;
    const reading = {
      ...chosen,
      true_rms: true_rms === "true",
      position,
      text: typed,
      state: state.value,
      meter: meter.value,
      note: note.take() ?? "",
    } as Reading;
    const field = {
      draft: text.key,
      text: typed,
      names: ["text"],
      beside: { meter: meter.key },
      label: "Reading",
    };
    inPassing(save("PUT", `/api/readings/before/${crypto.randomUUID()}`, reading, { field }));
  };
  return {
    text,
    state,
    meter,
    note,
    chosen: { ...chosen, true_rms },
    choose: ({ true_rms: other, ...part }: Partial<typeof chosen & { true_rms: string }>) => {
      if (other !== undefined) setRms(other);
      setChosen((old) => ({ ...old, ...part }));
    },
    keep,
  };
}
