import styled from "styled-components";

import { Button, SmallButton } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { TextControl } from "../../ui/record/TextControl";

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

/** One line: texts and choices by name. */
export type Line = Record<string, string>;

interface Props {
  /** Names the drafts in local storage. */
  id: string;
  /** What one line is, for its delete button. */
  label: string;
  /** What the button says that adds one. */
  add: string;
  /** The texts of a line: name and label. */
  fields: readonly (readonly [string, string])[];
  /** The choices of a line: name, label and options. */
  choices?: readonly (readonly [string, string, readonly { id: string; label: string }[]])[];
  /** The lines as they are kept. */
  lines: Line[];
  /** What each line comes to, from the server. */
  says?: string[];
  /** Whether the lines have an order that is read out. */
  numbered?: boolean;
  /** Save it; rejects where the server refuses. */
  onSave: (lines: Line[]) => Promise<unknown>;
}

/** A short list of lines with a few texts each: add, write, delete; each is saved when it is left. */
export function Lines(props: Props) {
  const { add, fields, choices = [], lines, says, onSave } = props;
  const empty = Object.fromEntries([...fields, ...choices].map(([name]) => [name, ""]));
  return (
    <>
      <List>
        {lines.map((line, k) => (
          <Item key={k}>
            <Written {...props} line={line} at={k} />
            {choices.map(([name, title, options]) => (
              <Choice
                key={name}
                label={title}
                value={line[name] ?? ""}
                options={options}
                onChange={(value) => void onSave(replaced(lines, k, { [name]: value }))}
              />
            ))}
            {says?.[k] && <Says>{says[k]}</Says>}
          </Item>
        ))}
      </List>
      <div>
        <Button onPress={() => void onSave([...lines, empty])}>{add}</Button>
      </div>
    </>
  );
}

interface WrittenProps extends Props {
  /** The line shown. */
  line: Line;
  /** Its place among the lines. */
  at: number;
}

function Written({ id, label, fields, lines, numbered, onSave, line, at }: WrittenProps) {
  const first = fields[0]?.[0] ?? "";
  return (
    <Row>
      <Texts>
        {fields.map(([name, title]) => (
          <TextControl
            key={name}
            id={`${id}.${at}.${name}`}
            name={name}
            label={numbered ? `${at + 1}. ${title}` : title}
            saved={line[name] ?? ""}
            long
            onSave={(text) => onSave(replaced(lines, at, { [name]: text }))}
          />
        ))}
      </Texts>
      <SmallButton
        aria-label={`Delete ${label.toLowerCase()} ${line[first] || at + 1}`}
        onPress={() => void onSave(lines.filter((_, n) => n !== at))}
      >
        Delete
      </SmallButton>
    </Row>
  );
}

function replaced(lines: Line[], at: number, part: Line): Line[] {
  return lines.map((line, k) => (k === at ? { ...line, ...part } : line));
}
