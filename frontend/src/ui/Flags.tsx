import { Label, ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

const Row = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
`;

const Flag = styled(ToggleButton)`
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid var(--rule);
  border-radius: 4px;
  background: none;
  cursor: pointer;
  &[data-selected] {
    background: var(--ink);
    border-color: var(--ink);
    color: var(--ground);
    font-weight: 650;
  }
  &[data-hovered]:not([data-selected]) {
    border-color: var(--ink);
  }
`;

const Name = styled(Label)`
  display: block;
  font-size: 0.9rem;
  font-weight: 600;
  margin-bottom: 2px;
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
      <Name elementType="span">{label}</Name>
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
