import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { SweepTrace } from "../../../instruments/SweepTrace";
import { Button } from "../../../ui/Button";
import { Field } from "../../../ui/Field";
import { useField } from "../../../ui/record/record";
import { SavedText } from "../../../ui/record/SavedText";
import { Unsaved } from "../../../ui/record/Unsaved";
import { useAutosavedField } from "../../../ui/record/useAutosavedField";
import type { Position } from "./part";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
  /** The curve fitted through the sweep, if there is one. */
  fit: Schemas["SweepReport"] | null;
  /** It is of a whole assembly: what stands in it is asked at once. */
  whole?: boolean;
}

/** A sweep of volts and amps: typed, pasted or from a CSV file; its fitted curve is used from then on. */
export function SweepPart({ position, fit, whole = false }: Props) {
  const { id, names, save } = useField("sweep");
  const [typing, setTyping] = useState(false);
  const field = useAutosavedField({
    id,
    label: "Sweep",
    names,
    kept: position.sweep ?? "",
    save: (text, was, at) => save(text, was, at),
  });
  const put = (text: string) => {
    field.type(text);
    field.commit();
  };
  return (
    <>
      <Field
        label="Sweep: volts and amps, one reading a line"
        value={field.value}
        onChange={field.type}
        onCommit={field.commit}
        onTyping={setTyping}
        error={field.draft?.refused}
        placeholder={"2.61V 1.0mA\n2.74V 3.1mA\n2.88V 8.0mA"}
        lines
      />
      <Unsaved field={field} typing={typing} bare />
      <Row>
        <FileTrigger
          acceptedFileTypes={["text/csv", "text/plain", ".csv", ".txt"]}
          onSelect={(files) => {
            const file = files?.[0];
            if (file) void file.text().then(put);
          }}
        >
          <Button>Read a CSV file</Button>
        </FileTrigger>
        {position.sweep && <Button onPress={() => put("")}>Forget the sweep</Button>}
      </Row>
      {(whole || position.sweep) && (
        <>
          <SavedText field="sweep_in_series" label="LEDs in series inside" hint="Empty takes one" />
          <SavedText
            field="sweep_strings"
            label="Strings side by side inside"
            hint="Empty takes one"
          />
          <SavedText
            field="sweep_resistor"
            label="Resistor in each string"
            hint="Empty leaves it to the fit"
          />
        </>
      )}
      {fit && <SweepTrace fit={fit} />}
    </>
  );
}
