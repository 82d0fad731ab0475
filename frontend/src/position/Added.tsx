import { useCatalogue } from "../api/queries";
import { Choice } from "../controls/Choice";
import { Picker } from "../controls/Picker";
import { QuantityField } from "../controls/QuantityField";
import { SavedText } from "../controls/SavedText";
import type { Patch, Position } from "./PartSheet";

interface Props {
  position: Position;
  patch: Patch;
}

/** What stands beside the resistor: a shunt or load, diodes, a regulator. */
export function Added({ position, patch }: Props) {
  const catalogue = useCatalogue();
  const regulator = catalogue.data?.regulators.find((r) => r.id === position.regulator_id);
  return (
    <>
      <QuantityField
        id={`${position.id}.shunt`}
        label="Shunt or load resistor"
        unit="Ω"
        value={{ text: position.shunt, source: "marked", note: "" }}
        fields={["shunt"]}
        hint="A trickle runs past the LED through it; empty for none"
        onSave={(value) => patch({ shunt: value.text ?? "" })}
        plain
      />
      {position.shunt && (
        <Choice
          label="It stands across"
          value={position.shunt_across}
          options={
            [
              ["assembly", "LED and resistor"],
              ["leds", "The LED alone"],
            ] as const
          }
          onChange={(shunt_across) => void patch({ shunt_across })}
        />
      )}
      <SavedText
        id={`${position.id}.series_diodes`}
        label="Diodes in series with the LED"
        saved={String(position.series_diodes)}
        field="series_diodes"
        hint="0 to 4; each raises the knee by some 0.6 V"
        onSave={(text) => patch({ series_diodes: Number(text) })}
      />
      {catalogue.data && (
        <Picker
          key={position.regulator_id}
          label="Regulator before it"
          value={position.regulator_id || "none"}
          items={[{ id: "none", label: "None" }, ...catalogue.data.regulators]}
          onChange={(id) => void patch({ regulator_id: id === "none" ? "" : id })}
        />
      )}
      {regulator && <p>{regulator.pins}. Pin order differs: see the data sheet.</p>}
    </>
  );
}
