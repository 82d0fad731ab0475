import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useDrawer } from "../../api/queries";
import { Bands } from "../../instruments/Bands";
import { inPassing, useSave } from "../../saving/useSave";
import { SmallButton } from "../../ui/Button";
import { RecordContext } from "../../ui/record/record";
import { SavedChoice } from "../../ui/record/SavedChoice";
import { SavedPart } from "../../ui/record/SavedPart";
import { SavedCount, SavedNumber, SavedText } from "../../ui/record/SavedText";
import { useSaveFields } from "../../ui/record/useSaveFields";

const Figures = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 13rem), 1fr));
  gap: 10px 20px;
  margin: 10px 0;
`;

type Part = Schemas["PartAnswer"];

/** How much of it lies where; a count goes before what is said of it. */
export function StockFields() {
  return (
    <>
      <SavedChoice field="level" label="How full it is, where nobody counts" />
      <SavedCount field="count" label="How many" hint="Empty: nobody counts" none />
      <SavedCount field="least" label="Low from" hint="So many left" />
      <SavedText field="kept_in" label="Where it lies" />
      <SavedCount field="pack" label="In a pack" />
      <SavedText field="price" label="Price of a pack" hint="2.40, in your own money" />
      <SavedCount field="on_order" label="On order" />
      <SavedText field="lot" label="Lot, or what the bag says" />
    </>
  );
}

/** Everything of a part. */
export function PartFields({ part }: { part: Part }) {
  const offered = useDrawer().data?.offered[part.kind];
  const send = useSave();
  const save = useSaveFields(`/api/parts/${part.id}`);
  const remove = () => {
    const more = { label: `Take out ${part.label}`, done: `Took out ${part.label}.` };
    inPassing(send("DELETE", `/api/parts/${part.id}`, undefined, more));
  };
  return (
    <RecordContext value={{ id: part.id, shape: "part", values: part, echo: part.echo, save }}>
      {part.wrong && <p role="alert">{part.wrong}</p>}
      {part.marks && <Bands marks={part.marks} />}
      <Figures>
        {part.kind === "resistor" && (
          <>
            <SavedText field="resistance" label="Value" hint="4k7, or its bands" />
            <SavedNumber field="tolerance" label="Tolerance" hint="0.05 for 5 %" />
            <SavedChoice field="rating_w" label="Rating" />
            <SavedChoice field="series" label="Series" />
          </>
        )}
        {part.kind === "capacitor" && (
          <>
            <SavedText field="capacitance" label="Value" hint="100nF or 47µF" />
            <SavedText field="stands" label="Stands" hint="63V" />
          </>
        )}
        {part.kind !== "resistor" && <SavedText field="name" label="Name" />}
        {offered && (
          <SavedPart field="catalogue_id" label="Of the catalogue" parts={offered} none="None" />
        )}
        <StockFields />
      </Figures>
      <SmallButton aria-label={`Take out ${part.label}`} onPress={remove}>
        Take out
      </SmallButton>
    </RecordContext>
  );
}
