import { useContext, useEffect, useRef, useState } from "react";
import {
  Button,
  ComboBox,
  ComboBoxStateContext,
  Input,
  ListBox,
  ListBoxItem,
  Popover,
  type Key,
} from "react-aria-components";
import styled from "styled-components";

import { Caption, Hint } from "./Field";
import { dropped, listed } from "./listed";

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
  ${dropped}
`;

const Item = styled(ListBoxItem)`
  ${listed}
`;

const Detail = styled.span`
  margin-left: auto;
  color: var(--ink-soft);
  font: 0.9rem var(--mono);
  white-space: nowrap;
`;

const None = styled.p`
  padding: 10px 12px;
`;

const Wrong = styled.p`
  margin-top: 4px;
  font-size: 0.9rem;
  font-weight: 600;
  color: var(--stop);
`;

export interface Pick {
  id: string;
  label: string;
  detail?: string;
  /** What else it is found by: volts, amps, base, number. */
  words?: string;
}

interface Props {
  /** Its name on screen. */
  label: string;
  /** What stands there now. */
  value: string;
  /** What may be picked. */
  items: readonly Pick[];
  /** Told what is chosen. */
  onChange: (id: string) => void;
  /** How to write it, or what it was taken for. */
  hint?: string;
}

/** Whether a word is part of a text; a number is a whole one, "2v" is not in "12v". */
const within = (whole: string, word: string) =>
  /^\d/.test(word)
    ? new RegExp(`(?<![\\d.])${word.replace(/\W/g, "\\$&")}`).test(whole)
    : whole.includes(word);

/** Those of which every word typed is a part, wherever spaces stand; first those whose name says it so. */
function matching(items: readonly Pick[], text: string): Pick[] {
  // "12 V" is one word.
  const joined = (words: string) => words.replace(/(\d)\s+(?=m?[vaw]\b)/g, "$1");
  const asked = joined(text.toLowerCase()).split(/\s+/).filter(Boolean);
  const said = ({ label, detail = "", words = "" }: Pick) => {
    const whole = `${label} ${detail} ${words}`.toLowerCase();
    return `${whole} ${joined(whole)} ${whole.replace(/\s+/g, "")}`;
  };
  const phrase = asked.join(" ");
  const far = (item: Pick) => {
    const name = item.label.toLowerCase();
    if (name.includes(phrase)) return 0;
    if (said(item).includes(phrase)) return 1;
    return asked.every((word) => name.includes(word)) ? 2 : 3;
  };
  return items
    .filter((item) => asked.every((word) => within(said(item), word)))
    .sort((a, b) => far(a) - far(b));
}

/** Of what is listed for a text the first stands ready: Enter and Tab take it. */
function FirstReady({ id }: { id: string | undefined }) {
  const state = useContext(ComboBoxStateContext);
  useEffect(() => {
    if (!state?.isOpen || id === undefined) return;
    if (state.selectionManager.focusedKey === null) state.selectionManager.setFocusedKey(id);
  });
  return null;
}

/**
 * Pick from a catalogue by typing part of a name or of its figures. Enter and leaving take the first that
 * matches; where none does, what was typed stays and is said to be none.
 */
export function Picker({ label, value, items, onChange, hint }: Props) {
  const chosen = items.find((i) => i.id === value)?.label ?? "";
  const [text, setText] = useState(chosen);
  const [base, setBase] = useState({ value, chosen });
  const leaving = useRef(false);
  // What is being typed stays, and its list open, whatever an answer puts there meanwhile.
  const untouched = text === base.chosen || text === chosen;
  if (untouched && (base.value !== value || base.chosen !== chosen)) {
    setBase({ value, chosen });
    setText(chosen);
  }
  const typed = text !== base.chosen;
  const found = typed ? matching(items, text) : [...items];
  const put = (id: string) => {
    setText(items.find((i) => i.id === id)?.label ?? "");
    if (id !== value) onChange(id);
  };
  const settle = (key: Key | null) => {
    const first = text.trim() ? found[0]?.id : undefined;
    if (key !== null) put(String(key));
    else if (leaving.current || (typed && !text.trim())) setText(chosen);
    else if (typed && first !== undefined) put(first);
  };
  const none = typed && text.trim() !== "" && found.length === 0;
  return (
    <Wrap
      selectedKey={base.value}
      onSelectionChange={settle}
      inputValue={text}
      onInputChange={setText}
      items={found}
      menuTrigger="focus"
      allowsCustomValue
      allowsEmptyCollection
      isInvalid={none}
    >
      <Caption>{label}</Caption>
      <FirstReady id={typed && text.trim() ? found[0]?.id : undefined} />
      <Frame>
        <Entry onKeyDownCapture={(e) => (leaving.current = e.key === "Escape")} />
        <Open aria-label={`Show ${label.toLowerCase()}`}>
          <svg width="14" height="9" aria-hidden="true">
            <path d="M1 1.5 7 7.5 13 1.5" fill="none" stroke="currentColor" strokeWidth="2" />
          </svg>
        </Open>
      </Frame>
      {none ? (
        <Wrong role="alert">
          Nothing is called “{text.trim()}”. Type part of a name or a figure.
        </Wrong>
      ) : (
        hint !== undefined && <Hint slot="description">{hint}</Hint>
      )}
      <Sheet>
        <List<Pick> renderEmptyState={() => <None>None found.</None>}>
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
