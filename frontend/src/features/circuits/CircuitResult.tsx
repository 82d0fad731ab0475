import { useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { inPassing } from "../../saving/useSave";
import { Button } from "../../ui/Button";
import { FindingItem } from "../../instruments/FindingItem";
import { Figure } from "../../ui/Figure";
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
  h3 {
    font-size: 0.95rem;
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

const Fault = styled.li`
  padding: 6px 0;
  border-bottom: 1px solid var(--rule-soft);
  p {
    margin: 0;
  }
`;

const Moves = styled.ol`
  margin: 4px 0 8px;
  padding-left: 26px;
  font-size: 1.1rem;
  line-height: 1.5;
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
  result: Schemas["CircuitResult"];
  /** The id of the option that was decided on. */
  chosen: string;
}

/** What a circuit comes to: figures, branches, tables, what may be done, judgements, faults. */
export function CircuitResult({ result, chosen }: Props) {
  const stops = result.findings.filter((f) => f.grade === "stop");
  const rest = result.findings.filter((f) => f.grade !== "stop");
  return (
    <>
      <All findings={stops} />
      {result.pictures.map((p) => (
        <Part key={p.id}>
          <h2>{p.label}</h2>
          <Pictured picture={p} />
        </Part>
      ))}
      {result.figures.length > 0 && <Figures figures={result.figures} />}
      {result.stairs.length > 0 && (
        <Part>
          <h2>Branches side by side</h2>
          <Branches stairs={result.stairs} />
        </Part>
      )}
      {result.paths.length > 0 && (
        <Part>
          <h2>Where current goes</h2>
          <Paths paths={result.paths} />
        </Part>
      )}
      {result.tables.map((t) => (
        <SideBySide key={t.id} table={t} />
      ))}
      {result.pins.length > 0 && (
        <Part>
          <h2>Its pins</h2>
          <Pins pins={result.pins} />
        </Part>
      )}
      {result.rules.length > 0 && (
        <Part>
          <h2>Which part, and to what</h2>
          <WhichPart rules={result.rules} chosen={chosen} />
        </Part>
      )}
      {result.options.length > 0 && <Choices options={result.options} chosen={chosen} />}
      {result.build.length > 0 && <AtTheBench parts={result.build} />}
      <All findings={rest} />
      {result.faults.length > 0 && (
        <Part>
          <h2>When one of them fails</h2>
          <Plain>
            {result.faults.map((f) => (
              <Fault key={f.id}>
                <strong>{f.label}.</strong> {f.others}
              </Fault>
            ))}
          </Plain>
        </Part>
      )}
      {result.spice && <Spice text={result.spice} />}
    </>
  );
}

interface AtTheBenchProps {
  /** The parts that the option changes. */
  parts: Schemas["CircuitResult"]["build"];
}

/** What is done with the iron, in order, and how it is put back. */
function AtTheBench({ parts }: AtTheBenchProps) {
  return (
    <Part>
      <h2>At the bench</h2>
      <p>Supply off, capacitors discharged, before the iron goes near.</p>
      <Moves>
        {parts.map((p) => (
          <li key={p.id}>{p.act}</li>
        ))}
      </Moves>
      <h3>To put it back</h3>
      <Moves>
        {[...parts].reverse().map((p) => (
          <li key={p.id}>{p.back}</li>
        ))}
      </Moves>
    </Part>
  );
}

function Figures({ figures }: Pick<Props["result"], "figures">) {
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
            <tr key={f.id}>
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
              <tr key={r.id}>
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

function Choices({ options, chosen }: Pick<Props["result"], "options"> & Pick<Props, "chosen">) {
  const { save } = useRecord();
  return (
    <Part>
      <h2>What may be done</h2>
      <Ways aria-label="What may be done">
        {options.map((o) => (
          <li key={o.id}>
            <span>
              <strong>{o.label}</strong>
              {o.advised && " (ours)"}
              <small>{o.what}</small>
              <small>{o.light}</small>
              {o.bars && <Barred>{o.bars}</Barred>}
            </span>
            <Share>
              <Figure shown={o.outcome} />
            </Share>
            {chosen === o.id ? (
              <Taken option={o} />
            ) : (
              <Button
                isDisabled={o.bars !== ""}
                aria-label={`Choose: ${o.label}`}
                onPress={() => inPassing(save({ chosen: o.id }))}
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
  /** The option that was decided on. */
  option: Schemas["Option"];
}

/** What was decided on: put back, or done, which makes what it changes what is there. */
function Taken({ option }: TakenProps) {
  const { save } = useRecord();
  const changed = Object.entries(option.changes ?? {});
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

function All({ findings }: Pick<Props["result"], "findings">) {
  return (
    <Plain>
      {findings.map((f) => (
        <FindingItem key={f.id} finding={f} />
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
