import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useBuying, useShop } from "../../api/queries";
import { inPassing, useSave } from "../../saving/useSave";
import { Button, SmallButton } from "../../ui/Button";
import { RecordContext } from "../../ui/record/record";
import { SavedChoice } from "../../ui/record/SavedChoice";
import { useSaveFields } from "../../ui/record/useSaveFields";
import { Shell } from "../../shell/Shell";
import { DrawerHead } from "./DrawerHead";

const List = styled.ul`
  margin: 0 0 14px;
  padding: 0;
  list-style: none;
  border-top: 2px solid var(--ink);
`;

const Row = styled.li`
  display: grid;
  grid-template-columns: 4.5ch minmax(0, 1.2fr) minmax(0, 1.6fr) 90px 132px;
  gap: 2px 14px;
  align-items: baseline;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule-soft);
  & > b {
    font: 650 1.6rem/1 var(--mono);
    text-align: right;
  }
  & > b[data-none="true"] {
    color: var(--ink-soft);
    font-weight: 400;
  }
  strong {
    font-size: 1.15rem;
  }
  @media (max-width: 760px) {
    grid-template-columns: 4.5ch minmax(0, 1fr) auto;
    & > :nth-child(3) {
      grid-row: 2;
      grid-column: 2 / -1;
    }
    & > :nth-child(5) {
      grid-row: 3;
      grid-column: 2 / -1;
    }
  }
`;

const Soft = styled.span`
  display: block;
  font-size: 0.95rem;
  color: var(--ink-soft);
`;

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 20px;
  align-items: center;
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
  }
  @media print {
    display: none;
  }
`;

const Total = styled.p`
  font: 650 1.5rem var(--mono);
`;

type Line = Schemas["OrderLine"];

/** What must be bought for all open work: by kind, with what for, ticked off as it is ordered and comes in. */
export default function BuyView() {
  const buying = useBuying().data;
  const shop = useShop().data;
  const saveShop = useSaveFields("/api/shop");
  const lines = buying?.lines ?? [];
  const kinds = [...new Set(lines.map((l) => l.kind_label))];
  return (
    <Shell title="To buy" steps={buying?.steps} up="/drawer">
      <DrawerHead title="To buy" />
      <Acts>
        <Button onPress={() => window.print()}>Print</Button>
        <a href="/api/buying.csv" download>
          The list (CSV)
        </a>
        {shop && (
          <RecordContext value={{ id: "shop", shape: "shop", values: shop, save: saveShop }}>
            <SavedChoice field="spares" label="Spares" />
          </RecordContext>
        )}
      </Acts>
      {buying && !buying.fresh && <p role="status">Some lamps are being worked out.</p>}
      {buying && lines.length === 0 && (
        <p>Nothing is to be bought: all that open work needs lies in the drawer.</p>
      )}
      {kinds.map((kind) => (
        <section key={kind} aria-label={kind}>
          <h2>{kind}</h2>
          <List>
            {lines
              .filter((l) => l.kind_label === kind)
              .map((l) => (
                <OneLine key={l.key} line={l} />
              ))}
          </List>
        </section>
      ))}
      {buying && lines.length > 0 && (
        <Total>
          {buying.price}
          {buying.unpriced > 0 && ` and ${buying.unpriced} without a price`}
        </Total>
      )}
      {buying?.left_out.map((name) => (
        <p key={name}>Not counted, for it cannot be worked out: {name}</p>
      ))}
    </Shell>
  );
}

function OneLine({ line }: { line: Line }) {
  const save = useSave();
  const act = (what: "ordered" | "came", done: string) =>
    inPassing(save("POST", `/api/buying/${what}`, { key: line.key }, { label: line.label, done }));
  const packs = line.pack > 1 && line.buy > 0 ? `${line.packs} of ${line.pack}` : "";
  return (
    <Row>
      <b data-none={line.buy === 0}>{line.buy > 0 ? line.buy : "–"}</b>
      <span>
        <strong>{line.label}</strong>
        {packs && <Soft>In packs: {packs}</Soft>}
      </span>
      <span>
        {line.why}
        <Soft>{line.lamps.join("; ")}</Soft>
      </span>
      <span>{line.price_text}</span>
      <span data-print="no">
        {line.buy > 0 && (
          <SmallButton
            aria-label={`Ordered: ${line.label}`}
            onPress={() => act("ordered", `Ordered ${line.label}.`)}
          >
            Ordered
          </SmallButton>
        )}
        {line.on_order > 0 && (
          <SmallButton
            aria-label={`Came in: ${line.label}`}
            onPress={() => act("came", `${line.label} came in.`)}
          >
            Came in
          </SmallButton>
        )}
      </span>
    </Row>
  );
}
