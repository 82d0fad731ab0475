import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";

import { Refused, type Schemas } from "../api/client";
import { upload } from "../api/upload";

const Wrong = styled.p`
  color: var(--stop);
  font-weight: 600;
`;

type Intent = Schemas["Intent"];

/** A file that is looked at first and then brought in, whole or not at all. */
export function useBringIn(path: string) {
  const queries = useQueryClient();
  const [file, setFile] = useState<File>();
  const [intent, setIntent] = useState<Intent>();
  const [wrong, setWrong] = useState<string[]>([]);
  const attempt = async <T,>(work: () => Promise<T>): Promise<T | undefined> => {
    try {
      const made = await work();
      setWrong([]);
      return made;
    } catch (problem) {
      setWrong(
        problem instanceof Refused
          ? problem.problems.map((p) => p.message)
          : ["The connection dropped: nothing was brought in. Try again."],
      );
      return undefined;
    }
  };
  const look = async (picked: File) => {
    setIntent(undefined);
    setFile(picked);
    setIntent(await attempt(() => upload<Intent>(`${path}/look`, picked)));
  };
  const bring = async <T,>(fields: Record<string, string> = {}) => {
    if (!file) return undefined;
    const made = await attempt(() => upload<T>(path, file, fields));
    if (made) {
      setIntent(undefined);
      await queries.invalidateQueries();
    }
    return made;
  };
  return { file, intent, wrong, look, bring };
}

/** Why nothing was brought in. */
export function Problems({ wrong }: { wrong: string[] }) {
  return wrong.length === 0 ? null : (
    <div role="alert">
      <p>Nothing was brought in.</p>
      {wrong.map((w) => (
        <Wrong key={w}>{w}</Wrong>
      ))}
    </div>
  );
}
