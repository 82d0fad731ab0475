import { Link, useNavigate } from "react-router";
import styled from "styled-components";

import { useCatalogue, useEquipment } from "../../../api/queries";
import { useSave } from "../../../saving/useSave";
import { Button } from "../../../ui/Button";
import { useOnce } from "../../../ui/useOnce";
import type { Position } from "./part";

const Circuits = styled.ul`
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
  li {
    padding: 6px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
  p {
    margin: 0;
  }
`;

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
}

/** Where a lamp's second job is worked out: the item's circuits of that kind, and a new one from this lamp. */
export function JobCircuits({ position }: Props) {
  const catalogue = useCatalogue().data;
  const item = useEquipment(position.equipment).data;
  const save = useSave();
  const go = useNavigate();
  const kinds = catalogue?.job_circuits[position.second_job ?? ""] ?? [];
  const begin = useOnce(async (kind: string) => {
    const id = crypto.randomUUID();
    await save("POST", `/api/positions/${position.id}/circuit`, { id, kind }, { label: "Circuit" });
    await go(`/equipment/${position.equipment}/fitted/${id}`);
  });
  if (kinds.length === 0 || !item) return null;
  const there = Object.entries(item.fitted ?? {}).filter(([, f]) => kinds.includes(f.kind ?? ""));
  return (
    <>
      {there.length > 0 && (
        <Circuits aria-label="Worked out in">
          {there.map(([key, f]) => (
            <li key={key}>
              <Link to={`/equipment/${item.id}/fitted/${key}`}>{f.name || "Circuit"}</Link>
              <p>{item.answers[key]?.result?.line ?? item.answers[key]?.problem}</p>
            </li>
          ))}
        </Circuits>
      )}
      {kinds.map((kind) => {
        const label = catalogue?.fitted.find((k) => k.id === kind)?.label ?? kind;
        return (
          <p key={kind}>
            <Button isDisabled={begin.busy} onPress={() => void begin.act(kind)}>
              Work it out: {label}
            </Button>
          </p>
        );
      })}
    </>
  );
}
