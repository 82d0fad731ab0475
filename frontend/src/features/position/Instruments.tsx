import { lazy, Suspense, useState, type ReactNode } from "react";
import styled from "styled-components";

import type { Report } from "../../api/client";
import { useCatalogue } from "../../api/queries";
import { Findings } from "../../instruments/Findings";
import { GlowBox } from "../../instruments/GlowBox";
import { PencilLine } from "../../instruments/PencilLine";
import { SlideRule } from "../../instruments/SlideRule";
import { Staircase } from "../../instruments/Staircase";
import { inPassing, useSave } from "../../saving/useSave";
import { useRecord } from "../../ui/record/record";
import { useNarrow } from "../../ui/useNarrow";
import { today } from "../../ui/dates";
import { ohms } from "../../ui/ohms";
import { ClosedByDuty } from "./parts/DutyPart";
import { PANEL_OF_STAIR, partNamed, type Instrument, type Part, type Position } from "./parts/part";
import { Strings } from "./Strings";
import { readsOf } from "./readsOf";
import type { useTrial } from "./useTrial";

const LampWiring = lazy(() => import("./LampWiring"));

/* One grid of places; with a panel beside them the findings go under the rule. What has a height of its own keeps it:
   where the window is too low for all, the page scrolls. */
const Work = styled.div`
  @media (min-width: 1001px) {
    display: grid;
    flex: 1;
    min-height: 0;
    gap: 6px 20px;
    margin-top: 6px;
    grid-template:
      "stairs glow findings" minmax(262px, 1fr)
      "rule rule rule" max-content
      "strings strings strings" max-content
      "pencil pencil pencil" max-content / minmax(0, 480fr) minmax(0, 390fr) minmax(0, 350fr);
    &[data-beside="true"] {
      grid-template:
        "stairs glow" minmax(226px, 1fr)
        "rule rule" max-content
        "strings strings" max-content
        "findings findings" minmax(74px, 0.4fr)
        "pencil pencil" max-content / minmax(0, 440fr) minmax(0, 390fr);
    }
  }
  @media (max-width: 1000px) {
    display: flex;
    flex-direction: column;
    gap: 14px;
    margin-top: 10px;
  }
`;

const Place = styled.div`
  display: grid;
  min-width: 0;
  min-height: 0;
  grid-template: minmax(0, 1fr) / minmax(0, 1fr);
  @media (max-width: 1000px) {
    flex: none;
    & > section {
      height: auto;
    }
  }
`;

/** On a phone the order is that of use: what it looks like, what to turn, what to mind, where it goes. */
const ON_A_PHONE: readonly Where[] = ["glow", "rule", "strings", "findings", "stairs", "pencil"];
const ON_A_BENCH: readonly Where[] = ["stairs", "glow", "findings", "rule", "strings", "pencil"];

type Where = "stairs" | "glow" | "findings" | "rule" | "strings" | "pencil";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** The position's report. */
  report: Report;
  /** Whether it is still the one before what was asked last. */
  stale: boolean;
  /** What is tried before it is taken. */
  trying: ReturnType<typeof useTrial>;
  /** Whether a panel takes room beside them. */
  beside: boolean;
  /** Under which instrument the panel stands, where it stands among them. */
  under: Instrument | undefined;
  panel: ReactNode;
  /** Open the panel of a part. */
  onEdit: (part: Part) => void;
}

/** A trial of what stands there now, in the light and with the optics it is looked at. */
function logged(report: Report, position: Position, verdict: string) {
  const places = Object.values(position.trials ?? {}).map((t) => t.place ?? 0);
  const { room, optics } = position.looks;
  const trial = {
    place: Math.max(-1, ...places) + 1,
    resistor: ohms(report.sizing.each.value),
    verdict,
    led_id: position.led_id,
    room,
    optics,
    at: today(),
  };
  return { [crypto.randomUUID()]: trial };
}

/** What the trials say to try next: a resistor at once, anything else where it is explained. */
function nextOf(
  report: Report,
  tryOut: ReturnType<typeof useTrial>["tryOut"],
  onEdit: (part: Part) => void,
) {
  const first = report.trials?.proposals[0];
  if (!first) return undefined;
  if (!("resistor_ohm" in first.changes)) {
    return { label: "See what helps", onTry: () => onEdit("looks") };
  }
  return { label: first.label, onTry: () => tryOut(first.label, first.changes) };
}

interface OwnWiringProps extends Pick<Props, "trying" | "report" | "onEdit"> {
  id: string;
}

/** The lamp's wiring, fetched when it is asked for. */
function OwnWiring({ id, report, trying, onEdit }: OwnWiringProps) {
  return (
    <Suspense>
      <LampWiring
        id={id}
        reading={report.next_step.reading}
        causes={report.trouble?.causes ?? []}
        previewed={Object.keys(trying.changes).length > 0}
        onOpen={(panel) => {
          const part = partNamed(panel);
          if (part) onEdit(part);
        }}
      />
    </Suspense>
  );
}

/** Staircase, glow box, findings and slide rule, working together on one report. */
export function Instruments(props: Props) {
  const { position, report, stale, trying, beside, under, panel, onEdit } = props;
  const [chosen, setChosen] = useState<string>();
  const save = useSave();
  const narrow = useNarrow();
  const catalogue = useCatalogue().data;
  const record = useRecord();
  const snapshot = report.snapshots.find((s) => s.id === chosen);
  const rule = snapshot?.rule;
  const places: Record<Where, ReactNode> = {
    stairs: (
      <Staircase
        snapshots={report.snapshots}
        cycle={report.cycle}
        runtime={report.runtime}
        causes={report.trouble?.causes ?? []}
        chosen={chosen}
        onChoose={setChosen}
        onEdit={(kind) => kind !== "ground" && onEdit(PANEL_OF_STAIR[kind])}
        wiring={<OwnWiring id={position.id} report={report} trying={trying} onEdit={onEdit} />}
      />
    ),
    glow: (
      <GlowBox
        glow={snapshot?.glow ?? report.glow}
        rooms={catalogue?.choices["looks.room"] ?? []}
        onRoom={(room) => inPassing(record.save({ looks: { room } }))}
        verdicts={catalogue?.choices["trial.verdict"] ?? []}
        onVerdict={(verdict) =>
          inPassing(record.save({ trials: logged(report, position, verdict) }))
        }
        next={nextOf(report, trying.tryOut, onEdit)}
        equipment={position.equipment}
      />
    ),
    findings: (
      <Findings
        findings={report.findings}
        diagnoses={report.diagnoses}
        trouble={report.trouble}
        onTry={trying.tryOut}
        onStrike={(reading) => {
          const more = { label: "Delete a reading", done: "Deleted the reading." };
          inPassing(save("DELETE", `/api/readings/after/${reading}`, undefined, more));
        }}
      />
    ),
    rule: report.duty.closed ? (
      <ClosedByDuty duty={report.duty} />
    ) : (
      <SlideRule
        rule={rule ?? report.rule}
        cursor={trying.cursor ?? report.rule.cursor_ohm}
        reads={(rule && snapshot?.reads) ?? readsOf(report)}
        stale={stale}
        onMove={trying.move}
      />
    ),
    strings: <Strings current={report.current} />,
    pencil: <PencilLine uncertainty={report.uncertainty} />,
  };
  return (
    <Work data-beside={beside}>
      {(narrow ? ON_A_PHONE : ON_A_BENCH).flatMap((where) => [
        <Place key={where} style={{ gridArea: where }}>
          {places[where]}
        </Place>,
        where === under && <div key="panel">{panel}</div>,
      ])}
    </Work>
  );
}
