import styled from "styled-components";

import { useCopyNames } from "../../api/queries";
import { useDraft } from "../../saving/useDraft";
import { useSave } from "../../saving/useSave";
import { MainButton } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { useOnce } from "../../ui/useOnce";

const Form = styled.section`
  display: grid;
  gap: 12px;
  justify-items: start;
  & > div {
    width: 100%;
  }
`;

interface Props {
  /** The lamp's key. */
  id: string;
  /** What it is called. */
  name: string;
}

/** New lamps like this one: how many, and what they are called; a pasted list says both. */
export function Copies({ id, name }: Props) {
  const save = useSave();
  const count = useDraft(`${id}.copies`, "", "How many more");
  const typed = count.value.trim();
  const wanted = /^\d{1,3}$/.test(typed) ? Number(typed) : 0;
  const proposed = useCopyNames(id, wanted);
  const list = (wanted > 0 && proposed.data?.join("\n")) || "";
  const written = useDraft(`${id}.copies.names`, list, "Names of copies");
  const text = written.value;
  const names = text
    .split(/[\n\t;]/)
    .map((n) => n.trim())
    .filter(Boolean);
  const make = useOnce(async () => {
    const [number, list] = [count.value, text];
    const lamps = Object.fromEntries(names.map((n) => [crypto.randomUUID(), n]));
    const done = names.length === 1 ? "1 lamp added." : `${names.length} lamps added.`;
    // At once, and not when the answer is here: what is typed in between stays.
    count.clear();
    written.clear();
    try {
      await save("POST", `/api/positions/${id}/copies`, { lamps }, { label: "Copy", done });
    } catch (refused) {
      count.type(number);
      written.type(list);
      throw refused;
    }
  });
  return (
    <Form aria-label={`Copies of ${name}`}>
      <h2>Copy {name}</h2>
      <Field
        label="How many more"
        value={count.value}
        onChange={(now) => {
          count.type(now);
          written.clear();
        }}
        hint="39 more for a panel of forty"
        error={
          typed && wanted === 0
            ? "Enter a whole number from 1 to 200."
            : proposed.isError
              ? proposed.error.message
              : undefined
        }
      />
      <Field
        label="Their names, one a line"
        value={text}
        onChange={written.type}
        hint="Proposed from the number, or paste your own list"
        words
        lines
      />
      <MainButton isDisabled={names.length === 0 || make.busy} onPress={() => void make.act()}>
        {names.length < 2 ? "Make a copy" : `Make ${names.length} copies`}
      </MainButton>
    </Form>
  );
}
