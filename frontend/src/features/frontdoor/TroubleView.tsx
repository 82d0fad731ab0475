import { Link, useNavigate, useSearchParams } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useBench, useCatalogue } from "../../api/queries";
import { notYet } from "../../shell/notYet";
import { Shell } from "../../shell/Shell";
import { viewOf } from "../../ui/Lamp";
import { panelAt } from "../../ui/panelPlace";
import { useRoving } from "../../ui/useRoving";
import { ViewHead, ViewTitle } from "../../ui/ViewHead";
import { Answer, Answers } from "./Answers";
import { useTop } from "./useTop";

const First = styled.p`
  max-width: 46rem;
  margin: 4px 0 18px;
  font-size: 1.35rem;
  font-weight: 650;
  line-height: 1.3;
`;

const Leads = styled.ol`
  max-width: 46rem;
  margin: 0 0 22px;
  padding: 0 0 0 1.6em;
  font-size: 1.125rem;
  li {
    padding: 8px 0;
    border-top: 1px solid var(--rule-soft);
  }
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    text-underline-offset: 0.2em;
  }
`;

const Items = styled.ul`
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
  > li {
    display: grid;
    grid-template-columns: 240px minmax(0, 1fr);
    gap: 2px 20px;
    padding: 6px 0;
    border-top: 1px solid var(--rule-soft);
  }
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 0 22px;
  }
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    text-underline-offset: 0.2em;
  }
  @media (max-width: 760px) {
    > li {
      grid-template-columns: 1fr;
    }
  }
`;

const at = (trouble: string, lamp = "") =>
  `?${new URLSearchParams({ is: trouble, ...(lamp && { lamp }) }).toString()}`;

/** Where a trouble of a lamp is looked into. */
function wayTo(place: Schemas["LeadOut"]["place"], lamp: Schemas["Summary"], item: string): string {
  if (place === "match") return `/equipment/${item}/match`;
  if (place === "build") return `/position/${lamp.id}/build`;
  return panelAt(`/position/${lamp.id}`, place);
}

/** What is wrong: twelve troubles as they are seen, and for each where to look, in order. */
export default function TroubleView() {
  const [params] = useSearchParams();
  const troubles = useCatalogue().data?.troubles ?? [];
  const bench = useBench();
  const go = useNavigate();
  useTop();
  const trouble = troubles.find((t) => t.id === params.get("is"));
  const lamp = params.get("lamp") ?? "";
  if (!bench.data) return notYet(bench);
  const item = bench.data.equipment.find((e) => e.positions.some((p) => p.id === lamp));
  const of = item?.positions.find((p) => p.id === lamp);
  const title = trouble?.label ?? "What is wrong?";
  return (
    <Shell title={title} steps={bench.data.steps} up={of ? `/position/${of.id}` : "/"}>
      <ViewHead>
        <ViewTitle>{title}</ViewTitle>
        {of ? <Link to={`/position/${of.id}`}>{of.name}</Link> : <Link to="/">Bench</Link>}
      </ViewHead>
      {!trouble && (
        <Answers many>
          {troubles.map((t) => (
            <Answer key={t.id} onPress={() => void go(at(t.id, lamp))}>
              {t.label}
            </Answer>
          ))}
        </Answers>
      )}
      {trouble && (
        <>
          <First>{trouble.first}</First>
          <Leads aria-label="Where to look">
            {trouble.leads.map((lead) => (
              <li key={lead.place}>
                {of && item ? (
                  <Link to={wayTo(lead.place, of, item.id)}>{lead.text}</Link>
                ) : (
                  lead.text
                )}
              </li>
            ))}
          </Leads>
          {!of && <WhichLamp trouble={trouble.id} items={bench.data.equipment} />}
          <p>
            <Link to={lamp ? at("", lamp) : "?"}>Something else is wrong</Link>
          </p>
        </>
      )}
    </Shell>
  );
}

interface WhichProps {
  trouble: string;
  items: readonly Schemas["BenchItem"][];
}

/** The lamps on the bench, by item. */
function WhichLamp({ trouble, items }: WhichProps) {
  const { list, onKeyDown } = useRoving<HTMLUListElement>();
  const some = items.filter((e) => e.positions.length + e.lights.length > 0);
  if (some.length === 0) return <p>No lamp is on the bench yet. Add it first.</p>;
  return (
    <section>
      <h2>Which lamp is it?</h2>
      <Items ref={list} aria-label="Which lamp is it?" onKeyDown={onKeyDown}>
        {some.map((e) => (
          <li key={e.id}>
            <strong>{e.name}</strong>
            <div>
              {e.positions.map((p) => (
                <Link key={p.id} to={at(trouble, p.id)}>
                  {p.name}
                </Link>
              ))}
              {/* A circuit has its readings, faults and cures in its own view. */}
              {e.lights.map((light) => (
                <Link key={light.id} to={viewOf(e.id, light)}>
                  {light.name}
                </Link>
              ))}
            </div>
          </li>
        ))}
      </Items>
    </section>
  );
}
