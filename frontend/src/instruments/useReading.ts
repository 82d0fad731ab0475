import type { Schemas } from "../api/client";
import { useCatalogue, useEcho } from "../api/queries";
import type { FromField } from "../saving/saves";
import { useDraft } from "../saving/useDraft";

export interface ReadingProps {
  /** The position's key; names the draft. */
  positionId: string;
  /** Which of the readings after the swap it is, or which figure it gives. */
  kind: string;
  /** What the meter is set to; kept as a note. */
  meter: string;
  /** The state of the driver it is read in; lit where none is named. */
  state?: string;
  /** Whose it is: this lamp's where none is named. */
  whose?: string;
  /** Where else the same is typed on this page: names the draft apart. */
  at?: string;
  /** Keep a reading; its refusal comes back to the field. */
  onRead: (reading: Schemas["BenchReading"], field: FromField) => void;
}

/** A reading that is being typed: its drafts, how it is read, and keeping it. */
export function useReading({
  positionId,
  kind,
  meter,
  state = "on",
  whose = "this",
  at = "",
  onRead,
}: ReadingProps) {
  const draft = useDraft(`reading.${positionId}.${kind}${at}`, "", "Reading");
  const burden = useDraft(`burden.${positionId}`, "5R", "Meter adds");
  const leads = useCatalogue().data?.leads[kind];
  const asked = leads ? draft.value : "";
  const read = useEcho(asked, leads?.unit || "V");
  const isCurrent = kind === "current";
  const keep = () => {
    // The field is empty at once: a second press finds nothing to read.
    const text = draft.take();
    if (text === undefined) return;
    const field = {
      draft: draft.key,
      text,
      names: ["text"],
      beside: { burden: burden.key },
      label: "Reading",
    };
    const reading = {
      id: crypto.randomUUID(),
      what: kind,
      text,
      burden: isCurrent ? burden.value : "",
      note: meter,
      state,
      whose,
    };
    onRead(reading, field);
  };
  const wrong = asked.trim() && !read.isPlaceholderData ? read.data?.error || undefined : undefined;
  return {
    draft,
    burden,
    isCurrent,
    keep,
    label: leads?.label ?? "Reading",
    error: draft.refused ?? wrong,
    hint: asked.trim() && read.data?.echo ? `Taken as ${read.data.echo}` : "",
  };
}
