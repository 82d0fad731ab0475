import { SavedChoice } from "../../../ui/record/SavedChoice";
import { SavedText } from "../../../ui/record/SavedText";
import { SpiceText } from "./SpiceText";
import type { Position } from "./part";

interface Props {
  /** The lamp position as it is kept. */
  position: Position;
}

/** The job: what the lamp is called, how far it is, and what was noted. */
export function JobPart({ position }: Props) {
  return (
    <>
      <SavedText field="name" label="Lamp" />
      <SavedChoice field="stage" label="Stage" />
      <SavedChoice field="mains" label="Connected with the mains?" />
      <SavedChoice field="lit" label="When is it lit?" />
      <SavedText field="ambient" label="Air around it" hint="25°C; 60°C in a warm case" />
      <SavedText field="notes" label="Notes" lines />
      <SpiceText id={position.id} />
    </>
  );
}
