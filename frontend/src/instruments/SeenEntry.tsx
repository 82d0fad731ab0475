import styled from "styled-components";

import { useCatalogue } from "../api/queries";
import { Button } from "../ui/Button";
import { Caption } from "../ui/Field";
import { useOnce } from "../ui/useOnce";
import type { ReadingProps } from "./useReading";

const Row = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px;
  max-width: 420px;
  & > button {
    white-space: normal;
    padding: 4px 12px;
  }
`;

/** A second press within this time is taken for an accident. */
const BOUNCE_MS = 1000;

/** Buttons for what is seen of the lamp: one press keeps it. */
export default function SeenEntry({
  positionId,
  kind,
  meter,
  state = "on",
  whose = "this",
  onRead,
}: ReadingProps) {
  const seen = useCatalogue().data?.choices["bench_reading.seen"] ?? [];
  const { act: keep } = useOnce((text: string) => {
    const reading = {
      id: crypto.randomUUID(),
      what: kind,
      text,
      burden: "",
      note: meter,
      state,
      whose,
    };
    const draft = `reading.${positionId}.${kind}`;
    onRead(reading, { draft, text, names: ["text"], label: "What you see" });
    return new Promise((later) => setTimeout(later, BOUNCE_MS));
  });
  return (
    <div role="group" aria-label="What do you see?">
      <Caption>What do you see?</Caption>
      <Row>
        {seen.map((s) => (
          <Button key={s.id} onPress={() => void keep(s.id)}>
            {s.label}
          </Button>
        ))}
      </Row>
    </div>
  );
}
