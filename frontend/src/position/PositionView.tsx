import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { Changes, Report } from "../api/client";
import { usePosition, useReport, useSave } from "../api/queries";
import { Button, MainButton, SmallButton } from "../controls/Button";
import { Glow } from "../equipment/Lamp";
import { Findings } from "../instruments/Findings";
import { GlowBox } from "../instruments/GlowBox";
import { NextThing } from "../instruments/NextThing";
import { PencilLine } from "../instruments/PencilLine";
import { SlideRule } from "../instruments/SlideRule";
import { Staircase } from "../instruments/Staircase";
import { Missing } from "../shell/Missing";
import { Shell } from "../shell/Shell";
import { useUndo } from "../shell/useUndo";
import { PartSheet, type Part } from "./PartSheet";

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
  margin: -6px 0 6px;
`;

const Title = styled.h1`
  font-size: 1.45rem;
  font-weight: 650;
  line-height: 1.2;
`;

const Up = styled(Link)`
  min-height: 24px;
  text-underline-offset: 0.2em;
`;

const Siblings = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  a {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    min-height: 32px;
    text-underline-offset: 0.2em;
    svg {
      width: 26px;
      height: 26px;
    }
  }
  @media (max-width: 760px) {
    display: none;
  }
`;

const Edits = styled.div`
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 6px;
`;

const Middle = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 480fr) minmax(0, 390fr) minmax(0, 350fr);
  grid-template-rows: minmax(0, 1fr);
  gap: 20px;
  flex: 1 1 326px;
  min-height: 300px;
  margin: 8px 0 6px;
  @media (max-width: 1000px) {
    display: contents;
  }
`;

/* On a phone the order is that of use: what it looks like, what to turn, what to mind, where it goes. */
const Work = styled.div`
  display: flex;
  flex-direction: column;
  flex: 1;
  min-height: 0;
  @media (max-width: 1000px) {
    display: flex;
    flex-direction: column;
    gap: 14px;
    margin-top: 10px;
    & section {
      height: auto;
    }
    & [aria-label="Glow box"] {
      order: 1;
    }
    & [aria-label="Slide rule"] {
      order: 2;
    }
    & [aria-label="Findings"] {
      order: 3;
    }
    & [aria-label="Volt staircase"] {
      order: 4;
    }
    & > button {
      order: 5;
    }
  }
`;

/* The workspace fills the window and no more; a taller window gives the height to the instruments. */
const Frame = styled.div`
  @media (min-width: 1001px) {
    display: flex;
    flex-direction: column;
    height: calc(100dvh - 74px);
    min-height: 700px;
  }
`;

const Trying = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 8px 14px;
  border: 2px dashed var(--mark);
  border-radius: 4px;
  background: var(--mark-soft);
  p {
    flex: 1;
    font-size: 1.15rem;
    font-weight: 600;
  }
`;

interface Trial {
  label: string;
  changes: Changes;
}

/** How long the slide rule must rest before its value is saved. */
const REST_MS = 450;

/** The workspace: next thing, staircase, glow box, findings and slide rule, working together. */
export default function PositionView() {
  const { id = "" } = useParams();
  return <Workspace key={id} id={id} />;
}

function Workspace({ id }: { id: string }) {
  const view = usePosition(id);
  const go = useNavigate();
  const save = useSave();
  const [trial, setTrial] = useState<Trial>();
  const [cursor, setCursor] = useState<number>();
  const [part, setPart] = useState<Part>();
  const [chosen, setChosen] = useState<string>();
  const rest = useRef(0);

  const changes = useMemo<Changes>(
    () => trial?.changes ?? (cursor === undefined ? {} : { resistor_ohm: cursor }),
    [trial, cursor],
  );
  const answer = useReport(id, changes);
  const report = answer.data?.report;
  const equipment = view.data?.position.equipment ?? "";
  const undo = useUndo(equipment, view.data?.steps);

  const take = useCallback(
    async (taken: Changes) => {
      await save("POST", `/api/positions/${id}/take`, { changes: taken });
    },
    [id, save],
  );
  const move = (ohm: number) => {
    setTrial(undefined);
    setCursor(ohm);
    window.clearTimeout(rest.current);
    rest.current = window.setTimeout(() => {
      void take({ resistor_ohm: ohm }).finally(() => setCursor(undefined));
    }, REST_MS);
  };
  useEffect(() => {
    const escape = (e: globalThis.KeyboardEvent) => {
      if (e.key === "Escape") setTrial(undefined);
    };
    window.addEventListener("keydown", escape);
    return () => window.removeEventListener("keydown", escape);
  }, []);

  if (view.isError && !view.data) {
    return (
      <Shell>
        <Missing problem={view.error} />
      </Shell>
    );
  }
  if (!view.data || (!report && !answer.isError)) return <Shell>{null}</Shell>;
  const { position, rail, siblings } = view.data;
  const moment = report?.moments.find((m) => m.id === chosen);
  const tryOut = (label: string, tried: Changes) => setTrial({ label, changes: tried });
  if (!report || (answer.isError && Object.keys(changes).length === 0)) {
    return (
      <Shell undo={undo}>
        <Head>
          <Title>{position.name}</Title>
          <Up to={`/equipment/${position.equipment}`}>{view.data.equipment_name}</Up>
        </Head>
        <Trying role="alert">
          <p>It cannot be worked out as it stands. {answer.error?.message}</p>
          {MENDABLE.map(([kind, label]) => (
            <Button key={kind} onPress={() => setPart(kind)}>
              {label}
            </Button>
          ))}
        </Trying>
        <PartSheet
          part={part}
          onClose={() => setPart(undefined)}
          position={position}
          rail={rail}
          fit={view.data.fit}
          onTry={tryOut}
        />
      </Shell>
    );
  }

  return (
    <Shell undo={undo}>
      <Frame>
        <Head>
          <Title>{position.name}</Title>
          <Up to={`/equipment/${position.equipment}`}>{view.data.equipment_name}</Up>
          <Siblings aria-label="Lamps of this equipment">
            {siblings
              .filter((s) => s.id !== position.id)
              .map((s) => (
                <Link key={s.id} to={`/position/${s.id}`}>
                  <Glow colour={s.glow_colour} lightness={s.glow_lightness} />
                  {s.name}
                </Link>
              ))}
          </Siblings>
          <Edits>
            <SmallButton onPress={() => setPart("swaps")}>Swaps</SmallButton>
            <SmallButton onPress={() => void go(`/position/${id}/readings`)}>Readings</SmallButton>
            {report.cycle && (
              <SmallButton onPress={() => setPart("treatment")}>Treatment</SmallButton>
            )}
            <SmallButton onPress={() => setPart("led")}>LED</SmallButton>
            <SmallButton onPress={() => setPart("lamp")}>Old lamp</SmallButton>
            <SmallButton onPress={() => setPart("job")}>Job</SmallButton>
          </Edits>
        </Head>
        {trial ? (
          <Trying role="status">
            <p>Trying: {trial.label}</p>
            <MainButton
              onPress={() => {
                void take(trial.changes).then(() => setTrial(undefined));
              }}
            >
              Fit
            </MainButton>
            <Button onPress={() => setTrial(undefined)}>Put back</Button>
          </Trying>
        ) : (
          <NextThing
            positionId={id}
            step={report.next_step}
            onRead={(reading) => save("POST", `/api/positions/${id}/reading`, reading)}
          />
        )}
        <Work>
          <Middle>
            <Staircase
              moments={report.moments}
              cycle={report.cycle}
              runtime={report.runtime}
              chosen={chosen}
              onChoose={setChosen}
              onEdit={(kind) => kind !== "ground" && setPart(SHEETS[kind])}
            />
            <GlowBox lamps={moment?.glow.length ? moment.glow : report.glow} />
            <Findings
              findings={report.findings}
              verdicts={report.verdicts}
              onTry={tryOut}
              onStrike={(reading) => void save("DELETE", `/api/readings/${reading}`)}
            />
          </Middle>
          <SlideRule
            rule={moment?.rule ?? report.rule}
            cursor={cursor ?? report.rule.cursor_ohm}
            reads={(moment?.rule && moment.reads) ?? readsOf(report)}
            onMove={move}
          />
          <PencilLine pencil={report.pencil} />
        </Work>
      </Frame>
      <PartSheet
        part={part}
        onClose={() => setPart(undefined)}
        position={position}
        rail={rail}
        report={report}
        fit={view.data.fit}
        onTry={tryOut}
      />
    </Shell>
  );
}

const MENDABLE: readonly (readonly [Part, string])[] = [
  ["rail", "Rail"],
  ["driver", "Driver"],
  ["resistor", "Resistor"],
  ["led", "LED"],
  ["lamp", "Old lamp"],
];

type Step = Exclude<Report["staircase"]["stairs"][number]["kind"], "ground">;

/** The sheet each step of the staircase opens. */
const SHEETS: Record<Step, Part> = {
  rail: "rail",
  source: "rail",
  shared: "driver",
  lamps: "driver",
  driver: "driver",
  rectifier: "treatment",
  regulator: "resistor",
  resistor: "resistor",
  diode: "resistor",
  inside: "led",
  led: "led",
};

/** What each scale reads under the cursor. */
function readsOf(report: Report): Record<string, string> {
  const say = (f: { number: string; unit: string }) => `${f.number} ${f.unit}`;
  const usual = report.glow.find((g) => g.id === "usual");
  return {
    ohm: say(report.sizing.each),
    low: say(report.current.low),
    usual: say(report.current.usual),
    high: say(report.current.high),
    power: say(report.power.each),
    glow: usual?.ratio_text.replace(" the old lamp", "") ?? "",
  };
}
