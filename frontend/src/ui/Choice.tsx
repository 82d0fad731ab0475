import { Label, Radio, RadioGroup } from "react-aria-components";
import styled from "styled-components";

const Group = styled(RadioGroup)`
  display: flex;
  flex-direction: column;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
`;

const Option = styled(Radio)`
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 12px;
  border: 1.5px solid var(--rule);
  border-radius: 4px;
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
  font-size: 0.9rem;
  font-weight: 600;
  margin-bottom: 2px;
`;

interface Props {
  /** Its name on screen. */
  label: string;
  /** What stands there now. */
  value: string;
  /** What may be chosen, with labels. */
  options: readonly { id: string; label: string }[];
  /** Told what is typed or chosen. */
  onChange: (id: string) => void;
}

/** One of a few, all in sight. */
export function Choice({ label, value, options, onChange }: Props) {
  return (
    <Group value={value} onChange={onChange} orientation="horizontal">
      <Name>{label}</Name>
      <Row>
        {options.map((o) => (
          <Option key={o.id} value={o.id}>
            {o.label}
          </Option>
        ))}
      </Row>
    </Group>
  );
}
