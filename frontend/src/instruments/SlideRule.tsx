import { scaleLog } from "d3-scale";
import { useRef, type KeyboardEvent } from "react";
import styled from "styled-components";

import type { Report } from "../api/client";
import { SmallButton } from "../ui/Button";
import { nearest, target, usePull } from "./moveRule";
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
    fill: var(--ground);
    &[data-out="true"] {
      fill: var(--stop);
      paint-order: stroke;
      stroke: var(--ground);
      stroke-width: 5px;
    }
  }
  .zone {
    font: 600 13px var(--sans);
  }
  .read[data-stale="true"] {
    opacity: 0.5;
  }
  &:focus-visible {
    outline-offset: -3px;
  }
  @media (forced-colors: active) {
    forced-color-adjust: none;
  }
`;

const Steps = styled.div`
  display: flex;
  justify-content: space-between;
  margin-top: 6px;
`;

const FILLS: Record<string, string> = {
  over: "var(--over-soft)",
  drive: "var(--drive-soft)",
  fits: "var(--fits-soft)",
  trip: "var(--drive-soft)",
  hot: "var(--over-soft)",
  stopped: "var(--drive-soft)",
  dim: "var(--dim-soft)",
  lit_room: "var(--over-soft)",
  dark_room: "var(--drive-soft)",
  dark: "var(--fits-soft)",
};

const ROW = 32;
/** Beside a panel there is less room. */
const TIGHT = 29;
const ROOMY = 900;
const ZONE = 26;
/** The grip under the scales, where a thumb takes the cursor. */
const GRIP = 44;
/** What the cursor keeps free of writing on either side. */
const CLEAR = 4;

type Rule = Report["rule"];
type Tick = Rule["scales"][number]["ticks"][number];

interface Props {
  /** The slide rule as the report gives it. */
  rule: Rule;
  /** Ohms under the cursor now; may be ahead of the report while it is asked for. */
  cursor: number;
  /** What each scale reads under the cursor, by scale id. */
  reads: Record<string, string>;
  /** Whether what is read is still that of an earlier place of the cursor. */
  stale?: boolean;
  /** Told where it is moved. */
  onMove: (ohm: number) => void;
}

/** Aligned log scales under one cursor; drag, click, or use the arrow keys. A finger must take the cursor itself. */
export function SlideRule({ rule, cursor, reads, stale = false, onMove }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [ref, width] = useWidth<HTMLElement>();
  const narrow = width < 700;
  const left = narrow ? 8 : 158;
  const right = Math.max(left + 40, width - (narrow ? 8 : 132));
  const ends = { left, right, width, narrow };
  const x = scaleLog([rule.low_ohm, rule.high_ohm], [left, right]).clamp(true);
  const usual = width < ROOMY ? TIGHT : ROW;
  const row = narrow ? ROW + 24 : usual;
  const height = ZONE + rule.scales.length * row + 6 + (narrow ? GRIP - 6 : 0);
  const here = nearest(rule, cursor);
  const value = rule.values[here];
  const zone = rule.zones.find((z) => z.id === value?.zone)?.label;
  const ohms = stale ? value?.text : (reads.ohm ?? value?.text);
  const spoken = stale ? [ohms, zone] : [ohms, reads.usual, zone];

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
  const to = (across: number) =>
    go(nearest(rule, x.invert(Math.min(Math.max(across, left), right))));
  const pull = usePull(svg, x(cursor), to);

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
        aria-valuetext={spoken.filter(Boolean).join(", ")}
        onKeyDown={keys}
        {...pull}
      >
        <Zones rule={rule} x={x} height={height} cursor={x(cursor)} />
        {rule.scales.map((scale, k) => (
          <ScaleRow
            key={scale.id}
            scale={scale}
            rule={rule}
            x={x}
            base={ZONE + k * row + row - 5}
            ends={ends}
            cursor={x(cursor)}
            read={(scale.id === "ohm" ? ohms : reads[scale.id]) ?? ""}
            stale={stale && scale.id !== "ohm"}
          />
        ))}
        <Cursor at={x(cursor)} height={height} grip={narrow} />
      </Draw>
      {narrow && (
        // A thumb is wider than a step: the last ones are taken one by one.
        <Steps>
          <SmallButton onPress={() => go(target("ArrowLeft", rule, cursor) ?? here)}>
            one step smaller
          </SmallButton>
          <SmallButton onPress={() => go(target("ArrowRight", rule, cursor) ?? here)}>
            one step larger
          </SmallButton>
        </Steps>
      )}
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
  /** Where the cursor stands, in pixels. */
  cursor: number;
  /** What it reads under the cursor. */
  read: string;
  /** Whether that is still what it read before. */
  stale: boolean;
}

function ScaleRow({ scale, rule, x, base, ends, cursor, read, stale }: ScaleRowProps) {
  const { left, right, width, narrow } = ends;
  return (
    <g>
      <line x1={left} x2={right} y1={base} y2={base} stroke="var(--ink)" />
      <text className="name" x={narrow ? left : 0} y={narrow ? base - 34 : base - 7}>
        {scale.label}
      </text>
      <Ticks scale={scale} rule={rule} x={x} base={base} narrow={narrow} cursor={cursor} />
      {scale.id === "power" && rule.hot && <Hot hot={rule.hot} x={x} base={base} cursor={cursor} />}
      <text
        className="read"
        data-stale={stale}
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
  /** Where the cursor stands, in pixels. */
  cursor: number;
}

/** Where the resistor is too hot to touch. */
function Hot({ hot, x, base, cursor }: HotProps) {
  const [from, to] = [x(hot.from_ohm), x(hot.to_ohm)];
  const wide = hot.label.length * 7.5;
  // Inside the stretch that it is about, and clear of the cursor; on a stretch that is too short, before it.
  const under = cursor > to - wide - 3 * CLEAR && cursor < to + CLEAR;
  const end = (under ? cursor - CLEAR : to) - CLEAR;
  return (
    <g>
      <line x1={from} x2={to} y1={base} y2={base} stroke="var(--stop)" strokeWidth="15" />
      <text className="hot" x={end} y={base + 4.5} textAnchor="end" data-out={end - wide < from}>
        {hot.label}
      </text>
    </g>
  );
}

interface ZonesProps {
  /** The slide rule as the report gives it. */
  rule: Rule;
  /** Pixels across, from a value. */
  x: X;
  height: number;
  /** Where the cursor stands, in pixels. */
  cursor: number;
}

function Zones({ rule, x, height, cursor }: ZonesProps) {
  return (
    <g>
      {rule.zones.map((z) => {
        const a = x(z.from_ohm);
        const b = x(z.to_ohm);
        const at = beside(a, b, z.label.length * 8, cursor);
        return (
          <g key={z.id}>
            <rect x={a} y="0" width={b - a} height={height} fill={FILLS[z.id]} opacity="0.45" />
            <rect x={a} y="0" width={b - a} height={ZONE - 4} fill={FILLS[z.id]} />
            {at !== undefined && (
              <text className="zone" x={at} y="16">
                {z.label}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Where a zone's name stands clear of the cursor and within its zone; nowhere where there is no room. */
function beside(from: number, to: number, wide: number, cursor: number): number | undefined {
  const free = (at: number) =>
    at >= from + 4 && at + wide <= to + 4 && (cursor + 11 < at || cursor - 11 > at + wide);
  return [from + 12, cursor + 14, cursor - 14 - wide, from + 4].find(free);
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
  /** Where the cursor stands, in pixels. */
  cursor: number;
}

const LENGTHS = { 1: 13, 2: 9, 3: 5 };

/** Ticks with their places in pixels; a label that would touch the one before it or the cursor is left out. */
function placed({ scale, rule, x, narrow, cursor }: Omit<TicksProps, "base">) {
  const first = x(rule.low_ohm) - 4;
  const last = x(rule.high_ohm) + (narrow ? 0 : 4);
  const out: { at: number; tick: Tick; label: string }[] = [];
  let edge = first;
  for (const tick of [...scale.ticks].sort((a, b) => x(a.at_ohm) - x(b.at_ohm))) {
    const at = x(tick.at_ohm);
    const half = (tick.text.length * 7.6) / 2;
    const clear = at + half < cursor - CLEAR || at - half > cursor + CLEAR;
    const fits = tick.text !== "" && clear && at - half > edge && at + half < last;
    if (fits) edge = at + half + (narrow ? 14 : 6);
    out.push({ at, tick, label: fits ? tick.text : "" });
  }
  return out;
}

function Ticks({ scale, rule, x, base, narrow, cursor }: TicksProps) {
  const stocked = new Set(
    scale.id === "ohm" ? rule.values.filter((v) => v.in_drawer).map((v) => v.ohm) : [],
  );
  return (
    <g>
      {placed({ scale, rule, x, narrow, cursor }).map(({ at, tick, label }, k) => (
        <g key={`${tick.at_ohm}-${k}`} data-tick={`${scale.id} ${tick.at_ohm}`}>
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

interface CursorProps {
  /** Pixels across. */
  at: number;
  height: number;
  /** Whether it has a grip for a thumb. */
  grip: boolean;
}

function Cursor({ at, height, grip }: CursorProps) {
  const foot = grip ? height - GRIP + 4 : height;
  return (
    <g>
      <line
        data-cursor=""
        x1={at}
        x2={at}
        y1="0"
        y2={foot}
        stroke="var(--mark)"
        strokeWidth="2.5"
      />
      <path d={`M${at - 9} 0h18l-9 13z`} fill="var(--mark)" />
      {grip ? (
        <g data-grip="">
          <rect x={at - 26} y={foot} width="52" height={GRIP - 8} rx="6" fill="var(--mark)" />
          <path
            d={`M${at - 7} ${foot + 10}v16m7 -16v16m7 -16v16`}
            stroke="var(--on-mark)"
            strokeWidth="2"
          />
        </g>
      ) : (
        <path d={`M${at - 9} ${height}h18l-9 -13z`} fill="var(--mark)" />
      )}
    </g>
  );
}
