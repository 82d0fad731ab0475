import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";

/* A photograph is a light among lights: its ground stays dark in both looks. */
const Frame = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  background: #050606;
  border-radius: 4px;
  touch-action: none;
  forced-color-adjust: none;
`;

const Ring = styled.g`
  cursor: grab;
  outline: none;
  circle {
    fill: transparent;
    stroke: #fff;
    stroke-width: 2.5px;
    vector-effect: non-scaling-stroke;
    paint-order: stroke;
  }
  .under {
    stroke: #000;
    stroke-width: 5px;
  }
  &:focus-visible circle:last-of-type {
    stroke: #ffd27a;
    stroke-width: 4px;
  }
  text {
    fill: #fff;
    stroke: #000;
    stroke-width: 0.006;
    paint-order: stroke;
    font: 600 0.045px var(--sans);
    text-anchor: middle;
  }
`;

type Spot = Schemas["Spot"];

/** How far an arrow key moves a circle, of the photograph's width; with Shift. */
const STEP = 0.004;
const LEAP = 0.03;

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface Props {
  /** The photograph's address. */
  url: string;
  /** Its height beside its width. */
  high: number;
  /** The circles: of the old lamp and of the new. */
  spots: readonly [Spot, Spot];
  /** Told while one of them is moved. */
  onMove: (spots: [Spot, Spot]) => void;
  /** Told when it stands. */
  onSettle: () => void;
}

/** A photograph with a circle on each of two lamps, moved by pointer or arrow keys. */
export function Spots({ url, high, spots, onMove, onSettle }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const held = useRef<{ x: number; y: number } | null>(null);
  const moved = (n: number, dx: number, dy: number) => {
    const put = (s: Spot): Spot => ({
      ...s,
      x: Math.min(1, Math.max(0, s.x + dx)),
      y: Math.min(high, Math.max(0, s.y + dy)),
    });
    const [old, fresh] = spots;
    onMove(n === 0 ? [put(old), fresh] : [old, put(fresh)]);
  };
  const wide = () => svg.current?.getBoundingClientRect().width ?? 1;
  return (
    <Frame ref={svg} viewBox={`0 0 1 ${high}`} aria-label="Photograph" role="group">
      <image href={url} width="1" height={high} />
      {spots.map((s, n) => {
        const name = n === 0 ? "Old" : "New";
        return (
          <Ring
            key={name}
            tabIndex={0}
            role="button"
            aria-label={`Circle on the ${name.toLowerCase()} lamp: arrow keys move it`}
            onPointerDown={(e: PointerEvent) => {
              held.current = { x: e.clientX, y: e.clientY };
              e.currentTarget.setPointerCapture(e.pointerId);
            }}
            onPointerMove={(e: PointerEvent) => {
              if (!held.current) return;
              moved(
                n,
                (e.clientX - held.current.x) / wide(),
                (e.clientY - held.current.y) / wide(),
              );
              held.current = { x: e.clientX, y: e.clientY };
            }}
            onPointerUp={() => {
              if (held.current) onSettle();
              held.current = null;
            }}
            onKeyDown={(e: KeyboardEvent) => {
              const way = ARROWS[e.key];
              if (!way) return;
              e.preventDefault();
              const far = e.shiftKey ? LEAP : STEP;
              moved(n, way[0] * far, way[1] * far);
            }}
            onKeyUp={(e: KeyboardEvent) => ARROWS[e.key] && onSettle()}
          >
            <circle className="under" cx={s.x} cy={s.y} r={s.r} />
            <circle cx={s.x} cy={s.y} r={s.r} />
            <text x={s.x} y={s.y - s.r - 0.015 < 0.05 ? s.y + s.r + 0.05 : s.y - s.r - 0.015}>
              {name}
            </text>
          </Ring>
        );
      })}
    </Frame>
  );
}
