import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { show } from "../test/providers";
import { glow } from "../test/report";
import { GlowBox } from "./GlowBox";

const ROOMS = [
  { id: "dark", label: "Dark room" },
  { id: "workshop", label: "Workshop" },
];

/** What is painted: colours of each picture's places, and how far each halo goes. */
let painted: number[][] = [];
let halos: number[] = [];

beforeEach(() => {
  painted = [];
  halos = [];
  const pen = {
    createImageData: (w: number, h: number) => ({ data: new Uint8ClampedArray(4 * w * h) }),
    putImageData: (picture: ImageData) => painted.push([...picture.data]),
    createRadialGradient: (...at: number[]) => {
      halos.push(at[5] ?? 0);
      return { addColorStop: () => undefined };
    },
  };
  const canvas = new Proxy(pen, {
    get: (has, name) => Reflect.get(has, name) ?? (() => undefined),
    set: () => true,
  });
  vi.spyOn(HTMLCanvasElement.prototype, "getContext").mockReturnValue(
    canvas as unknown as CanvasRenderingContext2D,
  );
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const VERDICTS = [
  { id: "bright", label: "Too bright" },
  { id: "right", label: "Right" },
];

const box = (onRoom = vi.fn(), onVerdict = vi.fn(), onTry?: () => void) =>
  show(
    <GlowBox
      glow={glow}
      rooms={ROOMS}
      onRoom={onRoom}
      verdicts={VERDICTS}
      onVerdict={onVerdict}
      next={onTry && { label: "Next: try 33 kΩ", onTry }}
      equipment="e1"
    />,
  );

test("the old lamp stands beside the LED at the usual rail, in words and figures", () => {
  box();
  expect(screen.getByRole("img", { name: "Old lamp: lightness 50 of 100" })).toBeTruthy();
  expect(screen.getByRole("img", { name: "LED, usual: lightness 100 of 100" })).toBeTruthy();
  expect(screen.getByText("4.2 × the old lamp")).toBeTruthy();
  expect(screen.getByText("Seen directly")).toBeTruthy();
});

test("each place of a face has the colour of its step on the ramp", () => {
  box();
  expect(painted).toEqual([
    [0, 0, 0, 255, 128, 96, 64, 255],
    [0, 0, 0, 255, 255, 0, 0, 255],
  ]);
});

test("the wider veil has the wider halo", () => {
  box();
  expect(halos[1]).toBeGreaterThan(halos[0] ?? Infinity);
});

test("the rail is turned on the one lamp, and the picture follows", () => {
  box();
  fireEvent.click(screen.getByRole("radio", { name: "Lowest" }));
  expect(screen.getByText("2.1 × the old lamp")).toBeTruthy();
  expect(screen.queryByText("4.2 × the old lamp")).toBeNull();
  expect(painted.at(-1)).toEqual([0, 0, 0, 255, 128, 0, 0, 255]);
});

test("the light of the room is asked for by its name", () => {
  const onRoom = vi.fn();
  box(onRoom);
  fireEvent.click(screen.getByRole("radio", { name: "Dark room" }));
  expect(onRoom).toHaveBeenCalledWith("dark");
});

test("a trial is logged in two taps, and the next value is at hand", async () => {
  const onVerdict = vi.fn();
  const onTry = vi.fn();
  box(vi.fn(), onVerdict, onTry);
  fireEvent.click(screen.getByRole("button", { name: "Log a trial" }));
  fireEvent.click(await screen.findByRole("menuitem", { name: "Too bright" }));
  expect(onVerdict).toHaveBeenCalledWith("bright");
  fireEvent.click(screen.getByRole("button", { name: "Next: try 33 kΩ" }));
  expect(onTry).toHaveBeenCalled();
});
