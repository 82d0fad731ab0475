import { Link, useNavigate } from "react-router";

import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { useSaveFields } from "../../ui/record/useSaveFields";
import { useOnce } from "../../ui/useOnce";
import { Head, Line, List, Section } from "./List";

interface Props {
  /** The item of equipment. */
  item: Schemas["EquipmentOut"];
}

/** Fitted LEDs of an item that are too bright. */
export function DimList({ item }: Props) {
  const save = useSaveFields(`/api/equipment/${item.id}`);
  const go = useNavigate();
  const dims = Object.entries(item.dims ?? {}).sort(
    ([, a], [, b]) => (a.place ?? 0) - (b.place ?? 0),
  );
  const add = useOnce(async () => {
    const key = crypto.randomUUID();
    const place = Math.max(-1, ...dims.map(([, d]) => d.place ?? 0)) + 1;
    await save({ dims: { [key]: { place, name: `Fitted LED ${dims.length + 1}` } } });
    await go(`/equipment/${item.id}/dim/${key}`);
  });
  return (
    <Section>
      <Head>
        <h2>Fitted LEDs to dim</h2>
        <Button isDisabled={add.busy} onPress={() => void add.act()}>
          Dim a fitted LED
        </Button>
      </Head>
      {dims.length === 0 && (
        <p>
          None. One that is there and too bright is dimmed from its resistor; its rail need not be
          known.
        </p>
      )}
      <List>
        {dims.map(([key, dim]) => {
          const said = item.dimming[key];
          return (
            <li key={key}>
              <Line>
                <Link to={`/equipment/${item.id}/dim/${key}`}>{dim.name || "Fitted LED"}</Link>
                <span>
                  {said?.problem
                    ? "Resistor not typed yet"
                    : said?.next
                      ? `Try ${said.next}`
                      : "Right"}
                </span>
              </Line>
            </li>
          );
        })}
      </List>
    </Section>
  );
}
