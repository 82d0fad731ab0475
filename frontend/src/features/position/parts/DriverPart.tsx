import type { Report, Schemas } from "../../../api/client";
import { useCatalogue } from "../../../api/queries";
import { DetailField } from "../../../ui/record/DetailField";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedQuantity } from "../../../ui/record/SavedQuantity";
import type { Position } from "./part";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** The rail that feeds the lamp, as it is kept. */
  rail: Schemas["RailAnswer"];
  /** None where the position cannot be worked out. */
  report: Report | undefined;
}

/** What drives the lamp: its kind, what it drops, what leaks past it, watches it or shares its feed. */
export function DriverPart({ position, rail, report }: Props) {
  const catalogue = useCatalogue().data;
  const kind = catalogue?.drivers.find((d) => d.id === position.driver_kind);
  const supply = catalogue?.supplies.find((s) => s.id === rail.kind);
  return (
    <>
      <SavedChoice field="driver_kind" label="What drives it" />
      <p>{kind?.expect}</p>
      {supply?.driver_note && <p>{supply.driver_note}</p>}
      <SavedQuantity
        field="driver_drop"
        label="Driver's drop"
        hint={`While on: ${kind?.usual_drop ?? ""}`}
      />
      {kind?.details.map((d) => (
        <DetailField key={d.id} part="driver_details" detail={d} />
      ))}
      <SavedChoice field="common" label="Wire it shares with other lamps" />
      {report?.snapshots
        .filter((s) => s.line)
        .map((s) => (
          <p key={s.id}>{s.line}</p>
        ))}
    </>
  );
}
