import { useDeferredValue, useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useDrawer, useMarkRead, useMarkWritten, type MarkKind } from "../../api/queries";
import { Bands } from "../../instruments/Bands";
import { CapacitorDrawn, ChipDrawn } from "../../instruments/PartDrawn";
import { CapacitorWayRound, ChipWayRound, LedWayRound } from "../../instruments/WayRound";
import { inPassing, useSave } from "../../saving/useSave";
import { Choice } from "../../ui/Choice";
import { SmallButton } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Shell } from "../../shell/Shell";
import { ColourKeys } from "./ColourKeys";
import { DrawerHead } from "./DrawerHead";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 16px 48px;
  margin: 16px 0 22px;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Side = styled.section`
  display: grid;
  gap: 12px;
  align-content: start;
`;

const Value = styled.p`
  font: 650 2.4rem/1.1 var(--mono);
`;

const Perhaps = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: 210px minmax(0, 1fr);
    align-items: center;
    gap: 14px;
    padding: 6px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
  strong {
    font: 650 1.6rem var(--mono);
  }
  @media (max-width: 480px) {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

const WaysRound = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 40px;
  & > svg {
    width: 330px;
    max-width: 100%;
  }
`;

const KINDS: readonly { id: MarkKind; label: string }[] = [
  { id: "bands", label: "Colour bands" },
  { id: "chip", label: "Chip resistor" },
  { id: "capacitor", label: "Capacitor" },
];
const EXAMPLE: Record<MarkKind, string> = {
  bands: "yellow violet red gold; a ? behind a colour that is in doubt",
  chip: "681, 4702, 4R7 or 01C",
  capacitor: "104K, 4n7 or 22",
};
const TOLERANCES = ["0.05", "0.02", "0.01"].map((id) => ({ id, label: `${Number(id) * 100} %` }));

/** What stands on a part, read and written. */
export default function MarksView() {
  const steps = useDrawer().data?.steps;
  const [kind, setKind] = useState<MarkKind>("bands");
  return (
    <Shell title="Marks" steps={steps} up="/drawer">
      <DrawerHead title="Marks" />
      <Choice
        label="What is marked?"
        value={kind}
        options={KINDS}
        onChange={(id) => setKind(id as MarkKind)}
      />
      <Columns>
        <Reading key={`read ${kind}`} kind={kind} />
        <Writing key={`write ${kind}`} kind={kind} />
      </Columns>
      <h2>Which way round</h2>
      <WaysRound>
        <LedWayRound />
        <ChipWayRound />
        <CapacitorWayRound />
      </WaysRound>
    </Shell>
  );
}

function Reading({ kind }: { kind: MarkKind }) {
  const [text, setText] = useState("");
  const [expected, setExpected] = useState("");
  const answer = useMarkRead(kind, useDeferredValue(text), useDeferredValue(expected));
  const read = text.trim() ? (answer.data?.read ?? []) : [];
  const [one, ...others] = read;
  const words = text.split(" ").filter((w) => w !== "");
  // A colour alone is not wrong yet: more will follow.
  const begun = kind === "bands" && words.length < 3;
  return (
    <Side aria-label="Read a mark">
      <h2>From the mark to the value</h2>
      {kind === "bands" && (
        <ColourKeys
          onColour={(c) => setText([...words, c].join(" "))}
          onDoubt={() => words.length > 0 && !text.endsWith("?") && setText(`${text.trim()}?`)}
          onBack={() => setText(words.slice(0, -1).join(" "))}
        />
      )}
      <Field
        label="As it stands on the part"
        value={text}
        onChange={setText}
        hint={EXAMPLE[kind]}
        error={text.trim() && !begun && answer.isError ? answer.error.message : undefined}
      />
      {text.includes("?") && (
        <Field
          label="About what should be there"
          value={expected}
          onChange={setExpected}
          hint="2k2; the likeliest for this place comes first"
        />
      )}
      {one && others.length === 0 && <OneRead kind={kind} read={one} text={text} />}
      {others.length > 0 && (
        <Perhaps aria-label="What it may be">
          {read.map((r) => (
            <li key={r.bands.join(" ")}>
              <Bands marks={{ bands: r.bands, chip: "", code: "" }} />
              <span>
                <strong>{r.text}</strong> {r.said}
              </span>
            </li>
          ))}
        </Perhaps>
      )}
    </Side>
  );
}

interface OneProps {
  kind: MarkKind;
  read: Schemas["MarkRead"];
  text: string;
}

function OneRead({ kind, read, text }: OneProps) {
  const save = useSave();
  const put = () => {
    const body =
      kind === "capacitor"
        ? { kind, capacitance: read.typed.replace("\u00a0", "") }
        : { kind: "resistor", resistance: read.typed.replace("\u00a0", "") };
    const more = { label: `Put in ${read.text}`, done: `Put ${read.text} into the drawer.` };
    inPassing(save("PUT", `/api/parts/${crypto.randomUUID()}`, body, more));
  };
  return (
    <div role="status">
      {kind === "capacitor" && <CapacitorDrawn mark={text.trim()} />}
      {kind === "chip" && <ChipDrawn mark={text.trim()} />}
      <Value>{read.text}</Value>
      <p>{read.said}</p>
      {read.marks && <Bands marks={read.marks} />}
      <SmallButton onPress={put}>Put {read.text} into the drawer</SmallButton>
    </div>
  );
}

function Writing({ kind }: { kind: MarkKind }) {
  const [value, setValue] = useState("");
  const [tolerance, setTolerance] = useState("0.05");
  const answer = useMarkWritten(kind, useDeferredValue(value), Number(tolerance));
  const written = value.trim() && !answer.isError ? answer.data : undefined;
  const marks = written?.marks;
  return (
    <Side aria-label="Write a mark">
      <h2>From the value to the mark</h2>
      <Field
        label="Value"
        value={value}
        onChange={setValue}
        hint={kind === "capacitor" ? "100nF" : "4k7"}
        error={value.trim() && answer.isError ? answer.error.message : undefined}
      />
      {kind !== "capacitor" && (
        <Choice label="Tolerance" value={tolerance} options={TOLERANCES} onChange={setTolerance} />
      )}
      {marks && kind === "bands" && <Bands marks={marks} />}
      {marks && kind === "chip" && (
        <>
          {marks.chip && <ChipDrawn mark={marks.chip} />}
          {marks.code && <ChipDrawn mark={marks.code} />}
        </>
      )}
      {written && kind === "capacitor" && (
        <>
          {written.code && <CapacitorDrawn mark={written.code} />}
          <CapacitorDrawn mark={written.lettered} />
        </>
      )}
    </Side>
  );
}
