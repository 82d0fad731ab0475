import { SmallButton } from "./Button";

interface Props {
  /** What is moved, for its buttons' names. */
  name: string;
  /** Whether nothing is above it. */
  first: boolean;
  /** Whether nothing is below it. */
  last: boolean;
  /** Up is -1, down is 1. */
  onMove: (by: number) => void;
}

/** Move a line of a list up or down. */
export function Movers({ name, first, last, onMove }: Props) {
  return (
    <>
      <SmallButton isDisabled={first} onPress={() => onMove(-1)} aria-label={`Move ${name} up`}>
        ↑
      </SmallButton>
      <SmallButton isDisabled={last} onPress={() => onMove(1)} aria-label={`Move ${name} down`}>
        ↓
      </SmallButton>
    </>
  );
}

/** Which one comes before which when the one at a place is moved up (-1) or down (1). */
export function moved(list: readonly { id: string }[], from: number, by: number) {
  const one = list[from];
  const before = list[by < 0 ? from + by : from + by + 1];
  return one && { key: one.id, before: before?.id ?? null };
}
