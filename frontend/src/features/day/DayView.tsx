import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useBuying, useDay } from "../../api/queries";
import { useSave } from "../../saving/useSave";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Disclosed } from "../../ui/Disclosed";
import { today } from "../../ui/dates";
import { DayField } from "../../ui/DayField";
import { Shell } from "../../shell/Shell";
import { wayTo } from "./wayTo";

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 28px;
  align-items: end;
  margin: 6px 0 12px;
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
  }
  @media print {
    display: none;
  }
`;

const Title = styled.h1`
  font-size: 1.9rem;
  font-weight: 650;
`;

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
  align-items: start;
  gap: 12px 48px;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Blocks = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  border-top: 2px solid var(--ink);
`;

const Block = styled.li`
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 2px 18px;
  padding: 10px 0 12px;
  border-bottom: 1.5px solid var(--rule);
  & > b {
    font: 650 1.6rem/1.15 var(--mono);
  }
  & > b span {
    display: block;
    font: 500 1rem var(--mono);
    color: var(--ink-soft);
  }
  h2 {
    font-size: 1.3rem;
    line-height: 1.2;
  }
`;

const Soft = styled.p`
  font-size: 0.95rem;
  color: var(--ink-soft);
`;

const Items = styled.ul`
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
  > li {
    display: grid;
    grid-template-columns: minmax(0, 200px) minmax(0, 1fr);
    gap: 0 16px;
    border-top: 1px solid var(--rule-soft);
    @media (max-width: 600px) {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  > li > :last-child {
    display: flex;
    flex-wrap: wrap;
    gap: 0 20px;
  }
  > li > :first-child {
    line-height: 1.2;
  }
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    text-underline-offset: 0.2em;
  }
`;

const Thing = styled.span`
  display: inline-flex;
  gap: 8px;
  align-items: center;
  input {
    width: 24px;
    height: 24px;
    accent-color: var(--mark);
    cursor: pointer;
    @media (pointer: coarse) {
      width: 32px;
      height: 32px;
    }
  }
  small {
    font-size: 0.9rem;
    color: var(--ink-soft);
  }
`;

const Waits = styled.ul`
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
  li {
    padding: 4px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
  a {
    font-weight: 650;
    text-underline-offset: 0.2em;
  }
`;

const Late = styled.p`
  padding: 6px 14px;
  border: 2px solid var(--stop);
  border-radius: 4px;
  font-weight: 650;
`;

/** So many small things are named; more would be the bench over again. */
const FILLING = 6;
const HOURS = ["1", "2", "4", "8"].map((id) => ({ id, label: `${id} h` }));
type Task = Schemas["DayTask"];

/** The bench day: what can be done now, together, in the hours one has. */
export default function DayView() {
  const [hours, setHours] = useState("4");
  const [begins, setBegins] = useState("");
  const query = useDay(Number(hours), begins);
  const day = query.data;
  const wrong = begins && query.isError ? query.error.message : undefined;
  return (
    <Shell title="Bench day">
      <Title>Bench day</Title>
      <Head>
        <Choice label="Hours I have" value={hours} options={HOURS} onChange={setHours} />
        <DayField
          label="From"
          value={begins}
          onChange={setBegins}
          hint="Empty: now"
          error={wrong}
          timed
        />
        <Button onPress={() => window.print()}>Print</Button>
        <a
          href={`/api/day.ics?hours=${hours}&begins=${encodeURIComponent(day?.begins ?? "")}`}
          download
        >
          Calendar (iCalendar)
        </a>
      </Head>
      {day && day.late.length > 0 && <Late role="alert">Late: {day.late.join(", ")}</Late>}
      <p role="status">
        {day?.line} {day && !day.fresh && "Some lamps are being worked out."}
      </p>
      {day && (
        <Columns>
          <Blocks aria-label="The day">
            {day.blocks.map((b) => (
              <Block key={b.start}>
                <b>
                  {b.start}
                  <span>to {b.end}</span>
                </b>
                <div>
                  <h2>{b.label}</h2>
                  <Soft>
                    {b.why} {b.soaking && `${b.soaking}.`}
                  </Soft>
                  <TaskList tasks={b.tasks} />
                </div>
              </Block>
            ))}
          </Blocks>
          <Aside day={day} />
        </Columns>
      )}
    </Shell>
  );
}

/** Tasks by item, each with its tick: what was done is gone from the day, and undo brings it back. */
function TaskList({ tasks, bare = false }: { tasks: readonly Task[]; bare?: boolean }) {
  const save = useSave();
  // It shows as ticked until the day without it is here.
  const [ticked, setTicked] = useState<readonly string[]>([]);
  const done = (t: Task) => {
    const said = { label: `${t.label}, ${t.lamp}`, done: `Done: ${t.label}, ${t.lamp}.` };
    const steps = { [t.tick]: { done: true, at: today() } };
    const key = `${t.lamp_id} ${t.kind}`;
    const settled = () => setTicked((old) => old.filter((k) => k !== key));
    setTicked((old) => [...old, key]);
    void save("PATCH", `/api/positions/${t.lamp_id}`, { steps }, said).then(settled, settled);
  };
  return (
    <Items>
      {byItem(tasks).map((its) => (
        <li key={its[0]?.item_id}>
          <Link to={`/equipment/${its[0]?.item_id}`}>{its[0]?.item}</Link>
          <div>
            {its.map((t) => (
              <Thing key={`${t.lamp_id} ${t.kind}`}>
                {t.tick && !bare && (
                  <input
                    type="checkbox"
                    aria-label={`Done: ${t.label}, ${t.lamp}`}
                    checked={ticked.includes(`${t.lamp_id} ${t.kind}`)}
                    onChange={() => done(t)}
                  />
                )}
                <Link to={wayTo(t)}>{t.lamp}</Link>
                <small>
                  {t.minutes} min{bare && `, ${t.label.toLowerCase()}`}
                </small>
              </Thing>
            ))}
          </div>
        </li>
      ))}
    </Items>
  );
}

/** What waits and for what, a line each. */
function Held({ held }: { held: Schemas["DayOut"]["held"] }) {
  return (
    <Waits>
      {held.map((h) => (
        <li key={`${h.lamp_id} ${h.label}`}>
          <Link to={`/position/${h.lamp_id}`}>{h.lamp}</Link>, {h.item}. {h.label}: {h.why}
        </li>
      ))}
    </Waits>
  );
}

/** Tasks of one item together, the items in the order in which they come. */
function byItem(tasks: readonly Task[]): Task[][] {
  const items = new Map<string, Task[]>();
  for (const t of tasks) items.set(t.item_id, [...(items.get(t.item_id) ?? []), t]);
  return [...items.values()];
}

/** What fills a gap, what waits and for what, and how long things take here. */
function Aside({ day }: { day: Schemas["DayOut"] }) {
  const short = (useBuying().data?.lines ?? []).filter((l) => l.buy > 0).length;
  return (
    <div>
      {short > 0 && (
        <p>
          One order for all of it: <Link to="/drawer/buy">{short} parts to buy</Link>
        </p>
      )}
      {day.hot.length > 0 && (
        <section aria-label="While the iron is hot">
          <h2>While the iron is hot</h2>
          <TaskList tasks={day.hot} bare />
        </section>
      )}
      {day.held.length > 0 && (
        <section aria-label="Waits">
          <h2>Waits</h2>
          <Held held={day.held.slice(0, FILLING)} />
          {day.held.length > FILLING && (
            <Disclosed label={`${day.held.length - FILLING} more that wait`}>
              <Held held={day.held.slice(FILLING)} />
            </Disclosed>
          )}
        </section>
      )}
      {day.meanwhile.length > 0 && (
        <section aria-label="While it soaks">
          <h2>While it soaks</h2>
          <TaskList tasks={day.meanwhile.slice(0, FILLING)} bare />
          {day.meanwhile.length > FILLING && (
            <Soft>and {day.meanwhile.length - FILLING} more small things</Soft>
          )}
        </section>
      )}
      <section aria-label="How long it takes here">
        <h2>How long it takes here</h2>
        {day.durations.map((d) => (
          <Soft key={d.label}>
            {d.label}: {d.minutes} min, {d.line}
          </Soft>
        ))}
      </section>
    </div>
  );
}
