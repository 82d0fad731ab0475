import styled from "styled-components";

import type { Report } from "../api/client";

type Marks = NonNullable<Report["sizing"]["marks"]>;

const Draw = styled.svg`
  display: block;
  width: 210px;
  height: 52px;
`;

const Words = styled.p`
  font-size: 0.95rem;
`;

/* Paint of bands, which is what it is in every look. */
export const PAINT: Record<string, string> = {
  black: "#1a1a1a",
  brown: "#6b3a1a",
  red: "#c3241c",
  orange: "#e87a12",
  yellow: "#f2d21a",
  green: "#2f8f3c",
  blue: "#2450b4",
  violet: "#7a3fa0",
  grey: "#8b8f92",
  white: "#f7f7f4",
  gold: "#b8913a",
  silver: "#b9bdc1",
  pink: "#e79ab0",
};

const W = 210;
const BODY = { x: 36, width: 138 };

interface Props {
  /** How the part is marked. */
  marks: Marks;
}

/** A resistor as it lies on the bench, and what stands on a chip of it. */
export function Bands({ marks }: Props) {
  const { bands, chip, code } = marks;
  const last = bands.length - 1;
  // The tolerance stands a little apart, as it does on the part: that tells which end is the first.
  const at = (n: number) => 50 + n * 20 + (n === last && bands.length > 3 ? 14 : 0);
  const chips = [chip && `“${chip}”`, code && code !== chip && `“${code}”`].filter(Boolean);
  return (
    <div>
      {bands.length > 0 && (
        <Draw viewBox={`0 0 ${W} 52`} role="img" aria-label={`Bands: ${bands.join(", ")}`}>
          <path d={`M0 26H${W}`} stroke="var(--ink-soft)" strokeWidth={3} />
          <rect
            x={BODY.x}
            y={8}
            width={BODY.width}
            height={36}
            rx={9}
            fill="#e6d3a8"
            stroke="#5c4d2b"
            strokeWidth={1.5}
          />
          {bands.map((colour, n) => (
            <rect
              key={`${n} ${colour}`}
              x={at(n)}
              y={8.75}
              width={10}
              height={34.5}
              fill={PAINT[colour]}
            />
          ))}
        </Draw>
      )}
      <Words>
        {bands.join(", ")}
        {chips.length > 0 && `${bands.length > 0 ? "; " : ""}on a chip ${chips.join(" or ")}`}
      </Words>
    </div>
  );
}
