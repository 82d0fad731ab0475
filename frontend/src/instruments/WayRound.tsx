import styled from "styled-components";

import type { Report } from "../api/client";
import { Sketch } from "./Sketch";

const Draw = styled(Sketch)`
  path,
  circle,
  rect {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .soft {
    fill: var(--rule-soft);
  }
  .full {
    fill: var(--ink);
  }
`;

/** Which way round a round LED sits: long leg and round side to plus, short leg and flat to minus. */
export function LedWayRound() {
  return (
    <Draw
      viewBox="0 0 330 104"
      role="img"
      aria-label="Round LED: the long leg is plus, the short leg and the flat of its rim are minus"
    >
      <path className="soft" d="M40 46V30a18 18 0 0 1 36 0v16z" />
      <path d="M36 46h44M49 46v50M67 46v34" />
      <text x="0" y="98">
        +
      </text>
      <text x="10" y="98">
        long
      </text>
      <text x="74" y="84">
        − short
      </text>
      <path className="soft" d="M190 24a30 30 0 1 0 0 48z" />
      <circle className="full" cx="154" cy="48" r="3" />
      <circle className="full" cx="176" cy="48" r="3" />
      <text x="106" y="52">
        +
      </text>
      <text x="200" y="52">
        − the flat
      </text>
      <text x="136" y="98">
        from below
      </text>
    </Draw>
  );
}

/** Which way round a chip LED sits: its mark is at the minus end, on the part and as a rule on the board. */
export function ChipWayRound() {
  return (
    <Draw
      viewBox="0 0 330 104"
      role="img"
      aria-label="Chip LED: the bar, dot or cut corner marks the minus end; on the board the bar of its symbol"
    >
      <path className="soft" d="M40 30H106L118 42V74H40z" />
      <path d="M40 30V74M58 30V74" />
      <path className="full" d="M98 30V74H102V30z" />
      <text x="10" y="57">
        +
      </text>
      <text x="126" y="57">
        −
      </text>
      <text x="40" y="98">
        seen from above
      </text>
      <path d="M190 52H214M214 34V70L244 52zM244 34V70M244 52H268" />
      <text x="174" y="57">
        +
      </text>
      <text x="276" y="57">
        −
      </text>
      <text x="196" y="98">
        on the board
      </text>
    </Draw>
  );
}

type Board = NonNullable<Report["build"][number]["board"]>;

const PAD = { left: 34, right: 94 };
/** Where the second face stands beside the first. */
const BELOW = 176;

interface FaceProps {
  minus: "left" | "right";
  /** Which pads are square. */
  square: "left" | "right" | "";
  words: string;
  /** How far it stands to the right. */
  by: number;
}

/** One face of a board: two pads, plus and minus. */
function Face({ minus, square, words, by }: FaceProps) {
  return (
    <g transform={`translate(${by} 0)`}>
      <rect x="4" y="6" width="120" height="66" rx="3" />
      {(["left", "right"] as const).map((side) => (
        <g key={side}>
          {side === square ? (
            <rect className="soft" x={PAD[side] - 9} y="31" width="18" height="18" />
          ) : (
            <circle className="soft" cx={PAD[side]} cy="40" r="9" />
          )}
          <circle className="full" cx={PAD[side]} cy="40" r="3" />
          <text x={PAD[side] - 4} y="66">
            {side === minus ? "−" : "+"}
          </text>
        </g>
      ))}
      <text x="4" y="98">
        {words}
      </text>
    </g>
  );
}

/** A board's own legend: its mark at a pad, and which pad is minus on either face. */
export function BoardWayRound({ board }: { board: Board }) {
  const at = PAD[board.at];
  const square = board.mark.startsWith("square") ? board.at : "";
  const below = square && (square === "left" ? "right" : "left");
  return (
    <Draw
      viewBox="0 0 330 104"
      role="img"
      aria-label={`${board.label} at the ${board.at} pad: the ${board.minus} pad is minus, the ${board.minus_below} one from the side you solder`}
    >
      <Face minus={board.minus} square={square} words="parts' side" by={0} />
      {board.mark === "plus" && <path d={`M${at - 5} 20h10m-5 -5v10`} />}
      {board.mark === "minus" && <path d={`M${at - 5} 20h10`} />}
      {board.mark === "bar" && <path className="full" d={`M${at - 11} 18h22v5h-22z`} />}
      {board.mark === "arrow" && (
        <path d={board.at === "left" ? "M70 20H44l8 -6v12z" : "M58 20H84l-8 -6v12z"} />
      )}
      <Face minus={board.minus_below} square={below} words="the side you solder" by={BELOW} />
    </Draw>
  );
}

/** Which way round an electrolytic capacitor sits: the stripe is minus. */
export function CapacitorWayRound() {
  return (
    <Draw
      viewBox="0 0 330 104"
      role="img"
      aria-label="Electrolytic capacitor: the stripe and the short leg are minus"
    >
      <rect className="soft" x="28" y="8" width="48" height="56" rx="4" />
      <rect className="full" x="60" y="8" width="16" height="56" />
      <path d="M40 64v34M68 64v22" />
      <text x="4" y="98">
        + long
      </text>
      <text x="84" y="40">
        − the stripe
      </text>
      <text x="84" y="88">
        − short
      </text>
    </Draw>
  );
}
