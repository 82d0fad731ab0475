import { useNavigate } from "react-router";

import type { Schemas } from "../../api/client";
import { useSave } from "../../saving/useSave";
import { MainButton } from "../../ui/Button";
import { Lamp } from "../../ui/Lamp";
import { Movers } from "../../ui/Movers";
import { useOnce } from "../../ui/useOnce";
import { Acts, Head, Line, List, Section } from "./List";

interface Props {
  /** The equipment's key. */
  equipment: string;
  /** The lamps shown, in order. */
  lamps: Schemas["Summary"][];
  /** Whether they can be moved. */
  arranging: boolean;
  /** Told where it is moved. */
  onMove: (from: number, by: number) => void;
}

/** The lamps of an item. */
export function LampList({ equipment, lamps, arranging, onMove }: Props) {
  const save = useSave();
  const go = useNavigate();
  const add = useOnce(async () => {
    const key = crypto.randomUUID();
    const made = {
      equipment,
      name: `Lamp ${lamps.length + 1}`,
      led_id: "warm-5-diffused",
      target: { text: "5mA", source: "assumed" },
    };
    await save("PUT", `/api/positions/${key}`, made, { label: "Add lamp" });
    await go(`/position/${key}`);
  });
  return (
    <Section>
      <Head>
        <h2>Lamps</h2>
        <MainButton data-new="" isDisabled={add.busy} onPress={() => void add.act()}>
          Add lamp
        </MainButton>
      </Head>
      {lamps.length === 0 && <p>No lamps yet. Find every lamp before you size one.</p>}
      <List>
        {lamps.map((lamp, k) => (
          <li key={lamp.id}>
            <Line>
              <List>
                <Lamp lamp={lamp} />
              </List>
              {arranging && (
                <Acts>
                  <Movers
                    name={lamp.name}
                    first={k === 0}
                    last={k === lamps.length - 1}
                    onMove={(by) => onMove(k, by)}
                  />
                </Acts>
              )}
            </Line>
          </li>
        ))}
      </List>
    </Section>
  );
}
