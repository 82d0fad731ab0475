import styled from "styled-components";

import { PAINT } from "../../instruments/Bands";

const Row = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(92px, 1fr));
  gap: 4px;
`;

const Key = styled.button`
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  padding: 0 8px;
  border: 1.5px solid var(--rule);
  border-radius: 4px;
  background: var(--sheet);
  cursor: pointer;
  i {
    width: 16px;
    height: 30px;
    border: 1px solid var(--ink-soft);
  }
`;

interface Props {
  /** The next band from the first. */
  onColour: (colour: string) => void;
  /** The colour before was in doubt. */
  onDoubt: () => void;
  /** The last band is taken away. */
  onBack: () => void;
}

/** A key for each colour a band can have, one for a doubt, and one back. */
export function ColourKeys({ onColour, onDoubt, onBack }: Props) {
  return (
    <Row role="group" aria-label="Colours of the bands, from the first">
      {Object.entries(PAINT).map(([colour, paint]) => (
        <Key key={colour} type="button" onClick={() => onColour(colour)}>
          <i style={{ background: paint }} />
          {colour}
        </Key>
      ))}
      <Key type="button" onClick={onDoubt}>
        in doubt
      </Key>
      <Key type="button" onClick={onBack}>
        back
      </Key>
    </Row>
  );
}
