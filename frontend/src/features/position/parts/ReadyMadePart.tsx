import { useCatalogue } from "../../../api/queries";
import { Picker } from "../../../ui/Picker";
import { More } from "../../../ui/record/More";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedCount, SavedText } from "../../../ui/record/SavedText";
import { RecordContext, useRecord, within } from "../../../ui/record/record";
import type { Position, Take } from "./part";

const NONE = "none";
const AS_IT_IS = "own";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** Take changes over into the position. */
  take: Take;
}

/** A ready-made LED lamp in place of LEDs and resistor: its band, its current law, its habits. */
export function ReadyMadePart({ position, take }: Props) {
  const catalogue = useCatalogue().data;
  const record = useRecord();
  const lamp = position.module;
  const pick = (id: string) => {
    if (id !== NONE && id !== AS_IT_IS) take({ module_id: id }, "Ready-made LED lamp");
  };
  return (
    <RecordContext
      value={{
        ...record,
        id: `${position.id}.module`,
        shape: "module",
        values: lamp,
        prefix: "module.",
        save: within("module", record.save),
      }}
    >
      {catalogue && (
        <Picker
          label="Ready-made LED lamp"
          value={lamp.amps ? AS_IT_IS : NONE}
          items={[
            lamp.amps
              ? { id: AS_IT_IS, label: "As below" }
              : { id: NONE, label: "Pick the nearest, then type over it" },
            ...catalogue.modules,
          ]}
          onChange={pick}
        />
      )}
      {lamp.amps && (
        <>
          <RecordContext value={record}>
            <SavedText field="band" label="Its volts" hint="As marked: 12V, or 10-15V" />
          </RecordContext>
          <SavedText field="amps" label="It draws" hint="45mA" />
          <SavedText field="at" label="at" hint="12V; empty takes the middle of its band" />
          <More
            label="Second reading, inside, once warm"
            fields={["second_amps", "second_volts", "dice", "throttle", "after", "candela"]}
          >
            <SavedText field="second_amps" label="A second reading: it draws" hint="62mA" />
            <SavedText field="second_volts" label="at, the second" hint="14V" />
            <SavedCount
              field="dice"
              label="LEDs in series inside"
              hint="Where you can count them"
              none
            />
            <p>
              What is inside is estimated from its volts and amps. Two readings, or a count of its
              LEDs, narrow it.
            </p>
            <SavedChoice field="law" label="Current law" />
            <SavedChoice field="polarised" label="Polarised" />
            <SavedText
              field="throttle"
              label="Turns down to"
              hint="Once warm: 70 %. Empty: it does not"
            />
            <SavedText field="after" label="after" hint="40s" />
            <SavedText field="candela" label="Its light" hint="On axis: 3cd" />
          </More>
        </>
      )}
    </RecordContext>
  );
}
