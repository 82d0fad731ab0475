import type { Changes } from "../api/client";
import { useCatalogue } from "../api/queries";
import { Choice } from "../controls/Choice";
import { Picker } from "../controls/Picker";
import { SavedText } from "../controls/SavedText";
import type { Patch, Position } from "./PartSheet";

const LAWS = [
  ["resistor", "Resistor inside"],
  ["current", "Constant current"],
  ["power", "Constant power"],
] as const;

interface Props {
  position: Position;
  patch: Patch;
  take: (changes: Changes) => Promise<unknown>;
}

/** A ready-made LED lamp in place of LEDs and resistor: its band, its current law, its habits. */
export function ReadyMade({ position, patch, take }: Props) {
  const catalogue = useCatalogue();
  const lamp = position.module;
  const set = (fields: Partial<Position["module"]>) => patch({ module: { ...lamp, ...fields } });
  const text = (
    field: "amps" | "throttle" | "after" | "candela",
    name: string,
    label: string,
    hint: string,
  ) => (
    <SavedText
      id={`${position.id}.${name}`}
      label={label}
      saved={lamp[field] ?? ""}
      field={name}
      hint={hint}
      onSave={(value) => set({ [field]: value })}
    />
  );
  return (
    <>
      {catalogue.data && (
        <Picker
          key={lamp.amps ?? ""}
          label="Ready-made LED lamp"
          value={lamp.amps ? "own" : "none"}
          items={[
            { id: "none", label: "None: LEDs of its own" },
            ...(lamp.amps ? [{ id: "own", label: "As below" }] : []),
            ...catalogue.data.modules.map((m) => ({ id: m.id, label: m.label, detail: m.base })),
          ]}
          onChange={(id) => {
            if (id === "none" && lamp.amps)
              void patch({ module: {} as Position["module"], band: "" });
            if (id !== "none" && id !== "own") void take({ module_id: id });
          }}
        />
      )}
      {lamp.amps && (
        <>
          {text("amps", "module_amps", "It draws", "In the middle of its band: 45mA")}
          <Choice
            label="Current law"
            value={lamp.law ?? "resistor"}
            options={LAWS}
            onChange={(law) => void set({ law })}
          />
          <Choice
            label="Polarised"
            value={lamp.polarised ?? "yes"}
            options={
              [
                ["yes", "Lights one way round"],
                ["no", "Either way"],
              ] as const
            }
            onChange={(polarised) => void set({ polarised })}
          />
          {text(
            "throttle",
            "module_throttle",
            "Turns down to",
            "Once warm: 70 %. Empty: it does not",
          )}
          {text("after", "module_after", "after", "40s")}
          {text("candela", "module_candela", "Its light", "On axis: 3cd")}
        </>
      )}
    </>
  );
}
