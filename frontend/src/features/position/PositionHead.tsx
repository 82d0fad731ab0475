import { ToggleButton, Toolbar } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { Glow } from "../../ui/Lamp";
import { TitleField } from "../../ui/record/TitleField";
import { PANELS, type Part } from "./parts/part";

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
  margin: -6px 0 6px;
`;

const Up = styled(Link)`
  display: inline-flex;
  align-items: center;
  min-height: 32px;
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

const Parts = styled(Toolbar)`
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  margin-left: auto;
  @media (max-width: 760px) {
    margin-left: -8px;
  }
  @media print {
    display: none;
  }
`;

const Tab = styled(ToggleButton)`
  min-height: 36px;
  padding: 0 5px;
  border: 0;
  border-bottom: 3px solid var(--ink-soft);
  background: none;
  font-size: 0.875rem;
  font-weight: 600;
  cursor: pointer;
  &[data-hovered] {
    border-bottom-color: var(--ink);
  }
  &[data-selected] {
    background: var(--ink);
    border-bottom-color: var(--ink);
    color: var(--ground);
  }
  @media (pointer: coarse), (max-width: 760px) {
    min-height: 44px;
  }
  @media (forced-colors: active) {
    &[data-selected] {
      forced-color-adjust: none;
      background: Highlight;
      color: HighlightText;
    }
  }
`;

interface Props {
  /** What the server answers for this view. */
  view: Schemas["PositionView"];
  /** The part that is edited. */
  part: Part | undefined;
  /** Open the panel of a part, or shut it. */
  onEdit: (part: Part | undefined) => void;
}

/** The lamps before and after this one: of forty the item has the list. */
function beside(siblings: Props["view"]["siblings"], id: string) {
  const at = siblings.findIndex((s) => s.id === id);
  return siblings.filter((_, k) => Math.abs(k - at) === 1);
}

/** The lamp's name, where it is, the lamps beside it, and its panels. */
export function PositionHead({ view, part, onEdit }: Props) {
  const { position, siblings, equipment_name } = view;
  return (
    <Head>
      <TitleField what="lamp" />
      <Up to={`/equipment/${position.equipment}`}>{equipment_name}</Up>
      <Siblings aria-label="Lamps of this equipment">
        {beside(siblings, position.id).map((s) => (
          <Link key={s.id} to={`/position/${s.id}`}>
            <Glow colour={s.glow_colour} lightness={s.glow_lightness} />
            {s.name}
          </Link>
        ))}
      </Siblings>
      <Parts aria-label="Parts of this lamp" data-parts="">
        {PANELS.map(([label, parts]) => {
          const open = part !== undefined && parts.includes(part);
          return (
            <Tab key={label} isSelected={open} onChange={() => onEdit(open ? undefined : parts[0])}>
              {label}
            </Tab>
          );
        })}
      </Parts>
    </Head>
  );
}
