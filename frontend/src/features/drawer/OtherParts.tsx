import { useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useCatalogue, useDrawer } from "../../api/queries";
import { inPassing, useSave } from "../../saving/useSave";
import { Button, SmallButton } from "../../ui/Button";
import { OneOfSome } from "../../ui/OneOfSome";
import { PanelPlace, useOpen } from "../../ui/panelPlace";
import { Picker } from "../../ui/Picker";
import { PartFields } from "./PartFields";
import { stockSaid } from "./stockSaid";

const List = styled.ul`
  margin: 0 0 22px;
  padding: 0;
  list-style: none;
  border-top: 2px solid var(--ink);
  li {
    padding: 4px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
`;

const Below = styled.section`
  margin-top: 24px;
`;

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1.4fr) minmax(0, 1fr) auto;
  align-items: center;
  gap: 2px 14px;
  strong {
    font-size: 1.1rem;
  }
  &[data-now="empty"] strong {
    text-decoration: line-through;
  }
  @media (max-width: 760px) {
    grid-template-columns: minmax(0, 1fr) auto;
    & > :nth-child(2),
    & > :nth-child(3) {
      grid-column: 1;
    }
    & > :nth-child(4) {
      grid-row: 1 / span 3;
      grid-column: 2;
    }
  }
`;

const Add = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: end;
  & > div {
    flex: 0 1 320px;
  }
`;

type Part = Schemas["PartAnswer"];

interface Props {
  /** Every part but the resistors. */
  parts: Part[];
}

/** Lamps, diodes, capacitors, regulators, sleeves: by kind, each with where it lies and how much is left. */
export function OtherParts({ parts }: Props) {
  const kinds = useCatalogue().data?.choices["part.kind"] ?? [];
  const used = kinds.filter((k) => parts.some((p) => p.kind === k.id));
  return (
    <Below aria-label="Other parts">
      {used.map((kind) => (
        <section key={kind.id} aria-label={kind.label}>
          <h2>{kind.label}</h2>
          <List>
            {parts
              .filter((p) => p.kind === kind.id)
              .map((p) => (
                <OnePart key={p.id} part={p} />
              ))}
          </List>
        </section>
      ))}
      <AddPart />
    </Below>
  );
}

function OnePart({ part }: { part: Part }) {
  const [open, setOpen] = useOpen(part.id);
  const levels = useCatalogue().data?.choices["part.level"] ?? [];
  return (
    <li>
      <Line data-now={part.now}>
        <strong>{part.label}</strong>
        <span>{part.kept_in}</span>
        <span>{stockSaid(part, levels)}</span>
        <SmallButton
          aria-expanded={open}
          aria-label={`Figures of ${part.label}`}
          onPress={() => setOpen(!open)}
        >
          Figures
        </SmallButton>
      </Line>
      {open && (
        <PanelPlace value={part.id}>
          <PartFields part={part} />
        </PanelPlace>
      )}
    </li>
  );
}

/** What a new part of a kind begins with, so that it reads. */
const BEGIN: Record<string, object> = { capacitor: { capacitance: "100nF" } };
const OWN = "own";
const LEDS = { id: "led", label: "LEDs" };

/** A part of any kind: out of the catalogue in one step, or by its own figures, typed where it lies. */
function AddPart() {
  const catalogue = useCatalogue().data;
  const offered = useDrawer().data?.offered;
  const kinds = [
    LEDS,
    ...(catalogue?.choices["part.kind"] ?? []).filter((k) => k.id !== "resistor"),
  ];
  const [kind, setKind] = useState("sundry");
  const [which, setWhich] = useState(OWN);
  const save = useSave();
  const rows = kind === LEDS.id ? (catalogue?.leds ?? []) : (offered?.[kind] ?? []);
  const add = () => {
    const of = rows.find((r) => r.id === which);
    const key = crypto.randomUUID();
    const what = of?.label ?? kinds.find((k) => k.id === kind)?.label ?? kind;
    const more = { label: "Put in a part", done: `Put in: ${what}.` };
    if (kind === LEDS.id) {
      const led_id = of?.id ?? "red-5-diffused";
      inPassing(save("PUT", `/api/leds/${key}`, { name: what, led_id }, more));
      return;
    }
    const named = of ? { catalogue_id: of.id } : (BEGIN[kind] ?? { name: `New: ${what}` });
    inPassing(save("PUT", `/api/parts/${key}`, { kind, ...named }, more));
  };
  return (
    <Add>
      <OneOfSome
        label="Put in another part"
        value={kind}
        options={kinds}
        onChange={(id) => {
          setKind(id);
          setWhich(OWN);
        }}
      />
      {rows.length > 0 && (
        <Picker
          label="Which"
          value={which}
          items={[{ id: OWN, label: "Its own figures, typed after" }, ...rows]}
          onChange={setWhich}
        />
      )}
      <Button onPress={add}>Put it in</Button>
    </Add>
  );
}
