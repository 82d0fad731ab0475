import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { inPassing } from "../../saving/useSave";
import { Button, MainButton, SmallButton } from "../../ui/Button";
import { Refusal } from "../../ui/Refusal";
import { Sheet } from "../../ui/Sheet";
import { useRecord } from "../../ui/record/record";
import { Spots } from "./Spots";
import { keepPhotograph, OVERTAKEN, usePhotograph } from "./usePhotograph";

type Two = Schemas["TwoSeen"];
type Pair = [Schemas["Spot"], Schemas["Spot"]];

const Ratio = styled.p`
  font-size: 1.35rem;
  font-weight: 650;
`;

const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
`;

/** Where the circles begin where no lamp is found. */
const BEGIN: Pair = [
  { x: 0.3, y: 0.35, r: 0.08 },
  { x: 0.7, y: 0.35, r: 0.08 },
];
const GROW = 1.2;

interface Props {
  /** The lamp position's key, and its item's. */
  position: string;
  equipment: string;
  /** The trial it is kept with. */
  trial: Schemas["TrialRow"];
  onClose: () => void;
}

/** A photograph with a circle on each of the two lamps: measured anew whenever a circle has moved. */
function usePair(position: string) {
  const photo = usePhotograph<Two>(`/api/positions/${position}/two-in-one`);
  const [spots, setSpots] = useState<Pair>();
  const choose = async (file: File) => {
    setSpots(undefined);
    photo.choose(file);
    const answer = await photo.measure(file, {});
    if (answer === OVERTAKEN) return;
    setSpots(answer ? (answer.spots as Pair) : BEGIN);
  };
  const measure = (at: Pair | undefined) => {
    if (!photo.picture || !at) return;
    setSpots(at);
    void photo.measure(photo.picture.file, {
      old_x: String(at[0].x),
      old_y: String(at[0].y),
      new_x: String(at[1].x),
      new_y: String(at[1].y),
      r: String(at[0].r),
    });
  };
  return { ...photo, spots, setSpots, choose, measure };
}

const grown = ([old, fresh]: Pair, by: number): Pair => {
  const r = Math.min(0.5, Math.max(0.004, old.r * by));
  return [
    { ...old, r },
    { ...fresh, r },
  ];
};

/** The old lamp and the new in one photograph: their ratio of light, worked out on the server. */
export function TwoInOne({ position, equipment, trial, onClose }: Props) {
  const pair = usePair(position);
  const { save } = useRecord();
  const queries = useQueryClient();
  const [kept, setKept] = useState("");
  const { picture, found, busy, spots } = pair;
  const keep = async () => {
    if (!found || !picture) return;
    const photographed = { photo_ratio: found.ratio, photo_doubt: found.doubt };
    inPassing(save({ trials: { [trial.id]: photographed } }));
    try {
      await keepPhotograph(equipment, picture, `${trial.ohm}: ${found.line}`);
      await queries.invalidateQueries({ queryKey: ["equipment", equipment] });
      onClose();
    } catch {
      setKept("The ratio is kept; the photograph is not: the connection dropped. Keep it again.");
    }
  };
  return (
    <Sheet title={`Two in one frame, ${trial.ohm}`} open onClose={onClose}>
      <p>
        Old lamp and new beside each other, the old one on the left, each in its own holder or
        behind equal windows. Lock the exposure, no flash, no automatic brightening; nothing of
        either may be burnt out white.
      </p>
      <FileTrigger
        acceptedFileTypes={["image/*"]}
        onSelect={(files) => files?.[0] && void pair.choose(files[0])}
      >
        <Button>{picture ? "Another photograph" : "Choose a photograph"}</Button>
      </FileTrigger>
      {picture && spots && (
        <>
          <Spots
            url={picture.url}
            high={picture.high}
            spots={spots}
            onMove={pair.setSpots}
            onSettle={() => pair.measure(spots)}
          />
          <Buttons>
            <SmallButton onPress={() => pair.measure(grown(spots, 1 / GROW))}>
              Smaller circles
            </SmallButton>
            <SmallButton onPress={() => pair.measure(grown(spots, GROW))}>
              Larger circles
            </SmallButton>
            <SmallButton onPress={() => pair.measure([spots[1], spots[0]])}>
              Change old and new
            </SmallButton>
          </Buttons>
        </>
      )}
      <Said busy={busy} found={found} />
      <Refusal why={pair.wrong || kept || undefined} />
      {found && !busy && (
        <Buttons>
          <MainButton onPress={() => void keep()}>Keep with this trial</MainButton>
        </Buttons>
      )}
    </Sheet>
  );
}

interface SaidProps {
  busy: boolean;
  /** What the photograph says; nothing yet, or nothing that can be told. */
  found: Two | undefined;
}

function Said({ busy, found }: SaidProps) {
  return (
    <div role="status">
      {busy && <p>Measuring</p>}
      {!busy && found && (
        <>
          <Ratio>{found.line}</Ratio>
          <p>{found.evenness}</p>
          <p>{found.colours}</p>
        </>
      )}
    </div>
  );
}
