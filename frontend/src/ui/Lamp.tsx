import { Link } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../api/client";
import { useCatalogue } from "../api/queries";
import { GradeMark } from "./GradeMark";

const Row = styled.li`
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr);
  gap: 10px;
`;

const Words = styled(Link)`
  display: block;
  min-height: 44px;
  text-decoration: none;
  strong {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    font-weight: 650;
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
  span {
    display: block;
    font-size: 0.9rem;
    line-height: 1.25;
    color: var(--ink-soft);
  }
`;

interface Props {
  /** The lamp as the list has it. */
  lamp: Schemas["Summary"];
}

/** A lamp position as it stands: its glow, its stage, its one next thing. */
export function Lamp({ lamp }: Props) {
  const stages = useCatalogue().data?.choices["position.stage"];
  const stage = stages?.find((o) => o.id === lamp.stage)?.label ?? "";
  // A lamp that is done has been judged by whoever did it: what is only to be minded was minded.
  const accepted = lamp.stage === "done" && lamp.grade === "mind";
  return (
    <Row>
      <Glow colour={lamp.glow_colour} lightness={lamp.glow_lightness} />
      <Words to={`/position/${lamp.id}`}>
        <strong>
          {lamp.name}
          {lamp.grade && lamp.grade !== "note" && !accepted && (
            <GradeMark grade={lamp.grade} bare />
          )}
        </strong>
        <span>
          {stage && `${stage}${accepted ? ", its remark accepted" : ""}. `}
          {lamp.stage !== "done" && `Next: ${lamp.next_act}`}
        </span>
      </Words>
    </Row>
  );
}

/** The view of a circuit, or of a fitted LED to be dimmed. */
export const viewOf = (item: string, light: Schemas["LightOut"]): string =>
  `/equipment/${item}/${light.what === "dim" ? "dim" : "fitted"}/${light.id}`;

interface LightProps {
  /** The key of the item that it is of. */
  item: string;
  /** The circuit or fitted LED as the list has it. */
  light: Schemas["LightOut"];
}

/** A circuit, or a fitted LED to be dimmed, among the lamps of its item. */
export function Light({ item, light }: LightProps) {
  return (
    <Row>
      <svg
        width="40"
        height="40"
        viewBox="-20 -20 40 40"
        aria-hidden="true"
        fill="none"
        stroke="currentColor"
      >
        <path
          d={
            light.what === "dim"
              ? "M-7 9v-9a7 7 0 0 1 14 0v9zM-4 9v7M4 9v7"
              : "M-15-10h30v20h-30zM-9 0h5l3-5 3 5h7"
          }
        />
      </svg>
      <Words to={viewOf(item, light)}>
        <strong>
          {light.name}
          {light.grade && light.grade !== "note" && <GradeMark grade={light.grade} bare />}
        </strong>
        <span>{light.line}</span>
      </Words>
    </Row>
  );
}

interface GlowProps {
  /** Its colour on screen, #rrggbb. */
  colour: string;
  /** 0 to 100. */
  lightness: number;
}

/** A lamp in its dark cell. */
export function Glow({ colour, lightness }: GlowProps) {
  return (
    <svg
      width="40"
      height="40"
      viewBox="-20 -20 40 40"
      aria-hidden="true"
      style={{ forcedColorAdjust: "none" }}
    >
      <rect x="-20" y="-20" width="40" height="40" rx="5" fill="#050606" />
      <circle r="16" fill={colour} opacity={0.0035 * lightness} />
      <circle r="9" fill={colour} stroke="#2c2f2d" />
    </svg>
  );
}
