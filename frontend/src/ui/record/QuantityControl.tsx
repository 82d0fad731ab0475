import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useCatalogue, useTook } from "../../api/queries";
import { useDraft } from "../../api/useDraft";
import { Choice } from "../Choice";
import { Field } from "../Field";
import { useRefusal } from "./useRefusal";

type Quantity = Schemas["Quantity"];

const Group = styled.div`
  display: grid;
  gap: 4px;
`;

interface Props {
  /** Names the draft in local storage; unique to record and field. */
  id: string;
  /** The field's name for the server. */
  name: string;
  /** Its name on screen. */
  label: string;
  /** The unit the text is read in. */
  unit: Schemas["TookIn"]["unit"];
  /** What stands there now. */
  value: Quantity;
  /** What the saved text was taken for. */
  took?: string | undefined;
  /** How to write it, or what it was taken for. */
  hint?: string | undefined;
  /** Leave out the source where it cannot be anything but typed. */
  plain?: boolean;
  /** Save it; rejects where the server refuses. */
  onSave: (value: Quantity) => Promise<unknown>;
}

/** A quantity with its source: typed as people write it, echoed as it was taken. */
export function QuantityControl(props: Props) {
  const { id, name, label, unit, value, onSave, hint, plain } = props;
  const draft = useDraft(id, value.text);
  const { refusal, tell, forget } = useRefusal(name);
  const sources = useCatalogue().data?.choices["quantity.source"] ?? [];
  const typing = useTook(draft.dirty ? draft.value : "", unit);
  const wrong = draft.dirty && draft.value.trim() ? typing.data?.error || undefined : undefined;
  const took = draft.dirty ? typing.data?.took : props.took;

  const commit = async (source: Quantity["source"]) => {
    if (!draft.dirty && source === value.source) return;
    if (await tell(() => onSave({ text: draft.value, source, note: value.note }))) draft.clear();
  };

  return (
    <Group>
      <Field
        label={label}
        value={draft.value}
        onChange={(text) => {
          forget();
          draft.type(text);
        }}
        onCommit={() => void commit(value.source)}
        hint={draft.value.trim() ? `Taken as ${took ?? ""}` : hint}
        error={refusal ?? wrong}
      />
      {!plain && (
        <Choice
          label={`${label}: where it is from`}
          value={value.source === "computed" ? "assumed" : value.source}
          options={sources.filter((s) => s.id !== "computed")}
          onChange={(source) => void commit(source as Quantity["source"])}
        />
      )}
    </Group>
  );
}
