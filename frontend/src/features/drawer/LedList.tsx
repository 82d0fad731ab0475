import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useCatalogue, useLeds } from "../../api/queries";
import { inPassing, useSave } from "../../saving/useSave";
import { SmallButton } from "../../ui/Button";
import { PanelPlace, useOpen } from "../../ui/panelPlace";
import { RecordContext } from "../../ui/record/record";
import { SavedChoice } from "../../ui/record/SavedChoice";
import { SavedPart } from "../../ui/record/SavedPart";
import { SavedQuantity } from "../../ui/record/SavedQuantity";
import { SavedText } from "../../ui/record/SavedText";
import { useSaveFields } from "../../ui/record/useSaveFields";
import { StockFields } from "./PartFields";
import { stockSaid } from "./stockSaid";

const Own = styled.section`
  margin-top: 24px;
`;

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  border-top: 2px solid var(--ink);
  li {
    padding: 8px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
`;

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  strong {
    font-size: 1.15rem;
  }
  span {
    flex: 1 1 18rem;
  }
  em {
    font-style: normal;
  }
`;

const Figures = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 15rem), 1fr));
  gap: 10px 20px;
  margin: 10px 0;
`;

type BenchLed = Schemas["BenchLedAnswer"];

/** LEDs of the bench's own, with what is known of their light. */
export function LedList() {
  const leds = useLeds().data?.leds;
  if (!leds) return null;
  return (
    <Own aria-label="LEDs">
      <h2>LEDs</h2>
      {leds.length === 0 ? (
        <p>None yet. A lamp’s LED panel keeps one here with its figures, and takes it out again.</p>
      ) : (
        <List>
          {leds.map((led) => (
            <OwnLed key={led.id} led={led} />
          ))}
        </List>
      )}
    </Own>
  );
}

interface Props {
  led: BenchLed;
}

function OwnLed({ led }: Props) {
  const levels = useCatalogue().data?.choices["led.level"] ?? [];
  const [open, setOpen] = useOpen(led.id);
  const save = useSave();
  const saveFields = useSaveFields(`/api/leds/${led.id}`);
  const remove = () => {
    const more = { label: `Delete ${led.name}`, done: `Deleted ${led.name}.` };
    inPassing(save("DELETE", `/api/leds/${led.id}`, undefined, more));
  };
  return (
    <li>
      <Line>
        <strong>{led.name}</strong>
        <span>
          {led.line}
          {led.kept_in && `, ${led.kept_in}`}
        </span>
        <em data-now={led.now}>{stockSaid(led, levels)}</em>
        <SmallButton
          aria-expanded={open}
          aria-label={`Figures of ${led.name}`}
          onPress={() => setOpen(!open)}
        >
          Figures
        </SmallButton>
        <SmallButton aria-label={`Delete ${led.name}`} onPress={remove}>
          Delete
        </SmallButton>
      </Line>
      {open && (
        <RecordContext
          value={{ id: led.id, shape: "led", values: led, echo: led.echo, save: saveFields }}
        >
          <PanelPlace value={led.id}>
            <OwnFigures />
          </PanelPlace>
        </RecordContext>
      )}
    </li>
  );
}

function OwnFigures() {
  const catalogue = useCatalogue().data;
  return (
    <Figures>
      <SavedText field="name" label="Name on its bag" />
      <SavedPart field="led_id" label="Kind" parts={catalogue?.leds} />
      <SavedQuantity field="vf" label="Own forward voltage" hint="1.9-2.3V, at rated current" />
      <SavedText field="rated" label="Own rated current" hint="20mA" />
      <SavedText field="led_light" label="Own light" hint="800mcd, or in all 3lm" />
      <SavedText field="led_light_at" label="at" hint="The current it is given at: 20mA" />
      <SavedText field="led_angle" label="Viewing angle" hint="30°" />
      <SavedChoice field="led_output" label="Light, where nothing is marked" />
      <SavedText field="sweep" label="Its curve: volts and amps, a pair a line" lines />
      <StockFields />
    </Figures>
  );
}
