import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { useLeds } from "../../../api/queries";
import { inPassing, useSave } from "../../../saving/useSave";
import { Button } from "../../../ui/Button";
import { Picker } from "../../../ui/Picker";
import { useRecord } from "../../../ui/record/record";
import type { Position } from "./part";

const Tools = styled.div`
  display: grid;
  gap: 8px;
`;

type BenchLed = Schemas["BenchLedAnswer"];

/** The figures that an LED has of its own, wherever it is. */
const figures = (led: BenchLed) => ({
  led_id: led.led_id,
  vf: led.vf,
  rated: led.rated,
  led_light: led.led_light,
  led_light_at: led.led_light_at,
  led_angle: led.led_angle,
  led_output: led.led_output,
  sweep: led.sweep,
  sweep_in_series: led.sweep_in_series,
  sweep_strings: led.sweep_strings,
  sweep_resistor: led.sweep_resistor,
});

/** While none is taken. */
const CHOOSE = "none";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
}

/** Take one of the bench's own LEDs with its figures, or keep this one there. */
export function BenchLeds({ position }: Props) {
  const leds = useLeds().data?.leds ?? [];
  const save = useSave();
  const record = useRecord();
  const take = (id: string) => {
    const led = leds.find((l) => l.id === id);
    if (led) inPassing(record.save(figures(led)));
  };
  const keep = () => {
    const more = { label: "Keep an LED", done: "Kept among the LEDs of this bench." };
    // What was typed a moment ago may not be seen here yet: the record itself is asked, after it is saved.
    const path = `/api/leds/${crypto.randomUUID()}/of/${position.id}`;
    inPassing(save("PUT", path, undefined, more));
  };
  return (
    <Tools>
      {leds.length > 0 && (
        <Picker
          label="From this bench"
          value={CHOOSE}
          items={[
            { id: CHOOSE, label: "Take one with its figures" },
            ...leds.map((l) => ({ id: l.id, label: `${l.name}: ${l.line}` })),
          ]}
          onChange={take}
        />
      )}
      <div>
        <Button onPress={keep}>Keep this LED on the bench</Button>
      </div>
    </Tools>
  );
}
