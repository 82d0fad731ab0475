import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { Button, MainButton } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Refusal } from "../../ui/Refusal";
import { Sheet } from "../../ui/Sheet";
import { keepPhotograph, usePhotograph } from "./usePhotograph";

const Answer = styled.p`
  font-size: 1.35rem;
  font-weight: 650;
`;

const Picture = styled.img`
  display: block;
  width: 100%;
  max-height: 240px;
  object-fit: contain;
  background: #050606;
  border-radius: 4px;
`;

const Graph = styled.svg`
  display: block;
  width: 100%;
  height: 76px;
  path {
    fill: none;
    stroke: var(--mark);
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
  }
`;

interface Props {
  /** The lamp position's key, and its item's. */
  position: string;
  equipment: string;
  onClose: () => void;
}

/** A photograph swept past the lamp: how often its light pulses. */
export function StreakSheet({ position, equipment, onClose }: Props) {
  const photo = usePhotograph<Schemas["StreakSeen"]>(`/api/positions/${position}/streak`);
  const [shutter, setShutter] = useState("");
  const queries = useQueryClient();
  const [kept, setKept] = useState("");
  const { picture, found, busy } = photo;
  const count = (file: File | undefined) => {
    if (file) void photo.measure(file, { shutter });
  };
  const keep = async () => {
    if (!found || !picture) return;
    try {
      await keepPhotograph(equipment, picture, `Streak, ${shutter}: ${found.line}`);
      await queries.invalidateQueries({ queryKey: ["equipment", equipment] });
      onClose();
    } catch {
      setKept("The photograph is not kept: the connection dropped. Keep it again.");
    }
  };
  return (
    <Sheet title="Streak" open onClose={onClose}>
      <p>
        In the dark, set the shutter by hand and sweep the camera past the lit lamp while it is
        open. A light that pulses leaves dashes, a steady one a line.
      </p>
      <Field
        label="Shutter"
        value={shutter}
        onChange={(text) => {
          setShutter(text);
          photo.forget();
        }}
        hint="How long it was open: 1/8 or 0.25s"
      />
      <FileTrigger
        acceptedFileTypes={["image/*"]}
        onSelect={(files) => {
          if (!files?.[0]) return;
          photo.choose(files[0]);
          if (shutter.trim()) count(files[0]);
        }}
      >
        <Button>{picture ? "Another photograph" : "Choose a photograph"}</Button>
      </FileTrigger>
      {picture && (
        <>
          <Picture src={picture.url} alt="Streak" />
          <Button isDisabled={busy || !shutter.trim()} onPress={() => count(picture.file)}>
            Count the dashes
          </Button>
        </>
      )}
      <div role="status">
        {busy && <p>Counting</p>}
        {!busy && found && (
          <>
            <Answer>{found.line}</Answer>
            <Profile light={found.profile} />
            <p>{found.more}</p>
          </>
        )}
      </div>
      <Refusal why={photo.wrong || kept || undefined} />
      {found && !busy && (
        <MainButton onPress={() => void keep()}>Keep with the item’s photographs</MainButton>
      )}
    </Sheet>
  );
}

interface ProfileProps {
  /** Light along the streak, 1 at its brightest. */
  light: readonly number[];
}

function Profile({ light }: ProfileProps) {
  const last = Math.max(light.length - 1, 1);
  const points = light.map((v, k) => `${(k / last) * 100},${(1.2 - v) * 50}`).join("L");
  return (
    <Graph
      viewBox="0 -2 100 64"
      preserveAspectRatio="none"
      role="img"
      aria-label="Light along the streak"
    >
      <path d={`M${points}`} />
    </Graph>
  );
}
