import { Link, useNavigate } from "react-router";

import type { Schemas } from "../../api/client";
import { useCatalogue } from "../../api/queries";
import { Button } from "../../ui/Button";
import { useSaveFields } from "../../ui/record/useSaveFields";
import { useOnce } from "../../ui/useOnce";
import { Head, Line, List, Section } from "./List";

interface Props {
  /** The item of equipment. */
  item: Schemas["EquipmentOut"];
}

/** Boards, strings, banks and power LEDs of an item. */
export function FittedList({ item }: Props) {
  const save = useSaveFields(`/api/equipment/${item.id}`);
  const kinds = useCatalogue().data?.fitted ?? [];
  const go = useNavigate();
  const all = Object.entries(item.fitted ?? {}).sort(
    ([, a], [, b]) => (a.place ?? 0) - (b.place ?? 0),
  );
  const add = useOnce(async () => {
    const key = crypto.randomUUID();
    const place = Math.max(-1, ...all.map(([, f]) => f.place ?? 0)) + 1;
    await save({ fitted: { [key]: { place, name: `Circuit ${all.length + 1}` } } });
    await go(`/equipment/${item.id}/fitted/${key}`);
  });
  return (
    <Section>
      <Head>
        <h2>Boards, strings and power LEDs</h2>
        <Button isDisabled={add.busy} onPress={() => void add.act()}>
          Add a circuit
        </Button>
      </Head>
      {all.length === 0 && (
        <p>
          None. LEDs that are there already, on a board, in a string or in banks, and LEDs that need
          a heat sink.
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
