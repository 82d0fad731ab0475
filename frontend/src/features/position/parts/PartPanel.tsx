import { useEffect, useRef, type ReactNode } from "react";
import styled from "styled-components";

import type { Report, Schemas } from "../../../api/client";
import { inPassing, useSave } from "../../../saving/useSave";
import { Panel } from "../../../ui/Panel";
import { PanelPlace } from "../../../ui/panelPlace";
import { RailEditor } from "../../equipment/RailEditor";
import { DriverPart } from "./DriverPart";
import { EarlierPart } from "./EarlierPart";
import { HolderPart } from "./HolderPart";
import { JobPart } from "./JobPart";
import { LooksPart } from "./LooksPart";
import { ClosedByDuty } from "./DutyPart";
import { OldLampPart } from "./OldLampPart";
import { ReadingsPart } from "./ReadingsPart";
import { RectificationPart } from "./RectificationPart";
import { say } from "../../../ui/say";
import { ResistorPart } from "./ResistorPart";
import { SwapsPart } from "./SwapsPart";
import { PANELS, TITLES, type Part, type Take, type Try } from "./part";

const Apart = styled.section`
  display: flex;
  flex-direction: column;
  gap: 14px;
  &:not(:first-child) {
    margin-top: 10px;
    border-top: 3px solid var(--rule);
    padding-top: 12px;
  }
  & > h3 {
    font-size: 1.1rem;
    scroll-margin-top: 80px;
  }
`;

interface Props {
  /** The part that was asked for; its panel may have others. */
  part: Part;
  /** Shut it. */
  onClose: () => void;
  /** What the server answers for this view. */
  view: Schemas["PositionView"];
  /** None where the position cannot be worked out. */
  report: Report | undefined;
  /** Preview changes without saving them. */
  onTry: Try;
}

/** A panel with the parts of the position that are edited together. */
export function PartPanel({ part, onClose, view, report, onTry }: Props) {
  const save = useSave();
  const [label, parts] = PANELS.find(([, all]) => all.includes(part)) ?? [TITLES[part], [part]];
  const take: Take = (changes, label) =>
    inPassing(save("POST", `/api/positions/${view.position.id}/take`, { changes }, { label }));
  const shown = parts.filter((p) => p !== "rectification" || report?.cycle);
  return (
    <Panel title={shown.length > 1 ? label : TITLES[part]} onClose={onClose}>
      {shown.map((p, k) => (
        <Section
          key={p}
          title={p === "rail" ? view.rail.name : TITLES[p]}
          alone={shown.length === 1}
          asked={p === part && k > 0}
        >
          <PanelPlace value={p}>{fieldsOf(p, { view, report, onTry, take })}</PanelPlace>
        </Section>
      ))}
    </Panel>
  );
}

interface SectionProps {
  title: string;
  /** It is all the panel has, and the panel's heading is its own. */
  alone: boolean;
  /** Whether it was asked for and is not the first of its panel. */
  asked: boolean;
  children: ReactNode;
}

/** A part within its panel; the one that was asked for is brought into view. */
function Section({ title, alone, asked, children }: SectionProps) {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (!asked) return;
    heading.current?.focus({ preventScroll: true });
    heading.current?.scrollIntoView?.({ block: "start" });
  }, [asked]);
  if (alone) return <Apart>{children}</Apart>;
  return (
    <Apart aria-label={title}>
      <h3 ref={heading} tabIndex={-1}>
        {title}
      </h3>
      {children}
    </Apart>
  );
}

interface Fields extends Pick<Props, "view" | "report" | "onTry"> {
  take: Take;
}

/** The fields of a part. */
function fieldsOf(part: Part, { view, report, onTry, take }: Fields): ReactNode {
  const { position, rail, fit } = view;
  switch (part) {
    case "rail":
      return <RailEditor rail={rail} />;
    case "driver":
      return <DriverPart position={position} rail={rail} report={report} />;
    case "rectification":
      return report?.cycle && <RectificationPart cycle={report.cycle} />;
    case "led":
      return <HolderPart position={position} rail={rail} fit={fit} take={take} />;
    case "resistor":
      return (
        <ResistorPart
          position={position}
          marks={report?.sizing.marks}
          each={report?.sizing.marks ? say(report.sizing.each) : undefined}
        />
      );
    case "lamp":
      return <OldLampPart position={position} report={report} />;
    case "looks":
      return <LooksPart position={position} report={report} onTry={onTry} />;
    case "swaps":
      return report?.duty.closed ? (
        <ClosedByDuty duty={report.duty} />
      ) : (
        <SwapsPart position={position} onTry={onTry} />
      );
    case "readings":
      return <ReadingsPart position={position} report={report} />;
    case "job":
      return <JobPart position={position} />;
    case "earlier":
      return <EarlierPart id={position.id} />;
  }
}
