import { useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useBench, useCatalogue, useEquipment } from "../../api/queries";
import { useSave } from "../../saving/useSave";
import { Shell } from "../../shell/Shell";
import { panelAt } from "../../ui/panelPlace";
import { Refusal } from "../../ui/Refusal";
import { Button } from "../../ui/Button";
import { useOnce } from "../../ui/useOnce";
import { useRoving } from "../../ui/useRoving";
import { useTop } from "./useTop";
import { ViewHead, ViewTitle } from "../../ui/ViewHead";
import { Answer, Answers } from "./Answers";
import { Drawn } from "./Drawn";

const Wall = styled.ul`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0 36px;
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    border-top: 1.5px solid var(--rule);
  }
  @media (max-width: 1000px) {
    grid-template-columns: 1fr;
  }
`;

const Have = styled(Link)`
  display: flex;
  align-items: center;
  gap: 16px;
  min-height: 196px;
  padding: 12px 4px;
  text-decoration: none;
  strong {
    display: block;
    margin-bottom: 4px;
    font-size: 1.35rem;
    line-height: 1.2;
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
  &:hover {
    background: var(--rule-soft);
  }
  @media (max-width: 1000px) {
    min-height: 84px;
  }
`;

const Asked = styled.div`
  display: grid;
  grid-template-columns: 240px minmax(0, 1fr);
  gap: 20px 40px;
  @media (max-width: 760px) {
    grid-template-columns: 1fr;
  }
`;

const So = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    padding: 6px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
  a {
    display: inline-flex;
    align-items: center;
    min-height: 32px;
  }
`;

type Start = Schemas["StartOut"];

/** Stands for an item that is still to be made. */
const NEW = "new";

/** Make what the answers lead to, and open it. */
function useBegin(item: string) {
  const save = useSave();
  const go = useNavigate();
  const [why, setWhy] = useState<string>();
  // Sent again after a failure, both are made once.
  const [key] = useState(() => crypto.randomUUID());
  const [fresh] = useState(() => crypto.randomUUID());
  const begin = useOnce(async (start: string, answers: readonly string[], into: string) => {
    setWhy(undefined);
    let equipment = item || into;
    try {
      if (equipment === NEW) {
        equipment = fresh;
        await save("PUT", `/api/equipment/${equipment}`, { name: "New equipment" });
      }
      const body = { id: key, start, answers };
      const path = `/api/equipment/${equipment}/begin`;
      const made = (await save("POST", path, body, { label: "Add a lamp" })).data;
      await go(wayTo(made as Schemas["BegunOut"], equipment), { replace: true });
    } catch (problem) {
      setWhy(problem instanceof Error ? problem.message : "It was not added.");
      throw problem;
    }
  });
  return { ...begin, why };
}

function wayTo(made: Schemas["BegunOut"], equipment: string): string {
  if (made.what === "lamp") return panelAt(`/position/${made.id}`, made.panel);
  return `/equipment/${equipment}/${made.what === "dim" ? "dim" : "fitted"}/${made.id}`;
}

/** Where the questions stand, by the address: what is in hand, and what was answered. */
function useAnswers() {
  const [params] = useSearchParams();
  const starts = useCatalogue().data?.starts ?? [];
  const start = starts.find((s) => s.id === params.get("start"));
  const given = params.getAll("a");
  const said = (start?.questions ?? [])
    .map((q, k) => q.answers.find((a) => a.id === given[k]))
    .slice(0, given.length)
    .filter((a) => a !== undefined);
  const left = params.get("left") !== null;
  const done = left || said.some((a) => a.ends) || said.length === (start?.questions.length ?? 0);
  return { starts, start, said, refused: said.find((a) => a.refused)?.refused ?? "", done };
}

/** The address at which a start's questions stand answered so far, and whether the rest is left open. */
const at = (start: string, answers: readonly string[], left = false) => {
  const said = [["start", start], ...answers.map((a) => ["a", a]), ...(left ? [["left", ""]] : [])];
  return `?${new URLSearchParams(said).toString()}`;
};

/** The front door: what somebody has in hand, at most two questions, and the lamp or circuit that is begun with that. */
export default function AddLampView() {
  const { id = "" } = useParams();
  const item = useEquipment(id).data;
  const asked = useAnswers();
  const begin = useBegin(id);
  const { start, said, refused, done } = asked;
  useTop();
  const question = start?.questions[said.length];
  const where = start && done && !refused;
  const title = !start
    ? "What do you have?"
    : refused
      ? "This one stays as it is"
      : where
        ? "Which equipment is it in?"
        : (question?.ask ?? start.label);
  const up = id ? `/equipment/${id}` : "/";
  return (
    <Shell title={title} up={up} steps={item?.steps}>
      <ViewHead>
        <ViewTitle>{title}</ViewTitle>
        <Link to={up}>{id ? (item?.name ?? "Equipment") : "Bench"}</Link>
      </ViewHead>
      <Refusal why={begin.why} />
      {!start && <Starts starts={asked.starts} item={id} begin={begin} />}
      {start && (
        <Asked>
          <Said start={start} said={said} />
          {refused ? (
            <p>{refused}</p>
          ) : where ? (
            <Where onPick={(into) => void begin.act(start.id, ids(said), into)} busy={begin.busy} />
          ) : (
            <div>
              <Answers>
                {question?.answers.map((a) => (
                  <Next key={a.id} start={start} said={said} answer={a} item={id} begin={begin} />
                ))}
              </Answers>
              <LeaveOpen start={start} said={said} item={id} begin={begin} />
            </div>
          )}
        </Asked>
      )}
    </Shell>
  );
}

type Said = readonly Schemas["StartAnswer"][];

const ids = (said: Said) => said.map((a) => a.id);

interface StartsProps {
  starts: readonly Start[];
  /** The item's key; empty where it is asked for last. */
  item: string;
  begin: ReturnType<typeof useBegin>;
}

/** The nine that somebody may have, drawn. */
function Starts({ starts, item, begin }: StartsProps) {
  const { list, onKeyDown } = useRoving<HTMLUListElement>();
  return (
    <>
      <Wall ref={list} aria-label="What do you have?" onKeyDown={onKeyDown}>
        {starts.map((s) => (
          <li key={s.id}>
            <Have
              data-new=""
              to={at(s.id, [])}
              onClick={(e) => {
                if (!item || s.questions.length > 0) return;
                e.preventDefault();
                void begin.act(s.id, [], item);
              }}
            >
              <Drawn of={s.id} />
              <span>
                <strong>{s.label}</strong>
                {s.line}
              </span>
            </Have>
          </li>
        ))}
      </Wall>
      <p>
        <Link to="/trouble">A lamp is there, and something is wrong with it</Link>
      </p>
    </>
  );
}

interface NextProps {
  start: Start;
  said: Said;
  answer: Schemas["StartAnswer"];
  item: string;
  begin: ReturnType<typeof useBegin>;
}

/** One answer: it leads to the next question, or begins what it leads to. */
function Next({ start, said, answer, item, begin }: NextProps) {
  const go = useNavigate();
  const all = [...ids(said), answer.id];
  const last = answer.ends || all.length === start.questions.length;
  return (
    <Answer
      isDisabled={begin.busy}
      onPress={() => {
        if (last && item && !answer.refused) void begin.act(start.id, all, item);
        else void go(at(start.id, all));
      }}
    >
      {answer.label}
    </Answer>
  );
}

/** For whoever knows what they want: the questions that are left stay open. */
function LeaveOpen({ start, said, item, begin }: Omit<NextProps, "answer">) {
  const go = useNavigate();
  return (
    <Button
      data-new=""
      isDisabled={begin.busy}
      onPress={() => {
        if (item) void begin.act(start.id, ids(said), item);
        else void go(at(start.id, ids(said), true));
      }}
    >
      Add it now, and leave this open
    </Button>
  );
}

/** What was said so far; each can be said anew. */
function Said({ start, said }: { start: Start; said: Said }) {
  return (
    <div>
      <Drawn of={start.id} />
      <So>
        <li>
          <Link to="?">{start.label}</Link>
        </li>
        {said.map((a, k) => (
          <li key={a.id}>
            <Link to={at(start.id, ids(said.slice(0, k)))}>{a.label}</Link>
          </li>
        ))}
      </So>
    </div>
  );
}

interface WhereProps {
  onPick: (item: string) => void;
  busy: boolean;
}

/** The items that a lamp may belong to, and a new one. */
function Where({ onPick, busy }: WhereProps) {
  const items = useBench().data?.equipment.filter((e) => !e.archived) ?? [];
  return (
    <Answers>
      <Answer isDisabled={busy} onPress={() => onPick(NEW)}>
        New equipment
      </Answer>
      {items.map((e) => (
        <Answer key={e.id} isDisabled={busy} onPress={() => onPick(e.id)}>
          {e.name}
        </Answer>
      ))}
    </Answers>
  );
}
