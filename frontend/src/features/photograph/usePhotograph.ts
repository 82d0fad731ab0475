import { useEffect, useRef, useState } from "react";

import { Refused } from "../../api/client";
import { upload } from "../../api/upload";

export interface Picture {
  /** Its key where it is kept: kept twice, by a second press or after a dropped line, it is one. */
  key: string;
  file: File;
  url: string;
  /** Its height beside its width. */
  high: number;
}

/** The answer to a question that another has followed since. */
export const OVERTAKEN = Symbol("overtaken");

const DROPPED = "The connection dropped: nothing was measured yet. Choose the photograph again.";

/** A photograph that is measured on the server: which, what came of it, and what went wrong. */
export function usePhotograph<T>(path: string) {
  const [picture, setPicture] = useState<Picture>();
  const [found, setFound] = useState<T>();
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const turn = useRef(0);
  const latest = useRef<File>(undefined);
  const url = picture?.url;
  useEffect(() => () => void (url && URL.revokeObjectURL(url)), [url]);

  const measure = async (file: File, fields: Record<string, string>) => {
    const mine = ++turn.current;
    setBusy(true);
    setWrong("");
    let answer: T | undefined;
    let problem = "";
    try {
      answer = await upload<T>(path, file, fields);
    } catch (e) {
      problem = e instanceof Refused ? e.message : DROPPED;
    }
    if (mine !== turn.current) return OVERTAKEN;
    setFound(answer);
    setWrong(problem);
    setBusy(false);
    return answer;
  };
  const choose = (file: File) => {
    turn.current += 1;
    setFound(undefined);
    setWrong("");
    latest.current = file;
    const address = URL.createObjectURL(file);
    const seen = new Image();
    // One that no browser draws may still be read by the server; one chosen before it comes too late.
    const shown = () =>
      latest.current === file &&
      setPicture({
        key: crypto.randomUUID(),
        file,
        url: address,
        high: seen.naturalHeight / (seen.naturalWidth || 1) || 0.75,
      });
    seen.onload = shown;
    seen.onerror = shown;
    seen.src = address;
  };
  /** What was measured no longer holds: what it was measured with has changed. */
  const forget = () => {
    turn.current += 1;
    setBusy(false);
    setFound(undefined);
  };
  return { picture, found, wrong, busy, measure, choose, forget };
}

/** Keep a photograph with its item, with what it says. */
export const keepPhotograph = (equipment: string, picture: Picture, caption: string) =>
  upload(`/api/equipment/${equipment}/photos/${picture.key}`, picture.file, {
    caption: caption.slice(0, 200),
  });
