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

interface Props<T extends string> {
  label: string;
  options: readonly (readonly [T, string])[];
  chosen: readonly T[];
  onChange: (chosen: T[]) => void;
}

/** Any of a few, all in sight. */
export function Flags<T extends string>({ label, options, chosen, onChange }: Props<T>) {
  return (
    <div>
      <Name elementType="span">{label}</Name>
      <Row
        aria-label={label}
        selectionMode="multiple"
        selectedKeys={chosen}
        onSelectionChange={(keys) =>
          onChange(options.map(([key]) => key).filter((key) => keys.has(key)))
        }
      >
        {options.map(([key, text]) => (
          <Flag key={key} id={key}>
            {text}
          </Flag>
        ))}
      </Row>
    </div>
  );
}
