import { useState } from "react";

import { Button } from "../Button";
import { asMoment, DayField } from "../DayField";
import { SavedText } from "./SavedText";
import { Unsaved } from "./Unsaved";
import { useField, type FieldName } from "./record";
import { useKept } from "./useKept";

interface Props {
  /** The field's name in the record. */
  field: FieldName;
  /** Its name on screen. */
  label: string;
  /** What it is for. */
  hint?: string;
}

/** A day of the record. What is kept and is none, from another version, stands as it was typed until it is one. */
export function SavedDay(props: Props) {
  const kept = String(useField(props.field).value ?? "");
  return kept && !asMoment(kept) ? <SavedText {...props} /> : <Day {...props} />;
}

function Day({ field, label, hint }: Props) {
  const { id, names, value, save } = useField(field);
  const kept = useKept({ id, label, names, kept: String(value ?? ""), save });
  const [typing, setTyping] = useState(false);
  return (
    <div>
      <DayField
        label={label}
        value={kept.value}
        onChange={kept.type}
        onTyping={(inside) => {
          setTyping(inside);
          if (!inside) kept.commit();
        }}
        hint={hint}
        error={kept.draft?.refused}
        aside={
          kept.value && (
            <Button
              aria-label={`No day for ${label.toLowerCase()}`}
              onPress={() => {
                kept.type("");
                kept.commit();
              }}
            >
              Clear
            </Button>
          )
        }
      />
      <Unsaved field={kept} typing={typing} bare />
    </div>
  );
}
