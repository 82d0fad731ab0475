import { useState } from "react";
import { FileTrigger, Label, TextArea, TextField } from "react-aria-components";
import styled from "styled-components";

import { Refused, type Schemas } from "../api/client";
import { useDraft } from "../api/useDraft";
import { Button } from "../controls/Button";
import { SavedText } from "../controls/SavedText";
import { Trace } from "../instruments/Trace";
import type { Patch, Position } from "./PartSheet";

const Area = styled(TextArea)`
  width: 100%;
  min-height: 110px;
  padding: 8px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: 4px;
  background: var(--sheet);
  font: 1rem/1.4 var(--mono);
  resize: vertical;
`;

const Name = styled(Label)`
  font-size: 0.9rem;
  font-weight: 600;
`;

const Wrong = styled.p`
  color: var(--stop);
  font-weight: 600;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

interface Props {
  position: Position;
  patch: Patch;
  fit: Schemas["SweepReport"] | null;
}

/** A sweep of volts and amps: typed, pasted or from a CSV file; its fitted curve is used from then on. */
export function SweepPart({ position, patch, fit }: Props) {
  const draft = useDraft(`${position.id}.sweep`, position.sweep);
  const [refusal, setRefusal] = useState("");
  const commit = async (text: string) => {
    try {
      await patch({ sweep: text });
      setRefusal("");
      draft.clear();
    } catch (problem) {
      if (problem instanceof Refused) setRefusal(problem.message);
    }
  };
  return (
    <>
      <TextField
        value={draft.value}
        onChange={draft.type}
        onBlur={() => draft.dirty && void commit(draft.value)}
        maxLength={20000}
      >
        <Name>Sweep: volts and amps, one reading a line</Name>
        <Area placeholder={"2.61V 1.0mA\n2.74V 3.1mA\n2.88V 8.0mA"} spellCheck={false} />
      </TextField>
      {refusal && <Wrong role="alert">{refusal}</Wrong>}
      <Row>
        <FileTrigger
          acceptedFileTypes={["text/csv", "text/plain", ".csv", ".txt"]}
          onSelect={(files) => {
            const file = files?.[0];
            if (file) void file.text().then((text) => (draft.type(text), commit(text)));
          }}
        >
          <Button>Read a CSV file</Button>
        </FileTrigger>
        {position.sweep && <Button onPress={() => void commit("")}>Forget the sweep</Button>}
      </Row>
      {position.sweep && (
        <>
          <SavedText
            id={`${position.id}.sweep_in_series`}
            label="LEDs in series inside"
            saved={position.sweep_in_series}
            field="sweep_in_series"
            hint="Empty takes one"
            onSave={(sweep_in_series) => patch({ sweep_in_series })}
          />
          <SavedText
            id={`${position.id}.sweep_resistor`}
            label="Resistor known inside"
            saved={position.sweep_resistor}
            field="sweep_resistor"
            hint="Empty leaves it to the fit"
            onSave={(sweep_resistor) => patch({ sweep_resistor })}
          />
        </>
      )}
      {fit && (
        <>
          <Trace
            label="Readings of the sweep and the curve fitted through them"
            curves={[
              {
                id: "fit",
                points: fit.curve.map((p) => [p.volts, p.amps] as const),
                stroke: "mark",
              },
            ]}
            marks={fit.points.map((p) => [p.volts, p.amps] as const)}
            xUnit="volts across it"
            yUnit="mA"
            yScale={1e3}
          />
          <p>
            {fit.line} Is {fit.i_s.number} {fit.i_s.unit}, n {fit.n.toFixed(2)}, Rs {fit.r_s.number}{" "}
            {fit.r_s.unit}; largest left over {fit.worst.number} {fit.worst.unit}.
          </p>
        </>
      )}
    </>
  );
}
