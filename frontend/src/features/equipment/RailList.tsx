import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useBudget, useCatalogue } from "../../api/queries";
import { RailBudget } from "../../instruments/RailBudget";
import { inPassing, useSave } from "../../saving/useSave";
import { Button, SmallButton } from "../../ui/Button";
import { Movers } from "../../ui/Movers";
import { Panel } from "../../ui/Panel";
import { useOpened } from "../../ui/panelPlace";
import { useOnce } from "../../ui/useOnce";
import { Acts, Head, Line, List, Section } from "./List";
import { RailEditor } from "./RailEditor";

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

/* The editor stands beside what hangs on the rail, which moves with it. */
const Side = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 420px) minmax(0, 1fr);
  gap: 20px;
  align-items: start;
  margin: 8px 0 14px;
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

type Rail = Schemas["RailAnswer"];

interface Props {
  /** The equipment's key. */
  equipment: string;
  /** The supply rails in their order. */
  rails: Rail[];
  /** Whether they can be moved. */
  arranging: boolean;
  /** Told where it is moved. */
  onMove: (from: number, by: number) => void;
}

/** The supply rails of an item, each edited in its place. */
export function RailList({ equipment, rails, arranging, onMove }: Props) {
  const save = useSave();
  const [editing, setEditing] = useOpened();
  const add = useOnce(async () => {
    const key = crypto.randomUUID();
    const made = {
      equipment,
      name: `Rail ${rails.length + 1}`,
      usual: { text: "12V", source: "assumed" },
    };
    await save("PUT", `/api/rails/${key}`, made, { label: "Add rail" });
    setEditing(key);
  });
  const remove = (gone: Rail) => {
    const more = { label: `Delete ${gone.name}`, done: `Deleted ${gone.name}.` };
    inPassing(save("DELETE", `/api/rails/${gone.id}`, undefined, more));
  };
  return (
    <Section>
      <Head>
        <h2>Supply rails</h2>
        <Button isDisabled={add.busy} onPress={() => void add.act()}>
          Add rail
        </Button>
      </Head>
      {rails.length === 0 && (
        <p>Add the one that feeds the lamp. A first lamp brings one along, in pencil.</p>
      )}
      <List>
        {rails.map((r, k) => (
          <li key={r.id}>
            <Line>
              <RailSummary rail={r} />
              <Acts>
                <SmallButton
                  aria-expanded={editing === r.id}
                  onPress={() => setEditing(editing === r.id ? "" : r.id)}
                  aria-label={`Edit ${r.name}`}
                >
                  Edit
                </SmallButton>
                {arranging && (
                  <Movers
                    name={r.name}
                    first={k === 0}
                    last={k === rails.length - 1}
                    onMove={(by) => onMove(k, by)}
                  />
                )}
              </Acts>
            </Line>
            {editing === r.id ? (
              <Side>
                <Panel title={r.name} onClose={() => setEditing("")} place={r.id}>
                  <RailEditor rail={r} />
                  <Button onPress={() => remove(r)}>Delete this rail</Button>
                </Panel>
                <BudgetOf rail={r} />
              </Side>
            ) : (
              <BudgetOf rail={r} />
            )}
          </li>
        ))}
      </List>
    </Section>
  );
}

/** What hangs on a rail; nothing where no lamp does, and why not where it cannot be summed. */
function BudgetOf({ rail }: RailSummaryProps) {
  const { data, error } = useBudget(rail.id);
  if (error && !data) return <p role="status">Not summed: {error.message}</p>;
  if (!data || data.taken.length + data.left_out.length === 0) return null;
  return <RailBudget budget={data} name={rail.name} />;
}

interface RailSummaryProps {
  /** The rail that feeds the lamp, as it is kept. */
  rail: Rail;
}

function RailSummary({ rail }: RailSummaryProps) {
  const choices = useCatalogue().data?.choices;
  const label = (field: string, id: string) =>
    choices?.[`rail.${field}`]?.find((o) => o.id === id)?.label ?? "";
  return (
    <RailLine>
      <strong>{rail.name}</strong>
      <span>
        {label("kind", rail.kind)}
        {rail.read_at === "lamp" ? ", read at the lamp, lit" : ""}
      </span>
      <Level data-pencil={rail.usual.source === "assumed"}>{rail.reads}</Level>
      {rail.fuse && <span>fuse {rail.fuse}</span>}
    </RailLine>
  );
}
