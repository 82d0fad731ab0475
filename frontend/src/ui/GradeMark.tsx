import styled from "styled-components";

export type Grade = "stop" | "mind" | "note";

const SHAPES: Record<Grade, string> = {
  stop: "M7 1h8l6 6v8l-6 6H7l-6-6V7z",
  mind: "M11 2 21 20H1z",
  note: "M4 3h14v16H4z",
};
const SIGNS: Record<Grade, string> = {
  stop: "M6 11h10",
  mind: "M11 8v6M11 16v2",
  note: "M7 8h8M7 11h8M7 14h5",
};
const WORDS: Record<Grade, string> = { stop: "Stop", mind: "Mind", note: "Note" };

const Mark = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  font-weight: 700;
  &[data-grade="stop"] {
    color: var(--stop);
  }
  &[data-grade="mind"] {
    color: var(--mind);
  }
  &[data-grade="note"] {
    color: var(--note);
  }
  svg {
    flex: none;
  }
`;

/** A grade by shape, word and colour. */
export function GradeMark({ grade, bare = false }: { grade: Grade; bare?: boolean }) {
  return (
    <Mark data-grade={grade}>
      <svg width="22" height="22" role="img" aria-label={WORDS[grade]}>
        <path d={SHAPES[grade]} fill="none" stroke="currentColor" strokeWidth="2" />
        <path d={SIGNS[grade]} stroke="currentColor" strokeWidth="2" />
      </svg>
      {!bare && <span aria-hidden="true">{WORDS[grade]}</span>}
    </Mark>
  );
}
