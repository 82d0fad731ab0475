import { ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { Caption } from "./Field";
import { option, optionRow } from "./option";

const Row = styled(ToggleButtonGroup)`
  ${optionRow}
`;

const Flag = styled(ToggleButton)`
  ${option}
`;

interface Props {
  /** Its name on screen. */
  label: string;
  /** What may be chosen, with labels. */
  options: readonly { id: string; label: string }[];
  /** What is chosen now. */
  chosen: readonly string[];
  /** Told what is typed or chosen. */
  onChange: (chosen: string[]) => void;
}

/** Any of a few, all in sight. */
export function Flags({ label, options, chosen, onChange }: Props) {
  return (
    <div>
      <Caption elementType="span">{label}</Caption>
      <Row
        aria-label={label}
        selectionMode="multiple"
        selectedKeys={chosen}
        onSelectionChange={(keys) =>
          onChange(options.map((o) => o.id).filter((id) => keys.has(id)))
        }
      >
        {options.map((o) => (
          <Flag key={o.id} id={o.id}>
            {o.label}
          </Flag>
        ))}
      </Row>
    </div>
  );
}
