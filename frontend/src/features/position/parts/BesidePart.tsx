import { useState } from "react";
import styled from "styled-components";

import { useCatalogue } from "../../../api/queries";
import { inPassing } from "../../../saving/useSave";
import { Button, SmallButton } from "../../../ui/Button";
import { useListFocus } from "../../../ui/useListFocus";
import { SavedCount, SavedText } from "../../../ui/record/SavedText";
import { SavedPart } from "../../../ui/record/SavedPart";
import { RecordContext, useRecord, within, type SaveFields } from "../../../ui/record/record";
import type { Position } from "./part";

const String = styled.li`
  display: grid;
  gap: 8px;
  padding: 8px 0 12px;
  border-bottom: 1px solid var(--rule-soft);
`;

const Strings = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
`;

type Beside = NonNullable<Position["beside"]>;

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
}

/** Strings of other LEDs in the same place, each with a resistor of its own. */
export function BesidePart({ position }: Props) {
  const { save } = useRecord();
  const saveIn = within("beside", save);
  // A string shows, or goes, at the press of its button, however slow the line to the server is.
  const [made, setMade] = useState<Beside>({});
  const [struck, setStruck] = useState<readonly string[]>([]);
  const strings = Object.entries({ ...made, ...position.beside })
    .filter(([key]) => !struck.includes(key))
    .sort(([, a], [, b]) => (a.place ?? 0) - (b.place ?? 0));
  const { list, made: willBe, gone } = useListFocus<HTMLOListElement>(strings.length);
  const add = () => {
    willBe();
    const key = crypto.randomUUID();
    const place = Math.max(-1, ...strings.map(([, s]) => s.place ?? 0)) + 1;
    setMade((old) => ({ ...old, [key]: { place } as Beside[string] }));
    inPassing(saveIn({ [key]: { place } }));
  };
  const strike = (key: string) => {
    gone(strings.findIndex(([k]) => k === key));
    setStruck((old) => [...old, key]);
    setMade((old) => Object.fromEntries(Object.entries(old).filter(([k]) => k !== key)));
    const again = () => setStruck((old) => old.filter((k) => k !== key));
    void saveIn({ [key]: null }).then(again, again);
  };
  return (
    <section aria-label="Other LEDs in this place">
      <h3>Other LEDs in this place</h3>
      <Strings ref={list}>
        {strings.map(([key, string], at) => (
          <OneString
            key={key}
            id={`${position.id}.beside.${key}`}
            name={key}
            at={at}
            string={string}
            save={(fields, was, field) => saveIn({ [key]: fields }, was && { [key]: was }, field)}
            onStrike={() => strike(key)}
          />
        ))}
      </Strings>
      <Button data-add="" onPress={add}>
        Add a string of other LEDs
      </Button>
    </section>
  );
}

interface OneStringProps {
  /** Names the drafts. */
  id: string;
  /** Its key in the record. */
  name: string;
  /** Its place among the strings. */
  at: number;
  string: Beside[string];
  save: SaveFields;
  /** Delete it. */
  onStrike: () => void;
}

function OneString({ id, name, at, string, save, onStrike }: OneStringProps) {
  const catalogue = useCatalogue().data;
  return (
    <String>
      <RecordContext
        value={{ id, shape: "beside", values: string, prefix: `beside.${name}.`, save }}
      >
        <SavedPart field="led_id" label={`LED of string ${at + 2}`} parts={catalogue?.leds} />
        <SavedText field="name" label="Called" hint="Head lamp, number board" />
        <SavedCount field="in_series" label="In series in it" />
        <SavedCount field="count" label="Equal strings of it" hint="Each with its own resistor" />
        <SavedText
          field="drive"
          label="Drive wanted in it"
          hint="3mA; empty takes a quarter of rated"
        />
        <SavedText field="resistor" label="Its own resistor" hint="Empty follows the sum; 2k2" />
      </RecordContext>
      <div>
        <SmallButton onPress={onStrike} aria-label={`Delete string ${at + 2}`}>
          Delete
        </SmallButton>
      </div>
    </String>
  );
}
