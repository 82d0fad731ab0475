import styled from "styled-components";

import { useCatalogue } from "../../api/queries";
import type { FromField } from "../../saving/saves";
import { useDraft } from "../../saving/useDraft";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { useOnce } from "../../ui/useOnce";

const Asked = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 10px;
`;

/** What a look's resistor is called, in the form and in a refusal. */
const LABEL = "With this in it";

interface Props {
  /** Names what is typed here, until it is said how it looks. */
  draft: string;
  /** The resistor it is about, unless another is typed. */
  next: string;
  /** Keep what the eye said of a resistor; a refused text goes back to where it was typed. */
  onSay: (resistor: string, verdict: string, from: Omit<FromField, "names">) => Promise<unknown>;
}

/** How it looks with a resistor in it: the one to try, or another. */
export function SayHow({ draft, next, onSay }: Props) {
  const typed = useDraft(draft, next, LABEL);
  const say = useOnce(async (verdict: string) => {
    const text = typed.take();
    if (text !== undefined) await onSay(text, verdict, { draft: typed.key, text, label: LABEL });
  });
  const verdicts = useCatalogue().data?.choices["dim_trial.verdict"] ?? [];
  return (
    <Asked aria-label="How does it look?">
      <Field label={LABEL} value={typed.value} onChange={typed.type} error={typed.refused} />
      {verdicts.map((v) => (
        <Button
          key={v.id}
          isDisabled={!typed.value.trim() || say.busy}
          onPress={() => void say.act(v.id)}
        >
          {v.label}
        </Button>
      ))}
    </Asked>
  );
}
