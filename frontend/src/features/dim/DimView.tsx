import { Link, useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useCatalogue, useEquipment } from "../../api/queries";
import { notYet } from "../../shell/notYet";
import { Shell } from "../../shell/Shell";
import type { FromField } from "../../saving/saves";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { RecordContext, useRecord, within } from "../../ui/record/record";
import { SavedPart } from "../../ui/record/SavedPart";
import { SavedCount, SavedText } from "../../ui/record/SavedText";
import { TitleField } from "../../ui/record/TitleField";
import { useSaveFields } from "../../ui/record/useSaveFields";
import { useOnce } from "../../ui/useOnce";
import { ViewHead } from "../../ui/ViewHead";
import { today } from "../../ui/dates";
import { ohms } from "../../ui/ohms";
import { DimRule } from "./DimRule";
import { DimTable } from "./DimTable";
import { DotCard } from "./DotCard";
import { SayHow } from "./SayHow";

const Columns = styled.div`
  display: grid;
  grid-template-columns: 260px minmax(0, 1fr);
  gap: 12px 40px;
  @media (max-width: 900px) {
    grid-template-columns: 1fr;
  }
`;

const Facts = styled.div`
  display: grid;
  align-content: start;
  gap: 6px;
`;

const Work = styled.div`
  display: grid;
  align-content: start;
  gap: 14px;
  min-width: 0;
`;

const Next = styled.p`
  font-size: 1.05rem;
  strong {
    display: block;
    font: 700 2.6rem/1.1 var(--mono);
  }
`;

type Item = Schemas["EquipmentOut"];
type Dim = NonNullable<Item["dims"]>[string];

/** A fitted LED that is too bright: the resistor that is there is enough to find the next one. */
export default function DimView() {
  const { id = "", dim: key = "" } = useParams();
  const query = useEquipment(id);
  const item = query.data;
  const saveFields = useSaveFields(`/api/equipment/${id}`);
  const dim = item?.dims?.[key];
  const said = item?.dimming[key];
  if (!item || !dim || !said) return notYet(query, item !== undefined);
  const save = within(key, within("dims", saveFields));
  return (
    <Shell
      title={`${dim.name || "Fitted LED"}, ${item.name}`}
      steps={item.steps}
      up={`/equipment/${id}`}
    >
      <RecordContext
        value={{ id: `${id}.dims.${key}`, shape: "dim", values: dim, prefix: `dims.${key}.`, save }}
      >
        <Dims item={item} dim={dim} name={key} said={said} />
      </RecordContext>
    </Shell>
  );
}

interface Props {
  item: Item;
  dim: Dim;
  /** Its key in the item. */
  name: string;
  /** What it comes to. */
  said: Schemas["Dimming"];
}

function Dims({ item, dim, name, said }: Props) {
  const catalogue = useCatalogue().data;
  const go = useNavigate();
  const saveItem = useSaveFields(`/api/equipment/${item.id}`);
  const remove = useOnce(async () => {
    await saveItem({ dims: { [name]: null } });
    await go(`/equipment/${item.id}`);
  });
  return (
    <>
      <ViewHead>
        <TitleField what="fitted LED" />
        <Link to={`/equipment/${item.id}`}>{item.name}</Link>
      </ViewHead>
      <Columns>
        <Facts>
          <SavedText
            field="resistor"
            label="Resistor that is fitted"
            hint="470R; bands or a mark will do"
          />
          <SavedText field="rail" label="Rail, if you know it" hint="12V, or 13.2 (12.1-14.5)" />
          <SavedPart
            field="led_id"
            label="LED, if you know it"
            parts={catalogue?.leds}
            none="Not known"
          />
          <SavedCount field="in_series" label="In series" />
          <p>Supply off while parts are changed.</p>
          <div>
            <Button isDisabled={remove.busy} onPress={() => void remove.act()}>
              Delete this fitted LED
            </Button>
          </div>
        </Facts>
        <Work>
          {said.problem ? <p role="status">{said.problem}</p> : <Found said={said} dim={dim} />}
        </Work>
      </Columns>
    </>
  );
}

type FoundProps = Pick<Props, "said" | "dim">;

/** What is tried next, where it lies, and what each resistor would make of the light. */
function Found({ said, dim }: FoundProps) {
  const { id, prefix = "", save } = useRecord();
  const places = Object.values(dim.trials ?? {}).map((t) => t.place ?? 0);
  const log = (resistor: string, verdict: string, screen = 1, from?: Omit<FromField, "names">) => {
    const trial = crypto.randomUUID();
    const look = {
      place: Math.max(-1, ...places) + 1,
      resistor,
      verdict,
      screen,
      at: today(),
    };
    const field = from && { ...from, names: [`${prefix}trials.${trial}.resistor`] };
    return save({ trials: { [trial]: look } }, undefined, field);
  };
  return (
    <>
      <Next role="status">
        {said.next ? "Try" : "Right"}
        <strong>{said.next || said.right}</strong>
        {said.amps && (
          <>
            It carries <Figure shown={said.amps} />.{" "}
          </>
        )}
        {said.line}
      </Next>
      <DimRule said={said} />
      <SayHow
        draft={`${id}.with`}
        next={said.next}
        onSay={(resistor, verdict, from) => log(resistor, verdict, 1, from)}
      />
      {said.next && <DotCard fitted={said.trials[0] ? ohms(said.trials[0].ohm) : ""} onSay={log} />}
      <p>{said.step}</p>
      <DimTable said={said} onStrike={(id) => save({ trials: { [id]: null } })} />
    </>
  );
}
