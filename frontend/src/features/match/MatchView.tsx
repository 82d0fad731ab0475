import { useState } from "react";
import { Link, useParams } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useEquipment, useMatch } from "../../api/queries";
import { inPassing, useSave } from "../../saving/useSave";
import { Missing } from "../../shell/Missing";
import { Shell } from "../../shell/Shell";
import { Button, MainButton } from "../../ui/Button";
import { OneOfSome } from "../../ui/OneOfSome";
import { ViewHead, ViewTitle } from "../../ui/ViewHead";
import { MatchFaces } from "./MatchFaces";
import { MatchRule } from "./MatchRule";

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 12px;
  margin-top: 12px;
`;

const Line = styled.p`
  margin: 8px 0 0;
  font-size: 1.05rem;
`;

/** A group of lamps on one line of light, each with a cursor, moved together or apart. */
export default function MatchView() {
  const { id = "" } = useParams();
  const item = useEquipment(id);
  const [out, setOut] = useState<readonly Left[]>([]);
  const lamps = item.data?.positions.map((p) => p.id).filter((p) => !out.some((o) => o.id === p));
  const match = useMatch(id, out.length > 0 ? (lamps ?? []).join() : "");
  const problem = item.error ?? match.error;
  if (problem && !(item.data && match.data)) {
    return (
      <Shell>
        <Missing problem={problem} />
      </Shell>
    );
  }
  if (!item.data || !match.data) return <Shell>{null}</Shell>;
  return (
    <Shell title={`Match, ${item.data.name}`} steps={item.data.steps} up={`/equipment/${id}`}>
      <ViewHead>
        <ViewTitle>Match lamps</ViewTitle>
        <Link to={`/equipment/${id}`}>{item.data.name}</Link>
      </ViewHead>
      <Group
        key={standing(match.data)}
        item={id}
        match={match.data}
        onOut={(row) => setOut((old) => [...old, { id: row.id, name: row.name }])}
      />
      <LeftOut lamps={out} onIn={(back) => setOut((old) => old.filter((o) => o.id !== back))} />
    </Shell>
  );
}

/** A group that stands otherwise begins anew. */
const standing = (match: Schemas["MatchReport"]) =>
  match.rows
    .map((r) => `${r.id}:${r.values[r.now]?.ohm ?? ""}:${r.values[r.now]?.octaves ?? ""}`)
    .join();

/** A lamp that was taken out of the group. */
interface Left {
  id: string;
  name: string;
}

interface LeftOutProps {
  lamps: readonly Left[];
  /** Take one in again. */
  onIn: (id: string) => void;
}

function LeftOut({ lamps, onIn }: LeftOutProps) {
  if (lamps.length === 0) return null;
  return (
    <Acts aria-label="Left out of the group">
      {lamps.map((lamp) => (
        <Button key={lamp.id} onPress={() => onIn(lamp.id)}>
          Take {lamp.name} in again
        </Button>
      ))}
    </Acts>
  );
}

interface Props {
  /** The item's key. */
  item: string;
  match: Schemas["MatchReport"];
  /** Take a lamp out of the group. */
  onOut: (row: Schemas["MatchRow"]) => void;
}

function Group({ item, match, onOut }: Props) {
  const save = useSave();
  const [picks, setPicks] = useState<readonly number[]>(match.rows.map((r) => r.now));
  const [level, setLevel] = useState<number>();
  const inside = match.rows.filter((r) => !r.barred);
  const [reference, setReference] = useState(inside[0]?.id ?? "");
  if (match.rows.length < 2) return <p>Two lamps make a group: there are fewer here.</p>;
  const together = (to: number) => {
    const at = match.levels[Math.min(Math.max(to, 0), match.levels.length - 1)];
    if (!at) return;
    setLevel(match.levels.indexOf(at));
    setPicks((old) => old.map((k, n) => at.picks[n] ?? k));
  };
  const moved = match.rows.filter((r, n) => !r.barred && picks[n] !== r.now);
  const use = () => {
    const resistors = Object.fromEntries(
      moved.map((r) => [r.id, r.values[picks[match.rows.indexOf(r)] ?? r.now]?.ohm]),
    );
    const more = { label: "Match lamps", done: "Resistors used." };
    inPassing(save("POST", `/api/equipment/${item}/match/use`, { resistors }, more));
  };
  const equal = () => {
    const lamps = inside.map((r) => r.id);
    const more = { label: "They look equal", done: "Kept: they look equal as they stand." };
    inPassing(save("POST", `/api/equipment/${item}/match/equal`, { lamps, reference }, more));
  };
  return (
    <>
      <MatchFaces match={match} picks={picks} />
      <MatchRule
        match={match}
        picks={picks}
        level={level}
        onMove={(n, k) => setPicks((old) => old.map((was, at) => (at === n ? k : was)))}
        onTogether={together}
        onOut={onOut}
      />
      <Line role="status">{level === undefined ? "" : match.levels[level]?.line}</Line>
      <Acts>
        <MainButton onPress={() => together(match.best)} isDisabled={match.best < 0}>
          Match them
        </MainButton>
        <Button onPress={use} isDisabled={moved.length === 0}>
          Use these resistors
        </Button>
        <Button
          onPress={() => setPicks(match.rows.map((r) => r.now))}
          isDisabled={moved.length === 0}
        >
          Put back
        </Button>
      </Acts>
      {inside.length > 1 && (
        <Differs
          lamps={inside}
          reference={reference}
          onSay={(lamp, brighter) => {
            const said = brighter ? "looks brighter" : "looks dimmer";
            const name = inside.find((r) => r.id === lamp)?.name ?? "";
            const more = { label: `${name} ${said}`, done: `Kept: ${name} ${said}.` };
            const body = { lamp, reference, brighter };
            inPassing(save("POST", `/api/equipment/${item}/match/differs`, body, more));
          }}
        />
      )}
      {inside.length > 1 && (
        <Acts>
          <OneOfSome
            label="They look equal as they are now, compared with"
            value={reference}
            options={inside.map((r) => ({ id: r.id, label: r.name }))}
            onChange={setReference}
          />
          <Button onPress={equal}>They look equal</Button>
        </Acts>
      )}
    </>
  );
}

interface DiffersProps {
  /** Those whose light can be worked out. */
  lamps: readonly Schemas["MatchRow"][];
  /** The key of the one that they are compared with. */
  reference: string;
  /** Told which lamp still differs, and how. */
  onSay: (lamp: string, brighter: boolean) => void;
}

/** With these resistors fitted, one of them still looks brighter or dimmer than the reference. */
function Differs({ lamps, reference, onSay }: DiffersProps) {
  const others = lamps.filter((r) => r.id !== reference);
  const [chosen, setChosen] = useState("");
  const lamp = others.some((r) => r.id === chosen) ? chosen : (others[0]?.id ?? "");
  const name = lamps.find((r) => r.id === reference)?.name ?? "";
  return (
    <Acts>
      <OneOfSome
        label={`Fitted and seen beside ${name}, this lamp still differs`}
        value={lamp}
        options={others.map((r) => ({ id: r.id, label: r.name }))}
        onChange={setChosen}
      />
      <Button onPress={() => onSay(lamp, true)}>It is brighter</Button>
      <Button onPress={() => onSay(lamp, false)}>It is dimmer</Button>
    </Acts>
  );
}
