import { FieldError, Input, Label, Text, TextArea, TextField } from "react-aria-components";
import type { KeyboardEvent, ReactNode } from "react";
import styled from "styled-components";

import { Area } from "./Area";
import { VAST, beforeVast, onOneLine } from "./vast";

export const Caption = styled(Label)`
  display: block;
  font-size: 0.9rem;
  font-weight: 600;
  margin-bottom: 2px;
`;

const Box = styled(Input)`
  width: 100%;
  min-height: 44px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: 4px;
  background: var(--sheet);
  font-family: var(--mono);
  font-size: 1.15rem;
  &[data-words="true"] {
    font-family: var(--sans);
    font-size: 1.05rem;
  }
  &[data-invalid] {
    border-color: var(--stop);
    border-width: 2.5px;
  }
`;

/* What stands in the field's own frame beside its text. */
const Frame = styled.div`
  display: flex;
  min-width: 0;
  border: 1.5px solid var(--ink-soft);
  border-radius: 4px;
  background: var(--sheet);
  & > input {
    flex: 1;
    min-width: 0;
    min-height: 41px;
    border: 0;
    background: none;
  }
  &:has([data-invalid]) {
    border-color: var(--stop);
    border-width: 2.5px;
  }
`;

/** For words that may run over a line: it grows with them. */
const Lengthy = styled(TextArea)`
  display: block;
  width: 100%;
  min-height: 44px;
  padding: 9px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: 4px;
  background: var(--sheet);
  font-size: 1.05rem;
  line-height: 1.3;
  resize: none;
  field-sizing: content;
  &[data-invalid] {
    border-color: var(--stop);
    border-width: 2.5px;
  }
  ${onOneLine}
`;

export const Hint = styled(Text)`
  display: block;
  min-height: 1.3em;
  margin-top: 4px;
  font-size: 0.875rem;
  color: var(--ink-soft);
`;

const Wrong = styled(FieldError)`
  display: block;
  font-size: 0.9rem;
  font-weight: 600;
  color: var(--stop);
`;

interface Props {
  /** Its name on screen. */
  label: string;
  /** What stands there now. */
  value: string;
  /** Told what is typed or chosen. */
  onChange: (text: string) => void;
  /** What the text was taken for, or how to write it. */
  hint?: string | undefined;
  /** Why what stands there is not accepted. */
  error?: string | undefined;
  /** Called on Enter and when the field is left. */
  onCommit?: () => void;
  /** Told whether the typist is in it. */
  onTyping?: (typing: boolean) => void;
  /** What such a text looks like. */
  placeholder?: string;
  /** Words, not a quantity: set in the text face. */
  words?: boolean;
  /** Words that may run over a line; Enter commits them. */
  long?: boolean;
  /** Words of several lines. */
  lines?: boolean;
  /** A small control that belongs to what is typed, in its frame. */
  aside?: ReactNode;
  /** For styled-components. */
  className?: string;
}

/** A labelled field for a quantity or a name; Enter or leaving it commits. */
export function Field({ label, value, onChange, hint, error, onCommit, onTyping, ...rest }: Props) {
  const enter = (e: KeyboardEvent) => {
    if (e.key === "Enter" && onCommit) {
      e.preventDefault();
      onCommit();
    }
  };
  return (
    <TextField
      className={rest.className}
      value={value}
      onChange={onChange}
      isInvalid={error !== undefined}
      validationBehavior="aria"
      onFocus={() => onTyping?.(true)}
      onBlur={() => {
        onTyping?.(false);
        onCommit?.();
      }}
    >
      <Caption>{label}</Caption>
      <Entry {...rest} vast={value.length > VAST} enter={enter} />
      {error === undefined ? hint !== undefined && <Hint slot="description">{hint}</Hint> : null}
      <Wrong>{error}</Wrong>
    </TextField>
  );
}

interface EntryProps extends Pick<Props, "long" | "lines" | "placeholder" | "words" | "aside"> {
  /** Whether it is more than is ever kept. */
  vast: boolean;
  /** Commits on Enter. */
  enter: (e: KeyboardEvent) => void;
}

function Entry({ long, lines, placeholder, words, aside, vast, enter }: EntryProps) {
  const told = { "data-vast": vast, onBeforeInput: beforeVast, spellCheck: false };
  if (lines) return <Area {...told} placeholder={placeholder ?? ""} data-words={words ?? false} />;
  if (long) return <Lengthy {...told} rows={1} onKeyDown={enter} />;
  const box = (
    <Box
      placeholder={placeholder ?? ""}
      data-words={words ?? false}
      autoComplete="off"
      spellCheck={false}
      onKeyDown={enter}
    />
  );
  return aside ? (
    <Frame>
      {box}
      {aside}
    </Frame>
  ) : (
    box
  );
}
