import { useContext, useState } from "react";
import styled from "styled-components";

import { inPassing } from "../../saving/useSave";
import { Button, SmallButton } from "../Button";
import { Choice } from "../Choice";
import { RecordContext, unreadOf, type SaveFields } from "./record";
import { DayControl } from "./SavedDay";
import { TextControl } from "./TextControl";
import { useListFocus } from "../useListFocus";
import { Unsaved } from "./Unsaved";
import { useAutosavedField, type SaveValue } from "./useAutosavedField";

const Item = styled.li`
  display: grid;
  gap: 6px;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule-soft);
`;

const Texts = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(190px, 100%), 1fr));
  gap: 8px;
  flex: 1;
`;

const Row = styled.div`
  display: flex;
  gap: 10px;
  align-items: end;
  & > button {
    min-height: 44px;
  }
`;

const List = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Says = styled.p`
  font-size: 0.95rem;
  color: var(--ink-soft);
`;

/** One line: texts and choices by name, and its place among the others. */
export interface Line {
  place?: number;
  [field: string]: string | number | boolean | undefined;
}

type Options = readonly { id: string; label: string }[];

interface Props {
  /** Names the drafts. */
  id: string;
  /** What one line is, for its delete button. */
  label: string;
  /** What the button says that adds one. */
  add: string;
  /** The texts of a line: name and label; "moment" for a day with a time. */
  fields: readonly (readonly [string, string, "moment"?])[];
  /** The choices of a line: name, label and options. */
  choices?: readonly (readonly [string, string, Options])[];
  /** The lines as they are kept, by key. */
  lines: Record<string, Line>;
  /** What each line comes to, by key, from the server. */
  says?: Record<string, string>;
  /** Whether the lines have an order that is read out. */
  numbered?: boolean;
  /** Save what was typed of a line under its key, or null to strike it. */
  onSave: SaveFields;
}

/** Lines in their order. */
export const inOrder = <L extends Line>(lines: Record<string, L>) =>
  Object.entries(lines).sort(
    ([a, x], [b, y]) => (x.place ?? 0) - (y.place ?? 0) || (a < b ? -1 : 1),
  );

/** A short list of lines with a few texts each: add, write, delete; each is saved by itself when it is left. */
export function Lines(props: Props) {
  const { add, lines, says, onSave } = props;
  // A line shows, or goes, at the press of its button, however slow the line to the server is.
  const [made, setMade] = useState<Record<string, Line>>({});
  const [struck, setStruck] = useState<readonly string[]>([]);
  const shown = inOrder({ ...made, ...lines }).filter(([key]) => !struck.includes(key));
  const { list, made: willBe, gone } = useListFocus<HTMLOListElement>(shown.length);
  const begin = () => {
    willBe();
    const key = crypto.randomUUID();
    const place = Math.max(-1, ...shown.map(([, line]) => line.place ?? 0)) + 1;
    setMade((old) => ({ ...old, [key]: { place } }));
    inPassing(onSave({ [key]: { place } }));
  };
  const strike = (key: string) => {
    gone(shown.findIndex(([k]) => k === key));
    setStruck((old) => [...old, key]);
    setMade((old) => Object.fromEntries(Object.entries(old).filter(([k]) => k !== key)));
    const again = () => setStruck((old) => old.filter((k) => k !== key));
    void onSave({ [key]: null }).then(again, again);
  };
  return (
    <>
      <List ref={list}>
        {shown.map(([key, line], at) => (
          <Item key={key}>
            <Written {...props} line={line} name={key} at={at} onStrike={() => strike(key)} />
            {says?.[key] && <Says>{says[key]}</Says>}
          </Item>
        ))}
      </List>
      <div>
        <Button data-add="" onPress={begin}>
          {add}
        </Button>
      </div>
    </>
  );
}

interface WrittenProps extends Props {
  /** The line shown. */
  line: Line;
  /** Its key. */
  name: string;
  /** Its place among the lines. */
  at: number;
  /** Delete it. */
  onStrike: () => void;
}

function Written(props: WrittenProps) {
  const {
    id,
    label,
    fields,
    choices = [],
    numbered,
    onSave,
    line,
    name: key,
    at,
    onStrike,
  } = props;
  const first = fields[0]?.[0] ?? "";
  const record = useContext(RecordContext);
  const part = id.slice(id.lastIndexOf(".") + 1);
  const unread = (field: string) =>
    record && unreadOf(record, `${record.prefix ?? ""}${part}.${key}.${field}`);
  const saveField =
    (field: string): SaveValue<string> =>
    (text, was, from) =>
      onSave(
        { [key]: { [field]: text } },
        was === undefined ? was : { [key]: { [field]: was } },
        from,
      );
  return (
    <>
      <Row>
        <Texts>
          {fields.map(([field, title, kind]) => {
            const told = {
              id: `${id}.${key}.${field}`,
              names: [`${key}.${field}`, field],
              label: numbered ? `${at + 1}. ${title}` : title,
            };
            const kept = unread(field)?.text ?? String(line[field] ?? "");
            return kind === "moment" && !unread(field) ? (
              <DayControl key={field} {...told} timed kept={kept} save={saveField(field)} />
            ) : (
              <TextControl
                key={field}
                {...told}
                saved={kept}
                wrong={unread(field)?.message}
                long
                onSave={saveField(field)}
              />
            );
          })}
        </Texts>
        <SmallButton
          aria-label={`Delete ${label.toLowerCase()} ${String(line[first] ?? "") || at + 1}`}
          onPress={onStrike}
        >
          Delete
        </SmallButton>
      </Row>
      {choices.map(([field, title, options]) => (
        <LineChoice
          key={field}
          id={`${id}.${key}.${field}`}
          label={title}
          kept={String(line[field] ?? "")}
          options={options}
          onSave={saveField(field)}
        />
      ))}
    </>
  );
}

interface LineChoiceProps {
  /** Names the draft. */
  id: string;
  label: string;
  /** What is saved. */
  kept: string;
  options: Options;
  onSave: SaveValue<string>;
}

function LineChoice({ id, label, kept, options, onSave }: LineChoiceProps) {
  const field = useAutosavedField({ id, label, names: [id], kept, save: onSave });
  return (
    <div>
      <Choice
        label={label}
        value={field.value}
        options={options}
        onChange={(value) => {
          field.type(value);
          field.commit();
        }}
      />
      <Unsaved field={field} />
    </div>
  );
}
