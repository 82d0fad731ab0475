import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { RecordContext } from "../../ui/record/record";
import { SavedText } from "../../ui/record/SavedText";
import { useSaveFields } from "../../ui/record/useSaveFields";

const Facts = styled.div`
  display: flex;
  flex-direction: column;
  gap: 2px;
`;

const Advice = styled.p`
  margin: 6px 0 10px;
  &[data-verdict="leave"] strong {
    color: var(--stop);
  }
`;

interface Props {
  /** The item of equipment. */
  item: Schemas["EquipmentOut"];
}

/** What the item is, whose it is, and what take-in advised. */
export function EquipmentFacts({ item }: Props) {
  const save = useSaveFields(`/api/equipment/${item.id}`);
  const { advice, sheet } = item.take_in;
  const { overruled } = sheet.feasibility;
  return (
    <RecordContext
      value={{
        id: item.id,
        shape: "equipment",
        values: item,
        save,
      }}
    >
      <Facts>
        <SavedText field="name" label="Name" />
        <SavedText field="maker_model" label="Maker and model" />
        <SavedText field="board_revision" label="Board revision" />
        <SavedText field="owner" label="Owner" />
        <Advice data-verdict={advice.verdict}>
          <strong>Take-in:</strong> {advice.line}
          {overruled ? ` Decided otherwise: ${overruled}` : ""}
        </Advice>
        <SavedText field="notes" label="Notes" lines />
      </Facts>
    </RecordContext>
  );
}
