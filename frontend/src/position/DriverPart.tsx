import type { Report, Schemas } from "../api/client";
import { useCatalogue } from "../api/queries";
import { Choice } from "../controls/Choice";
import { DetailField } from "../controls/DetailField";
import { Picker } from "../controls/Picker";
import { QuantityField } from "../controls/QuantityField";
import type { Patch, Position } from "./PartSheet";

const COMMON = [
  ["none", "None"],
  ["positive", "Positive"],
  ["negative", "Negative"],
  ["chassis", "Chassis"],
] as const;

interface Props {
  position: Position;
  rail: Schemas["RailOut"];
  patch: Patch;
  report: Report | undefined;
}

/** What drives the lamp: its kind, what it keeps, what leaks past it, watches it or shares its feed. */
export function DriverPart({ position, rail, patch, report }: Props) {
  const catalogue = useCatalogue();
  const kind = catalogue.data?.drivers.find((d) => d.id === position.driver_kind);
  const read = rail.kind === "sense" || rail.kind === "logic";
  return (
    <>
      {catalogue.data && (
        <Picker
          key={position.driver_kind}
          label="What drives it"
          value={position.driver_kind}
          items={catalogue.data.drivers.map((d) => ({ id: d.id, label: d.label }))}
          onChange={(id) =>
            id !== position.driver_kind &&
            void patch({ driver_kind: id as Position["driver_kind"] })
          }
        />
      )}
      <p>{kind?.expect}</p>
      {read && (
        <p>
          {rail.kind === "sense"
            ? "The equipment reads this line. Its trip current, or two trials that bracket it, are kept with the rail."
            : "A pin drives it. What it may give is kept with the rail."}
        </p>
      )}
      <QuantityField
        key={`${position.driver_kind}.drop`}
        id={`${position.id}.driver_drop`}
        label="Driver's drop"
        unit="V"
        value={position.driver_drop}
        fields={["driver_drop"]}
        hint={`While on: ${kind?.keeps ?? "0.2V"}`}
        onSave={(driver_drop) => patch({ driver_drop })}
      />
      {kind?.details.map((d) => (
        <DetailField
          key={`${position.driver_kind}.${d.id}`}
          id={`${position.id}.${d.id}`}
          detail={d}
          kept={position.driver_details[d.id]}
          onSave={(value) =>
            patch({
              driver_details: {
                [d.id]: {
                  text: value.text ?? "",
                  source: value.source ?? "assumed",
                  note: value.note ?? "",
                },
              },
            })
          }
          long={d.id === "loads"}
        />
      ))}
      <Choice
        label="Wire it shares with other lamps"
        value={position.common}
        options={COMMON}
        onChange={(common) => void patch({ common })}
      />
      {report?.moments
        .filter((m) => m.line)
        .map((m) => (
          <p key={m.id}>{m.line}</p>
        ))}
    </>
  );
}
