import { Link, useNavigate } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { SmallButton } from "../../ui/Button";
import { Glow } from "../../ui/Lamp";
import type { Part } from "./parts/part";

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
  margin: -6px 0 6px;
`;

const Title = styled.h1`
  font-size: 1.45rem;
  font-weight: 650;
  line-height: 1.2;
`;

const Up = styled(Link)`
  min-height: 24px;
  text-underline-offset: 0.2em;
`;

const Siblings = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  a {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    min-height: 32px;
    text-underline-offset: 0.2em;
    svg {
      width: 26px;
      height: 26px;
    }
  }
  @media (max-width: 760px) {
    display: none;
  }
`;

const Edits = styled.div`
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 6px;
`;

/** The parts that have no step on the staircase to open them by. */
const SHEETS: readonly (readonly [Part, string])[] = [
  ["rectification", "Rectification"],
  ["led", "LED"],
  ["lamp", "Old lamp"],
  ["job", "Job"],
];

interface Props {
  /** What the server answers for this view. */
  view: Schemas["PositionView"];
  /** Whether the supply alternates, so that there is something to rectify. */
  alternates: boolean;
  /** Open a part's sheet; left out where nothing can be worked out. */
  onEdit?: (part: Part) => void;
}

/** The lamp's name, where it is, the lamps beside it, and its sheets. */
export function PositionHead({ view, alternates, onEdit }: Props) {
  const go = useNavigate();
  const { position, siblings, equipment_name } = view;
  return (
    <Head>
      <Title>{position.name}</Title>
      <Up to={`/equipment/${position.equipment}`}>{equipment_name}</Up>
      {onEdit && (
        <>
          <Siblings aria-label="Lamps of this equipment">
            {siblings
              .filter((s) => s.id !== position.id)
              .map((s) => (
                <Link key={s.id} to={`/position/${s.id}`}>
                  <Glow colour={s.glow_colour} lightness={s.glow_lightness} />
                  {s.name}
                </Link>
              ))}
          </Siblings>
          <Edits>
            <SmallButton onPress={() => onEdit("swaps")}>Swaps</SmallButton>
            <SmallButton onPress={() => void go(`/position/${position.id}/readings`)}>
              Readings
            </SmallButton>
            {SHEETS.filter(([part]) => part !== "rectification" || alternates).map(
              ([part, label]) => (
                <SmallButton key={part} onPress={() => onEdit(part)}>
                  {label}
                </SmallButton>
              ),
            )}
          </Edits>
        </>
      )}
    </Head>
  );
}
