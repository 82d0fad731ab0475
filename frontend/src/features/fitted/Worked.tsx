import { useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { inPassing } from "../../saving/useSave";
import { Button } from "../../ui/Button";
import { Figure } from "../../ui/Figure";
import { GradeMark } from "../../ui/GradeMark";
import { useRecord } from "../../ui/record/record";
import { Branches } from "./Branches";
import { Paths } from "./Paths";
import { Pictured } from "./Pictures";
import { Pins } from "./Pins";
import { WhichPart } from "./WhichPart";

const Part = styled.section`
  margin-top: 18px;
  h2 {
    border-bottom: 2px solid var(--ink);
  }
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th {
    font-size: 0.9rem;
    font-weight: 600;
    text-align: left;
  }
  th,
  td {
    padding: 6px 16px 6px 0;
    border-bottom: 1px solid var(--rule-soft);
    vertical-align: baseline;
  }
  td:not(:first-child) {
    font-size: 1.2rem;
    white-space: nowrap;
  }
`;

/* On a phone a table of five columns is moved sideways, and nothing else is. */
const Wide = styled.div`
  overflow-x: auto;
  small {
    display: block;
    font-size: 0.9rem;
    font-weight: 400;
  }
`;

const Ways = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 5.5rem auto;
    align-items: center;
    gap: 2px 16px;
    padding: 8px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
  strong {
    font-size: 1.15rem;
  }
  small {
    display: block;
    font-size: 0.95rem;
  }
  @media (max-width: 600px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    li > :last-child {
      grid-column: 1 / -1;
    }
  }
`;

const Share = styled.span`
  font-size: 1.35rem;
  text-align: right;
`;

const Decided = styled.span`
  display: grid;
  gap: 6px;
`;

const Barred = styled.span`
  color: var(--stop);
  font-weight: 600;
`;

const Judged = styled.li`
  padding: 6px 0;
  border-bottom: 1px solid var(--rule-soft);
  p {
    margin: 0;
  }
`;

const Plain = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Deck = styled.pre`
  padding: 8px 10px;
  overflow: auto;
  border: 1.5px solid var(--rule);
  border-radius: 4px;
  background: var(--sheet);
  font: 0.8125rem/1.4 var(--mono);
`;

interface Props {
  worked: Schemas["Worked"];
  /** The label of the way that was decided on. */
  chosen: string;
}

/** What a circuit with LEDs that are there already comes to. */
export function Worked({ worked, chosen }: Props) {
  const stops = worked.judged.filter((j) => j.grade === "stop");
  const rest = worked.judged.filter((j) => j.grade !== "stop");
  return (
    <>
      <Judgements judged={stops} />
      {worked.pictures.map((p) => (
        <Part key={p.label}>
          <h2>{p.label}</h2>
          <Pictured picture={p} />
        </Part>
      ))}
      {worked.figures.length > 0 && <Figures figures={worked.figures} />}
      {worked.stairs.length > 0 && (
        <Part>
          <h2>Branches side by side</h2>
          <Branches stairs={worked.stairs} />
        </Part>
      )}
      {worked.paths.length > 0 && (
        <Part>
          <h2>Where current goes</h2>
          <Paths paths={worked.paths} />
        </Part>
      )}
      {worked.tables.map((t) => (
        <SideBySide key={t.label} table={t} />
      ))}
      {worked.pins.length > 0 && (
        <Part>
          <h2>Its pins</h2>
          <Pins pins={worked.pins} />
        </Part>
      )}
      {worked.rules.length > 0 && (
        <Part>
          <h2>Which part, and to what</h2>
          <WhichPart rules={worked.rules} chosen={chosen} />
        </Part>
      )}
      {worked.ways.length > 0 && <Choices ways={worked.ways} chosen={chosen} />}
      <Judgements judged={rest} />
      {worked.faults.length > 0 && (
        <Part>
          <h2>When one of them fails</h2>
          <Plain>
            {worked.faults.map((f) => (
              <Judged key={f.label}>
                <strong>{f.label}.</strong> {f.others}
              </Judged>
            ))}
          </Plain>
        </Part>
      )}
      {worked.spice && <Spice text={worked.spice} />}
    </>
  );
}

function Figures({ figures }: Pick<Props["worked"], "figures">) {
  const changes = figures.some((f) => f.after);
  return (
    <Part aria-label="Figures">
      <Table>
        <thead>
          <tr>
            <th scope="col">Figure</th>
            <th scope="col">Now</th>
            {changes && <th scope="col">Afterwards</th>}
          </tr>
        </thead>
        <tbody>
          {figures.map((f) => (
            <tr key={f.label}>
              <td>{f.label}</td>
              <td>
                <Figure shown={f.now} />
              </td>
              {changes && <td>{f.after && <Figure shown={f.after} />}</td>}
            </tr>
          ))}
        </tbody>
      </Table>
    </Part>
  );
}

interface TableProps {
  /** Figures under their heads. */
  table: Schemas["Table"];
}

function SideBySide({ table }: TableProps) {
  return (
    <Part aria-label={table.label}>
      <h2>{table.label}</h2>
      <Wide>
        <Table>
          <thead>
            <tr>
              <td />
              {table.heads.map((h) => (
                <th key={h} scope="col">
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((r) => (
              <tr key={r.label}>
                <th scope="row">
                  {r.label}
                  {r.words && <small>{r.words}</small>}
                </th>
                {r.cells.map((c, n) => (
                  <td key={table.heads[n]}>
                    <Figure shown={c} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Table>
      </Wide>
    </Part>
  );
}

function Choices({ ways, chosen }: Pick<Props["worked"], "ways"> & Pick<Props, "chosen">) {
  const { save } = useRecord();
  return (
    <Part>
      <h2>What may be done</h2>
      <Ways aria-label="What may be done">
        {ways.map((w) => (
          <li key={w.label}>
            <span>
              <strong>{w.label}</strong>
              {w.advised && " (ours)"}
              <small>{w.what}</small>
              <small>{w.light}</small>
              {w.bars && <Barred>{w.bars}</Barred>}
            </span>
            <Share>
              <Figure shown={w.share} />
            </Share>
            {chosen === w.label ? (
              <Taken way={w} />
            ) : (
              <Button
                isDisabled={w.bars !== ""}
                aria-label={`Choose: ${w.label}`}
                onPress={() => inPassing(save({ chosen: w.label }))}
              >
                Choose
              </Button>
            )}
          </li>
        ))}
      </Ways>
    </Part>
  );
}

interface TakenProps {
  /** The way that was decided on. */
  way: Schemas["Way"];
}

/** What was decided on: put back, or done, which makes what it changes what is there. */
function Taken({ way }: TakenProps) {
  const { save } = useRecord();
  const changed = Object.entries(way.changes);
  const done = () => {
    const details = changed.map(([id, text]) => [id, { text, source: "marked", note: "" }]);
    inPassing(save({ chosen: "", details: Object.fromEntries(details) }));
  };
  return (
    <Decided>
      <Button onPress={() => inPassing(save({ chosen: "" }))}>Chosen: put back</Button>
      {changed.length > 0 && <Button onPress={done}>It is done: it is so now</Button>}
    </Decided>
  );
}

function Judgements({ judged }: Pick<Props["worked"], "judged">) {
  return (
    <Plain>
      {judged.map((j) => (
        <Judged key={j.message}>
          <GradeMark grade={j.grade} />
          <p>
            <strong>{j.message}</strong>
          </p>
          <p>{j.why}</p>
        </Judged>
      ))}
    </Plain>
  );
}

interface SpiceProps {
  /** The circuit for a simulator. */
  text: string;
}

function Spice({ text }: SpiceProps) {
  const [shown, setShown] = useState(false);
  return (
    <Part>
      {shown ? (
        <Deck tabIndex={0} role="region" aria-label="SPICE text">
          {text}
        </Deck>
      ) : (
        <Button onPress={() => setShown(true)}>Show SPICE text</Button>
      )}
    </Part>
  );
}
