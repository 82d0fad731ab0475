import { useEffect, useRef, useState } from "react";

import { Refused } from "../../api/client";
import { upload } from "../../api/upload";

interface Picture {
  file: File;
  url: string;
  /** Its height beside its width. */
  high: number;
}

const DROPPED = "The connection dropped: nothing was measured yet. Choose the photograph again.";

/** A photograph that is measured on the server: which, what came of it, and what went wrong. */
export function usePhotograph<T>(path: string) {
  const [picture, setPicture] = useState<Picture>();
  const [found, setFound] = useState<T>();
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const turn = useRef(0);
  const url = picture?.url;
  useEffect(() => () => void (url && URL.revokeObjectURL(url)), [url]);

  const measure = async (file: File, fields: Record<string, string>) => {
    const mine = ++turn.current;
    setBusy(true);
    setWrong("");
    try {
      const answer = await upload<T>(path, file, fields);
      if (mine === turn.current) setFound(answer);
      return answer;
    } catch (problem) {
      if (mine !== turn.current) return undefined;
      setWrong(problem instanceof Refused ? problem.message : DROPPED);
      setFound(undefined);
    } finally {
      if (mine === turn.current) setBusy(false);
    }
    return undefined;
  };
  const choose = (file: File) => {
    turn.current += 1;
    setFound(undefined);
    setWrong("");
    const address = URL.createObjectURL(file);
    const seen = new Image();
    // One that no browser draws may still be read by the server.
    const shown = () =>
      setPicture({
        file,
        url: address,
        high: seen.naturalHeight / (seen.naturalWidth || 1) || 0.75,
      });
    seen.onload = shown;
    seen.onerror = shown;
    seen.src = address;
  };
  return { picture, found, wrong, busy, measure, choose };
}

/** Keep a photograph with its item, with what it says. */
export const keepPhotograph = (equipment: string, file: File, caption: string) =>
  upload(`/api/equipment/${equipment}/photos/${crypto.randomUUID()}`, file, {
    caption: caption.slice(0, 200),
  });
