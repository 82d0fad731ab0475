import { useRef, useState } from "react";
import { useNavigate } from "react-router";

import { Refused, type Schemas } from "../../../api/client";
import { useDraft } from "../../../saving/useDraft";
import { useSave } from "../../../saving/useSave";
import { Button, MainButton } from "../../../ui/Button";
import { Field } from "../../../ui/Field";
import { Picker } from "../../../ui/Picker";
import { Sheet } from "../../../ui/Sheet";
import { useOnce } from "../../../ui/useOnce";

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

  // The keys of one sum are the same however often it is pressed: it is kept once.
  const keys = useRef<{ position: string; rail: string; item: string } | null>(null);
  const keep = useOnce(async () => {
    if (!keys.current) {
      keys.current = {
        position: crypto.randomUUID(),
        rail: crypto.randomUUID(),
        item: crypto.randomUUID(),
      };
    }
    const { position, rail, item } = keys.current;
    try {
      await save("POST", "/api/quick/keep", {
        quick,
        position,
        rail,
        equipment: where === "new" ? null : where,
        new_equipment: item,
        equipment_name: name.value,
        name: lamp.value.trim() || "Lamp",
      });
      keys.current = null;
      name.clear();
      lamp.clear();
      onKept();
      await go(`/position/${position}`);
    } catch (problem) {
      if (problem instanceof Refused) setRefusal(problem);
    }
  });

  return (
    <Sheet title="Keep as a lamp" open={open} onClose={onClose}>
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
      <MainButton isDisabled={keep.busy} onPress={() => void keep.act()}>
        Keep
      </MainButton>
      <Button onPress={onClose}>Back</Button>
    </Sheet>
  );
}
