import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { lazy, useState } from "react";
import styled from "styled-components";

import { client, unwrap, type Report } from "../../api/client";
import { keys } from "../../api/queries";
import { Mode } from "../../ui/Button";

const Wiring = lazy(() => import("../../instruments/Wiring"));

const Room = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
`;

interface Props {
  /** The lamp position. */
  id: string;
  /** Whether the other instruments show a preview. */
  previewed: boolean;
  /** What is read next; its leads are drawn. */
  reading: string | null;
  /** What would explain a reading that is off. */
  causes: NonNullable<Report["trouble"]>["causes"];
  /** Told what a part opens. */
  onOpen: (panel: string) => void;
}

/** The lamp's wiring as it is kept: press a part, and its panel opens. */
export default function LampWiring({ id, previewed, reading, causes, onOpen }: Props) {
  const [old, setOld] = useState(false);
  const wiring = useQuery({
    queryKey: [...keys.position(id), "wiring"],
    queryFn: () =>
      unwrap(client.GET("/api/positions/{key}/wiring", { params: { path: { key: id } } })),
    placeholderData: keepPreviousData,
  });
  if (wiring.error) return <p role="status">{wiring.error.message}</p>;
  if (!wiring.data) return null;
  return (
    <Room tabIndex={0} role="region" aria-label="Wiring">
      {previewed && <p role="status">The preview is not in this picture.</p>}
      <Mode isSelected={old} onChange={setOld}>
        With the old lamp
      </Mode>
      <Wiring
        drawing={old ? wiring.data.old : wiring.data.drawing}
        probes={old || reading === null ? undefined : wiring.data.probes[reading]}
        suspects={old ? [] : causes.map((c) => c.parts)}
        label="The lamp's wiring"
        close
        onPress={(part) => onOpen(part.opens)}
      />
    </Room>
  );
}
