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
  /** Delete it. */
  onDelete: () => void;
}

/** Move a line of a list up or down, or delete it. */
export function Movers({ name, first, last, onMove, onDelete }: Props) {
  return (
    <>
      <SmallButton isDisabled={first} onPress={() => onMove(-1)} aria-label={`Move ${name} up`}>
        ↑
      </SmallButton>
      <SmallButton isDisabled={last} onPress={() => onMove(1)} aria-label={`Move ${name} down`}>
        ↓
      </SmallButton>
      <SmallButton onPress={onDelete} aria-label={`Delete ${name}`}>
        Delete
      </SmallButton>
    </>
  );
}
