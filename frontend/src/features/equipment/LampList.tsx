import { useNavigate } from "react-router";

import type { Schemas } from "../../api/client";
import { useSave } from "../../api/queries";
import { MainButton } from "../../ui/Button";
import { Lamp } from "../../ui/Lamp";
import { Movers } from "../../ui/Movers";
import { Acts, Head, Line, List, Section } from "./List";

interface Props {
  /** The equipment's key. */
  equipment: string;
  /** The lamps shown, in order. */
  lamps: Schemas["Summary"][];
  /** Do something, and show why if the server refuses. */
  act: (work: () => Promise<unknown>) => Promise<boolean>;
  /** Told where it is moved. */
  onMove: (from: number, by: number) => void;
}

/** The lamp positions of an item. */
export function LampList({ equipment, lamps, act, onMove }: Props) {
  const save = useSave();
  const go = useNavigate();
  const add = () =>
    act(async () => {
      const key = crypto.randomUUID();
      await save("PUT", `/api/positions/${key}`, {
        equipment,
        name: `Lamp ${lamps.length + 1}`,
        led_id: "warm-5-diffused",
        target: { text: "5mA", source: "assumed" },
      });
      await go(`/position/${key}`);
    });
  return (
    <Section>
      <Head>
        <h2>Lamp positions</h2>
        <MainButton onPress={() => void add()}>Add lamp</MainButton>
      </Head>
      {lamps.length === 0 && <p>No lamps yet. Find every lamp before you size one.</p>}
      <List>
        {lamps.map((lamp, k) => (
          <li key={lamp.id}>
            <Line>
              <List>
                <Lamp lamp={lamp} />
              </List>
              <Acts>
                <Movers
                  name={lamp.name}
                  first={k === 0}
                  last={k === lamps.length - 1}
                  onMove={(by) => onMove(k, by)}
                  onDelete={() => void act(() => save("DELETE", `/api/positions/${lamp.id}`))}
                />
              </Acts>
            </Line>
          </li>
        ))}
      </List>
    </Section>
  );
}
