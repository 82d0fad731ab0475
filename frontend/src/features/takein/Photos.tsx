import { useSyncExternalStore } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import {
  addPhotos,
  allPhotos,
  dropPhoto,
  subscribePhotos,
  type PhotoLine,
} from "../../saving/photoQueue";
import { inPassing, useSave } from "../../saving/useSave";
import { Button, MainButton, SmallButton } from "../../ui/Button";
import { useThumb } from "../../ui/useNarrow";
import { TextControl } from "../../ui/record/TextControl";
import { useSaveFields } from "../../ui/record/useSaveFields";

const Pictures = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 14px;
  margin: 0;
  padding: 0;
  list-style: none;
  img {
    display: block;
    width: 100%;
    height: 140px;
    object-fit: cover;
    background: var(--sheet);
    border: 1.5px solid var(--rule);
    border-radius: 4px;
  }
`;

const Lines = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 12px;
    min-height: 36px;
  }
  [data-state="refused"] {
    color: var(--stop);
    font-weight: 600;
  }
  span {
    overflow-wrap: anywhere;
  }
`;

interface Props {
  /** The equipment's key. */
  id: string;
  /** The photographs, oldest first. */
  photos: Schemas["PhotoOut"][];
}

/** The photographs taken at take-in. */
export function Photos({ id, photos }: Props) {
  const thumb = useThumb();
  const coming = useSyncExternalStore(subscribePhotos, allPhotos).filter((p) => p.item === id);
  return (
    <>
      {photos.length === 0 && coming.length === 0 && (
        <p>
          Take one before each thing that comes apart. They are kept on the bench&apos;s machine
          only.
        </p>
      )}
      <Coming photos={coming} />
      <Pictures>
        {photos.map((p) => (
          <Photo key={p.id} photo={p} />
        ))}
      </Pictures>
      {thumb && (
        <FileTrigger
          acceptedFileTypes={["image/*"]}
          defaultCamera="environment"
          onSelect={(files) => files && void addPhotos(id, [...files])}
        >
          <MainButton>Take a photograph</MainButton>
        </FileTrigger>
      )}
      <FileTrigger
        acceptedFileTypes={["image/*"]}
        allowsMultiple
        onSelect={(files) => files && void addPhotos(id, [...files])}
      >
        <Button>Add photographs</Button>
      </FileTrigger>
    </>
  );
}

const SAID = { waiting: "waiting", sending: "being sent", done: "in", refused: "not taken" };

/** Photographs on their way, a line each: how far it is, or why it was refused. */
function Coming({ photos }: { photos: readonly PhotoLine[] }) {
  return (
    <Lines role="status" aria-label="Photographs on their way">
      {photos.map((p) => (
        <li key={p.id} data-state={p.state}>
          <span>
            {p.name}: {SAID[p.state]}
            {p.why && `. ${p.why}`}
          </span>
          {p.state === "refused" && (
            <SmallButton aria-label={`Take ${p.name} off the list`} onPress={() => dropPhoto(p.id)}>
              Take it off the list
            </SmallButton>
          )}
        </li>
      ))}
    </Lines>
  );
}

interface PhotoProps {
  /** The photograph. */
  photo: Schemas["PhotoOut"];
}

function Photo({ photo }: PhotoProps) {
  const save = useSave();
  const saveFields = useSaveFields(`/api/photos/${photo.id}`);
  return (
    <li>
      <a href={`/api/photos/${photo.id}/picture.jpg`} target="_blank" rel="noreferrer">
        <img
          src={`/api/photos/${photo.id}/picture.jpg`}
          alt={photo.caption || "Photograph without a caption"}
          loading="lazy"
        />
      </a>
      <TextControl
        id={`${photo.id}.caption`}
        names={["caption"]}
        label="Shows"
        saved={photo.caption}
        onSave={(caption, was, field) =>
          saveFields({ caption }, was === undefined ? was : { caption: was }, field)
        }
      />
      <SmallButton
        aria-label={`Delete ${photo.caption || "photograph"}`}
        onPress={() => {
          const more = { label: "Delete a photograph", done: "Deleted the photograph." };
          inPassing(save("DELETE", `/api/photos/${photo.id}`, undefined, more));
        }}
      >
        Delete
      </SmallButton>
    </li>
  );
}
