import { parseDate, parseDateTime, type DateValue } from "@internationalized/date";
import { useEffect, useRef, type ReactNode } from "react";
import { DateField, DateInput, DateSegment, FieldError, I18nProvider } from "react-aria-components";
import styled from "styled-components";

import { Caption, Hint } from "./Field";

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

const Wrong = styled(FieldError)`
  display: block;
  font-size: 0.9rem;
  font-weight: 600;
  color: var(--stop);
`;

/** A text as the field takes it, "2031-05-20" or "2031-05-20 14:30"; nothing for none. A day alone begins at midnight. */
function asMoment(text: string, timed = false): DateValue | null {
  try {
    if (!text) return null;
    if (text.length > 10) return parseDateTime(text.replace(" ", "T"));
    return timed ? parseDateTime(`${text}T00:00`) : parseDate(text);
  } catch {
    return null;
  }
}

export interface DayProps {
  /** Its name on screen. */
  label: string;
  /** What stands there: "2031-05-20", or with a time "2031-05-20 14:30"; empty for nothing. */
  value: string;
  /** Told each complete day, or nothing. */
  onChange: (text: string) => void;
  /** Told whether the typist is in it. */
  onTyping?: (typing: boolean) => void;
  /** What it is for. */
  hint?: string | undefined;
  /** Why what stands there is not accepted. */
  error?: string | undefined;
  /** Whether a time goes with the day. */
  timed?: boolean;
  /** Whether the typist asked for it just now, and goes on in it. */
  entered?: boolean;
  /** A small control beside it. */
  aside?: ReactNode;
}

/** A day, or a day and a time: its parts are typed or stepped one by one, the year first as everywhere here. */
export default function DayParts(props: DayProps) {
  const { label, value, onChange, onTyping, hint, error, timed, aside, entered } = props;
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (entered) place.current?.querySelector<HTMLElement>("[role=spinbutton]")?.focus();
  }, [entered]);
  return (
    <I18nProvider locale="en-CA">
      <DateField
        value={asMoment(value, timed)}
        granularity={timed ? "minute" : "day"}
        hourCycle={24}
        hideTimeZone
        ref={place}
        onChange={(moment) =>
          onChange(
            moment
              ?.toString()
              .slice(0, timed ? 16 : 10)
              .replace("T", " ") ?? "",
          )
        }
        {...(onTyping && { onFocusChange: onTyping })}
        isInvalid={error !== undefined}
      >
        <Caption>{label}</Caption>
        <Line>
          <Segments>{(segment) => <Segment segment={segment} />}</Segments>
          {aside}
        </Line>
        {error === undefined ? <Hint slot="description">{hint}</Hint> : <Wrong>{error}</Wrong>}
      </DateField>
    </I18nProvider>
  );
}
