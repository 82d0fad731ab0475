import { Button, Menu, MenuItem, MenuTrigger, Popover } from "react-aria-components";
import styled from "styled-components";

import { useCatalogue } from "../../api/queries";
import { dropped, listed } from "../listed";

const Open = styled(Button)`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-width: 44px;
  min-height: 41px;
  padding: 0 10px;
  border: 0;
  border-left: 1.5px solid var(--rule-soft);
  background: none;
  font-size: 0.875rem;
  color: var(--ink-soft);
  white-space: nowrap;
  cursor: pointer;
  &[data-hovered] {
    background: var(--rule-soft);
  }
`;

const Sheet = styled(Popover)`
  min-width: 180px;
  ${dropped}
`;

const Item = styled(MenuItem)`
  ${listed}
`;

const Asked = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 6px;
  font-size: 0.9rem;
`;

const Answer = styled(Button)`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 36px;
  padding: 0 10px;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  background: none;
  font-weight: 600;
  cursor: pointer;
  &[data-hovered] {
    background: var(--rule-soft);
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;

/* Ink is a full stroke, a mark is a stamped frame, pencil is broken. */
const STROKES: Record<string, { d: string; dash?: string }> = {
  measured: { d: "M2 11h14" },
  marked: { d: "M3 4h12v10H3zM6 9h6" },
  assumed: { d: "M2 11h14", dash: "2.5 2.5" },
  computed: { d: "M4 13l5-8 5 8z" },
};

function Sign({ source }: { source: string }) {
  const stroke = STROKES[source] ?? STROKES.assumed;
  return (
    <svg width="18" height="18" aria-hidden="true">
      <path
        d={stroke?.d}
        fill="none"
        stroke="currentColor"
        strokeWidth="2.2"
        strokeDasharray={stroke?.dash}
      />
    </svg>
  );
}

/** Where a typed figure can come from, with its names. */
function useOrigins() {
  const sources = useCatalogue().data?.choices["quantity.source"] ?? [];
  return { sources, typed: sources.filter((s) => s.id !== "computed") };
}

interface Props {
  /** The figure's name. */
  label: string;
  /** Where it comes from now. */
  source: string;
  onChange: (source: string) => void;
}

/** A figure's origin in its field: ink, marked or pencil; press to say another. */
export function Origin({ label, source, onChange }: Props) {
  const { sources, typed } = useOrigins();
  const word = sources.find((s) => s.id === source)?.label ?? source;
  return (
    <MenuTrigger>
      <Open aria-label={`${word}: where ${label} is from`}>
        <Sign source={source} />
        {word}
      </Open>
      <Sheet placement="bottom end">
        <Menu
          aria-label={`Where ${label} is from`}
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[source]}
          onAction={(key) => onChange(String(key))}
        >
          {typed.map((s) => (
            <Item key={s.id} id={s.id}>
              <Sign source={s.id} />
              {s.label}
            </Item>
          ))}
        </Menu>
      </Sheet>
    </MenuTrigger>
  );
}

/** Asked once, behind a figure that was typed anew. */
export function AskOrigin({ label, onChange }: Omit<Props, "source">) {
  const { typed } = useOrigins();
  return (
    <Asked role="group" aria-label={`Where ${label} is from`}>
      From?
      {typed.map((s) => (
        <Answer key={s.id} onPress={() => onChange(s.id)}>
          <Sign source={s.id} />
          {s.label}
        </Answer>
      ))}
    </Asked>
  );
}
