import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useSave } from "../../saving/useSave";
import { MainButton, SmallButton } from "../../ui/Button";
import { useOnce } from "../../ui/useOnce";

type Other = Schemas["OtherOut"];

const List = styled.ul`
  margin: 6px 0 14px;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: minmax(0, 200px) minmax(0, 1fr);
    gap: 0 16px;
    align-items: center;
    min-height: 44px;
    border-bottom: 1px solid var(--rule-soft);
    @media (max-width: 600px) {
      grid-template-columns: minmax(0, 1fr);
      padding-bottom: 6px;
    }
  }
  label {
    display: flex;
    gap: 12px;
    align-items: center;
    min-height: 44px;
    font-weight: 600;
    cursor: pointer;
  }
  input {
    flex: none;
    width: 22px;
    height: 22px;
    accent-color: var(--mark);
  }
`;

const Alike = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    text-underline-offset: 0.2em;
  }
`;

interface Props {
  /** The lamp's key. */
  id: string;
  /** What it is called. */
  name: string;
  /** The other lamps of its item. */
  others: readonly Other[];
}

/** The lamps that are alike, and those that can be made so, with what would change on each. */
export function OtherLamps({ id, name, others }: Props) {
  const save = useSave();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const alike = others.filter((o) => o.alike);
  // Those that differ least first: these are meant most often.
  const differ = others.filter((o) => !o.alike).sort((a, b) => a.differs.length - b.differs.length);
  const picked = differ.filter((o) => chosen.has(o.id)).map((o) => o.id);
  const change = useOnce(async () => {
    const done = `${lamps(picked.length)} changed.`;
    await save("POST", `/api/positions/${id}/alike`, { lamps: picked }, { label: "Change", done });
    setChosen(new Set());
  });
  const flip = (key: string) =>
    setChosen((old) => new Set(old.has(key) ? [...old].filter((k) => k !== key) : [...old, key]));
  return (
    <section aria-label="Other lamps of this item">
      <h2>Alike: {alike.length === 0 ? "none yet" : alike.length}</h2>
      <Alike>
        {alike.map((o) => (
          <Link key={o.id} to={`/position/${o.id}`}>
            {o.name}
          </Link>
        ))}
      </Alike>
      {differ.length > 0 && (
        <>
          <h2>Make others the same as {name}</h2>
          <p>
            They get its supply, LED, resistor, old lamp and looks. What was measured on a lamp, its
            notes and its work stay as they are.
          </p>
          <List>
            {differ.map((o) => (
              <li key={o.id}>
                <label>
                  <input type="checkbox" checked={chosen.has(o.id)} onChange={() => flip(o.id)} />
                  {o.name}
                </label>
                <span>{said(o)}</span>
              </li>
            ))}
          </List>
          <MainButton
            isDisabled={picked.length === 0 || change.busy}
            onPress={() => void change.act()}
          >
            {picked.length === 0 ? "Choose lamps to change" : `Change ${lamps(picked.length)}`}
          </MainButton>{" "}
          {differ.length > 1 && (
            <SmallButton onPress={() => setChosen(new Set(differ.map((o) => o.id)))}>
              Choose all
            </SmallButton>
          )}
        </>
      )}
    </section>
  );
}

const lamps = (count: number) => (count === 1 ? "1 lamp" : `${count} lamps`);

/** What would change on a lamp. */
function said({ differs, same_rail }: Other): string {
  const parts = differs.map(({ field, here, there }) => {
    const what = field.replaceAll("_", " ").replace(/ id$/, "");
    return here || there ? `${what} ${there || "empty"} → ${here || "empty"}` : what;
  });
  return [...(same_rail ? [] : ["another supply"]), ...parts].join("; ");
}
