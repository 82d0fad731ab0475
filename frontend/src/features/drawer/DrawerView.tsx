import { useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useDrawer } from "../../api/queries";
import { useDraft } from "../../saving/useDraft";
import { inPassing, useSave } from "../../saving/useSave";
import { Choice } from "../../ui/Choice";
import { MainButton } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { useOpened } from "../../ui/panelPlace";
import { Shell } from "../../shell/Shell";
import { Compartments } from "./Compartments";
import { DrawerHead } from "./DrawerHead";
import { LedList } from "./LedList";
import { OpenCompartment } from "./OpenCompartment";
import { OtherParts } from "./OtherParts";
import { PartFiles } from "./PartFiles";

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 28px;
  align-items: start;
  margin: 8px 0 12px;
`;

const Add = styled.form`
  display: grid;
  grid-template-columns: minmax(0, 300px) auto;
  gap: 10px;
  align-items: start;
  & > button {
    margin-top: 22px;
    justify-self: start;
  }
`;

const Cabinet = styled.div`
  display: grid;
  gap: 20px;
  &[data-open="true"] {
    grid-template-columns: minmax(0, 1fr) 400px;
  }
  @media (max-width: 1100px) {
    &[data-open="true"] {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

const SERIES = (["E6", "E12", "E24"] as const).map((id) => ({ id, label: id }));
type Series = (typeof SERIES)[number]["id"];

/** What lies in the drawer: the resistors as they lie, and every other part by kind. */
export default function DrawerView() {
  const [series, setSeries] = useState<Series>("E12");
  const drawer = useDrawer(series);
  const [open, setOpen] = useOpened();
  const parts = drawer.data?.parts ?? [];
  const picture = drawer.data?.picture;
  const every: Schemas["Compartment"][] = picture
    ? [...picture.decades.flatMap((d) => d.compartments), ...picture.others]
    : [];
  const opened = every.find((c) => c.text === open);

  return (
    <Shell title="Drawer" steps={drawer.data?.steps}>
      <DrawerHead title="Drawer" />
      <section aria-label="Resistors">
        <h2>Resistors: {picture?.line}</h2>
        <Head>
          <Choice
            label="Columns"
            value={series}
            options={SERIES}
            onChange={(id) => setSeries(id as Series)}
          />
          <AddValues />
        </Head>
        <Cabinet data-open={opened !== undefined}>
          {picture && (
            <Compartments
              picture={picture}
              open={open}
              onOpen={(c) => setOpen(c.text === open ? "" : c.text)}
            />
          )}
          {opened && (
            <OpenCompartment
              key={opened.text}
              compartment={opened}
              parts={parts}
              onClose={() => setOpen("")}
            />
          )}
        </Cabinet>
      </section>
      {drawer.data && <LedList />}
      <OtherParts parts={parts.filter((p) => p.kind !== "resistor")} />
      <PartFiles />
    </Shell>
  );
}

/** Several values at once, as people type them. */
function AddValues() {
  const save = useSave();
  const typed = useDraft("drawer.add", "", "Add values");
  const add = () => {
    const text = typed.take();
    const values = text?.split(/[\s;]+|,\s+/).filter((t) => t !== "") ?? [];
    if (text === undefined || values.length === 0) return;
    const field = { draft: typed.key, text, names: ["add"], label: "Add values" };
    inPassing(save("PATCH", "/api/drawer", { add: values }, { field }));
  };
  return (
    <Add
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <Field
        label="Add values"
        value={typed.value}
        onChange={typed.type}
        hint="470R 1k 4k7, one or several"
        error={typed.refused}
      />
      <MainButton type="submit">Add</MainButton>
    </Add>
  );
}
