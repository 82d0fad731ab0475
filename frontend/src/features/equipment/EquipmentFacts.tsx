import { useNavigate } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useSave } from "../../saving/useSave";
import { Button } from "../../ui/Button";
import { SavedText } from "../../ui/record/SavedText";
import { useOnce } from "../../ui/useOnce";

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
  const save = useSave();
  const go = useNavigate();
  const remove = useOnce(async () => {
    const more = { label: `Delete ${item.name}`, done: `Deleted ${item.name}.` };
    await save("DELETE", `/api/equipment/${item.id}`, undefined, more);
    await go("/");
  });
  const { advice, sheet } = item.take_in;
  const { overruled } = sheet.feasibility;
  return (
    <Facts>
      <SavedText field="maker_model" label="Maker and model" />
      <SavedText field="board_revision" label="Board revision" />
      <SavedText field="owner" label="Owner" />
      <Advice data-verdict={advice.verdict}>
        <strong>Take-in:</strong> {advice.line}
        {overruled ? ` Decided otherwise: ${overruled}` : ""}
      </Advice>
      <SavedText field="notes" label="Notes" lines />
      <div>
        <Button isDisabled={remove.busy} onPress={() => void remove.act()}>
          Delete this equipment
        </Button>
      </div>
    </Facts>
  );
}
