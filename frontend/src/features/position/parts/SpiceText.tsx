import { useState } from "react";
import styled from "styled-components";

import { useSpice } from "../../../api/queries";
import { Button } from "../../../ui/Button";

const Deck = styled.pre`
  margin: 0;
  padding: 8px 10px;
  overflow: auto;
  border: 1.5px solid var(--rule);
  border-radius: 4px;
  background: var(--sheet);
  font: 0.8125rem/1.4 var(--mono);
`;

interface Props {
  /** The position's key. */
  id: string;
}

/** The circuit as SPICE text, to check it in a simulator. */
export function SpiceText({ id }: Props) {
  const [shown, setShown] = useState(false);
  const spice = useSpice(id, shown);
  return shown ? (
    <Deck tabIndex={0} role="region" aria-label="SPICE text">
      {spice.data?.text ?? ""}
    </Deck>
  ) : (
    <Button onPress={() => setShown(true)}>Show SPICE text</Button>
  );
}
