import styled from "styled-components";

import { useCatalogue } from "../../api/queries";
import { SmallButton } from "../../ui/Button";
import { useOnce } from "../../ui/useOnce";

const Row = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
`;

interface Props {
  /** The resistor that is fitted. */
  fitted: string;
  /** Keep through which screen it looked right. */
  onSay: (resistor: string, verdict: string, screen: number) => Promise<unknown>;
}

/** The dot card, held before the LED as it is: one look in place of a first trial. */
export function DotCard({ fitted, onSay }: Props) {
  const say = useOnce(onSay);
  const screens = useCatalogue().data?.choices["dim_trial.screen"] ?? [];
  return (
    <Row aria-label="Dot card">
      <span>
        Or hold the <a href="/api/dot-card.svg">dot card</a> before it, as it is. Right through
      </span>
      {screens
        .filter((s) => s.id !== "1")
        .map((s) => (
          <SmallButton
            key={s.id}
            isDisabled={say.busy}
            onPress={() => void say.act(fitted, "right", Number(s.id))}
          >
            {s.label}
          </SmallButton>
        ))}
    </Row>
  );
}
