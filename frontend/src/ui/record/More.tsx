import { useState, useSyncExternalStore, type ReactNode } from "react";
import styled from "styled-components";

import { allDrafts, subscribeDrafts } from "../../saving/drafts";
import { unreadOf, useRecord, type FieldName } from "./record";

const Rest = styled.details`
  summary {
    display: flex;
    align-items: center;
    gap: 8px;
    min-height: 44px;
    font-size: 0.95rem;
    font-weight: 600;
    cursor: pointer;
  }
  summary::before {
    content: "+";
    width: 1em;
    font: 700 1.2rem/1 var(--mono);
  }
  &[open] > summary::before {
    content: "−";
  }
  & > div {
    display: grid;
    gap: 14px;
  }
`;

interface Props {
  /** What is in it. */
  label: string;
  /** The fields in it that may be left empty: how many of them are filled is said while it is closed. */
  fields: readonly FieldName[];
  /** How many other things are in it. */
  others?: number;
  children: ReactNode;
}

/** Fields that are used less often. Opens by itself when one of them holds a text that is not saved or not readable. */
export function More({ label, fields, others = 0, children }: Props) {
  const record = useRecord();
  const [open, setOpen] = useState<boolean>();
  const drafts = useSyncExternalStore(subscribeDrafts, allDrafts);
  const wrong = fields.some(
    (f) =>
      unreadOf(record, `${record.prefix ?? ""}${f}`) !== undefined ||
      drafts.some(([key]) => key === `${record.id}.${f}`),
  );
  const values = record.values as Readonly<Record<string, unknown>>;
  const filled = fields.filter((f) => isFilled(values[f])).length + others;
  return (
    <Rest open={open ?? wrong} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>{filled > 0 ? `${label} (${filled} filled)` : label}</summary>
      <div>{children}</div>
    </Rest>
  );
}

/** Whether something was entered; a quantity is a text with where it is from. */
function isFilled(value: unknown): boolean {
  if (typeof value === "object" && value !== null)
    return isFilled((value as { text?: unknown }).text);
  return typeof value === "number" ? value > 0 : Boolean(value);
}
