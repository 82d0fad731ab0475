import { useQueryClient } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";

import { Refused, type Schemas } from "../../api/client";
import { inPassing, useSave } from "../../saving/useSave";
import { upload } from "../../api/upload";
import { Button, SmallButton } from "../../ui/Button";
import { Refusal } from "../../ui/Refusal";
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

interface Props {
  /** The equipment's key. */
  id: string;
  /** The photographs, oldest first. */
  photos: Schemas["PhotoOut"][];
}

/** The photographs taken at take-in. */
export function Photos({ id, photos }: Props) {
  const queries = useQueryClient();
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState("");
  const add = async (files: File[]) => {
    setWrong("");
    try {
      for (const [n, file] of files.entries()) {
        setBusy(`Taking in ${n + 1} of ${files.length}`);
        await upload(`/api/equipment/${id}/photos/${crypto.randomUUID()}`, file);
      }
    } catch (problem) {
      setWrong(
        problem instanceof Refused
          ? problem.message
          : "The connection dropped: the photograph is not in yet. Take it in again.",
      );
    }
    setBusy("");
    await queries.invalidateQueries({ queryKey: ["equipment", id] });
  };
  let note: ReactNode = null;
  if (busy) note = <p role="status">{busy}</p>;
  else if (photos.length === 0) {
    note = <p>Take one before each thing that comes apart. They stay on this machine.</p>;
  }
  return (
    <>
      {note}
      <Refusal why={wrong || undefined} />
      <Pictures>
        {photos.map((p) => (
          <Photo key={p.id} photo={p} />
        ))}
      </Pictures>
      <FileTrigger
        acceptedFileTypes={["image/*"]}
        allowsMultiple
        onSelect={(files) => files && void add([...files])}
      >
        <Button>Add photographs</Button>
      </FileTrigger>
    </>
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
