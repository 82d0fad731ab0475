import { useEffect, useRef } from "react";
import styled from "styled-components";

import type { Schemas } from "../api/client";

type GlowLamp = Schemas["GlowLamp"];
type Flicker = Schemas["Flicker"];

/** The picture's side; a lamp's face takes the middle of it, its halo may fill it. */
const SIDE = 240;
const FACE = 116;
/** The widest a halo grows, of the picture's half. */
const REACH = 0.99;

/* It takes the room it is given and asks for none. */
const Picture = styled.canvas`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
`;

/** A cell that a lamp is drawn in. */
export const GlowCell = styled.div`
  position: relative;
  overflow: hidden;
  /* Light stays light whatever colours the page is forced to. */
  forced-color-adjust: none;
`;

interface Props {
  /** The lamp to draw. */
  lamp: GlowLamp;
  /** One flash of it, to be shown slowed down; nothing shows it as an eye does. */
  flicker?: Flicker | null | undefined;
}

/** A lamp's face with its halo, painted as the server computed it. */
export function Glowing({ lamp, flicker }: Props) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const canvas = ref.current;
    const pen = canvas?.getContext("2d");
    if (!canvas || !pen) return undefined;
    if (!flicker) {
      paint(pen, lamp, 1);
      return undefined;
    }
    let next = 0;
    const frame = (now: number) => {
      const along = ((now / 1000) % flicker.seconds) / flicker.seconds;
      const at = Math.floor(along * flicker.frames.length);
      paint(pen, lamp, flicker.frames[at] ?? 1);
      next = requestAnimationFrame(frame);
    };
    next = requestAnimationFrame(frame);
    return () => cancelAnimationFrame(next);
  }, [lamp, flicker]);
  return (
    <Picture
      ref={ref}
      width={SIDE}
      height={SIDE}
      role="img"
      aria-label={`${lamp.label}: lightness ${lamp.lightness.toFixed(0)} of 100`}
    />
  );
}

/** Paint a lamp; `bright` is how far up its ramp its brightest place stands. */
function paint(pen: CanvasRenderingContext2D, lamp: GlowLamp, bright: number) {
  const middle = SIDE / 2;
  pen.clearRect(0, 0, SIDE, SIDE);
  const { wide, shape } = lamp.face;
  const width = FACE * Math.min(Math.sqrt(wide), 2.1);
  const height = Math.min(width / wide, FACE * 2);
  halo(pen, lamp, Math.min(width, height) / 2, middle, bright);
  pen.save();
  outline(pen, shape, width, height, middle);
  pen.clip();
  pen.imageSmoothingEnabled = true;
  pen.imageSmoothingQuality = "high";
  pen.drawImage(face(lamp, bright), middle - width / 2, middle - height / 2, width, height);
  pen.restore();
  outline(pen, shape, width, height, middle);
  pen.lineWidth = 2;
  pen.strokeStyle = "rgb(128 128 120 / 0.45)";
  pen.stroke();
}

function outline(
  pen: CanvasRenderingContext2D,
  shape: string,
  width: number,
  height: number,
  middle: number,
) {
  pen.beginPath();
  if (shape === "rectangle") {
    pen.roundRect(middle - width / 2, middle - height / 2, width, height, 5);
  } else {
    pen.ellipse(middle, middle, width / 2, height / 2, 0, 0, 2 * Math.PI);
  }
}

/** The veil around it, as strong as the server says; `bright` fades it in and out with the lamp. */
function halo(
  pen: CanvasRenderingContext2D,
  lamp: GlowLamp,
  inner: number,
  middle: number,
  bright: number,
) {
  const outer = inner + (middle * REACH - inner) * lamp.halo;
  if (outer <= inner + 1) return;
  const veil = pen.createRadialGradient(middle, middle, inner * 0.6, middle, middle, outer);
  for (const [k, opacity] of lamp.veil.entries()) {
    const left = opacity * bright ** 3;
    veil.addColorStop(
      k / (lamp.veil.length - 1),
      `rgb(${rgb(lamp.hue).join(" ")} / ${left.toFixed(4)})`,
    );
  }
  pen.fillStyle = veil;
  pen.fillRect(0, 0, SIDE, SIDE);
}

/** The face as a small picture, a pixel for each place. */
function face(lamp: GlowLamp, bright: number): HTMLCanvasElement {
  const { columns, rows, levels } = lamp.face;
  const small = document.createElement("canvas");
  small.width = columns;
  small.height = rows;
  const pen = small.getContext("2d");
  if (!pen) return small;
  const picture = pen.createImageData(columns, rows);
  const ramp = lamp.ramp.map(rgb);
  const steps = atob(levels);
  for (let k = 0; k < columns * rows; k++) {
    const at = (steps.charCodeAt(k) / 255) * bright * (ramp.length - 1);
    const low = ramp[Math.floor(at)] ?? BLACK;
    const high = ramp[Math.ceil(at)] ?? low;
    for (let c = 0; c < 3; c++) {
      picture.data[4 * k + c] =
        (low[c] ?? 0) + ((high[c] ?? 0) - (low[c] ?? 0)) * (at - Math.floor(at));
    }
    picture.data[4 * k + 3] = 255;
  }
  pen.putImageData(picture, 0, 0);
  return small;
}

const BLACK = [0, 0, 0];

/** Red, green and blue of #rrggbb. */
const rgb = (hex: string): number[] =>
  [1, 3, 5].map((k) => Number.parseInt(hex.slice(k, k + 2), 16));
