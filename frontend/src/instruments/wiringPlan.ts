/** A step between two nodes, a row, and the room before the first of each; upright a row is a column. */
const FLAT = { step: 118, row: 84, start: 24, first: 62 };
/** Where little room is. */
const CLOSE = 98;
const UPRIGHT = { step: 88, row: 120, start: 14, first: 26 };
/** How much lower a row is that carries currents. */
export const CARRIES = 24;

export interface Plan {
  /** Whether the current runs down, as on a phone. */
  upright: boolean;
  /** How many rows there are; upright the feed's, the last, comes first. */
  rows: number;
  /** Whether currents stand at the parts. */
  carries: boolean;
  close: boolean;
}

export interface Point {
  x: number;
  y: number;
}

/** Where a node's place across and a row lie: across and down, or upright down and across. */
export function place(across: number, row: number, { upright, rows, carries, close }: Plan): Point {
  const to = upright ? UPRIGHT : FLAT;
  const along = to.start + across * (close && !upright ? CLOSE : to.step);
  const high = to.row + (carries && !upright ? CARRIES : 0);
  const beside = to.first + (upright ? (row + 1) % rows : row) * high;
  return upright ? { x: beside, y: along } : { x: along, y: beside };
}
