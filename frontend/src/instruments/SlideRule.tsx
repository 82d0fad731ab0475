import { scaleLog } from "d3-scale";
import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import styled from "styled-components";

import type { Report } from "../api/client";
import { useWidth } from "./useWidth";

const Wrap = styled.section`
  position: relative;
  min-width: 0;
`;

const Draw = styled.svg`
  display: block;
  width: 100%;
  touch-action: pan-y;
  cursor: ew-resize;
  text {
    font: 500 12.5px var(--mono);
    fill: var(--ink);
  }
  .name {
    font: 600 14px var(--sans);
  }
  .read {
    font: 650 19px var(--mono);
  }
  .hot {
    font: 650 13px var(--sans);
    fill: var(--stop);
    paint-order: stroke;
    stroke: var(--ground);
    stroke-width: 5px;
  }
  .zone {
    font: 600 13px var(--sans);
  }
  &:focus-visible {
    outline-offset: -3px;
  }
`;

const FILLS: Record<string, string> = {
  over: "var(--over-soft)",
  drive: "var(--drive-soft)",
  fits: "var(--fits-soft)",
  trip: "var(--drive-soft)",
  dim: "var(--dim-soft)",
  lit_room: "var(--over-soft)",
  dark_room: "var(--drive-soft)",
  dark: "var(--fits-soft)",
};

const ROW = 32;
const ZONE = 26;

type Rule = Report["rule"];
type Tick = Rule["scales"][number]["ticks"][number];

interface Props {
  /** The slide rule as the report gives it. */
  rule: Rule;
  /** Ohms under the cursor now; may be ahead of the report while it is asked for. */
  cursor: number;
  /** What each scale reads under the cursor, by scale id. */
  reads: Record<string, string>;
  /** Told where it is moved. */
  onMove: (ohm: number) => void;
}

/** Aligned log scales under one cursor; drag, click, or use the arrow keys. */
export function SlideRule({ rule, cursor, reads, onMove }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [ref, width] = useWidth<HTMLElement>();
  const narrow = width < 700;
  const left = narrow ? 8 : 158;
  const right = Math.max(left + 40, width - (narrow ? 8 : 132));
  const ends = { left, right, width, narrow };
  const x = scaleLog([rule.low_ohm, rule.high_ohm], [left, right]).clamp(true);
  const row = narrow ? ROW + 18 : ROW;
  const height = ZONE + rule.scales.length * row + 6;
  const here = nearest(rule, cursor);
  const value = rule.values[here];
  const zone = rule.zones.find((z) => z.id === value?.zone)?.label;

  const go = (index: number) => {
    const next = rule.values[Math.min(Math.max(index, 0), rule.values.length - 1)];
    if (next && next.ohm !== cursor) onMove(next.ohm);
  };
  const keys = (e: KeyboardEvent) => {
    const to = target(e.key, rule, cursor);
    if (to === undefined) return;
    e.preventDefault();
    go(to);
  };
  const drag = (e: PointerEvent) => {
    if (e.buttons !== 1 || !svg.current) return;
    const at = e.clientX - svg.current.getBoundingClientRect().left;
    go(nearest(rule, x.invert(Math.min(Math.max(at, left), right))));
  };

  return (
    <Wrap ref={ref} aria-label="Slide rule">
      <Draw
        ref={svg}
        height={height}
        viewBox={`0 0 ${Math.max(width, 1)} ${height}`}
        role="slider"
        tabIndex={0}
        aria-label="Resistor"
        aria-orientation="horizontal"
        aria-valuemin={0}
        aria-valuemax={rule.values.length - 1}
        aria-valuenow={here}
        aria-valuetext={[reads.ohm ?? value?.text, reads.usual, zone].filter(Boolean).join(", ")}
        onKeyDown={keys}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          e.currentTarget.focus();
          drag(e);
        }}
        onPointerMove={drag}
      >
        <Zones rule={rule} x={x} height={height} />
        {rule.scales.map((scale, k) => (
          <ScaleRow
            key={scale.id}
            scale={scale}
            rule={rule}
            x={x}
            base={ZONE + k * row + row - 5}
            ends={ends}
            read={reads[scale.id] ?? ""}
          />
        ))}
        <Cursor at={x(cursor)} height={height} />
      </Draw>
    </Wrap>
  );
}

type X = (ohm: number) => number;

interface Ends {
  left: number;
  right: number;
  width: number;
  /** Names and readings stand above the scale, not beside it. */
  narrow: boolean;
}

interface ScaleRowProps {
  /** One scale of the rule. */
  scale: Rule["scales"][number];
  /** The slide rule as the report gives it. */
  rule: Rule;
  /** Pixels across, from a value. */
  x: X;
  /** Pixels down to its line. */
  base: number;
  /** Where the scale begins and ends, in pixels. */
  ends: Ends;
  /** What it reads under the cursor. */
  read: string;
}

function ScaleRow({ scale, rule, x, base, ends, read }: ScaleRowProps) {
  const { left, right, width, narrow } = ends;
  return (
    <g>
      <line x1={left} x2={right} y1={base} y2={base} stroke="var(--ink)" />
      <text className="name" x={narrow ? left : 0} y={narrow ? base - 34 : base - 7}>
        {scale.label}
      </text>
      <Ticks scale={scale} rule={rule} x={x} base={base} narrow={narrow} />
      {scale.id === "power" && rule.hot && <Hot hot={rule.hot} x={x} base={base} />}
      <text
        className="read"
        x={narrow ? right : width}
        y={narrow ? base - 32 : base - 5}
        textAnchor="end"
      >
        {read}
      </text>
    </g>
  );
}

interface HotProps {
  /** Where the resistor is too hot to touch. */
  hot: NonNullable<Rule["hot"]>;
  /** Pixels across, from a value. */
  x: X;
  /** Pixels down to its scale's line. */
  base: number;
}

/** Where the resistor is too hot to touch. */
function Hot({ hot, x, base }: HotProps) {
  return (
    <g>
      <line
        x1={x(hot.from_ohm)}
        x2={x(hot.to_ohm)}
        y1={base}
        y2={base}
        stroke="var(--stop)"
        strokeWidth="5"
      />
      <text className="hot" x={x(hot.to_ohm) + 6} y={base + 4}>
        {hot.label}
      </text>
    </g>
  );
}

function Zones({ rule, x, height }: { rule: Rule; x: X; height: number }) {
  return (
    <g>
      {rule.zones.map((z) => {
        const a = x(z.from_ohm);
        const wide = x(z.to_ohm) - a;
        return (
          <g key={z.id}>
            <rect x={a} y="0" width={wide} height={height} fill={FILLS[z.id]} opacity="0.45" />
            <rect x={a} y="0" width={wide} height={ZONE - 4} fill={FILLS[z.id]} />
            {wide > z.label.length * 8 && (
              <text className="zone" x={a + 12} y="16">
                {z.label}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

interface TicksProps {
  /** One scale of the rule. */
  scale: Rule["scales"][number];
  /** The slide rule as the report gives it. */
  rule: Rule;
  /** Pixels across, from a value. */
  x: X;
  /** Pixels down to the scale's line. */
  base: number;
  /** Whether names and readings stand above the scale. */
  narrow: boolean;
}

const LENGTHS = { 1: 13, 2: 9, 3: 5 };

/** Ticks with their places in pixels; a label that would touch the one before it is left out. */
function placed({ scale, rule, x, narrow }: Omit<TicksProps, "base">) {
  const first = x(rule.low_ohm) - 4;
  const last = x(rule.high_ohm) + (narrow ? 0 : 4);
  const out: { at: number; tick: Tick; label: string }[] = [];
  let edge = first;
  for (const tick of [...scale.ticks].sort((a, b) => x(a.at_ohm) - x(b.at_ohm))) {
    const at = x(tick.at_ohm);
    const half = (tick.text.length * 7.6) / 2;
    const fits = tick.text !== "" && at - half > edge && at + half < last;
    if (fits) edge = at + half + (narrow ? 14 : 6);
    out.push({ at, tick, label: fits ? tick.text : "" });
  }
  return out;
}

function Ticks({ scale, rule, x, base, narrow }: TicksProps) {
  const stocked = new Set(
    scale.id === "ohm" ? rule.values.filter((v) => v.in_drawer).map((v) => v.ohm) : [],
  );
  return (
    <g>
      {placed({ scale, rule, x, narrow }).map(({ at, tick, label }, k) => (
        <g key={`${tick.at_ohm}-${k}`}>
          <line x1={at} x2={at} y1={base} y2={base - LENGTHS[tick.weight]} stroke="var(--ink)" />
          {stocked.has(tick.at_ohm) && (
            <circle cx={at} cy={base} r="4.5" fill="var(--ink)" stroke="var(--ground)" />
          )}
          {label && (
            <text x={at} y={base - 14} textAnchor="middle">
              {label}
            </text>
          )}
        </g>
      ))}
    </g>
  );
}

function Cursor({ at, height }: { at: number; height: number }) {
  return (
    <g>
      <line x1={at} x2={at} y1="0" y2={height} stroke="var(--mark)" strokeWidth="2.5" />
      <path d={`M${at - 9} 0h18l-9 13z`} fill="var(--mark)" />
      <path d={`M${at - 9} ${height}h18l-9 -13z`} fill="var(--mark)" />
    </g>
  );
}

/** Where a key takes the cursor: the next preferred value, six of them, or an end. */
function target(key: string, rule: Rule, cursor: number): number | undefined {
  const here = nearest(rule, cursor);
  const value = rule.values[here];
  const off = value && Math.abs(value.ohm / cursor - 1) > 1e-6;
  const up = off && value.ohm > cursor ? here : here + 1;
  const down = off && value.ohm < cursor ? here : here - 1;
  const moves: Record<string, number> = {
    ArrowRight: up,
    ArrowUp: up,
    ArrowLeft: down,
    ArrowDown: down,
    PageUp: here + 6,
    PageDown: here - 6,
    Home: 0,
    End: rule.values.length - 1,
  };
  return moves[key];
}

function nearest(rule: Rule, ohm: number): number {
  let best = 0;
  rule.values.forEach((v, k) => {
    const now = rule.values[best];
    if (now && Math.abs(Math.log(v.ohm / ohm)) < Math.abs(Math.log(now.ohm / ohm))) best = k;
  });
  return best;
}
