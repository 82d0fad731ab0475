import styled from "styled-components";

import { useCatalogue } from "../../api/queries";
import { MainButton } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { OneOfSome } from "../../ui/OneOfSome";
import { useReadingTexts } from "./useReadingTexts";

const Form = styled.form`
  display: grid;
  gap: 10px;
  align-content: start;
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
`;

interface Props {
  /** The position's key. */
  id: string;
}

/** Where a reading before the swap is written down. */
export function TakeReading({ id }: Props) {
  const choices = useCatalogue().data?.choices;
  const { text, state, meter, note, chosen, choose, keep } = useReadingTexts(id);
  const amps = chosen.function.endsWith("amps");
  const choice = (field: keyof typeof chosen, label: string) => (
    <OneOfSome
      label={label}
      value={chosen[field]}
      options={choices?.[`reading_before.${field}`] ?? []}
      onChange={(value) => choose({ [field]: value })}
    />
  );
  return (
    <Form
      aria-label="Take a reading"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      {choice("function", "Meter on")}
      {choice("points", "Between")}
      {choice("lamp", "Old lamp")}
      <Field
        label="Reading"
        value={text.value}
        onChange={text.type}
        hint={
          chosen.function === "ohms"
            ? "4.7R, or OL for open"
            : "12.4V, or lowest to highest: 11.8-12.6V"
        }
        error={text.refused}
      />
      <Pair>
        <Field
          label="Switch"
          value={state.value}
          onChange={state.type}
          hint="off, on, brake …"
          words
        />
        <Field
          label={amps ? "Meter adds" : "Meter's input"}
          value={meter.value}
          onChange={meter.type}
          hint={amps ? "Empty takes 5 Ω" : "Empty takes 10 MΩ"}
          error={meter.refused}
        />
      </Pair>
      {chosen.function.startsWith("ac") && choice("true_rms", "The meter reads")}
      <Field label="Note" value={note.value} onChange={note.type} hint="Range, condition" words />
      <MainButton type="submit">Keep the reading</MainButton>
    </Form>
  );
}
