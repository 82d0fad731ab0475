import styled from "styled-components";

import { useWiring } from "../../api/queries";
import Wiring from "../../instruments/Wiring";
import { TABS, type Part } from "./parts/part";

const Room = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
`;

interface Props {
  /** The lamp position. */
  id: string;
  /** Open the panel of a part. */
  onEdit: (part: Part) => void;
}

/** The lamp's wiring as it is kept: press a part, and its panel opens. */
export default function LampWiring({ id, onEdit }: Props) {
  const wiring = useWiring(id);
  if (wiring.error) return <p role="status">{wiring.error.message}</p>;
  if (!wiring.data) return null;
  return (
    <Room tabIndex={0} role="region" aria-label="Wiring">
      <Wiring
        drawing={wiring.data}
        label="The lamp's wiring"
        close
        onPress={(part) => {
          const panel = TABS.find(([tab]) => tab === part.opens)?.[0];
          if (panel) onEdit(panel);
        }}
      />
    </Room>
  );
}
