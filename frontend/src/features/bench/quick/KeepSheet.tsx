import { useState } from "react";
import { useNavigate } from "react-router";

import { Refused, type Schemas } from "../../../api/client";
import { useSave } from "../../../api/queries";
import { useDraft } from "../../../api/useDraft";
import { Button, MainButton } from "../../../ui/Button";
import { Field } from "../../../ui/Field";
import { Picker } from "../../../ui/Picker";
import { Sheet } from "../../../ui/Sheet";

interface Props {
  /** Whether it is seen. */
  open: boolean;
  /** Shut it. */
  onClose: () => void;
  /** Called when it is kept. */
  onKept: () => void;
  /** The quick sum as it is typed. */
  quick: Schemas["QuickIn"];
  /** The equipment it may be kept in. */
  equipment: Schemas["BenchItem"][];
}

/** Where a quick sum is kept: in equipment that is there, or newly named. */
export function KeepSheet({ open, onClose, onKept, quick, equipment }: Props) {
  const save = useSave();
  const go = useNavigate();
  const [where, setWhere] = useState("new");
  const name = useDraft("quick.keep.equipment", "");
  const lamp = useDraft("quick.keep.lamp", "");
  const [refusal, setRefusal] = useState<Refused>();

  const keep = async () => {
    const position = crypto.randomUUID();
    try {
      await save("POST", "/api/quick/keep", {
        quick,
        position,
        rail: crypto.randomUUID(),
        equipment: where === "new" ? null : where,
        new_equipment: crypto.randomUUID(),
        equipment_name: name.value,
        name: lamp.value.trim() || "Lamp",
      });
      name.clear();
      lamp.clear();
      onKept();
      await go(`/position/${position}`);
    } catch (problem) {
      if (problem instanceof Refused) setRefusal(problem);
    }
  };

  return (
    <Sheet title="Keep as a lamp position" open={open} onClose={onClose}>
      <Picker
        label="Equipment"
        value={where}
        onChange={setWhere}
        items={[
          { id: "new", label: "New equipment" },
          ...equipment.map((e) => ({ id: e.id, label: e.name })),
        ]}
      />
      {where === "new" && (
        <Field
          label="Its name"
          words
          value={name.value}
          onChange={name.type}
          error={refusal?.of("equipment_name")}
        />
      )}
      <Field
        label="Which lamp"
        words
        value={lamp.value}
        onChange={lamp.type}
        hint="Dial, left; power lamp; tail"
        error={refusal && !refusal.of("equipment_name") ? refusal.message : undefined}
      />
      <MainButton onPress={() => void keep()}>Keep</MainButton>
      <Button onPress={onClose}>Back</Button>
    </Sheet>
  );
}
