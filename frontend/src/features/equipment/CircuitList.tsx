import { useState } from "react";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useCatalogue } from "../../api/queries";
import { Button } from "../../ui/Button";
import { useSaveFields } from "../../ui/record/useSaveFields";
import { useOnce } from "../../ui/useOnce";
import { Head, Line, List, Section } from "./List";

const Looks = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 20px;
    align-items: center;
    padding: 10px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
  strong {
    font-size: 1.1rem;
  }
  p {
    max-width: 60rem;
  }
  @media (max-width: 600px) {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

interface Props {
  /** The item of equipment. */
  item: Schemas["EquipmentOut"];
}

/** Boards, strings, banks, power LEDs and second jobs of an item. */
export function CircuitList({ item }: Props) {
  const save = useSaveFields(`/api/equipment/${item.id}`);
  const kinds = useCatalogue().data?.fitted ?? [];
  const go = useNavigate();
  const all = Object.entries(item.fitted ?? {}).sort(
    ([, a], [, b]) => (a.place ?? 0) - (b.place ?? 0),
  );
  const [looking, setLooking] = useState(false);
  const [kind, setKind] = useState("");
  const add = useOnce(async (kind: string) => {
    setKind(kind);
    const key = crypto.randomUUID();
    const place = Math.max(-1, ...all.map(([, f]) => f.place ?? 0)) + 1;
    await save({ fitted: { [key]: { place, kind, name: `Circuit ${all.length + 1}` } } });
    await go(`/equipment/${item.id}/fitted/${key}`);
  });
  return (
    <Section>
      <Head>
        <h2>Circuits</h2>
        <Button aria-expanded={looking} onPress={() => setLooking(!looking)}>
          Add a circuit
        </Button>
      </Head>
      {looking && (
        <Looks aria-label="Which of these is it?">
          {kinds.map((k) => (
            <li key={k.id}>
              <span>
                <strong>{k.label}</strong>
                <p>{k.looks}</p>
              </span>
              <Button
                isDisabled={add.busy}
                aria-label={`It is this: ${k.label}`}
                onPress={() => void add.act(k.id)}
              >
                {add.busy && kind === k.id ? "Adding" : "It is this"}
              </Button>
            </li>
          ))}
        </Looks>
      )}
      {all.length === 0 && (
        <p>
          None. LEDs that are there already, on a board, in a string or in banks, LEDs that need a
          heat sink, and lamps that do a second job.
        </p>
      )}
      <List>
        {all.map(([key, one]) => (
          <li key={key}>
            <Line>
              <Link to={`/equipment/${item.id}/fitted/${key}`}>{one.name || "Circuit"}</Link>
              <span>{kinds.find((k) => k.id === one.kind)?.label}</span>
            </Line>
          </li>
        ))}
      </List>
    </Section>
  );
}
