import styled from "styled-components";

export const STROKES = {
  ink: "",
  pencil: "2 4",
  mark: "9 4",
} as const;

export type Stroke = keyof typeof STROKES;

const Key = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 0.875rem;
  svg {
    margin-right: 6px;
    vertical-align: middle;
  }
`;

interface Props {
  /** What each line of a trace is, with its stroke. */
  lines: readonly { label: string; stroke: Stroke }[];
}

/** What the lines of a trace are: told by their dashes as well as by their colour. */
export function CurveKey({ lines }: Props) {
  return (
    <Key>
      {lines.map((l) => (
        <li key={l.label}>
          <svg width="30" height="8" aria-hidden="true">
            <line
              x2="30"
              y1="4"
              y2="4"
              stroke={`var(--${l.stroke})`}
              strokeWidth="3"
              strokeDasharray={STROKES[l.stroke]}
            />
          </svg>
          {l.label}
        </li>
      ))}
    </Key>
  );
}
