import type { ReactNode } from "react";
import styled from "styled-components";

const Sheet = styled.svg`
  flex: none;
  width: 140px;
  height: 102px;
  fill: none;
  stroke: currentColor;
  stroke-width: 2.2;
  stroke-linecap: round;
  stroke-linejoin: round;
  .lit {
    fill: var(--mark);
    stroke: none;
  }
  .faint {
    stroke: var(--rule);
  }
  @media (max-width: 760px) {
    width: 84px;
    height: 62px;
  }
`;

/** What somebody may have in hand, each drawn in a few lines on a sheet of 104 by 76. */
const DRAWN: Record<string, ReactNode> = {
  bulb: (
    <>
      <path d="M42 44c-9-6-12-13-10-21a20 20 0 0 1 40 0c2 8-1 15-10 21v6H42z" />
      <path d="M45 38l4-14 3 6 3-6 4 14" className="faint" />
      <path d="M42 50h20M43 56h18M45 62h14" />
      <circle cx="52" cy="68" r="2.5" className="lit" />
    </>
  ),
  vehicle: (
    <>
      <path d="M8 52h88M16 52V40l12-4 10-14h30l12 14 14 4v12" />
      <circle cx="30" cy="54" r="8" />
      <circle cx="76" cy="54" r="8" />
      <path d="M42 26v10h32" className="faint" />
      <circle cx="92" cy="43" r="4" className="lit" />
    </>
  ),
  model: (
    <>
      <path d="M6 62h92M12 68h80" className="faint" />
      <path d="M18 54V24h34v30zM52 54V36h32l4 18z" />
      <path d="M24 30h9v9h-9zM38 30h9v9h-9z" />
      <circle cx="30" cy="58" r="5" />
      <circle cx="72" cy="58" r="5" />
      <circle cx="88" cy="46" r="4" className="lit" />
    </>
  ),
  dial: (
    <>
      <path d="M14 60a38 38 0 0 1 76 0z" />
      <path d="M22 54l6 3M31 41l5 5M44 33l3 7M60 33l-3 7M73 41l-5 5M82 54l-6 3" className="faint" />
      <path d="M52 60L68 40" />
      <circle cx="36" cy="66" r="4" className="lit" />
      <circle cx="68" cy="66" r="4" className="lit" />
    </>
  ),
  there: (
    <>
      <path d="M38 46V26a14 14 0 0 1 28 0v20z" />
      <path d="M34 46h36M45 46v24M59 46v18" />
      <circle cx="52" cy="28" r="6" className="lit" />
      <path d="M26 18l-7-5M24 30h-9M78 18l7-5M80 30h9" className="faint" />
    </>
  ),
  board: (
    <>
      <path d="M14 16h76v44H14z" />
      <path d="M22 50h16v-6h12v6h12" />
      <path d="M66 26h16v24H66z" className="faint" />
      <circle cx="26" cy="28" r="4" className="lit" />
      <circle cx="40" cy="28" r="4" className="lit" />
      <circle cx="54" cy="28" r="4" className="lit" />
    </>
  ),
  string: (
    <>
      <path d="M6 22c14 22 28 22 46 10s32-10 46 10" />
      <path d="M20 37v8M40 38v8M62 27v8M82 30v8" className="faint" />
      <circle cx="20" cy="50" r="5" className="lit" />
      <circle cx="40" cy="51" r="5" className="lit" />
      <circle cx="62" cy="40" r="5" className="lit" />
      <circle cx="82" cy="43" r="5" className="lit" />
    </>
  ),
  power: (
    <>
      <path d="M20 40h64v8H20z" />
      <path d="M24 48v20M36 48v20M48 48v20M60 48v20M72 48v20M82 48v20" className="faint" />
      <path d="M36 40v-6h32v6" />
      <path d="M44 34a8 8 0 0 1 16 0z" className="lit" />
      <path d="M52 18v-8M36 24l-6-6M68 24l6-6" />
    </>
  ),
  none: (
    <>
      <path d="M8 30h32M8 46h32" />
      <circle cx="44" cy="30" r="3" />
      <circle cx="44" cy="46" r="3" />
      <path d="M60 52V34a10 10 0 0 1 20 0v18z" strokeDasharray="3 5" />
      <path d="M56 52h28" strokeDasharray="3 5" />
    </>
  ),
};

interface Props {
  /** Which of them. */
  of: string;
}

/** A drawing of what somebody has in hand. */
export function Drawn({ of }: Props) {
  return (
    <Sheet viewBox="0 0 104 76" aria-hidden="true">
      {DRAWN[of]}
    </Sheet>
  );
}
