import styled from "styled-components";

const Draw = styled.svg`
  display: block;
  height: 84px;
  width: 200px;
  text {
    font: 650 22px var(--mono);
    text-anchor: middle;
  }
`;

/** A chip resistor from above: its ends bright, its mark across the middle. */
export function ChipDrawn({ mark }: { mark: string }) {
  return (
    <Draw viewBox="0 0 200 84" role="img" aria-label={`Chip marked ${mark}`}>
      <rect x="30" y="14" width="140" height="56" fill="#1d1f1e" stroke="var(--ink-soft)" />
      <rect x="30" y="14" width="24" height="56" fill="#b9bdc1" />
      <rect x="146" y="14" width="24" height="56" fill="#b9bdc1" />
      <text x="100" y="50" fill="#f2f2ee">
        {mark}
      </text>
    </Draw>
  );
}

/** A disc capacitor, its legs down. */
export function CapacitorDrawn({ mark }: { mark: string }) {
  return (
    <Draw viewBox="0 0 200 84" role="img" aria-label={`Capacitor marked ${mark}`}>
      <path d="M86 60V84M114 60V84" stroke="var(--ink-soft)" strokeWidth="3" />
      <ellipse cx="100" cy="34" rx="62" ry="31" fill="#c9913f" stroke="#5c4d2b" />
      <text x="100" y="42" fill="#1d1a12">
        {mark}
      </text>
    </Draw>
  );
}
