import { lazy, Suspense, useEffect } from "react";
import styled from "styled-components";

import { useCatalogue } from "../api/queries";
import { MainButton } from "../ui/Button";
import { Field } from "../ui/Field";
import type { ReadingProps } from "./useReading";
import { useReading } from "./useReading";

const fetchSeen = () => import("./SeenEntry");
const SeenEntry = lazy(fetchSeen);

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

interface Props extends ReadingProps {
  /** How such a reading is written. */
  example: string;
}

/** A reading: a field for a figure, buttons for what is seen by eye. */
export function ReadingEntry({ example, ...of }: Props) {
  const leads = useCatalogue().data?.leads[of.kind];
  // Fetched while there is a connection, for when it is needed.
  useEffect(() => {
    fetchSeen().catch(() => undefined);
  }, []);
  if (leads?.mode === "looks") {
    return (
      <Suspense>
        <SeenEntry {...of} />
      </Suspense>
    );
  }
  return <TypedReading example={example} {...of} />;
}

/** A reading that is typed: it says what it took before it is kept. */
function TypedReading({ example, ...of }: Props) {
  const { draft, burden, isCurrent, keep, error, hint } = useReading(of);
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
        error={error}
        hint={hint}
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
