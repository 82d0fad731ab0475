import { useRef, useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useEcho } from "../../api/queries";
import { Field } from "../Field";
import { AskOrigin, Origin } from "./Origin";
import { Unsaved } from "./Unsaved";
import { useAutosavedField, type SaveValue } from "./useAutosavedField";

type Quantity = Schemas["Quantity"];

const Group = styled.div`
  display: grid;
  gap: 4px;
  min-width: 0;
`;

interface Props {
  /** Names the draft; unique to record and field. */
  id: string;
  /** The field's names for the server. */
  names: readonly string[];
  /** Its name on screen. */
  label: string;
  /** The unit the text is read in. */
  unit: Schemas["EchoIn"]["unit"];
  /** What stands there now. */
  value: Quantity;
  /** What the saved text was taken for. */
  echo?: string | undefined;
  /** Why what is kept cannot be read. */
  wrong?: string | undefined;
  /** How to write it, or what it was taken for. */
  hint?: string | undefined;
  /** Leave out the source where it cannot be anything but typed. */
  plain?: boolean;
  /** Save it; rejects where the server refuses. */
  onSave: SaveValue<Quantity>;
}

/** A quantity with its source: typed as people write it, echoed as it was taken. */
export function QuantityControl(props: Props) {
  const { id, names, label, unit, value: kept, onSave, hint, plain } = props;
  const field = useAutosavedField({ id, label, names, kept, save: onSave });
  const [typing, setTyping] = useState(false);
  const { text, source = "assumed" } = field.value;
  const [asking, setAsking] = useState(false);
  const group = useRef<HTMLDivElement>(null);
  const from = (chosen: string) => {
    // The question goes with its answer; the focus stays in the field, on what was said.
    if (asking) group.current?.querySelector<HTMLElement>("[aria-haspopup]")?.focus();
    setAsking(false);
    field.type({ ...field.value, source: chosen as Quantity["source"] });
    field.commit();
  };
  const retyped = text !== kept.text;
  const read = useEcho(retyped ? text : "", unit);
  const wrong = retyped && text.trim() ? read.data?.error || undefined : undefined;
  const echo = retyped ? read.data?.echo : props.echo;
  return (
    <Group ref={group}>
      <Field
        label={label}
        value={text}
        onChange={(written) => field.type({ ...field.value, text: written })}
        onCommit={() => {
          // Its origin is asked once, of a figure that is new and still in pencil.
          if (retyped && source === "assumed") setAsking(true);
          field.commit();
        }}
        aside={!plain && <Origin label={label} source={source} onChange={from} />}
        onTyping={setTyping}
        hint={text.trim() ? `Taken as ${echo ?? ""}` : hint}
        error={field.draft?.refused ?? wrong ?? (retyped ? undefined : props.wrong)}
      />
      <Unsaved field={field} typing={typing} bare />
      {!plain && asking && text.trim() && <AskOrigin label={label} onChange={from} />}
    </Group>
  );
}
