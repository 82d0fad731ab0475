import styled from "styled-components";

import type { Report } from "../api/client";
import { useCatalogue } from "../api/queries";
import { Choice } from "../controls/Choice";
import { Picker } from "../controls/Picker";
import { QuantityField } from "../controls/QuantityField";
import { CycleTrace } from "../instruments/CycleTrace";
import type { Patch, Position } from "./PartSheet";

type Cycle = NonNullable<Report["cycle"]>;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th,
  td {
    padding: 4px 6px 4px 0;
    text-align: left;
    border-bottom: 1px solid var(--rule-soft);
    font-weight: 500;
  }
  thead th {
    font-size: 0.875rem;
    border-bottom: 2px solid var(--ink);
  }
  td {
    font-family: var(--mono);
    font-size: 0.875rem;
    letter-spacing: -0.04em;
  }
`;

const Facts = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 14px;
  margin: 0;
  dd {
    margin: 0;
    font: 600 1.05rem var(--mono);
  }
`;

interface Props {
  position: Position;
  patch: Patch;
  cycle: Cycle;
}

const say = (f: { number: string; unit: string }) => `${f.number} ${f.unit}`;

/** How the LED lives on a supply that alternates: which parts, what they must stand, what the cycle comes to. */
export function Treatment({ position, patch, cycle }: Props) {
  const catalogue = useCatalogue();
  const slowest = cycle.levels[0]?.limit;
  return (
    <>
      <Picker
        key={cycle.treatment}
        label="Treatment"
        value={cycle.treatment}
        items={cycle.options.map((o) => ({ id: o.id, label: o.label }))}
        onChange={(id) =>
          id !== cycle.treatment && void patch({ treatment: id as Position["treatment"] })
        }
      />
      <p>{cycle.why}</p>
      <Facts>
        <dt>Highest crest</dt>
        <dd>{say(cycle.crest)}</dd>
        {cycle.diode_reverse && (
          <>
            <dt>Diode stands</dt>
            <dd>
              {say(cycle.diode_reverse)}
              {cycle.diode_rating ? `, fit ${say(cycle.diode_rating)}` : ""}
            </dd>
          </>
        )}
        {cycle.capacitor && (
          <>
            <dt>Capacitor</dt>
            <dd>
              {say(cycle.capacitor)}
              {cycle.capacitor_rating ? `, ${say(cycle.capacitor_rating)} or more` : ""}
            </dd>
          </>
        )}
        {cycle.ripple && (
          <>
            <dt>Ripple</dt>
            <dd>{say(cycle.ripple)}</dd>
          </>
        )}
      </Facts>
      {cycle.polarity && <p>{cycle.polarity}</p>}
      {cycle.capacitor && (
        <>
          <QuantityField
            id={`${position.id}.capacitor`}
            label="Own capacitor"
            unit="F"
            value={{ text: position.capacitor, source: "marked", note: "" }}
            fields={["capacitor"]}
            hint="Empty follows the sum; 220uF to fit your own"
            onSave={(value) => patch({ capacitor: value.text ?? "" })}
            plain
          />
          <QuantityField
            id={`${position.id}.capacitor_v`}
            label="Its voltage rating"
            unit="V"
            value={{ text: position.capacitor_v, source: "marked", note: "" }}
            fields={["capacitor_v"]}
            hint="As marked: 25V. It must stand 1.25 times the crest"
            onSave={(value) => patch({ capacitor_v: value.text ?? "" })}
            plain
          />
        </>
      )}
      {cycle.treatment === "two_colour" && catalogue.data && (
        <Picker
          label="The other colour"
          value={position.second_led_id || "same"}
          items={[
            { id: "same", label: "The same kind" },
            ...catalogue.data.leds.map((l) => ({ id: l.id, label: l.label })),
          ]}
          onChange={(id) => void patch({ second_led_id: id === "same" ? "" : id })}
        />
      )}
      <Choice
        label="LED's negative side"
        value={position.chassis_negative ? "yes" : "no"}
        options={
          [
            ["no", "Off the frame"],
            ["yes", "On the frame"],
          ] as const
        }
        onChange={(on) => void patch({ chassis_negative: on === "yes" })}
      />
      <CycleTrace cycle={cycle} />
      <Table>
        <thead>
          <tr>
            <th scope="col">Level</th>
            <th scope="col">Average</th>
            <th scope="col">Crest</th>
            <th scope="col">Lit</th>
            <th scope="col">Reverse</th>
            <th scope="col">Flicker</th>
          </tr>
        </thead>
        <tbody>
          {cycle.levels.map((l) => (
            <tr key={l.label}>
              <th scope="row">{l.label}</th>
              <td>{say(l.average)}</td>
              <td>{say(l.peak)}</td>
              <td>{l.conduction_deg}°</td>
              <td>{say(l.reverse)}</td>
              <td>{l.flicker_hz ? `${l.modulation.toFixed(0)} % ${say(l.flicker_hz)}` : "none"}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p>
        Flicker is (highest − lowest) ÷ (highest + lowest). Low-risk is{" "}
        {slowest == null ? "any" : `${Number(slowest.toPrecision(3))} %`} at the slowest here (IEEE
        1789-2015).
      </p>
    </>
  );
}
