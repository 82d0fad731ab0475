import {
  lazy,
  Suspense,
  useEffect,
  useRef,
  useState,
  type ComponentProps,
  type ReactNode,
} from "react";
import { Input, Label, SearchField } from "react-aria-components";
import { Link, useLocation, useNavigate } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useBench, useFirstStart, useMe } from "../../api/queries";
import { inPassing, useSave } from "../../saving/useSave";
import { Button, Mode } from "../../ui/Button";
import { BringIn } from "../equipment/Files";
import { moved } from "../../ui/Movers";
import { Missing } from "../../shell/Missing";
import { Shell } from "../../shell/Shell";
import { useOnce } from "../../ui/useOnce";
import { useThumb } from "../../ui/useNarrow";
import { useRoving } from "../../ui/useRoving";
import { Above } from "./Above";
import { EquipmentRow } from "./EquipmentRow";

// What a bench shows while it is empty, or while something is asked for, is not fetched for one that is not.
const News = lazy(() => import("./News"));
const ScanCard = lazy(() => import("./ScanCard"));
const AlsoFound = lazy(() => import("./AlsoFound"));
const FirstStart = lazy(() => import("./FirstStart"));
const LookAround = lazy(() => import("./LookAround"));
const FirstSum = lazy(() => import("./FirstSum"));

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  justify-content: space-between;
  margin: 16px 0 4px;
`;

const Title = styled.h2`
  font-size: 1.35rem;
  font-weight: 650;
`;

const Items = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
`;

const Find = styled(SearchField)`
  display: flex;
  align-items: center;
  gap: 8px;
  flex: 1 1 240px;
  max-width: 420px;
  label {
    font-weight: 600;
  }
  input {
    flex: 1;
    min-width: 0;
    min-height: 44px;
    padding: 4px 10px;
    border: 1.5px solid var(--ink-soft);
    border-radius: 4px;
    background: var(--sheet);
  }
`;

/* The two ways in. */
const Way = styled(Link)`
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 10px;
  font-weight: 650;
  text-underline-offset: 0.2em;
`;

const Fold = styled(Button)`
  margin-top: 14px;
`;

const Bare = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 18px;
`;

const Below = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 0 28px;
  margin-top: 14px;
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    text-underline-offset: 0.2em;
  }
`;

type BenchItem = Schemas["BenchItem"];

/** All its lamps are done, or it was put away. */
const finished = (item: BenchItem) =>
  item.archived || (item.positions.length > 0 && item.positions.every((p) => p.stage === "done"));

/** Whether every word asked for is somewhere in the item or its lamps. */
function has(item: BenchItem, asked: string): boolean {
  const said = [item.name, item.maker_model]
    .concat(item.positions.flatMap((p) => [p.name, p.rail, p.line, p.next_act]))
    .concat(item.lights.flatMap((light) => [light.name, light.line]))
    .join(" ")
    .toLowerCase();
  return asked
    .toLowerCase()
    .split(/\s+/)
    .every((word) => said.includes(word));
}

/** Go to the first link that is what was asked for; Enter then opens it. */
function goTo(asked: string): void {
  const links = [...document.querySelectorAll<HTMLElement>("[data-found] a")];
  const words = asked.toLowerCase().split(/\s+/);
  const says = (link: HTMLElement) =>
    words.every((word) => link.textContent?.toLowerCase().includes(word));
  (links.find(says) ?? links[0])?.focus();
}

/** Going to what is asked for: at once, or once there is a bench to find it on. */
function useFound(ready: boolean, asked: string): () => void {
  const wanted = useRef("");
  useEffect(() => {
    // Whoever typed on, or went elsewhere meanwhile, is not fetched back.
    const waits = document.activeElement?.getAttribute("type") === "search";
    if (ready && waits && asked && wanted.current === asked) goTo(asked);
    if (ready) wanted.current = "";
  }, [ready, asked]);
  return () => {
    if (ready) goTo(asked);
    else wanted.current = asked;
  };
}

/** The field to find by; whoever came here by its key has it under the hand. */
function useWanted() {
  const field = useRef<HTMLInputElement>(null);
  const wanted = (useLocation().state as { find?: boolean } | null)?.find === true;
  useEffect(() => {
    if (wanted) field.current?.focus();
  }, [wanted]);
  return field;
}

/** New equipment, opened as it is made. */
function useAddEquipment() {
  const save = useSave();
  const go = useNavigate();
  return useOnce(async () => {
    const id = crypto.randomUUID();
    const label = "Add equipment";
    await save("PUT", `/api/equipment/${id}`, { name: "New equipment" }, { label });
    await go(`/equipment/${id}`);
  });
}

/** Whose an empty bench is, and whether it asks the three questions first. */
function useNew(empty: boolean) {
  const me = useMe().data;
  const atTheBench = me?.at_the_bench === true;
  const first = useFirstStart(atTheBench && empty).data;
  return {
    atTheBench,
    own: atTheBench && !me.demo,
    asks: empty && first?.new === true,
    news: (me?.news.length ?? 0) > 0,
  };
}

/** The opening screen: the quick sum, and all equipment in work. */
export function BenchView() {
  const bench = useBench();
  const save = useSave();
  const [asked, setAsked] = useState("");
  const toFound = useFound(!!bench.data, asked);
  const field = useWanted();
  const [arranging, setArranging] = useState(false);
  const [unfolded, setUnfolded] = useState(false);

  const add = useAddEquipment();
  const items = bench.data?.equipment ?? [];
  const empty = bench.data !== undefined && items.length === 0;
  const { atTheBench, own, asks, news } = useNew(empty);
  const move = (id: string, by: number) => {
    const from = items.findIndex((e) => e.id === id);
    const body = moved(items, from, by);
    if (body) inPassing(save("POST", "/api/equipment/move", body, { label: "Move" }));
  };
  const found = asked.trim() ? items.filter((e) => has(e, asked.trim())) : items;
  // What is asked for is shown wherever it is, and so is all that is arranged.
  const folds = !asked.trim() && !arranging;
  const open = folds ? found.filter((e) => !finished(e)) : found;
  const done = folds ? found.filter(finished) : [];
  const row = (e: BenchItem) => (
    <EquipmentRow
      key={e.id}
      item={e}
      first={e === items[0]}
      last={e === items[items.length - 1]}
      arranging={arranging}
      onMove={(by) => move(e.id, by)}
    />
  );

  if (asks) return <Asks steps={bench.data?.steps} />;
  return (
    <Shell title="Bench" steps={bench.data?.steps}>
      {news && (
        <Suspense>
          <News />
        </Suspense>
      )}
      <Begin shown={empty} />
      <Above equipment={items} due={bench.data?.due} />
      <Head>
        <Title>On the bench</Title>
        <Find value={asked} onChange={setAsked} onSubmit={toFound}>
          <Label>Find</Label>
          <Input ref={field} placeholder="item, lamp, part, 3k9 at 24 V" />
        </Find>
        <Acts>
          <Way to="/add">Add a lamp</Way>
          <Way to="/trouble">What is wrong?</Way>
          {items.length > 1 && (
            <Mode isSelected={arranging} onChange={setArranging}>
              Arrange
            </Mode>
          )}
          <FromOutside />
          <Button data-new="" isDisabled={add.busy} onPress={() => void add.act()}>
            Add equipment
          </Button>
        </Acts>
      </Head>
      {bench.isError && !bench.data && <Missing problem={bench.error} />}
      {empty && <Nothing own={own} />}
      <Beyond asked={asked.trim()} shown={found} none={items.length > 0 && found.length === 0} />
      <Rows label="Equipment in work">{open.map(row)}</Rows>
      {done.length > 0 && (
        <>
          <Fold aria-expanded={unfolded} onPress={() => setUnfolded(!unfolded)}>
            {unfolded ? "Fold away the" : "Show the"} archive ({done.length})
          </Fold>
          {unfolded && <Rows label="The archive">{done.map(row)}</Rows>}
        </>
      )}
      <Records atTheBench={atTheBench} />
    </Shell>
  );
}

/** What is found beyond the rows, once something is asked for. */
function Beyond(props: ComponentProps<typeof AlsoFound>) {
  return props.asked ? (
    <Suspense>
      <AlsoFound {...props} />
    </Suspense>
  ) : null;
}

/** What comes onto the bench from a file, and on a phone from a card. */
function FromOutside() {
  const thumb = useThumb();
  return (
    <>
      {thumb && (
        <Suspense>
          <ScanCard />
        </Suspense>
      )}
      <BringIn />
    </>
  );
}

/** The questions of a new bench. */
function Asks({ steps }: { steps: Schemas["Steps"] | undefined }) {
  return (
    <Shell title="Bench" steps={steps}>
      <Suspense>
        <FirstStart />
      </Suspense>
    </Shell>
  );
}

/** The first sum, a step at a time, on an empty bench. */
function Begin({ shown }: { shown: boolean }) {
  return shown ? (
    <Suspense>
      <FirstSum />
    </Suspense>
  ) : null;
}

/** What a bench says on which nothing is. */
function Nothing({ own }: { own: boolean }) {
  return (
    <Bare>
      <p>
        Nothing here yet. Do a quick sum above and keep it, or add the equipment that is open in
        front of you.
      </p>
      {own && (
        <Suspense>
          <LookAround />
        </Suspense>
      )}
    </Bare>
  );
}

/** Where the records are looked after. */
function Records({ atTheBench }: { atTheBench: boolean }) {
  return (
    <Below>
      <Link to="/backups">Backups, and moving the bench</Link>
      {atTheBench && <Link to="/devices">Add a phone</Link>}
    </Below>
  );
}

interface RowsProps {
  /** What the list is of. */
  label: string;
  children: ReactNode;
}

/** A list that is one stop of the Tab key. */
function Rows({ label, children }: RowsProps) {
  const { list, onKeyDown } = useRoving<HTMLUListElement>();
  return (
    <Items data-found="" ref={list} aria-label={label} onKeyDown={onKeyDown}>
      {children}
    </Items>
  );
}
