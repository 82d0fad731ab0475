import styled from "styled-components";

import type { Schemas } from "../../api/client";

/* One dark box for the whole group, in both looks: lamps are judged side by side. */
const Box = styled.ol`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-evenly;
  gap: 6px 12px;
  margin: 0 0 12px;
  padding: 14px 8px 8px;
  border-radius: 6px;
  background: #050606;
  color: #d9d4c8;
  list-style: none;
  forced-color-adjust: none;
`;

const Face = styled.li`
  display: grid;
  justify-items: center;
  width: 150px;
  gap: 4px;
  font-size: 0.875rem;
  line-height: 1.2;
  text-align: center;
  overflow-wrap: anywhere;
`;

interface Props {
  match: Schemas["MatchReport"];
  /** Which value each lamp stands at. */
  picks: readonly number[];
}

/** The group in a row, each as it would look with the value it stands at. */
export function MatchFaces({ match, picks }: Props) {
  return (
    <Box aria-label="How they look">
      {match.rows.map((row, n) => {
        const value = row.values[picks[n] ?? row.now];
        return (
          <Face key={row.id}>
            <svg width="72" height="72" viewBox="-36 -36 72 72" aria-hidden="true">
              <circle r="34" fill={value?.colour ?? "#000000"} opacity="0.14" />
              <circle r="21" fill={value?.colour ?? "#000000"} stroke="#4a4c48" />
            </svg>
            <span>{row.name}</span>
            <span>
              {value?.light ?? row.barred}
              {value && row.doubt && `, ${row.doubt}`}
            </span>
            {value?.beside && <span>{value.beside} beside its old lamp</span>}
          </Face>
        );
      })}
    </Box>
  );
}
