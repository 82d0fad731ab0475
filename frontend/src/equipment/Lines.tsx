import styled from "styled-components";

import { Button, SmallButton } from "../controls/Button";
import { Choice } from "../controls/Choice";
import { SavedText } from "../controls/SavedText";

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

type Line = Record<string, string>;
type Options = readonly (readonly [string, string])[];

interface Props {
  /** Names the drafts in local storage. */
  id: string;
  /** What one line is, for its delete button. */
  label: string;
  add: string;
  fields: readonly (readonly [string, string])[];
  choices?: readonly (readonly [string, Options])[];
  lines: Line[];
  /** What each line comes to, from the server. */
  says?: string[];
  numbered?: boolean;
  onSave: (lines: Line[]) => Promise<unknown>;
}

/** A short list of lines with a few texts each: add, write, delete; each is saved when it is left. */
export function Lines({
  id,
  label,
  add,
  fields,
  choices = [],
  lines,
  says,
  numbered,
  onSave,
}: Props) {
  const first = fields[0]?.[0] ?? "";
  const change = (at: number, part: Line) =>
    onSave(lines.map((line, k) => (k === at ? { ...line, ...part } : line)));
  return (
    <>
      <List>
        {lines.map((line, k) => (
          <Item key={k}>
            <Row>
              <Texts>
                {fields.map(([name, title]) => (
                  <SavedText
                    key={name}
                    id={`${id}.${k}.${name}`}
                    label={numbered ? `${k + 1}. ${title}` : title}
                    saved={line[name] ?? ""}
                    field={name}
                    long
                    onSave={(text) => change(k, { [name]: text })}
                  />
                ))}
              </Texts>
              <SmallButton
                aria-label={`Delete ${label.toLowerCase()} ${line[first] || k + 1}`}
                onPress={() => void onSave(lines.filter((_, n) => n !== k))}
              >
                Delete
              </SmallButton>
            </Row>
            {choices.map(([name, options]) => (
              <Choice
                key={name}
                label={name === "does" ? "What it does" : "Found with"}
                value={line[name] ?? ""}
                options={options}
                onChange={(value) => void change(k, { [name]: value })}
              />
            ))}
            {says?.[k] && <Says>{says[k]}</Says>}
          </Item>
        ))}
      </List>
      <div>
        <Button
          onPress={() =>
            void onSave([
              ...lines,
              Object.fromEntries([...fields, ...choices].map(([name]) => [name, ""])),
            ])
          }
        >
          {add}
        </Button>
      </div>
    </>
  );
}
