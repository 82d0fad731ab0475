import { useState } from "react";

import { Field } from "../Field";
import { Unsaved } from "./Unsaved";
import { useAutosavedField, type SaveValue } from "./useAutosavedField";

interface Props {
  /** Names the draft; unique to record and field. */
  id: string;
  /** The field's names for the server. */
  names: readonly string[];
  /** Its name on screen. */
  label: string;
  /** What is kept. */
  saved: string;
  /** Why what is kept cannot be read. */
  wrong?: string | undefined;
  /** How to write it, or what it was taken for. */
  hint?: string | undefined;
  /** Words that may run over a line. */
  long?: boolean;
  /** Words of several lines. */
  lines?: boolean;
  /** Save it; rejects where the server refuses. */
  onSave: SaveValue<string>;
}

/** A plain text, saved when it is left. */
export function TextControl(props: Props) {
  const { id, names, label, saved, wrong, hint, long, lines, onSave } = props;
  const field = useAutosavedField({ id, label, names, kept: saved, save: onSave });
  const [typing, setTyping] = useState(false);
  return (
    <div>
      <Field
        label={label}
        value={field.value}
        onChange={(text) => field.type(long ? text.replace(/\s*[\r\n]+\s*/g, " ") : text)}
        onCommit={field.commit}
        onTyping={setTyping}
        error={field.draft ? field.draft.refused : wrong}
        hint={hint}
        words
        long={long ?? false}
        lines={lines ?? false}
      />
      <Unsaved field={field} typing={typing} bare />
    </div>
  );
}
