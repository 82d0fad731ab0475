import styled from "styled-components";

import type { Schemas } from "../api/client";
import { useCatalogue, useTook } from "../api/queries";
import type { FromField } from "../saving/saves";
import { useDraft } from "../saving/useDraft";
import { MainButton } from "../ui/Button";
import { Field } from "../ui/Field";

const Take = styled.form`
  display: grid;
  grid-template-columns: 132px auto;
  &[data-kind="current"] {
    grid-template-columns: 132px 92px auto;
  }
  gap: 0 8px;
  align-items: start;
  & > button {
    margin-top: 22px;
    padding: 0 12px;
  }
  @media (max-width: 760px) {
    grid-template-columns: minmax(0, 1fr) auto;
    &[data-kind="current"] {
      grid-template-columns: minmax(0, 1fr) 88px auto;
    }
  }
`;

interface Props {
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
  /** How such a reading is written. */
  example: string;
  /** Keep a reading; its refusal comes back to the field. */
  onRead: (reading: Schemas["BenchReading"], field: FromField) => void;
}

/** Where a reading is typed: it says what it took before it is kept. */
export function ReadingEntry({
  positionId,
  kind,
  meter,
  state = "on",
  whose = "this",
  at = "",
  example,
  onRead,
}: Props) {
  const draft = useDraft(`reading.${positionId}.${kind}${at}`, "", "Reading");
  const burden = useDraft(`burden.${positionId}`, "5R", "Meter adds");
  const leads = useCatalogue().data?.leads[kind];
  const asked = leads ? draft.value : "";
  const read = useTook(asked, leads?.unit ?? "V");
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
  const took = asked.trim() && read.data?.took ? `Taken as ${read.data.took}` : "";
  return (
    <Take
      data-kind={isCurrent ? "current" : "volts"}
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <Field
        label="Reading"
        value={draft.value}
        onChange={draft.type}
        error={draft.refused ?? wrong}
        hint={took}
        placeholder={example}
      />
      {isCurrent ? (
        <Field
          label="Meter adds"
          value={burden.value}
          onChange={burden.type}
          error={burden.refused}
        />
      ) : null}
      <MainButton type="submit">Keep reading</MainButton>
    </Take>
  );
}
