import styled from "styled-components";

import type { Refused } from "../../../api/client";
import { useCatalogue } from "../../../api/queries";
import { Field } from "../../../ui/Field";
import { Picker } from "../../../ui/Picker";
import type { QuickTexts } from "./useQuickTexts";

const Inputs = styled.div`
  display: grid;
  grid-template-columns: 150px minmax(210px, 1fr) 110px 84px 84px 88px 180px 104px;
  gap: 8px 12px;
  align-items: start;
  @media (max-width: 1100px) {
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }
  @media (max-width: 760px) {
    grid-template-columns: repeat(6, minmax(0, 1fr));
    & > * {
      grid-column: span 3;
    }
  }
`;

const Wide = styled.div`
  @media (max-width: 760px) {
    grid-column: 1 / -1 !important;
  }
`;

interface Props {
  /** What is typed, field by field. */
  texts: QuickTexts;
  /** Why the server refused what is typed, field by field. */
  refused: Refused | undefined;
}

/** What a quick sum is made from. */
export function QuickInputs({ texts, refused }: Props) {
  const catalogue = useCatalogue().data;
  const { rail, led, vf, count, strings, drive, series, rounding } = texts;
  const choices = (field: string) => catalogue?.choices[`position.${field}`] ?? [];
  return (
    <Inputs>
      <Field
        label="Rail"
        value={rail.value}
        onChange={rail.type}
        placeholder="24V"
        hint="24V, 12.0-14.4V, 9Vac"
        error={refused?.of("usual", "rail", "low", "high")}
      />
      <Wide>
        <Picker
          label="LED"
          value={led.value}
          onChange={led.type}
          items={catalogue?.leds ?? []}
          hint="Type a colour or size"
        />
      </Wide>
      <Field
        label="Own Vf"
        value={vf.value}
        onChange={vf.type}
        placeholder="2.1V"
        hint="if you know it"
        error={refused?.of("vf", "led_id")}
      />
      <Field
        label="In series"
        value={count.value}
        onChange={count.type}
        hint="LEDs"
        error={refused?.of("in_series", "position.in_series")}
      />
      <Field
        label="Strings"
        value={strings.value}
        onChange={strings.type}
        hint="side by side"
        error={refused?.of("branches", "position.branches")}
      />
      <Field
        label="Drive"
        value={drive.value}
        onChange={drive.type}
        hint="5mA, .02A"
        error={refused?.of("target")}
      />
      <Picker
        label="Round"
        value={rounding.value}
        onChange={rounding.type}
        items={choices("rounding")}
      />
      <Picker
        label="Series"
        value={series.value}
        onChange={series.type}
        items={choices("series")}
      />
    </Inputs>
  );
}
