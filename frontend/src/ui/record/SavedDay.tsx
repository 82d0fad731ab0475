import { useState } from "react";
import styled from "styled-components";

import { Button, SmallButton } from "../Button";
import { DayField } from "../DayField";
import { isDay } from "../dates";
import { SavedText } from "./SavedText";
import { Unsaved } from "./Unsaved";
import { useField, type FieldName } from "./record";
import { useAutosavedField } from "./useAutosavedField";

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
  return kept && !isDay(kept) ? <SavedText {...props} /> : <Day {...props} />;
}

const Said = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  min-height: 44px;
  margin: 0;
`;

function Day({ field, label, hint }: Props) {
  const { id, names, value, save } = useField(field);
  return (
    <DayControl
      id={id}
      label={label}
      names={names}
      kept={String(value ?? "")}
      save={save}
      hint={hint}
    />
  );
}

interface ControlProps extends Pick<
  Parameters<typeof useAutosavedField<string>>[0],
  "id" | "label" | "names" | "kept" | "save"
> {
  hint?: string | undefined;
  /** Whether a time goes with the day. */
  timed?: boolean;
}

/** A day that is kept wherever `save` puts it. */
export function DayControl({ hint, timed, ...told }: ControlProps) {
  const kept = useAutosavedField(told);
  const { label } = told;
  const [typing, setTyping] = useState(false);
  // One stop for the keys until somebody wants to change it.
  const [asked, setAsked] = useState(false);
  if (!asked && !kept.draft) {
    return (
      <Said>
        <b>{label}</b> {kept.value || "no day"}
        <SmallButton
          aria-label={`${kept.value ? "Change" : "Set a day"}: ${label}`}
          onPress={() => setAsked(true)}
        >
          {kept.value ? "Change" : "Set a day"}
        </SmallButton>
      </Said>
    );
  }
  return (
    <div>
      <DayField
        entered={asked}
        label={label}
        value={kept.value}
        onChange={kept.type}
        onTyping={(inside) => {
          setTyping(inside);
          if (!inside) kept.commit();
        }}
        hint={hint}
        error={kept.draft?.refused}
        {...(timed && { timed })}
        aside={
          kept.value && (
            <Button
              aria-label={`Clear: ${label}`}
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
