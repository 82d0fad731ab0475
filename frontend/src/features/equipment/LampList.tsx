import { useNavigate } from "react-router";

import type { Schemas } from "../../api/client";
import { MainButton } from "../../ui/Button";
import { AlikeLamps, runsOf } from "../../ui/AlikeLamps";
import { Light } from "../../ui/Lamp";
import { Movers } from "../../ui/Movers";
import { Acts, Head, Line, List, Section } from "./List";

interface Props {
  /** The equipment's key. */
  equipment: string;
  /** The lamps shown, in order. */
  lamps: readonly Schemas["Summary"][];
  /** Its circuits and fitted LEDs. */
  lights: readonly Schemas["LightOut"][];
  /** Whether they can be moved. */
  arranging: boolean;
  /** Told where it is moved. */
  onMove: (from: number, by: number) => void;
}

/** All that lights in an item: lamps, circuits, and fitted LEDs that are to be dimmed. */
export function LampList({ equipment, lamps, lights, arranging, onMove }: Props) {
  const go = useNavigate();
  return (
    <Section>
      <Head>
        <h2>Lamps</h2>
        <MainButton data-new="" onPress={() => void go(`/equipment/${equipment}/add`)}>
          Add a lamp
        </MainButton>
      </Head>
      {lamps.length + lights.length === 0 && (
        <p>No lamps yet. Find every lamp before you size one.</p>
      )}
      <List>
        {(arranging ? lamps.map((lamp) => [lamp]) : runsOf(lamps)).map((run, k) => (
          <li key={run[0]?.id}>
            <Line>
              <List>
                <AlikeLamps lamps={run} />
              </List>
              {arranging && (
                <Acts>
                  <Movers
                    name={run[0]?.name ?? ""}
                    first={k === 0}
                    last={k === lamps.length - 1}
                    onMove={(by) => onMove(k, by)}
                  />
                </Acts>
              )}
            </Line>
          </li>
        ))}
        {lights.map((light) => (
          <li key={light.id}>
            <Line>
              <List>
                <Light item={equipment} light={light} />
              </List>
            </Line>
          </li>
        ))}
      </List>
    </Section>
  );
}
