import styled from "styled-components";

import { useDrawer } from "../../api/queries";
import { useDraft } from "../../saving/useDraft";
import { inPassing, useSave } from "../../saving/useSave";
import { MainButton, SmallButton } from "../../ui/Button";
import { useListFocus } from "../../ui/useListFocus";
import { Field } from "../../ui/Field";
import { Shell } from "../../shell/Shell";
import { LedList } from "./LedList";

const Title = styled.h1`
  font-size: 1.9rem;
  font-weight: 650;
`;

const Add = styled.form`
  display: grid;
  grid-template-columns: minmax(0, 420px) auto;
  gap: 10px;
  align-items: start;
  margin: 12px 0 16px;
  & > button {
    margin-top: 22px;
    justify-self: start;
  }
`;

const Values = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 12rem), 1fr));
  margin: 0;
  padding: 0;
  list-style: none;
  border-top: 2px solid var(--ink);
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 8px;
    padding: 6px 16px 6px 0;
    border-bottom: 1px solid var(--rule-soft);
    font: 600 1.3rem var(--mono);
  }
  button {
    font-family: var(--sans);
  }
`;

/** Resistors at hand, whose ticks the slide rule fills, and the bench's own LEDs. */
export default function DrawerView() {
  const drawer = useDrawer();
  const save = useSave();
  const typed = useDraft("drawer.add", "", "Add values");
  const texts = drawer.data?.texts ?? [];

  const add = () => {
    const text = typed.take();
    const values = text?.split(/[\s;]+|,\s+/).filter((t) => t !== "") ?? [];
    if (text === undefined || values.length === 0) return;
    const field = { draft: typed.key, text, names: ["add"], label: "Add values" };
    inPassing(save("PATCH", "/api/drawer", { add: values }, { field }));
  };
  const { list, gone } = useListFocus<HTMLUListElement>(texts.length);
  const takeOut = (text: string) => {
    gone(texts.indexOf(text));
    const more = { label: `Take out ${text}`, done: `Took out ${text}.` };
    inPassing(save("PATCH", "/api/drawer", { remove: [text] }, more));
  };

  return (
    <Shell title="Drawer" steps={drawer.data?.steps}>
      <Title>Drawer</Title>
      <h2>Resistors</h2>
      <p>The slide rule fills the ticks of these values.</p>
      <Add
        onSubmit={(e) => {
          e.preventDefault();
          add();
        }}
      >
        <Field
          label="Add values"
          value={typed.value}
          onChange={typed.type}
          hint="470R 1k 4k7, one or several"
          error={typed.refused}
        />
        <MainButton type="submit">Add</MainButton>
      </Add>
      {drawer.data && texts.length === 0 && <p>The drawer is empty: type the values you keep.</p>}
      <Values ref={list}>
        {texts.map((t) => (
          <li key={t}>
            {t}
            <SmallButton aria-label={`Take out ${t}`} onPress={() => takeOut(t)}>
              Take out
            </SmallButton>
          </li>
        ))}
      </Values>
      <LedList />
    </Shell>
  );
}
