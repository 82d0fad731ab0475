import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { Button, MainButton } from "../../ui/Button";
import { Problems, useBringIn } from "../../ui/bringIn";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";

const Out = styled.a`
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  text-underline-offset: 0.2em;
`;

const PrintOut = styled(Link)`
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  text-underline-offset: 0.2em;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
`;

/** What a reader of codes shows, pasted: a card's code carries its lamp. */
function PastedCode({ onRead }: { onRead: (text: string) => void }) {
  const [text, setText] = useState("");
  return (
    <>
      <Field label="Or paste what a card's code says" value={text} onChange={setText} long words />
      {text.trim() && <Button onPress={() => onRead(text)}>Look at it</Button>}
    </>
  );
}

/** Bring in an item from its document: first what would happen, then the act. */
export function BringIn() {
  const [open, setOpen] = useState(false);
  const go = useNavigate();
  const { intent, wrong, look, bring } = useBringIn("/api/import");
  const act = async (asCopy: boolean) => {
    const made = await bring<Schemas["ItemAnswer"]>({ as_copy: String(asCopy) });
    if (made) {
      setOpen(false);
      await go(`/equipment/${made.id}`);
    }
  };
  return (
    <>
      <Button onPress={() => setOpen(true)}>Bring in a file</Button>
      <Sheet title="Bring in equipment" open={open} onClose={() => setOpen(false)}>
        <p>
          A file saved from an item&apos;s page holds its rails, lamps, readings and photographs. It
          comes in whole or not at all.
        </p>
        <FileTrigger
          acceptedFileTypes={["application/json", ".json"]}
          onSelect={(files) => files?.[0] && void look(files[0])}
        >
          <Button>Choose a file</Button>
        </FileTrigger>
        <PastedCode onRead={(text) => void look(new File([text], "code.txt"))} />
        <Problems wrong={wrong} />
        {intent && (
          <>
            <h3>{intent.name}</h3>
            {intent.lines.map((l) => (
              <p key={l}>{l}</p>
            ))}
            {!intent.copy_only && (
              <MainButton onPress={() => void act(false)}>
                {intent.replaces ? `Replace ${intent.replaces}` : "Bring it in"}
              </MainButton>
            )}
            {(intent.replaces || intent.copy_only) && (
              <Button onPress={() => void act(true)}>Bring it in as a copy</Button>
            )}
          </>
        )}
      </Sheet>
    </>
  );
}

interface TakeOutProps {
  /** The equipment's key. */
  id: string;
  /** Its lamps. */
  lamps: readonly { id: string; name: string }[];
}

/** Take an item out as a document, its readings as CSV, its lamps as circuits and cards, and bring readings in. */
export function TakeOut({ id, lamps }: TakeOutProps) {
  const [open, setOpen] = useState(false);
  const { intent, wrong, look, bring } = useBringIn(`/api/equipment/${id}/readings`);
  return (
    <>
      <Button onPress={() => setOpen(true)}>Files</Button>
      <Sheet title="Files" open={open} onClose={() => setOpen(false)}>
        <h3>Out</h3>
        <Out href={`/api/equipment/${id}/document.json`} download>
          File with photographs (JSON)
        </Out>
        <Out href={`/api/equipment/${id}/document.json?photographs=false`} download>
          File without photographs (JSON)
        </Out>
        <Out href={`/api/equipment/${id}/readings.csv`} download>
          Readings (CSV)
        </Out>
        <PrintOut to={`/equipment/${id}/card`}>Cover with all lamps, to print or as PDF</PrintOut>
        {lamps.map((lamp) => (
          <section key={lamp.id} aria-label={lamp.name}>
            <h4>{lamp.name}</h4>
            <Row>
              <PrintOut to={`/position/${lamp.id}/card`}>Card (print, PDF)</PrintOut>
              <Out href={`/api/positions/${lamp.id}/schematic.svg`} download={`${lamp.name}.svg`}>
                Circuit (SVG)
              </Out>
              <Out href={`/api/positions/${lamp.id}/circuit.cir`} download>
                Circuit (SPICE)
              </Out>
              <Out href={`/api/positions/${lamp.id}/code.svg`} download={`${lamp.name}-code.svg`}>
                Code (SVG)
              </Out>
            </Row>
          </section>
        ))}
        <h3>In</h3>
        <p>Readings in the same columns as they go out. They come in whole or not at all.</p>
        <FileTrigger
          acceptedFileTypes={["text/csv", ".csv"]}
          onSelect={(files) => files?.[0] && void look(files[0])}
        >
          <Button>Choose readings (CSV)</Button>
        </FileTrigger>
        <Problems wrong={wrong} />
        {intent && (
          <>
            {intent.lines.map((l) => (
              <p key={l}>{l}</p>
            ))}
            <MainButton onPress={() => void bring().then((made) => made && setOpen(false))}>
              Add them
            </MainButton>
          </>
        )}
      </Sheet>
    </>
  );
}
