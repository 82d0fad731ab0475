import { useState } from "react";
import styled from "styled-components";

import type { Report } from "../../../api/client";
import { inPassing } from "../../../saving/useSave";
import { Button } from "../../../ui/Button";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedText } from "../../../ui/record/SavedText";
import { RecordContext, useRecord, within, type RecordScope } from "../../../ui/record/record";
import { StreakSheet } from "../../photograph/StreakSheet";
import { HeatPart } from "./HeatPart";
import { TrialsPart } from "./TrialsPart";
import type { Position, Try } from "./part";

const List = styled.ol`
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Row = styled.li`
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) auto auto;
  align-items: center;
  gap: 10px;
  border-top: 1px solid var(--rule-soft);
  min-height: 44px;
`;

/* What comes through, in a dark cell of its own: the page's ground would change how it looks. */
const Swatch = styled.span`
  width: 26px;
  height: 26px;
  border: 5px solid #050606;
  border-radius: 5px;
  forced-color-adjust: none;
`;

const Share = styled.span`
  font: 600 1.1rem var(--mono);
`;

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** None where the position cannot be worked out. */
  report: Report | undefined;
  /** Preview changes without saving them. */
  onTry: Try;
}

/** How the lamp is looked at: straight, behind a window, or by what it lights; and what stands before it. */
export function LooksPart({ position, report, onTry }: Props) {
  const record = useRecord();
  const looks = position.looks;
  const [sweeping, setSweeping] = useState(false);
  return (
    <RecordContext
      value={{
        ...record,
        id: `${position.id}.looks`,
        shape: "looks",
        values: looks,
        prefix: "looks.",
        save: within("looks", record.save),
      }}
    >
      <SavedChoice field="how" label="Looked at" />
      {looks.how !== "seen" && <Lengths how={looks.how} />}
      <SavedChoice field="optics" label="The LED" />
      <SavedChoice field="glass" label="Glass, lens or tint before it" />
      {looks.glass === "own" && (
        <SavedText
          field="own_glass"
          label="What it lets through"
          hint="Of blue, green and red light: 2, 5, 80 %. Or a table, nm and per cent on each line"
          lines
        />
      )}
      <SavedChoice field="room" label="Seen in" />
      <SavedChoice field="share" label="Of its group's light" />
      {looks.trim !== 1 && (
        <Button onPress={() => inPassing(within("looks", record.save)({ trim: 1 }))}>
          Forget the match by eye
        </Button>
      )}
      {report?.glow.lines.map((line) => (
        <p key={line}>{line}</p>
      ))}
      {report?.trials && (
        <TrialsOfRecord record={record} trials={report.trials} position={position} onTry={onTry} />
      )}
      {report && report.glow.suits.length > 0 && <Suits suits={report.glow.suits} onTry={onTry} />}
      <div>
        <Button onPress={() => setSweeping(true)}>Pulses from a streak</Button>
      </div>
      {sweeping && (
        <StreakSheet
          position={position.id}
          equipment={position.equipment}
          onClose={() => setSweeping(false)}
        />
      )}
      {report && <HeatPart heat={report.heat} />}
    </RecordContext>
  );
}

interface TrialsProps extends Pick<Props, "onTry" | "position"> {
  record: RecordScope;
  trials: NonNullable<Report["trials"]>;
}

/** Trials are of the lamp itself, not of its looks. */
function TrialsOfRecord({ record, trials, position, onTry }: TrialsProps) {
  return (
    <RecordContext value={record}>
      <TrialsPart trials={trials} position={position} onTry={onTry} />
    </RecordContext>
  );
}

interface LengthsProps {
  how: Position["looks"]["how"];
}

/** What is lit, and from how far. */
function Lengths({ how }: LengthsProps) {
  const behind = how === "window";
  return (
    <>
      {behind && <SavedChoice field="shape" label="Window" />}
      <SavedText field="width" label="Width" hint="20mm" />
      <SavedText field="height" label="Height" hint="10mm" />
      <SavedText
        field="depth"
        label="From the LED"
        hint={behind ? "To the window: 15mm" : "To what it lights: 40mm"}
      />
      <SavedText
        field="spacing"
        label="From LED to LED"
        hint="Where several stand side by side: 8mm"
      />
      {behind && <SavedChoice field="white_box" label="Walls behind it" />}
    </>
  );
}

interface SuitsProps {
  /** LED colours behind the glass, the one that loses least first. */
  suits: Report["glow"]["suits"];
  /** Preview changes without saving them. */
  onTry: Try;
}

/** Which LED suits the glass. */
function Suits({ suits, onTry }: SuitsProps) {
  return (
    <>
      <h3>LEDs behind this glass</h3>
      <List>
        {suits.map((s) => (
          <Row key={s.led_id}>
            <Swatch style={{ background: s.colour }} />
            <span>
              {s.label}
              {s.as_before && ", as the old lamp looked"}
            </span>
            <Share>{s.share}</Share>
            <Button
              aria-label={`Preview: ${s.label}`}
              onPress={() => onTry(`${s.label} LED`, { led_id: s.led_id })}
            >
              Preview
            </Button>
          </Row>
        ))}
      </List>
    </>
  );
}
