import { useState } from "react";
import styled from "styled-components";

import type { Changes, Report, Schemas } from "../api/client";
import { useCatalogue, useSave, useSpice } from "../api/queries";
import { Button } from "../controls/Button";
import { Choice } from "../controls/Choice";
import { Picker } from "../controls/Picker";
import { QuantityField } from "../controls/QuantityField";
import { SavedText } from "../controls/SavedText";
import { Sheet } from "../controls/Sheet";
import { Notes } from "../equipment/Notes";
import { RailEditor } from "../equipment/RailEditor";
import { Added } from "./Added";
import { DriverPart } from "./DriverPart";
import { ReadyMade } from "./ReadyMade";
import { SwapsPart } from "./SwapsPart";
import { SweepPart } from "./SweepPart";
import { Treatment } from "./Treatment";

export type Part = "rail" | "driver" | "resistor" | "led" | "lamp" | "job" | "treatment" | "swaps";

export type Position = Schemas["PositionOut"];
export type Patch = (fields: Schemas["PositionPatch"]) => Promise<unknown>;

const TITLES: Record<Part, string> = {
  rail: "Supply rail",
  driver: "Driver",
  resistor: "Series resistor",
  led: "LED",
  lamp: "Original lamp",
  job: "Job",
  treatment: "Treatment",
  swaps: "Swaps side by side",
};

interface Props {
  part: Part | undefined;
  onClose: () => void;
  position: Position;
  rail: Schemas["RailOut"];
  /** None where the position cannot be worked out. */
  report?: Report;
  fit: Schemas["SweepReport"] | null;
  onTry: (label: string, changes: Changes) => void;
}

/** The sheet that edits one part of the position. */
export function PartSheet({ part, onClose, position, rail, report, fit, onTry }: Props) {
  const save = useSave();
  const patch: Patch = (fields) => save("PATCH", `/api/positions/${position.id}`, fields);
  const take = (changes: Changes) =>
    save("POST", `/api/positions/${position.id}/take`, { changes });
  return (
    <Sheet
      title={part ? TITLES[part] : ""}
      open={part !== undefined}
      onClose={onClose}
      wide={part === "swaps"}
    >
      {part === "rail" && <RailEditor rail={rail} />}
      {part === "driver" && (
        <DriverPart position={position} rail={rail} patch={patch} report={report} />
      )}
      {part === "swaps" && (
        <SwapsPart
          position={position}
          patch={patch}
          onTry={(label, changes) => {
            onTry(label, changes);
            onClose();
          }}
        />
      )}
      {part === "resistor" && <SeriesResistor position={position} patch={patch} />}
      {part === "led" && (
        <LedPart position={position} patch={patch} fit={fit} rail={rail} take={take} />
      )}
      {part === "treatment" && report?.cycle && (
        <Treatment position={position} patch={patch} cycle={report.cycle} />
      )}
      {part === "lamp" && <OldLamp position={position} patch={patch} />}
      {part === "job" && <Job position={position} patch={patch} />}
    </Sheet>
  );
}

interface PartProps {
  position: Position;
  patch: Patch;
}

const RATINGS = [
  ["", "To fit"],
  ["0.125", "⅛ W"],
  ["0.25", "¼ W"],
  ["0.5", "½ W"],
  ["1", "1 W"],
  ["2", "2 W"],
] as const;

function SeriesResistor({ position, patch }: PartProps) {
  return (
    <>
      <QuantityField
        id={`${position.id}.target`}
        label="Drive wanted"
        unit="A"
        value={position.target}
        fields={["target"]}
        onSave={(target) => patch({ target })}
        plain
      />
      <QuantityField
        id={`${position.id}.resistor`}
        label={position.resistor_parts === 2 ? "Each resistor" : "Resistor"}
        unit="Ω"
        value={{ text: position.resistor, source: "marked", note: "" }}
        fields={["resistor"]}
        hint="Empty follows the sum; 4k7, 470R to fit your own"
        onSave={(value) => patch({ resistor: value.text ?? "" })}
        plain
      />
      <Choice
        label="Series"
        value={position.series}
        options={
          [
            ["E6", "E6"],
            ["E12", "E12"],
            ["E24", "E24"],
            ["E48", "E48"],
            ["E96", "E96"],
          ] as const
        }
        onChange={(series) => void patch({ series })}
      />
      <Choice
        label="Rounding"
        value={position.rounding === "nearest" ? "nearest" : "up"}
        options={
          [
            ["up", "Next up, ours"],
            ["nearest", "Nearest"],
          ] as const
        }
        onChange={(rounding) => void patch({ rounding })}
      />
      <Choice
        label="Which lead"
        value={position.resistor_parts === 2 ? "both" : position.lead}
        options={
          [
            ["positive", "Positive, ours"],
            ["negative", "Negative"],
            ["both", "Half in each"],
          ] as const
        }
        onChange={(lead) =>
          void patch(
            lead === "both"
              ? { resistor_parts: 2, resistor: "" }
              : {
                  lead,
                  resistor_parts: 1,
                  ...(position.resistor_parts === 2 ? { resistor: "" } : {}),
                },
          )
        }
      />
      <p>
        The current is the same in either lead. One habit a shop: ours is the positive. Half in each
        shares the heat, and keeps some of it where a lead may touch the chassis. Where lamps share
        a wire it goes in the lead that is not common.
      </p>
      <Choice
        label="Power rating of each"
        value={position.rating_w === null ? "" : String(position.rating_w)}
        options={RATINGS as readonly (readonly [string, string])[]}
        onChange={(w) => void patch({ rating_w: w === "" ? null : Number(w) })}
      />
      <Choice
        label="Drive limit"
        value={position.ceiling >= 1 ? "1" : "0.5"}
        options={
          [
            ["0.5", "Half of rated, ours"],
            ["1", "Rated"],
          ] as const
        }
        onChange={(c) => void patch({ ceiling: Number(c) })}
      />
      <Added position={position} patch={patch} />
    </>
  );
}

interface LedProps extends PartProps {
  fit: Schemas["SweepReport"] | null;
  rail: Schemas["RailOut"];
  take: (changes: Changes) => Promise<unknown>;
}

function LedPart({ position, patch, fit, rail, take }: LedProps) {
  const catalogue = useCatalogue();
  return (
    <>
      {catalogue.data && (
        <Picker
          label="LED"
          value={position.led_id}
          items={catalogue.data.leds.map((l) => ({
            id: l.id,
            label: l.label,
            detail: `${l.vf_low}–${l.vf_high} V`,
          }))}
          onChange={(led_id) => led_id !== position.led_id && void patch({ led_id })}
        />
      )}
      <SavedText
        id={`${position.id}.in_series`}
        label="In series"
        saved={String(position.in_series)}
        field="in_series"
        hint="How many, one after another"
        onSave={(text) => patch({ in_series: Number(text) })}
      />
      <SavedText
        id={`${position.id}.branches`}
        label="Side by side"
        saved={String(position.branches)}
        field="branches"
        hint="Equal strings, each with its own resistor"
        onSave={(text) => patch({ branches: Number(text) })}
      />
      <QuantityField
        id={`${position.id}.vf`}
        label="Own forward voltage"
        unit="V"
        value={position.vf}
        fields={["vf"]}
        hint="Empty takes the kind's range; 1.9-2.3V, at rated current"
        onSave={(vf) => patch({ vf })}
      />
      <SavedText
        id={`${position.id}.rated`}
        label="Own rated current"
        saved={position.rated}
        field="rated"
        hint="Empty takes the kind's; 20mA"
        onSave={(rated) => patch({ rated })}
      />
      <SavedText
        id={`${position.id}.band`}
        label="Module's volts"
        saved={position.band}
        field="band"
        hint="For a ready-made module with its resistor inside: 10-15V"
        onSave={(band) => patch({ band })}
      />
      <ReadyMade position={position} patch={patch} take={take} />
      <SweepPart position={position} patch={patch} fit={fit} />
      {rail.kind === "battery" && (
        <Choice
          label="A battery lasts down to"
          value={String(position.glow_floor)}
          options={
            [
              ["0.5", "Half the light"],
              ["0.25", "A quarter"],
              ["0.1", "A tenth"],
            ] as const
          }
          onChange={(share) => void patch({ glow_floor: Number(share) })}
        />
      )}
      <p>Figures of the generic kinds: {catalogue.data?.led_source}.</p>
    </>
  );
}

function OldLamp({ position, patch }: PartProps) {
  const catalogue = useCatalogue();
  return (
    <>
      {catalogue.data && (
        <Picker
          label="Original lamp"
          value={position.lamp_id || "none"}
          items={[
            { id: "none", label: "Not known" },
            { id: "own", label: "Type its figures" },
            ...catalogue.data.lamps.map((l) => ({
              id: l.id,
              label: `${l.label}, ${l.base}`,
              detail: `${l.volts} V ${l.amps} A`,
            })),
          ]}
          onChange={(lamp) => {
            if (lamp === position.lamp_id) return;
            const start = position.lamp_volts ? {} : { lamp_volts: "12V", lamp_amps: "0.1A" };
            void patch({ lamp_id: lamp === "none" ? "" : lamp, ...(lamp === "own" ? start : {}) });
          }}
        />
      )}
      {position.lamp_id === "own" &&
        LAMP_FIELDS.map(([field, label, hint]) => (
          <SavedText
            key={field}
            id={`${position.id}.${field}`}
            label={label}
            saved={position[field]}
            field={field}
            hint={hint}
            onSave={(text) => patch({ [field]: text })}
          />
        ))}
      <p>{catalogue.data?.lamp_source}.</p>
    </>
  );
}

const LAMP_FIELDS = [
  ["lamp_volts", "Volts", "As marked: 6.3V"],
  ["lamp_amps", "Amps", "As marked: 0.15A"],
  ["lamp_candela", "Candela", "Mean spherical; empty guesses 6 lm/W"],
  ["lamp_base", "Base", "Bayonet, screw, wedge, festoon"],
] as const;

function Job({ position, patch }: PartProps) {
  return (
    <>
      <SavedText
        id={`${position.id}.name`}
        label="Lamp"
        saved={position.name}
        field="name"
        onSave={(name) => patch({ name })}
      />
      <Choice
        label="Stage"
        value={position.stage}
        options={
          [
            ["sizing", "Sizing"],
            ["trial", "On trial"],
            ["fitted", "Fitted"],
            ["done", "Done"],
          ] as const
        }
        onChange={(stage) => void patch({ stage })}
      />
      <Choice
        label="Connected with the mains?"
        value={position.mains ? "yes" : "no"}
        options={
          [
            ["no", "No"],
            ["yes", "Yes: no live readings"],
          ] as const
        }
        onChange={(mains) => void patch({ mains: mains === "yes" })}
      />
      <Notes
        id={`${position.id}.notes`}
        saved={position.notes}
        onSave={(notes) => patch({ notes })}
      />
      <SpiceText id={position.id} />
    </>
  );
}

const Deck = styled.pre`
  margin: 0;
  padding: 8px 10px;
  overflow: auto;
  border: 1.5px solid var(--rule);
  border-radius: 4px;
  background: var(--sheet);
  font: 0.8125rem/1.4 var(--mono);
`;

/** The circuit as SPICE text, to check it in a simulator. */
function SpiceText({ id }: { id: string }) {
  const [shown, setShown] = useState(false);
  const spice = useSpice(id, shown);
  return shown ? (
    <Deck tabIndex={0} role="region" aria-label="SPICE text">
      {spice.data?.text ?? ""}
    </Deck>
  ) : (
    <Button onPress={() => setShown(true)}>Show SPICE text</Button>
  );
}
