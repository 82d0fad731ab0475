import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import styled from "styled-components";

import { Refused, type Schemas } from "../api/client";
import { useEquipment, useSave } from "../api/queries";
import { Button, MainButton, SmallButton } from "../controls/Button";
import { SavedText } from "../controls/SavedText";
import { Sheet } from "../controls/Sheet";
import { Missing } from "../shell/Missing";
import { Shell } from "../shell/Shell";
import { useUndo } from "../shell/useUndo";
import { TakeOut } from "./Files";
import { Lamp } from "./Lamp";
import { Notes } from "./Notes";
import { RailEditor } from "./RailEditor";

const Columns = styled.div`
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  gap: 12px 40px;
  @media (max-width: 900px) {
    grid-template-columns: 1fr;
  }
`;

const Title = styled.h1`
  font-size: 1.9rem;
  line-height: 1.15;
  font-weight: 650;
  margin-bottom: 12px;
`;

const Top = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  justify-content: space-between;
  gap: 4px 20px;
  margin-bottom: 8px;
`;

const Facts = styled.div`
  display: flex;
  flex-direction: column;
  gap: 2px;
`;

const Advice = styled.p`
  margin: 6px 0 10px;
  &[data-verdict="leave"] strong {
    color: var(--stop);
  }
`;

const Section = styled.section`
  margin-bottom: 20px;
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  border-bottom: 2px solid var(--ink);
  h2 {
    font-size: 1.2rem;
  }
`;

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule-soft);
`;

const RailLine = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 18px;
  strong {
    font-weight: 650;
  }
`;

const Level = styled.span`
  font-family: var(--mono);
  font-size: 1.2rem;
  &[data-pencil="true"] {
    color: var(--pencil);
    font-style: italic;
    text-decoration: underline dotted 2px;
    text-underline-offset: 0.18em;
  }
`;

const Acts = styled.div`
  display: flex;
  gap: 4px;
`;

const Wrong = styled.p`
  color: var(--stop);
  font-weight: 600;
`;

type Rail = Schemas["RailOut"];

/** One item: its facts, its rails, its lamps. */
export default function EquipmentView() {
  const { id = "" } = useParams();
  const query = useEquipment(id);
  const save = useSave();
  const go = useNavigate();
  const item = query.data;
  const undo = useUndo(id, item?.steps);
  const [editing, setEditing] = useState<string>();
  const [wrong, setWrong] = useState("");

  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
      setWrong("");
    } catch (problem) {
      if (problem instanceof Refused) setWrong(problem.message);
    }
  };
  if (query.isError && !item) {
    return (
      <Shell>
        <Missing problem={query.error} />
      </Shell>
    );
  }
  if (!item) return <Shell>{null}</Shell>;

  const patch = (fields: object) => save("PATCH", `/api/equipment/${id}`, fields);
  const addRail = () =>
    act(async () => {
      const key = crypto.randomUUID();
      await save("PUT", `/api/rails/${key}`, {
        equipment: id,
        name: `Rail ${item.rails.length + 1}`,
        usual: { text: "12V", source: "assumed" },
      });
      setEditing(key);
    });
  const addLamp = () =>
    act(async () => {
      const key = crypto.randomUUID();
      await save("PUT", `/api/positions/${key}`, {
        equipment: id,
        name: `Lamp ${item.positions.length + 1}`,
        led_id: "warm-5-diffused",
        target: { text: "5mA", source: "assumed" },
      });
      await go(`/position/${key}`);
    });
  const reorder = (what: "rails" | "positions", from: number, by: number) => {
    const ids = item[what].map((x) => x.id);
    const [moved] = ids.splice(from, 1);
    if (moved) ids.splice(from + by, 0, moved);
    void save("POST", `/api/equipment/${id}/${what}/order`, { ids });
  };
  const rail = item.rails.find((r) => r.id === editing);

  return (
    <Shell undo={undo}>
      <Top>
        <Title>{item.name}</Title>
        <Acts>
          <Button onPress={() => void go(`/equipment/${id}/take-in`)}>Take-in sheet</Button>
          <TakeOut id={id} />
        </Acts>
      </Top>
      <Columns>
        <Facts>
          {FACTS.map(([field, label]) => (
            <SavedText
              key={field}
              id={`${id}.${field}`}
              label={label}
              saved={item[field] ?? ""}
              field={field}
              onSave={(text) => patch({ [field]: text })}
            />
          ))}
          <Advice data-verdict={item.take_in.advice.verdict}>
            <strong>Take-in:</strong> {item.take_in.advice.line}
            {item.take_in.sheet.worth?.overruled
              ? ` Decided otherwise: ${item.take_in.sheet.worth.overruled}`
              : ""}
          </Advice>
          <Notes id={`${id}.notes`} saved={item.notes ?? ""} onSave={(notes) => patch({ notes })} />
        </Facts>
        <div>
          {wrong && <Wrong role="alert">{wrong}</Wrong>}
          <Section>
            <Head>
              <h2>Supply rails</h2>
              <Button onPress={() => void addRail()}>Add rail</Button>
            </Head>
            {item.rails.length === 0 && <p>A lamp needs a rail: add the one that feeds it.</p>}
            <List>
              {item.rails.map((r, k) => (
                <li key={r.id}>
                  <Line>
                    <RailSummary rail={r} />
                    <Acts>
                      <SmallButton onPress={() => setEditing(r.id)} aria-label={`Edit ${r.name}`}>
                        Edit
                      </SmallButton>
                      <Movers
                        name={r.name}
                        first={k === 0}
                        last={k === item.rails.length - 1}
                        onMove={(by) => reorder("rails", k, by)}
                        onDelete={() => void act(() => save("DELETE", `/api/rails/${r.id}`))}
                      />
                    </Acts>
                  </Line>
                </li>
              ))}
            </List>
          </Section>
          <Section>
            <Head>
              <h2>Lamp positions</h2>
              <MainButton onPress={() => void addLamp()}>Add lamp</MainButton>
            </Head>
            {item.positions.length === 0 && (
              <p>No lamps yet. Find every lamp before you size one.</p>
            )}
            <List>
              {item.positions.map((p, k) => (
                <li key={p.id}>
                  <Line>
                    <List>
                      <Lamp lamp={p} />
                    </List>
                    <Acts>
                      <Movers
                        name={p.name}
                        first={k === 0}
                        last={k === item.positions.length - 1}
                        onMove={(by) => reorder("positions", k, by)}
                        onDelete={() => void act(() => save("DELETE", `/api/positions/${p.id}`))}
                      />
                    </Acts>
                  </Line>
                </li>
              ))}
            </List>
          </Section>
        </div>
      </Columns>
      <Sheet
        title={rail ? rail.name : "Rail"}
        open={rail !== undefined}
        onClose={() => setEditing(undefined)}
      >
        {rail && <RailEditor rail={rail} />}
      </Sheet>
    </Shell>
  );
}

const FACTS = [
  ["name", "Name"],
  ["maker_model", "Maker and model"],
  ["board_revision", "Board revision"],
  ["owner", "Owner"],
] as const;

function RailSummary({ rail }: { rail: Rail }) {
  return (
    <RailLine>
      <strong>{rail.name}</strong>
      <span>
        {rail.kind_label}
        {rail.read_at === "lamp" ? ", read at the lamp, lit" : ""}
      </span>
      <Level data-pencil={rail.usual.source === "assumed"}>{rail.reads}</Level>
      {rail.fuse && <span>fuse {rail.fuse}</span>}
    </RailLine>
  );
}

interface MoversProps {
  name: string;
  first: boolean;
  last: boolean;
  onMove: (by: number) => void;
  onDelete: () => void;
}

function Movers({ name, first, last, onMove, onDelete }: MoversProps) {
  return (
    <>
      <SmallButton isDisabled={first} onPress={() => onMove(-1)} aria-label={`Move ${name} up`}>
        ↑
      </SmallButton>
      <SmallButton isDisabled={last} onPress={() => onMove(1)} aria-label={`Move ${name} down`}>
        ↓
      </SmallButton>
      <SmallButton onPress={onDelete} aria-label={`Delete ${name}`}>
        Delete
      </SmallButton>
    </>
  );
}
