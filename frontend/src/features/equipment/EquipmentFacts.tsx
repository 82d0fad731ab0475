import { useNavigate } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useSave } from "../../saving/useSave";
import { Button } from "../../ui/Button";
import { Lines } from "../../ui/record/Lines";
import { useRecord } from "../../ui/record/record";
import { SavedChoice } from "../../ui/record/SavedChoice";
import { SavedDay } from "../../ui/record/SavedDay";
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
  const record = useRecord();
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
      <SavedDay field="promised" label="Promised for" />
      <section aria-label="What it waits for">
        <h2>What it waits for</h2>
        <Lines
          id={`${item.id}.waits`}
          label="Wait"
          add="Add a wait"
          fields={[
            ["what", "Paint, silicone, its owner's word"],
            ["until", "Until, where it is known", "moment"],
          ]}
          lines={item.waits ?? {}}
          onSave={(waits, was, at) => record.save({ waits }, was && { waits: was }, at)}
        />
      </section>
      <SavedText field="notes" label="Notes" lines />
      <Took job={item.job} />
      <SavedChoice field="archived" label="On the bench, or put away" />
      <div>
        <Button isDisabled={remove.busy} onPress={() => void remove.act()}>
          Delete this equipment
        </Button>
      </div>
    </Facts>
  );
}

/** Hours and money so far, beside the estimate and what others like it took. */
function Took({ job }: { job: Schemas["Job"] }) {
  const said = [job.hours, job.price && `parts ${job.price}`].filter(Boolean).join(", ");
  if (!said && !job.like) return null;
  return (
    <section aria-label="What it took">
      <h2>What it took{said && `: ${said}`}</h2>
      {job.beside && <p>{job.beside}</p>}
      {job.like && <p>{job.like}</p>}
    </section>
  );
}
