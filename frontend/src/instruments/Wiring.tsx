import { useRef, useState, type KeyboardEvent } from "react";
import styled from "styled-components";

import type { Schemas } from "../api/client";
import { useThumb } from "../ui/useNarrow";
import { Probed, Suspected } from "./WiringMarks";
import { CARRIES, place, type Plan, type Point } from "./wiringPlan";

type Drawing = Schemas["Drawing"];
type Part = Schemas["DrawnPart"];
type Read = Schemas["PartRead"];

/* Wide drawings are moved sideways on a phone, and nothing else is. */
const Frame = styled.div`
  overflow-x: auto;
  padding: 4px 0;
  svg {
    display: block;
    max-width: none;
  }
  text {
    font-family: var(--sans);
    font-size: 13px;
    fill: var(--ink);
    stroke: none;
  }
  text[data-value] {
    font-family: var(--mono);
    font-weight: 600;
  }
  text[data-pencil="true"] {
    font-style: italic;
    fill: var(--pencil);
    text-decoration: underline dotted;
  }
  text[data-read] {
    font-family: var(--mono);
    fill: var(--ink-soft);
  }
`;

const Group = styled.g`
  outline: none;
  &[role="button"] {
    cursor: pointer;
  }
  & > rect {
    fill: transparent;
    stroke: transparent;
    stroke-width: 2;
  }
  &[role="button"]:hover > rect {
    stroke: var(--rule);
  }
  &&[data-chosen="true"] > rect {
    stroke: var(--mark);
  }
  &:focus-visible > rect {
    stroke: var(--focus, var(--mark));
    stroke-width: 3;
  }
`;

const HALF = 22;
const LINE = 15;
/** Below the drawing, for the texts of the last row. */
const FOOT = 36;

const STEPS: Record<string, number> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

interface Props {
  drawing: Drawing;
  /** What it is of, for the ear. */
  label: string;
  /** What each part carries in the chosen state. */
  reads?: readonly Read[];
  /** The part that is being edited. */
  chosen?: string | undefined;
  /** Whether it stands where little room is. */
  close?: boolean;
  /** Where the meter's leads go for the next reading. */
  probes?: Schemas["Probes"] | undefined;
  /** Parts that a fault may be in, by their place among the causes. */
  suspects?: readonly (readonly string[])[];
  /** Told which part is to be changed; none where it is only looked at. */
  onPress?: ((part: Part) => void) | undefined;
}

/** A circuit's wiring: press a part to change it. One stop of the Tab key; arrows follow the current. */
export default function Wiring(props: Props) {
  const { drawing, label, reads, chosen, close, probes, suspects = [], onPress } = props;
  const upright = useThumb();
  const frame = useRef<HTMLDivElement>(null);
  const [stop, setStop] = useState<string>();
  const parts = inOrder(drawing.parts);
  const open = onPress ? parts.filter((p) => p.opens) : [];
  const at = open.some((p) => p.id === stop) ? stop : open[0]?.id;
  const rows = 1 + Math.max(...drawing.nodes.flatMap((n) => n.rows));
  const carries = (reads?.length ?? 0) > 0;
  const plan = { upright, rows, carries, close: close ?? false };
  const size = extent(drawing, plan);
  const move = (e: KeyboardEvent) => {
    const here = open.findIndex((p) => p.id === at);
    const ends: Record<string, number> = { Home: 0, End: open.length - 1 };
    const to = open[ends[e.key] ?? here + (STEPS[e.key] ?? Number.NaN)];
    if (!to) return;
    e.preventDefault();
    setStop(to.id);
    frame.current?.querySelector<SVGGElement>(`[data-part="${to.id}"]`)?.focus();
  };
  return (
    <Frame ref={frame} onKeyDown={move} data-wiring="">
      <svg
        role="group"
        aria-label={label}
        viewBox={`0 0 ${size.width} ${size.height}`}
        style={{ width: `${size.width / 16}rem`, height: `${size.height / 16}rem` }}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.8"
      >
        {drawing.nodes.map((n) => (
          <Wire key={n.id} node={n} plan={plan} />
        ))}
        {parts.map((p) => (
          <Drawn
            key={p.id}
            part={p}
            plan={plan}
            read={reads?.find((r) => r.part === p.id)}
            chosen={p.id === chosen}
            causes={suspects.flatMap((all, k) => (all.includes(p.id) ? [k + 1] : []))}
            stop={p.id === at}
            onPress={
              onPress &&
              ((pressed) => {
                setStop(pressed.id);
                onPress(pressed);
              })
            }
          />
        ))}
        {probes && <Probed probes={probes} plan={plan} />}
      </svg>
    </Frame>
  );
}

/** Parts as the current meets them. */
const inOrder = (parts: readonly Part[]) =>
  [...parts].sort((a, b) => a.left - b.left || a.row - b.row);

function extent(drawing: Drawing, plan: Plan) {
  const across = Math.max(...drawing.nodes.map((n) => n.across));
  const last = place(across, plan.rows - 1, plan);
  if (!plan.upright) {
    return { width: last.x + 24, height: last.y + FOOT + (plan.carries ? CARRIES : 0) };
  }
  return { width: place(across, Math.max(plan.rows - 2, 0), plan).x + 92, height: last.y + 16 };
}

interface WireProps {
  node: Schemas["DrawnNode"];
  plan: Plan;
}

function Wire({ node, plan }: WireProps) {
  const ends = node.rows.map((row) => place(node.across, row, plan));
  const [from, to] = plan.upright
    ? [Math.min(...ends.map((e) => e.x)), Math.max(...ends.map((e) => e.x))]
    : [Math.min(...ends.map((e) => e.y)), Math.max(...ends.map((e) => e.y))];
  const at = ends[0] ?? { x: 0, y: 0 };
  return (
    <g data-node={node.id}>
      {to > from && <path d={plan.upright ? `M${from} ${at.y}H${to}` : `M${at.x} ${from}V${to}`} />}
      {node.dots.map((row) => {
        const dot = place(node.across, row, plan);
        return <circle key={row} cx={dot.x} cy={dot.y} r="3.6" fill="var(--ink)" />;
      })}
    </g>
  );
}

interface DrawnProps {
  part: Part;
  plan: Plan;
  /** What it carries. */
  read: Read | undefined;
  chosen: boolean;
  /** The places of the causes that are about it. */
  causes: readonly number[];
  /** Whether the Tab key stops here. */
  stop: boolean;
  onPress: Props["onPress"];
}

function Drawn({ part, plan, read, chosen, causes, stop, onPress }: DrawnProps) {
  const from = place(part.left, part.row, plan);
  const to = place(part.right, part.row, plan);
  const middle = place(part.left + 0.5, part.row, plan);
  const { upright } = plan;
  const lead = upright ? { x: 0, y: HALF } : { x: HALF, y: 0 };
  const turn = turned(part, upright);
  const name = part.name.join(" ");
  const carries = read ? [read.volts, read.amps].filter(Boolean) : [];
  const suspected = causes.length > 0 ? `, cause ${causes.join(" and ")}` : "";
  const said = [name, part.value, ...carries].filter(Boolean).join(" ") + suspected;
  const pressed =
    part.opens && onPress
      ? {
          role: "button",
          "aria-label": said,
          tabIndex: stop ? 0 : -1,
          onClick: () => onPress(part),
          onKeyDown: (e: KeyboardEvent) => {
            if (e.key !== "Enter" && e.key !== " ") return;
            e.preventDefault();
            onPress(part);
          },
        }
      : { role: "img", "aria-label": said };
  return (
    <>
      <g data-leads={part.id}>
        <path d={`M${from.x} ${from.y}L${middle.x - lead.x} ${middle.y - lead.y}`} />
        <path d={`M${middle.x + lead.x} ${middle.y + lead.y}L${to.x} ${to.y}`} />
        {part.base != null && <Base part={part} middle={middle} plan={plan} />}
      </g>
      <Group data-part={part.id} data-chosen={chosen} {...pressed}>
        <rect {...target(middle, plan)} rx="4" />
        <path
          d={read?.shape || part.shape}
          transform={`translate(${middle.x} ${middle.y}) ${turn}`}
        />
      </Group>
      <g aria-hidden="true" pointerEvents="none">
        <Texts part={part} carries={carries} middle={middle} plan={plan} />
        {causes.length > 0 && <Suspected causes={causes} middle={middle} plan={plan} />}
      </g>
    </>
  );
}

/** How a symbol is turned: upright by a quarter, a base always to where its wire runs. */
function turned(part: Part, upright: boolean) {
  const flip = `scale(${part.turned ? -1 : 1} ${upright && part.base != null ? -1 : 1})`;
  return upright ? `rotate(90) ${flip}` : flip;
}

/** What a thumb may press. */
const target = (m: Point, { upright, carries }: Plan) =>
  upright
    ? { x: m.x - 16, y: m.y - 36, width: 116, height: 72 }
    : { x: m.x - 46, y: m.y - 44, width: 92, height: carries ? 106 : 80 };

interface BaseProps {
  part: Part;
  middle: Point;
  plan: Plan;
}

/** A transistor's third wire: under it, or upright to its right. */
function Base({ part, middle, plan }: BaseProps) {
  const { upright } = plan;
  const end = place(part.base ?? 0, part.row + 1, plan);
  return upright ? (
    <path d={`M${middle.x + HALF} ${middle.y}H${end.x}V${end.y}`} />
  ) : (
    <path d={`M${middle.x} ${middle.y + HALF}V${end.y}H${end.x}`} />
  );
}

interface TextsProps extends BaseProps {
  /** What it carries, a line each. */
  carries: readonly string[];
}

/** What fits beside a symbol on a phone: a range takes two lines. */
const NARROW = 11;
const inLines = (value: string) =>
  value.length > NARROW ? value.split(/(?<= to) /) : value ? [value] : [];

/** Name over the symbol and value under it; upright both beside it. */
function Texts({ part, carries, middle, plan }: TextsProps) {
  const { upright } = plan;
  const value = { "data-value": "", "data-pencil": part.pencil };
  const over = part.symbol === "led" ? 27 : 18;
  if (upright) {
    const x = middle.x + (part.symbol === "led" ? 28 : 20);
    const values = inLines(part.value);
    const texts = [...part.name, ...values, ...carries];
    const first = middle.y + 4 - ((texts.length - 1) / 2) * LINE;
    const marks = (k: number) => {
      if (k < part.name.length) return {};
      return k < part.name.length + values.length ? value : { "data-read": "" };
    };
    return (
      <>
        {texts.map((line, k) => (
          <text key={`${k} ${line}`} x={x} y={first + k * LINE} {...marks(k)}>
            {line}
          </text>
        ))}
      </>
    );
  }
  const last = part.name.length - 1;
  return (
    <g textAnchor="middle">
      {part.name.map((line, k) => (
        <text key={line} x={middle.x} y={middle.y - over - (last - k) * LINE}>
          {line}
        </text>
      ))}
      {part.value && (
        <text x={middle.x} y={middle.y + 27} {...value}>
          {part.value}
        </text>
      )}
      {carries.map((line, k) => (
        <text
          key={line}
          x={middle.x}
          y={middle.y + 27 + (k + (part.value ? 1 : 0)) * LINE}
          data-read=""
        >
          {line}
        </text>
      ))}
    </g>
  );
}
