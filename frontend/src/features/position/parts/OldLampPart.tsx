import { useCatalogue } from "../../../api/queries";
import { More } from "../../../ui/record/More";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedPart } from "../../../ui/record/SavedPart";
import { SavedCount, SavedText } from "../../../ui/record/SavedText";
import type { Report } from "../../../api/client";
import { DutyPart } from "./DutyPart";
import type { Position } from "./part";

const OWN = "own";
/** Figures to begin with, where none were typed before. */
const BEGIN = { lamp_volts: "12V", lamp_amps: "0.1A" };

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** None where the position cannot be worked out. */
  report: Report | undefined;
}

/** The old lamp: a generic kind, or its own figures as marked. */
export function OldLampPart({ position, report }: Props) {
  const catalogue = useCatalogue().data;
  return (
    <>
      <SavedPart
        field="lamp_id"
        label="Old lamp"
        parts={catalogue && [{ id: OWN, label: "Type its figures" }, ...catalogue.lamps]}
        none="Not known"
        also={(id) => (id === OWN && !position.lamp_volts ? BEGIN : {})}
      />
      {position.lamp_id === OWN && (
        <>
          <SavedText field="lamp_volts" label="Volts" hint="As marked: 6.3V, or 12V 10W" />
          <SavedText field="lamp_amps" label="Amps" hint="As marked: 0.15A or 10W" />
          <SavedText
            field="lamp_candela"
            label="Candela"
            hint="Mean spherical; empty guesses 6 lm/W"
          />
          <SavedText field="lamp_base" label="Base" hint="Bayonet, screw, wedge, festoon" />
        </>
      )}
      {position.lamp_id && (
        <>
          <SavedCount
            field="lamp_count"
            label="How many of them"
            hint="Side by side, all replaced by this"
          />
          <SavedChoice field="lamp_kept" label="Its glass" />
          <More label="Its size" fields={["bulb_across", "bulb_long", "filament_below"]}>
            <SavedText
              field="bulb_across"
              label="Across, at its thickest"
              hint="10.3mm; empty takes the usual"
            />
            <SavedText field="bulb_long" label="Long, with its base" hint="30mm" />
            <SavedText
              field="filament_below"
              label="Filament under the tip"
              hint="11mm, held beside a rule"
            />
          </More>
        </>
      )}
      <DutyPart position={position} report={report} />
      <p>{catalogue?.lamp_source}.</p>
    </>
  );
}
