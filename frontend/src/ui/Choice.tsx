import { Radio, RadioGroup } from "react-aria-components";
import styled from "styled-components";

import { Caption } from "./Field";
import { option, optionRow } from "./option";

const Group = styled(RadioGroup)`
  display: flex;
  flex-direction: column;
`;

const Row = styled.div`
  ${optionRow}
`;

const Option = styled(Radio)`
  ${option}
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
      <Caption>{label}</Caption>
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
