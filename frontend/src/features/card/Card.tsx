import styled, { createGlobalStyle } from "styled-components";

import type { Report, Schemas } from "../../api/client";
import { Bands } from "../../instruments/Bands";
import { say } from "../../ui/say";
import { today } from "../../ui/dates";
import { Circuit } from "./Circuit";
import { Paper } from "./Paper";
import { Places } from "./Places";
import { StairsDrawn } from "./StairsDrawn";

const Sheet = styled(Paper)`
  @media print {
    font-size: 9pt;
    h2 {
      margin-top: 2.5mm;
    }
    [data-wide="true"] {
      font-size: 8.5pt;
    }
  }
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  align-items: baseline;
  justify-content: space-between;
  border-bottom: 3px solid var(--ink);
  h1 {
    font-size: 1.6rem;
  }
`;

const Two = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2mm 8mm;
  @media (max-width: 600px) {
    grid-template-columns: 1fr;
  }
`;

const Value = styled.p`
  font: 650 2.1rem/1.15 var(--mono);
`;

const Led = styled.p`
  font-size: 1.35rem;
  font-weight: 650;
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th {
    font-weight: 500;
    text-align: left;
  }
  td {
    font-family: var(--mono);
    text-align: right;
    white-space: nowrap;
  }
  th,
  td {
    padding: 0.4mm 0;
    border-bottom: 1px solid var(--rule-soft);
  }
`;

const List = styled.ul`
  margin: 1mm 0 0;
  padding-left: 5mm;
`;

/** How the page is printed. */
export const CardPage = createGlobalStyle`
  @page { margin: 10mm 12mm; }
  @page wide { size: landscape; }
  @media print {
    html { font-size: 13px; }
    body, #root, main { min-height: 0; padding: 0; margin: 0; }
  }
`;
const GRADES: Record<string, string> = { stop: "Stop", mind: "Mind", note: "Note" };

interface Props {
  /** What the server answers for this view. */
  view: Schemas["PositionView"];
  /** The position's report. */
  report: Report;
  /** What LED, old lamp and lead are called; "" where that is not known. */
  words: { led: string; lamp: string; lead: string };
  /** Old parts that are kept, and where. */
  kept: readonly { what: string; where: string }[];
  /** What the item's hazards ask for. */
  cautions: readonly string[];
  /** The address below which its drawings are. */
  drawn: string;
  /** The small code that opens this lamp; none on a card that is only looked at. */
  named?: string;
  /** All places that it is for, where one card is for several alike. */
  places?: readonly string[];
}

/** A lamp's job card: one printed page that the next person works from. */
export function Card({ view, report, words, kept, cautions, drawn, named, places = [] }: Props) {
  const { position, rail, equipment_name } = view;
  const first = report.snapshots[0];
  return (
    <Sheet aria-label="Job card">
      <Head>
        <h1>{position.name}</h1>
        <span>{equipment_name}</span>
        <span>{today()}</span>
      </Head>
      {places.length > 1 && <Places names={places} />}
      <Top>
        <Parts view={view} report={report} words={words} named={named} />
        <Code drawn={drawn} />
      </Top>
      {first && (
        <>
          <h2>
            {rail.name}, {report.supply.label}: {first.label.toLowerCase()}
          </h2>
          <StairsDrawn stairs={first.staircase.stairs} most={first.staircase.top_v} />
        </>
      )}
      <Circuit drawn={drawn} />
      <Two>
        <Figures report={report} />
        <Read report={report} />
      </Two>
      <Two data-wide={report.findings.length > 5}>
        <div>
          <h2>To mind</h2>
          {report.findings.length === 0 && <p>Nothing.</p>}
          <List>
            {report.findings.map((f) => (
              <li key={f.id}>
                <strong>{GRADES[f.grade]}:</strong> {f.message}
              </li>
            ))}
          </List>
        </div>
        <Back
          position={position}
          report={report}
          lamp={words.lamp}
          kept={kept}
          cautions={cautions}
        />
      </Two>
    </Sheet>
  );
}

const Square = styled.figure`
  margin: 3mm 0 0;
  img {
    display: block;
    width: 40mm;
    height: 40mm;
    background: #fff;
  }
  figcaption {
    font-size: 0.8rem;
    line-height: 1.2;
  }
`;

/* The parts, and the code beside them. */
const Top = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 40mm;
  gap: 2mm 8mm;
  @media (max-width: 600px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Small = styled(Square)`
  display: flex;
  gap: 2mm;
  align-items: center;
  img {
    width: 18mm;
    height: 18mm;
  }
`;

/** All of it in a code, which carries the figures themselves: no address lives as long as paper. */
function Code({ drawn }: Pick<Props, "drawn">) {
  return (
    <Square>
      <img src={`${drawn}/code.svg`} alt="Code with this lamp's figures" />
      <figcaption>
        Holds every figure of this lamp: read it, and paste its text where the bench brings in a
        file.
      </figcaption>
    </Square>
  );
}

/** The lamp's name in a small code, in the room that is left under its LED. */
function NameCode({ named }: { named: string }) {
  return (
    <Small>
      <img src={named} alt="Code that opens this lamp on a paired phone" />
      <figcaption>Opens this lamp on a paired phone.</figcaption>
    </Small>
  );
}

/** The rating that is fitted, or the one to fit. */
function power(fitted: number | null | undefined, toFit: Report["power"]["to_fit"]): string {
  if (fitted) return `${fitted} W fitted`;
  return toFit ? `${say(toFit)} to fit` : "no leaded part takes its heat";
}

function Parts({ view, report, words, named }: Pick<Props, "view" | "report" | "words" | "named">) {
  const { position } = view;
  const { led, lead } = words;
  const halves = position.resistor_parts === 2;
  // Whatever else is in the circuit that the figures are of: a rectifier, its capacitor, a regulator, a shunt.
  const beside = report.needs
    .filter((n) => ["diode", "capacitor", "regulator", "driver"].includes(n.kind))
    .map((n) => `${n.count} × ${n.label}`);
  const strings = position.branches > 1 ? `, ${position.branches} strings side by side` : "";
  return (
    <Two>
      <div>
        <h2>{halves ? "Two resistors, one in each lead" : "Resistor"}</h2>
        <Value>{say(report.sizing.each)}</Value>
        {report.sizing.marks && <Bands marks={report.sizing.marks} />}
        <p>
          {power(position.rating_w, report.power.to_fit)}
          {!halves && lead && `; in the ${lead.replace(", ours", "").toLowerCase()} lead`}
        </p>
      </div>
      <div>
        <h2>LED</h2>
        <Led>{led}</Led>
        <p>
          {position.in_series > 1 ? `${position.in_series} in series` : "One"}
          {strings}. Long leg to plus.
        </p>
        {beside.length > 0 && <p>With it: {beside.join(", ")}.</p>}
        {named && <NameCode named={named} />}
      </div>
    </Two>
  );
}

function Figures({ report }: Pick<Props, "report">) {
  const { current, power, heat } = report;
  const usual = report.glow.lamps.find((g) => g.id === "usual");
  const rows: [string, string][] = [
    ["At the lowest", say(current.low)],
    ["Usual", say(current.usual)],
    ["At the highest", say(current.high)],
    ["Heat in each resistor", say(power.each)],
    ["From the supply, at most", say(current.supply)],
  ];
  if (heat.before) {
    rows.push(["Heat there, old lamp and now", `${say(heat.before)}, ${say(heat.after)}`]);
  }
  if (usual?.ratio_text) {
    rows.push(["Light, beside the old lamp", usual.ratio_text.replace(" the old lamp", "")]);
  }
  return (
    <div>
      <h2>Currents, typical LED</h2>
      <Table>
        <tbody>
          {rows.map(([label, text]) => (
            <tr key={label}>
              <th scope="row">{label}</th>
              <td>{text}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  );
}

function Read({ report }: Pick<Props, "report">) {
  return (
    <div>
      <h2>Read</h2>
      {report.diagnoses.length === 0 && <p>Nothing has been read with the LED in it yet.</p>}
      <List>
        {report.diagnoses.map((d) => (
          <li key={d.id}>{d.line}</li>
        ))}
      </List>
      {report.next_step.act && (
        <p>
          Next: {report.next_step.act}
          {report.next_step.expect && `; expect ${report.next_step.expect}`}.
        </p>
      )}
    </div>
  );
}

interface BackProps extends Pick<Props, "report" | "kept" | "cautions"> {
  position: Schemas["PositionAnswer"];
  /** The old lamp, as the catalogue calls it; "" where it is not from there. */
  lamp: string;
}

function Back({ position, report, lamp, kept, cautions }: BackProps) {
  const typed = [position.lamp_volts, position.lamp_amps, position.lamp_base];
  const fitted = report.needs
    .filter((n) => n.kind !== "sundry")
    .map((n) => `${n.count} × ${n.label}`);
  const took = [
    position.hours && `${position.hours} of work`,
    position.cost && `parts ${position.cost}`,
  ];
  return (
    <div>
      <h2>To put it back</h2>
      <p>
        Take out {fitted.join(", ")}. Old lamp in:{" "}
        {lamp || typed.filter(Boolean).join(", ") || "not written down"}. {position.notes}
      </p>
      {kept.map((o) => (
        <p key={o.what}>
          {o.what}: {o.where || "where it is was not written down"}.
        </p>
      ))}
      {cautions.map((c) => (
        <p key={c}>
          <strong>{c}</strong>
        </p>
      ))}
      <p>
        Before and after: {report.checks_line}
        {took.some(Boolean) && ` It took ${took.filter(Boolean).join(", ")}.`}
        {position.look_again && ` Look again on ${position.look_again}.`}
      </p>
    </div>
  );
}
