import { useState } from "react";
import styled from "styled-components";

import type { Report } from "../../api/client";
import { Findings } from "../../instruments/Findings";
import { GlowBox } from "../../instruments/GlowBox";
import { PencilLine } from "../../instruments/PencilLine";
import { SlideRule } from "../../instruments/SlideRule";
import { Staircase } from "../../instruments/Staircase";
import { SHEET_OF_STAIR, type Part, type Try } from "./parts/part";
import { Strings } from "./Strings";
import { readsOf } from "./readsOf";

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
    gap: 14px;
    margin-top: 10px;
  }
`;

interface Place {
  /** Its place from the top on a phone. */
  $phone: number;
}

const Place = styled.div<Place>`
  display: grid;
  flex: none;
  min-width: 0;
  min-height: 0;
  grid-template: minmax(0, 1fr) / minmax(0, 1fr);
  @media (max-width: 1000px) {
    order: ${({ $phone }) => $phone};
    & > section {
      height: auto;
    }
  }
`;

interface Props {
  /** The position's report. */
  report: Report;
  /** Ohms under the slide rule's cursor while they are ahead of the report. */
  cursor: number | undefined;
  /** Told where it is moved. */
  onMove: (ohm: number) => void;
  /** Open the sheet of a part. */
  onEdit: (part: Part) => void;
  /** Try changes without saving them. */
  onTry: Try;
  /** Strike a reading taken after the swap. */
  onStrike: (reading: string) => void;
}

/** Staircase, glow box, findings and slide rule, working together on one report. */
export function Instruments({ report, cursor, onMove, onEdit, onTry, onStrike }: Props) {
  const [chosen, setChosen] = useState<string>();
  const snapshot = report.snapshots.find((s) => s.id === chosen);
  const rule = snapshot?.rule;
  return (
    <Work>
      <Middle>
        <Place $phone={4}>
          <Staircase
            snapshots={report.snapshots}
            cycle={report.cycle}
            runtime={report.runtime}
            chosen={chosen}
            onChoose={setChosen}
            onEdit={(kind) => kind !== "ground" && onEdit(SHEET_OF_STAIR[kind])}
          />
        </Place>
        <Place $phone={1}>
          <GlowBox lamps={snapshot?.glow.length ? snapshot.glow : report.glow} />
        </Place>
        <Place $phone={3}>
          <Findings
            findings={report.findings}
            diagnoses={report.diagnoses}
            onTry={onTry}
            onStrike={onStrike}
          />
        </Place>
      </Middle>
      <Place $phone={2}>
        <SlideRule
          rule={rule ?? report.rule}
          cursor={cursor ?? report.rule.cursor_ohm}
          reads={(rule && snapshot?.reads) ?? readsOf(report)}
          onMove={onMove}
        />
      </Place>
      <Strings current={report.current} />
      <Place $phone={5}>
        <PencilLine uncertainty={report.uncertainty} />
      </Place>
    </Work>
  );
}
