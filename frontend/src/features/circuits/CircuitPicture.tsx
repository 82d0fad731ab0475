import { lazy, Suspense, useEffect, useRef, useState, type KeyboardEvent } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { SmallButton } from "../../ui/Button";
import { OneOfSome } from "../../ui/OneOfSome";
import { DetailField } from "../../ui/record/DetailField";

const Wiring = lazy(() => import("../../instruments/Wiring"));

type Result = Schemas["CircuitResult"];
type Part = Schemas["DrawnPart"];
type Detail = Schemas["DetailOut"];

const Drawn = styled.section`
  display: grid;
  gap: 8px;
  margin-bottom: 16px;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 28px;
`;

const Editor = styled.section`
  display: grid;
  gap: 10px;
  max-width: 44rem;
  padding: 8px 16px 14px;
  border: 2px solid var(--ink);
  border-radius: 4px;
  background: var(--sheet);
  @media (max-width: 760px) {
    position: sticky;
    bottom: 0;
    max-height: 45vh;
    overflow: auto;
  }
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  h2 {
    font-size: 1.15rem;
  }
`;

const Fields = styled.div`
  display: grid;
  gap: 8px;
`;

const Carries = styled.dl`
  display: grid;
  grid-template-columns: minmax(0, auto) auto auto;
  justify-content: start;
  gap: 2px 18px;
  margin: 0;
  dd {
    margin: 0;
    font-family: var(--mono);
  }
`;

interface Props {
  /** The circuit as it is, with its states. */
  wiring: NonNullable<Result["wiring"]>;
  /** The same after the chosen option. */
  after: Result["wiring_after"];
  /** What the kind asks for. */
  details: readonly Detail[];
  /** Told that a part's field has opened. */
  onOpen: () => void;
}

/** The circuit's wiring as a form: press a part, and its field stands under the picture. */
export function CircuitPicture({ wiring, after, details, onOpen }: Props) {
  const [when, setWhen] = useState("now");
  const [state, setState] = useState("");
  const [open, setOpen] = useState<string>();
  const frame = useRef<HTMLElement>(null);
  const shown = when === "after" && after ? after : wiring;
  const states = shown.states ?? [];
  const at = states.find((s) => s.id === state);
  const part = wiring.drawing.parts.find((p) => p.id === open);
  const press = (pressed: Part) => {
    setOpen(pressed.id);
    onOpen();
  };
  const close = () => {
    setOpen(undefined);
    frame.current?.querySelector<SVGGElement>(`[data-part="${open}"]`)?.focus();
  };
  return (
    <Drawn ref={frame} aria-label="Wiring">
      <Row>
        {after && (
          <OneOfSome
            label="Show"
            value={when}
            options={[
              { id: "now", label: "Now" },
              { id: "after", label: "Afterwards" },
            ]}
            onChange={setWhen}
          />
        )}
        {states.length > 0 && (
          <OneOfSome
            label="Currents"
            value={at ? state : ""}
            options={[{ id: "", label: "Not shown" }, ...states]}
            onChange={setState}
          />
        )}
      </Row>
      <Suspense>
        <Wiring
          drawing={shown.drawing}
          label={shown === wiring ? "Wiring now" : "Wiring afterwards"}
          reads={at?.parts ?? []}
          chosen={open}
          onPress={shown === wiring ? press : undefined}
        />
      </Suspense>
      {part && shown === wiring && (
        <PartEditor
          key={part.id}
          part={part}
          states={wiring.states ?? []}
          details={details.filter((d) => d.id === part.opens || d.at === part.opens)}
          onClose={close}
        />
      )}
    </Drawn>
  );
}

interface EditorProps {
  part: Part;
  states: NonNullable<Props["wiring"]["states"]>;
  /** Its own details. */
  details: readonly Detail[];
  onClose: () => void;
}

/** One part of the picture: its field, and what it carries in each state. */
function PartEditor({ part, states, details, onClose }: EditorProps) {
  const own = useRef<HTMLElement>(null);
  const fields = useRef<HTMLDivElement>(null);
  useEffect(() => {
    fields.current?.querySelector<HTMLElement>("input, textarea, button")?.focus();
    own.current?.scrollIntoView?.({ block: "nearest" });
  }, []);
  const keys = (e: KeyboardEvent) => {
    const listed = e.target instanceof Element && e.target.getAttribute("aria-expanded") === "true";
    if (e.key !== "Escape" || listed || e.defaultPrevented) return;
    e.stopPropagation();
    onClose();
  };
  const carries = states.flatMap((s) => {
    const read = s.parts.find((p) => p.part === part.id);
    return read ? [{ id: s.id, label: s.label, volts: read.volts, amps: read.amps }] : [];
  });
  const name = part.name.join(" ");
  return (
    <Editor ref={own} aria-label={`Part: ${name}`} onKeyDown={keys}>
      <Head>
        <h2>{name.charAt(0).toUpperCase() + name.slice(1)}</h2>
        <SmallButton onPress={onClose}>Close</SmallButton>
      </Head>
      <Fields ref={fields}>
        {details.map((d) => (
          <DetailField key={d.id} part="details" detail={d} />
        ))}
      </Fields>
      {carries.length > 0 && (
        <Carries>
          {carries.map(({ id, ...figures }) => (
            <Carried key={id} {...figures} />
          ))}
        </Carries>
      )}
    </Editor>
  );
}

function Carried({ label, volts, amps }: { label: string; volts: string; amps: string }) {
  return (
    <>
      <dt>{label}</dt>
      <dd>{volts}</dd>
      <dd>{amps}</dd>
    </>
  );
}
