import styled from "styled-components";

import type { Schemas } from "../../api/client";

const Row = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 14px 36px;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
`;

const Face = styled.li`
  width: 250px;
`;

const Draw = styled.svg`
  display: block;
  width: 250px;
  height: 150px;
  text {
    font: 600 15px var(--sans);
    fill: var(--ink);
    text-anchor: middle;
  }
`;

const W = 250;
const LEG = 76;

interface Props {
  /** The package as it stands, from each of its faces. */
  pins: Schemas["PinRow"][];
}

/** A package with its legs down, drawn from both faces: what is left on one is right on the other. */
export function Pins({ pins }: Props) {
  return (
    <Row aria-label="Pins">
      {pins.map((row) => (
        <Face key={row.face}>
          <strong>{row.package}</strong>, {row.face}
          <One row={row} />
        </Face>
      ))}
    </Row>
  );
}

interface OneProps {
  /** Pins from left to right. */
  row: Schemas["PinRow"];
}

function One({ row }: OneProps) {
  const middle = (row.pins.length - 1) / 2;
  return (
    <Draw
      viewBox={`0 0 ${W} 150`}
      role="img"
      aria-label={`From left to right: ${row.pins.join(", ")}`}
    >
      <rect
        x={W / 2 - LEG * middle - 26}
        y={8}
        width={LEG * 2 * middle + 52}
        height={60}
        rx={3}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.5}
      />
      {row.pins.map((pin, n) => {
        const x = W / 2 + (n - middle) * LEG;
        return (
          <g key={pin}>
            <path d={`M${x} 68V122`} stroke="var(--ink)" strokeWidth={4} />
            <text x={x} y={142}>
              {pin}
            </text>
          </g>
        );
      })}
    </Draw>
  );
}
