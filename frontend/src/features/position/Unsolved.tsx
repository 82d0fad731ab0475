import { Button } from "../../ui/Button";
import type { Part } from "./parts/part";
import { Trying } from "./Trying";

const MENDABLE: readonly (readonly [Part, string])[] = [
  ["rail", "Supply"],
  ["led", "LED and resistor"],
  ["lamp", "Old lamp and looks"],
];

interface Props {
  /** Why it cannot be worked out. */
  why: string;
  /** Open the panel of a part. */
  onEdit: (part: Part) => void;
}

/** Shown when there is no report: why, and the panels in which it can be corrected. */
export function Unsolved({ why, onEdit }: Props) {
  return (
    <Trying role="alert">
      <p>It cannot be worked out as it stands. {why}</p>
      {MENDABLE.map(([part, label]) => (
        <Button key={part} onPress={() => onEdit(part)}>
          {label}
        </Button>
      ))}
    </Trying>
  );
}
