import { useState } from "react";
import { Link, useParams } from "react-router";
import styled, { createGlobalStyle } from "styled-components";

import type { Schemas } from "../../api/client";
import { useCatalogue, useEquipment, usePosition, useReport } from "../../api/queries";
import { notYet } from "../../shell/notYet";
import { Shell } from "../../shell/Shell";
import { Button, Mode } from "../../ui/Button";
import { Glow, viewOf } from "../../ui/Lamp";
import { today } from "../../ui/dates";
import { CardPage } from "./Card";
import { KeptCard } from "./KeptCard";
import { Paper } from "./Paper";

const Page = createGlobalStyle`
  @page { margin: 12mm; }
  @media print { html { font-size: 14px; } }
`;

const Head = styled.div`
  border-bottom: 3px solid var(--ink);
  h1 {
    font-size: 1.9rem;
  }
`;

const Lamps = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: 34px minmax(0, 1fr);
    gap: 0 12px;
    padding: 2mm 0;
    border-bottom: 1px solid var(--rule-soft);
    break-inside: avoid;
  }
  strong {
    font-size: 1.15rem;
  }
`;

/* Each card begins a page of its own. */
const Sheet = styled.div`
  break-before: page;
`;

/** An item's cover: all its lamps, how it opens and closes, what was taken out, what to mind. */
export default function CoverView() {
  const { id = "" } = useParams();
  const view = useEquipment(id);
  const [cards, setCards] = useState(false);
  if (!view.data) return notYet(view);
  const item = view.data;
  return (
    <Shell title={`Cover, ${item.name}`} steps={item.steps} up={`/equipment/${id}`}>
      <Page />
      <p data-print="no">
        <Button onPress={() => window.print()}>Print, or save as PDF</Button>{" "}
        <Mode isSelected={cards} onChange={setCards}>
          With all cards
        </Mode>
      </p>
      <Cover item={item} />
      {cards && <CardPage />}
      {cards &&
        item.positions.map((p) => (
          <Sheet key={p.id}>
            <OneCard id={p.id} name={p.name} />
          </Sheet>
        ))}
    </Shell>
  );
}

interface OneCardProps {
  /** The lamp's key. */
  id: string;
  name: string;
}

/** A lamp's card behind the cover. */
function OneCard({ id, name }: OneCardProps) {
  const view = usePosition(id);
  const answer = useReport(id, {});
  if (view.data && answer.data) return <KeptCard view={view.data} report={answer.data.report} />;
  const problem = view.error ?? answer.error;
  return <p role="status">{problem ? `${name}: ${problem.message}` : `${name}…`}</p>;
}

function Cover({ item }: { item: Schemas["EquipmentOut"] }) {
  const { sheet, cautions } = item.take_in;
  const stages = useCatalogue().data?.choices["position.stage"] ?? [];
  const opening = byPlace(sheet.opening ?? {});
  const kept = byPlace(sheet.originals ?? {}).filter((o) => o.what);
  return (
    <Paper aria-label="Cover">
      <Head>
        <h1>{item.name}</h1>
        <p>
          {[item.maker_model, item.board_revision, item.owner].filter(Boolean).join(", ")} {today()}
        </p>
      </Head>
      {cautions.map((c) => (
        <p key={c}>
          <strong>{c}</strong>
        </p>
      ))}
      <h2>Lamps</h2>
      <Lamps>
        {item.positions.map((p) => (
          <li key={p.id}>
            <Glow colour={p.glow_colour} lightness={p.glow_lightness} />
            <div>
              <strong>
                <Link to={`/position/${p.id}/card`}>{p.name}</Link>
              </strong>
              , {stages.find((s) => s.id === p.stage)?.label ?? p.stage}. {p.rail}.
              {p.line && <div>{p.line}</div>}
            </div>
          </li>
        ))}
        {item.lights.map((light) => (
          <li key={light.id}>
            <span />
            <div>
              <strong>
                <Link to={viewOf(item.id, light)}>{light.name}</Link>
              </strong>
              {light.line && <div>{light.line}</div>}
            </div>
          </li>
        ))}
      </Lamps>
      {opening.length > 0 && (
        <>
          <h2>How it opens; it closes the other way round</h2>
          <ol>
            {opening.map((step) => (
              <li key={step.text}>{step.text}</li>
            ))}
          </ol>
        </>
      )}
      <h2>Originals</h2>
      {kept.length === 0 && <p>Nothing taken out is written down.</p>}
      {kept.map((o) => (
        <p key={o.what}>
          {o.what}: {o.where || "where it is was not written down"}.
        </p>
      ))}
      {item.notes && (
        <>
          <h2>Notes</h2>
          <p>{item.notes}</p>
        </>
      )}
    </Paper>
  );
}

const byPlace = <L extends { place?: number }>(lines: Record<string, L>): L[] =>
  Object.values(lines).sort((a, b) => (a.place ?? 0) - (b.place ?? 0));
