import { CalendarDate, parseDate } from "@internationalized/date";
import { useState } from "react";
import { DateField, DateInput, DateSegment, I18nProvider } from "react-aria-components";
import styled from "styled-components";

import { Button } from "../Button";
import { Caption, Hint } from "../Field";
import { SavedText } from "./SavedText";
import { Unsaved } from "./Unsaved";
import { useField, type FieldName } from "./record";
import { useKept } from "./useKept";

const Segments = styled(DateInput)`
  display: flex;
  align-items: center;
  min-height: 44px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: 4px;
  background: var(--sheet);
  font-family: var(--mono);
  font-size: 1.15rem;
  &[data-focus-within] {
    outline: 3px solid var(--mark);
    outline-offset: 1px;
  }
`;

const Segment = styled(DateSegment)`
  padding: 4px 2px;
  border-radius: 3px;
  outline: none;
  &[data-placeholder] {
    color: var(--ink-soft);
  }
  &[data-focused] {
    background: var(--ink);
    color: var(--sheet);
  }
`;

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
`;

/** A kept day as the field takes it; nothing for none. */
function asDate(text: string): CalendarDate | null {
  try {
    return text ? parseDate(text) : null;
  } catch {
    return null;
  }
}

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
  return kept && !asDate(kept) ? <SavedText {...props} /> : <Day {...props} />;
}

/** Year, month and day, typed or stepped one by one, and kept as 2031-05-20. */
function Day({ field, label, hint }: Props) {
  const { id, names, value, save } = useField(field);
  const kept = useKept({ id, label, names, kept: String(value ?? ""), save });
  const [typing, setTyping] = useState(false);
  return (
    <div>
      {/* Days stand as they do everywhere here: the year first. */}
      <I18nProvider locale="en-CA">
        <DateField
          value={asDate(kept.value)}
          granularity="day"
          onChange={(day) => kept.type(day?.toString() ?? "")}
          onFocusChange={(inside) => {
            setTyping(inside);
            if (!inside) kept.commit();
          }}
          isInvalid={kept.draft?.refused !== undefined}
        >
          <Caption>{label}</Caption>
          <Line>
            <Segments>{(segment) => <Segment segment={segment} />}</Segments>
            {kept.value && (
              <Button
                aria-label={`No day for ${label.toLowerCase()}`}
                onPress={() => {
                  kept.type("");
                  kept.commit();
                }}
              >
                Clear
              </Button>
            )}
          </Line>
          <Hint slot="description">{kept.draft?.refused ?? hint}</Hint>
        </DateField>
      </I18nProvider>
      <Unsaved field={kept} typing={typing} bare />
    </div>
  );
}
