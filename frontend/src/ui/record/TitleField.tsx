import { useEffect, useRef, useState } from "react";
import { Button, Input, TextField } from "react-aria-components";
import styled from "styled-components";

import { Refusal } from "../Refusal";
import { VAST } from "../vast";
import { ViewTitle } from "../ViewHead";
import { Unsaved } from "./Unsaved";
import { useField } from "./record";
import { useAutosavedField } from "./useAutosavedField";

const Title = styled(ViewTitle)`
  min-width: 0;
  overflow-wrap: anywhere;
`;

const Named = styled.div`
  display: flex;
  align-items: center;
  gap: 2px;
`;

const Rename = styled(Button)`
  display: grid;
  place-content: center;
  width: 32px;
  height: 32px;
  padding: 0;
  border: 0;
  border-radius: 4px;
  background: none;
  color: var(--ink-soft);
  cursor: pointer;
  &[data-hovered] {
    background: var(--rule-soft);
  }
  @media (pointer: coarse) {
    width: 44px;
    height: 44px;
  }
  @media print {
    display: none;
  }
`;

const Entry = styled(Input)`
  width: min(420px, 80vw);
  min-height: 40px;
  padding: 2px 8px;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  background: var(--sheet);
  font: 650 1.35rem var(--sans);
`;

/** A record's name where it is read: press it, and it is typed over. */
export function TitleField({ what }: { what: string }) {
  const { id, names, value, save } = useField("name");
  const field = useAutosavedField<string>({
    id,
    label: "Name",
    names,
    kept: String(value ?? ""),
    save,
  });
  const [typing, setTyping] = useState(false);
  const [back, setBack] = useState(false);
  const entry = useRef<HTMLInputElement>(null);
  const pencil = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (!typing || document.activeElement === entry.current) return;
    entry.current?.focus();
    entry.current?.select();
  }, [typing]);
  useEffect(() => {
    if (back) pencil.current?.focus();
  }, [back]);
  const done = (byKey: boolean) => {
    field.commit();
    setTyping(false);
    setBack(byKey);
  };
  return (
    <div>
      {/* What was refused stands in its field still, and so does what is sure to be. */}
      {typing || field.draft?.refused !== undefined || field.value.length > VAST ? (
        <TextField
          aria-label={`Name of this ${what}`}
          value={field.value}
          onChange={field.type}
          onFocus={() => setTyping(true)}
          onBlur={() => done(false)}
        >
          <Entry
            ref={entry}
            autoComplete="off"
            spellCheck={false}
            onKeyDown={(e) => {
              if (e.key !== "Enter" && e.key !== "Escape") return;
              // The key's own effect would fall on the button that is focused next.
              e.preventDefault();
              done(true);
            }}
          />
        </TextField>
      ) : (
        <Named>
          <Title>{field.value}</Title>
          <Rename
            ref={pencil}
            aria-label={`Rename ${field.value}`}
            onPress={() => {
              setBack(false);
              setTyping(true);
            }}
          >
            <svg width="15" height="15" viewBox="0 0 15 15" aria-hidden="true">
              <path
                d="M2 13l1-4 7-7 3 3-7 7-4 1z"
                fill="none"
                stroke="currentColor"
                strokeWidth="1.5"
              />
            </svg>
          </Rename>
        </Named>
      )}
      {field.draft?.refused !== undefined && <Refusal why={field.draft.refused} />}
      <Unsaved field={field} typing={typing} bare />
    </div>
  );
}
