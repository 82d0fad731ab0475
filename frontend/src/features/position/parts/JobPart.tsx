import { Link, useNavigate } from "react-router";

import { useSave } from "../../../saving/useSave";
import { Button } from "../../../ui/Button";
import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedText } from "../../../ui/record/SavedText";
import { useOnce } from "../../../ui/useOnce";
import { SpiceText } from "./SpiceText";
import type { Position } from "./part";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
}

/** The job: how far it is, and what was noted. */
export function JobPart({ position }: Props) {
  const save = useSave();
  const go = useNavigate();
  const remove = useOnce(async () => {
    const more = { label: `Delete ${position.name}`, done: `Deleted ${position.name}.` };
    await save("DELETE", `/api/positions/${position.id}`, undefined, more);
    await go(`/equipment/${position.equipment}`);
  });
  return (
    <>
      <SavedChoice field="stage" label="Stage" />
      <SavedChoice field="mains" label="Connected with the mains?" />
      <SavedChoice field="lit" label="When is it lit?" />
      <SavedText field="ambient" label="Air around it" hint="25°C; 60°C in a warm case" />
      <SavedText field="notes" label="Notes" lines />
      <p>
        <Link to={`/position/${position.id}/build`}>Build it, step by step</Link>
      </p>
      <p>
        <Link to={`/position/${position.id}/card`}>Job card to print</Link>
      </p>
      <p>
        <Link to={`/position/${position.id}/alike`}>
          Lamps like this one: copy, change together
        </Link>
      </p>
      <SpiceText id={position.id} />
      <Button isDisabled={remove.busy} onPress={() => void remove.act()}>
        Delete this lamp
      </Button>
    </>
  );
}
