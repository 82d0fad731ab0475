import { Button, ComboBox, Input, ListBox, ListBoxItem, Popover } from "react-aria-components";
import styled from "styled-components";

import { Caption, Hint } from "./Field";

const Wrap = styled(ComboBox)`
  display: block;
`;

const Frame = styled.div`
  display: flex;
  border: 1.5px solid var(--ink-soft);
  border-radius: 4px;
  background: var(--sheet);
`;

const Entry = styled(Input)`
  flex: 1;
  min-width: 0;
  min-height: 41px;
  padding: 4px 10px;
  border: 0;
  background: none;
  font-size: 1.05rem;
`;

const Open = styled(Button)`
  width: 44px;
  border: 0;
  border-left: 1.5px solid var(--rule-soft);
  background: none;
  cursor: pointer;
`;

const List = styled(ListBox)`
  max-height: min(340px, 60vh);
  overflow: auto;
  padding: 4px;
` as typeof ListBox;

const Sheet = styled(Popover)`
  width: var(--trigger-width);
  min-width: 260px;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
`;

const Item = styled(ListBoxItem)`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 40px;
  padding: 4px 10px;
  border-radius: 3px;
  cursor: pointer;
  outline-offset: -3px;
  &[data-focused] {
    background: var(--rule-soft);
  }
  &[data-selected] {
    font-weight: 650;
  }
`;

const Detail = styled.span`
  margin-left: auto;
  color: var(--ink-soft);
  font: 0.9rem var(--mono);
  white-space: nowrap;
`;

export interface Pick {
  id: string;
  label: string;
  detail?: string;
}

interface Props {
  /** Its name on screen. */
  label: string;
  /** What stands there now. */
  value: string;
  /** What may be picked. */
  items: Pick[];
  /** Told what is typed or chosen. */
  onChange: (id: string) => void;
  /** How to write it, or what it was taken for. */
  hint?: string;
}

/** Pick from a catalogue by typing part of its name. */
export function Picker({ label, value, items, onChange, hint }: Props) {
  return (
    <Wrap
      selectedKey={value}
      onSelectionChange={(key) => key !== null && onChange(String(key))}
      defaultItems={items}
      menuTrigger="focus"
    >
      <Caption>{label}</Caption>
      <Frame>
        <Entry />
        <Open aria-label={`Show ${label.toLowerCase()}`}>
          <svg width="14" height="9" aria-hidden="true">
            <path d="M1 1.5 7 7.5 13 1.5" fill="none" stroke="currentColor" strokeWidth="2" />
          </svg>
        </Open>
      </Frame>
      {hint !== undefined && <Hint slot="description">{hint}</Hint>}
      <Sheet>
        <List<Pick>>
          {(item) => (
            <Item id={item.id} textValue={item.label}>
              {item.label}
              {item.detail && <Detail>{item.detail}</Detail>}
            </Item>
          )}
        </List>
      </Sheet>
    </Wrap>
  );
}
