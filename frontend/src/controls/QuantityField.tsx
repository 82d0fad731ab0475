import { useState } from "react";
import styled from "styled-components";

import { Refused, type Schemas } from "../api/client";
import { useTook } from "../api/queries";
import { useDraft } from "../api/useDraft";
import { Choice } from "./Choice";
import { Field } from "./Field";

type Quantity = Schemas["Quantity"];
type Source = Quantity["source"];

const Group = styled.div`
  display: grid;
  gap: 4px;
`;

const SOURCES = [
  ["measured", "Measured"],
  ["marked", "Marked"],
  ["assumed", "Assumed"],
] as const satisfies readonly (readonly [Source, string])[];

interface Props {
  /** Names the draft in local storage; unique to record and field. */
  id: string;
  label: string;
  unit: Schemas["TookIn"]["unit"];
  value: Quantity;
  onSave: (value: Quantity) => Promise<unknown>;
  /** Field names the server may refuse this under. */
  fields: string[];
  hint?: string;
  /** Leave out the source where it cannot be anything but typed. */
  plain?: boolean;
}

/** A quantity with its source: typed as people write it, echoed as it was taken. */
export function QuantityField({ id, label, unit, value, onSave, fields, hint, plain }: Props) {
  const draft = useDraft(id, value.text);
  const [refusal, setRefusal] = useState<string>();
  const took = useTook(draft.value, unit);
  const typedWrong = draft.dirty && draft.value.trim() ? took.data?.error || undefined : undefined;

  const commit = async (source: Source) => {
    if (!draft.dirty && source === value.source) return;
    try {
      await onSave({ text: draft.value, source, note: value.note ?? "" });
      setRefusal(undefined);
      draft.clear();
    } catch (problem) {
      if (problem instanceof Refused) setRefusal(problem.of(...fields) ?? problem.message);
    }
  };

  return (
    <Group>
      <Field
        label={label}
        value={draft.value}
        onChange={(t) => {
          setRefusal(undefined);
          draft.type(t);
        }}
        onCommit={() => void commit(value.source ?? "assumed")}
        hint={draft.value.trim() ? `Taken as ${took.data?.took ?? ""}` : hint}
        error={refusal ?? typedWrong}
      />
      {!plain && (
        <Choice
          label={`${label}: where it is from`}
          value={value.source === "computed" ? "assumed" : (value.source ?? "assumed")}
          options={SOURCES}
          onChange={(s) => void commit(s)}
        />
      )}
    </Group>
  );
}
