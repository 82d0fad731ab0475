import { useState } from "react";
import styled from "styled-components";

import { useCatalogue } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { useOnce } from "../../ui/useOnce";

const Asked = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 10px;
`;

interface Props {
  /** The resistor it is about, unless another is typed. */
  next: string;
  /** Keep what the eye said of a resistor. */
  onSay: (resistor: string, verdict: string) => Promise<unknown>;
}

/** How it looks with a resistor in it: the one to try, or another. */
export function SayHow({ next, onSay }: Props) {
  const [typed, setTyped] = useState(next);
  const say = useOnce(onSay);
  const verdicts = useCatalogue().data?.choices["dim_trial.verdict"] ?? [];
  return (
    <Asked aria-label="How does it look?">
      <Field label="With this in it" value={typed} onChange={setTyped} />
      {verdicts
        .filter((v) => v.id !== "uneven" && v.id !== "blue")
        .map((v) => (
          <Button
            key={v.id}
            isDisabled={!typed.trim() || say.busy}
            onPress={() => void say.act(typed, v.id)}
          >
            {v.label}
          </Button>
        ))}
    </Asked>
  );
}
