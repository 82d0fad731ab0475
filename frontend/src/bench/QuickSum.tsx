import { useDeferredValue, useMemo, useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";

import { Refused, type Report, type Schemas } from "../api/client";
import { useCatalogue, useQuick, useSave } from "../api/queries";
import { useDraft } from "../api/useDraft";
import { Button, MainButton } from "../controls/Button";
import { Choice } from "../controls/Choice";
import { Field } from "../controls/Field";
import { Figure } from "../controls/Figure";
import { Picker } from "../controls/Picker";
import { Sheet } from "../controls/Sheet";
import { Findings } from "../instruments/Findings";

const Inputs = styled.div`
  display: grid;
  grid-template-columns: 170px minmax(230px, 1fr) 130px 100px 90px 150px 120px;
  gap: 8px 12px;
  align-items: start;
  @media (max-width: 1100px) {
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }
  @media (max-width: 760px) {
    grid-template-columns: repeat(6, minmax(0, 1fr));
    & > * {
      grid-column: span 3;
    }
  }
`;

const Wide = styled.div`
  @media (max-width: 760px) {
    grid-column: 1 / -1 !important;
  }
`;

const Results = styled.div`
  display: grid;
  grid-template-columns: 300px 400px minmax(0, 1fr);
  gap: 12px 28px;
  align-items: start;
  padding-top: 8px;
  border-top: 2px solid var(--ink);
  margin-top: 4px;
  transition: opacity 0.1s;
  &[data-stale="true"] {
    opacity: 0.45;
  }
  @media (max-width: 1100px) {
    grid-template-columns: 1fr 1fr;
  }
  @media (max-width: 760px) {
    grid-template-columns: 1fr;
  }
`;

const Huge = styled(Figure)`
  font-size: 4.4rem;
  line-height: 1;
  font-weight: 650;
  letter-spacing: -0.03em;
`;

const Mid = styled(Figure)`
  font-size: 1.3rem;
  font-weight: 600;
`;

const Pair = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  align-items: baseline;
  margin: 4px 0 0;
  dt {
    font-size: 0.95rem;
    color: var(--ink-soft);
  }
  dd {
    margin: 0;
  }
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  caption {
    text-align: left;
    font-size: 0.95rem;
    font-weight: 600;
  }
  th {
    font-weight: 500;
    font-size: 0.9rem;
    color: var(--ink-soft);
    text-align: left;
    padding: 4px 10px 4px 0;
  }
  td {
    padding: 4px 10px 4px 0;
    border-top: 1px solid var(--rule-soft);
  }
  tbody th {
    border-top: 1px solid var(--rule-soft);
  }
  tr[data-usual="true"] td:nth-child(3) {
    font-weight: 700;
  }
`;

const Judged = styled.div`
  max-height: 230px;
  overflow: hidden;
  & > section {
    max-height: 230px;
  }
`;

const Hidden = styled.h1`
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
`;

const Keep = styled.div`
  margin-top: 10px;
`;

const RAILS = [
  ["low", "Lowest rail"],
  ["usual", "Usual rail"],
  ["high", "Highest rail"],
] as const;
const LEDS = [
  ["highest", "Highest Vf"],
  ["typical", "Typical Vf"],
  ["lowest", "Lowest Vf"],
] as const;

const SERIES = ["E6", "E12", "E24", "E48", "E96"] as const;

/** Rail, LED, how many, how much: the resistor, before anything is saved. */
export function QuickSum({ equipment }: { equipment: Schemas["BenchItem"][] }) {
  const catalogue = useCatalogue();
  const rail = useDraft("quick.rail", "");
  const led = useDraft("quick.led", "warm-5-diffused");
  const vf = useDraft("quick.vf", "");
  const count = useDraft("quick.count", "1");
  const drive = useDraft("quick.drive", "5mA");
  const series = useDraft("quick.series", "E24");
  const rounding = useDraft("quick.rounding", "up");
  const [keeping, setKeeping] = useState(false);

  const whole = /^\s*\d{1,3}\s*$/.test(count.value) ? Number(count.value) : 0;
  const countWrong = whole >= 1 && whole <= 200 ? undefined : "1 to 200";
  const typed = useMemo(
    () => ({
      rail: rail.value,
      led_id: led.value,
      vf: vf.value,
      rated: "",
      in_series: Math.max(whole, 1),
      drive: drive.value,
      series: series.value as Schemas["QuickIn"]["series"],
      rounding: rounding.value as Schemas["QuickIn"]["rounding"],
    }),
    [rail.value, led.value, vf.value, whole, drive.value, series.value, rounding.value],
  );
  const input = useDeferredValue(typed);
  const ready = input.rail.trim() !== "" && input.drive.trim() !== "" && !countWrong;
  const quick = useQuick(input, ready);
  const refused = quick.error instanceof Refused ? quick.error : undefined;
  const report = quick.data?.report;
  const stale = !ready || refused !== undefined || quick.isPlaceholderData;

  return (
    <section aria-label="Quick sum">
      <Hidden>Bench: quick sum</Hidden>
      <Inputs>
        <Field
          label="Rail"
          value={rail.value}
          onChange={rail.type}
          placeholder="24V"
          hint="24V, 12.0-14.4V, 5V±5%"
          error={ready ? refused?.of("rail", "low", "high") : undefined}
        />
        <Wide>
          <Picker
            label="LED"
            value={led.value}
            onChange={led.type}
            items={(catalogue.data?.leds ?? []).map((l) => ({
              id: l.id,
              label: l.label,
              detail: `${l.vf_low}–${l.vf_high} V`,
            }))}
            hint="Type a colour or size"
            key={catalogue.data ? "ready" : "waiting"}
          />
        </Wide>
        <Field
          label="Own Vf"
          value={vf.value}
          onChange={vf.type}
          placeholder="1.9-2.3V"
          hint="if you know it"
          error={refused?.of("vf", "led_id")}
        />
        <Field
          label="In series"
          value={count.value}
          onChange={count.type}
          hint="LEDs"
          error={countWrong}
        />
        <Field
          label="Drive"
          value={drive.value}
          onChange={drive.type}
          hint="5mA, .02A"
          error={refused?.of("drive", "target")}
        />
        <Choice
          label="Round"
          value={rounding.value as "up"}
          options={
            [
              ["up", "Next up"],
              ["nearest", "Near"],
            ] as const as readonly (readonly ["up", string])[]
          }
          onChange={rounding.type}
        />
        <SeriesField value={series.value} onChange={series.type} />
      </Inputs>
      {report ? (
        <Results data-stale={stale} aria-live="polite" aria-busy={quick.isFetching}>
          <Answer report={report} onKeep={() => setKeeping(true)} canKeep={!stale} />
          <Currents report={report} />
          <Judged>
            <Findings findings={report.findings} verdicts={[]} />
          </Judged>
        </Results>
      ) : (
        <Results>
          <p>
            Type the rail as you read it, such as 24V, 13.8 or 12.0-14.4V. The answer stands here.
          </p>
        </Results>
      )}
      {report && (
        <KeepSheet
          open={keeping}
          onClose={() => setKeeping(false)}
          quick={typed}
          equipment={equipment}
          onKept={() => {
            rail.clear();
            setKeeping(false);
          }}
        />
      )}
    </section>
  );
}

function SeriesField({ value, onChange }: { value: string; onChange: (v: string) => void }) {
  return (
    <Picker
      label="Series"
      value={value}
      onChange={onChange}
      items={SERIES.map((s) => ({ id: s, label: s }))}
    />
  );
}

function Answer({
  report,
  onKeep,
  canKeep,
}: {
  report: Report;
  onKeep: () => void;
  canKeep: boolean;
}) {
  const { sizing, power } = report;
  return (
    <div>
      {sizing.preferred ? (
        <Huge shown={sizing.preferred} />
      ) : (
        <p>No resistor: the rail does not reach the LEDs.</p>
      )}
      <Pair>
        <dt>Exact</dt>
        <dd>{sizing.exact ? <Mid shown={sizing.exact} /> : "none"}</dd>
        <dt>Rule</dt>
        <dd>{sizing.rule}</dd>
        <dt>Heat in it</dt>
        <dd>
          <Mid shown={power.each} />
        </dd>
        <dt>Rating to fit</dt>
        <dd>{power.to_fit ? <Mid shown={power.to_fit} /> : "none large enough"}</dd>
      </Pair>
      <Keep>
        <MainButton isDisabled={!canKeep} onPress={onKeep}>
          Keep as a lamp position
        </MainButton>
      </Keep>
    </div>
  );
}

function Currents({ report }: { report: Report }) {
  const at = (rail: string, led: string) =>
    report.current.corners.find((c) => c.rail === rail && c.led === led)?.current;
  return (
    <Table>
      <caption>Current</caption>
      <thead>
        <tr>
          <td />
          {LEDS.map(([key, label]) => (
            <th key={key} scope="col">
              {label}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {RAILS.map(([rail, label]) => (
          <tr key={rail} data-usual={rail === "usual"}>
            <th scope="row">{label}</th>
            {LEDS.map(([led]) => {
              const shown = at(rail, led);
              return <td key={led}>{shown && <Mid shown={shown} />}</td>;
            })}
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

interface KeepProps {
  open: boolean;
  onClose: () => void;
  onKept: () => void;
  quick: Schemas["QuickIn"];
  equipment: Schemas["BenchItem"][];
}

function KeepSheet({ open, onClose, onKept, quick, equipment }: KeepProps) {
  const save = useSave();
  const go = useNavigate();
  const [where, setWhere] = useState("new");
  const name = useDraft("quick.keep.equipment", "");
  const lamp = useDraft("quick.keep.lamp", "");
  const [refusal, setRefusal] = useState<Refused>();

  const keep = async () => {
    const position = crypto.randomUUID();
    try {
      await save("POST", "/api/quick/keep", {
        quick,
        position,
        rail: crypto.randomUUID(),
        equipment: where === "new" ? null : where,
        new_equipment: crypto.randomUUID(),
        equipment_name: name.value,
        name: lamp.value.trim() || "Lamp",
      });
      name.clear();
      lamp.clear();
      onKept();
      await go(`/position/${position}`);
    } catch (problem) {
      if (problem instanceof Refused) setRefusal(problem);
    }
  };

  return (
    <Sheet title="Keep as a lamp position" open={open} onClose={onClose}>
      <Picker
        label="Equipment"
        value={where}
        onChange={setWhere}
        items={[
          { id: "new", label: "New equipment" },
          ...equipment.map((e) => ({ id: e.id, label: e.name })),
        ]}
      />
      {where === "new" && (
        <Field
          label="Its name"
          words
          value={name.value}
          onChange={name.type}
          error={refusal?.of("equipment_name")}
        />
      )}
      <Field
        label="Which lamp"
        words
        value={lamp.value}
        onChange={lamp.type}
        hint="Dial, left; power lamp; tail"
        error={refusal && !refusal.of("equipment_name") ? refusal.message : undefined}
      />
      <MainButton onPress={() => void keep()}>Keep</MainButton>
      <Button onPress={onClose}>Back</Button>
    </Sheet>
  );
}
