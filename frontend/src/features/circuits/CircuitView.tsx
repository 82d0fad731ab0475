import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useCatalogue, useEquipment } from "../../api/queries";
import { notYet } from "../../shell/notYet";
import { Shell } from "../../shell/Shell";
import { Button, SmallButton } from "../../ui/Button";
import { RecordContext, within } from "../../ui/record/record";
import { DetailField } from "../../ui/record/DetailField";
import { SavedChoice } from "../../ui/record/SavedChoice";
import { SavedText } from "../../ui/record/SavedText";
import { TitleField } from "../../ui/record/TitleField";
import { useSaveFields } from "../../ui/record/useSaveFields";
import { useOnce } from "../../ui/useOnce";
import { ViewHead } from "../../ui/ViewHead";
import { CircuitPicture } from "./CircuitPicture";
import { CircuitResult } from "./CircuitResult";

const Columns = styled.div`
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  gap: 12px 40px;
  &[data-drawn="true"] {
    grid-template-columns: minmax(340px, min(52%, 640px)) minmax(0, 1fr);
  }
  &&& {
    @media (max-width: 900px) {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

const Facts = styled.div`
  display: grid;
  align-content: start;
  gap: 8px;
`;

/* The answer stands over what it follows from and what else it means, on a phone too. */
const Line = styled.p`
  margin-bottom: 14px;
  font-size: 1.35rem;
  font-weight: 650;
  line-height: 1.3;
  max-width: 60rem;
`;

const Work = styled.div`
  min-width: 0;
`;

/* What must not be done stands over all that may be. */
const Never = styled.p`
  margin-bottom: 12px;
  padding: 8px 14px;
  border: 2px solid var(--stop);
  border-radius: 4px;
  max-width: 60rem;
`;

type Item = Schemas["EquipmentOut"];
type Circuit = NonNullable<Item["fitted"]>[string];

/** A board, a string, a bank or a power LED: what it is, what flows, what may be done. */
export default function CircuitView() {
  const { id = "", fitted: key = "" } = useParams();
  const query = useEquipment(id);
  const item = query.data;
  const saveFields = useSaveFields(`/api/equipment/${id}`);
  const one = item?.fitted?.[key];
  if (!item || !one) return notYet(query, item !== undefined);
  return (
    <Shell
      title={`${one.name || "LEDs that are there"}, ${item.name}`}
      steps={item.steps}
      up={`/equipment/${id}`}
    >
      <RecordContext
        value={{
          id: `${id}.fitted.${key}`,
          shape: "fitted",
          values: one,
          echo: item.echo[key] ?? {},
          prefix: `fitted.${key}.`,
          save: within(key, within("fitted", saveFields)),
        }}
      >
        <One item={item} one={one} name={key} />
      </RecordContext>
    </Shell>
  );
}

interface Props {
  item: Item;
  one: Circuit;
  /** Its key in the item. */
  name: string;
}

function One({ item, one, name }: Props) {
  const kind = useCatalogue().data?.fitted.find((k) => k.id === one.kind);
  const go = useNavigate();
  const saveItem = useSaveFields(`/api/equipment/${item.id}`);
  const remove = useOnce(async () => {
    await saveItem({ fitted: { [name]: null } });
    await go(`/equipment/${item.id}`);
  });
  const answer = item.answers[name];
  const wiring = answer?.result?.wiring;
  const details = kind?.details ?? [];
  // A list that somebody types into stays open when the picture appears.
  const [listed, setListed] = useState(!wiring);
  const drawn = new Set(wiring?.drawing.parts.map((p) => p.opens).filter(Boolean));
  const held = (d: Schemas["DetailOut"]) => drawn.has(d.id) || drawn.has(d.at);
  const beside = listed || !wiring ? details : details.filter((d) => !held(d));
  return (
    <>
      <ViewHead>
        <TitleField what="circuit" />
        <Link to={`/equipment/${item.id}`}>{item.name}</Link>
      </ViewHead>
      <Never>{kind?.never}</Never>
      <Line role="status">{answer?.result?.line ?? answer?.problem}</Line>
      <Columns data-drawn={wiring != null}>
        <Facts>
          {wiring && (
            <CircuitPicture
              wiring={wiring}
              after={answer.result?.wiring_after}
              details={details}
              onOpen={() => setListed(false)}
            />
          )}
          <SavedChoice field="kind" label="What it is" />
          <p>{kind?.looks}</p>
          {beside.map((d) => (
            <DetailField key={d.id} part="details" detail={d} />
          ))}
          {wiring && (
            <div>
              <SmallButton aria-expanded={listed} onPress={() => setListed(!listed)}>
                {listed
                  ? "Only fields that are not in the picture"
                  : `All ${details.length} fields`}
              </SmallButton>
            </div>
          )}
          <SavedText field="notes" label="Notes" lines />
          <div>
            <Button isDisabled={remove.busy} onPress={() => void remove.act()}>
              Delete this circuit
            </Button>
          </div>
        </Facts>
        <Work>
          {answer?.result && <CircuitResult result={answer.result} chosen={one.chosen ?? ""} />}
        </Work>
      </Columns>
    </>
  );
}
