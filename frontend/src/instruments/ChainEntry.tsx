import type { RefObject } from "react";
import { useEffect, useRef } from "react";
import styled from "styled-components";

import { MainButton } from "../ui/Button";
import { Field } from "../ui/Field";
import type { ReadingProps } from "./useReading";
import { useReading } from "./useReading";

const Chain = styled.form`
  display: grid;
  grid-template-columns: repeat(2, minmax(132px, 1fr));
  gap: 2px 12px;
  align-items: start;
  & > button {
    grid-column: 1 / -1;
  }
`;

type Keeps = RefObject<Map<string, () => void>>;

interface Props extends Omit<ReadingProps, "kind"> {
  /** What is read, in the order of the walk. */
  kinds: string[];
}

/** Several readings taken in one go: a field for each, kept together; one left empty is left out. */
export default function ChainEntry({ kinds, ...of }: Props) {
  const keeps = useRef(new Map<string, () => void>());
  return (
    <Chain
      onSubmit={(e) => {
        e.preventDefault();
        for (const kind of kinds) keeps.current.get(kind)?.();
      }}
    >
      {kinds.map((kind) => (
        <OneReading key={kind} keeps={keeps} kind={kind} {...of} />
      ))}
      <MainButton type="submit">Keep these readings</MainButton>
    </Chain>
  );
}

function OneReading({ keeps, ...of }: ReadingProps & { keeps: Keeps }) {
  const { draft, keep, label, error, hint } = useReading(of);
  useEffect(() => {
    const every = keeps.current;
    every.set(of.kind, keep);
    return () => void every.delete(of.kind);
  });
  return (
    <Field label={label} value={draft.value} onChange={draft.type} error={error} hint={hint} />
  );
}
