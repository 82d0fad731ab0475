import { Button, Menu, MenuItem, MenuTrigger, Popover, ToggleButton } from "react-aria-components";
import styled from "styled-components";

import { dropped, listed } from "../ui/listed";

const Open = styled(Button)`
  min-height: 30px;
  padding: 0 10px;
  border: 1.5px solid #bdb8ac;
  border-radius: 4px;
  background: none;
  color: #f2ede0;
  font-size: 0.9rem;
  font-weight: 600;
  cursor: pointer;
  outline-color: #ffd27a !important;
  &[data-hovered] {
    background: #2a2a26;
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;

const Sheet = styled(Popover)`
  min-width: 190px;
  ${dropped}
`;

const Item = styled(MenuItem)`
  ${listed}
`;

/** What an eye may say of a lamp, by the catalogue's ids. */
export interface LogTrialProps {
  verdicts: readonly { id: string; label: string }[];
  /** Told what the eye said. */
  onVerdict: (id: string) => void;
}

/** How it looks, in two taps. */
export function LogTrial({ verdicts, onVerdict }: LogTrialProps) {
  return (
    <MenuTrigger>
      <Open>Log a trial</Open>
      <Sheet placement="top end">
        <Menu aria-label="How it looks" onAction={(key) => onVerdict(String(key))}>
          {verdicts.map((v) => (
            <Item key={v.id} id={v.id}>
              {v.label}
            </Item>
          ))}
        </Menu>
      </Sheet>
    </MenuTrigger>
  );
}

/** A button in the box's own colours. */
export const BoxButton = Open;

/** A mode of the box that is on or off, in a line of words. */
export const BoxMode = styled(ToggleButton)`
  min-height: 24px;
  padding: 0 2px;
  border: 0;
  background: none;
  color: #f2ede0;
  font-size: 0.875rem;
  text-decoration: underline;
  cursor: pointer;
  outline-color: #ffd27a !important;
  &[data-selected] {
    background: #d9d4c8;
    color: #050606;
    text-decoration: none;
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;
