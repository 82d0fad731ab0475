import { useMutation, useQueryClient } from "@tanstack/react-query";
import styled from "styled-components";

import { client, unwrap, type Schemas } from "../../api/client";
import { useDraft } from "../../saving/useDraft";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Refusal } from "../../ui/Refusal";
import { whenMade } from "./said";

const Part = styled.section`
  display: grid;
  gap: 8px;
  max-width: 680px;
  margin-bottom: 22px;
`;

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
  & > :first-child {
    flex: 1 1 260px;
  }
`;

interface Props {
  /** Where the second copies go now. */
  second: Schemas["SecondCopyOut"];
}

/** A folder of one's own that every backup is copied to as well. */
export function SecondCopy({ second }: Props) {
  const queries = useQueryClient();
  const folder = useDraft("backups.folder", second.folder, "Folder for a second copy");
  const choose = useMutation({
    mutationFn: (to: string) => unwrap(client.PUT("/api/backups/second", { body: { folder: to } })),
    onSuccess: () => {
      folder.clear();
      return queries.invalidateQueries({ queryKey: ["backups"] });
    },
  });
  return (
    <Part aria-label="Second copy">
      <h2>Second copy</h2>
      <Line>
        <Field
          label="Folder on this machine: a stick, a share, another disk"
          value={folder.value}
          onChange={folder.type}
          placeholder="/media/stick"
          error={choose.error?.message}
          words
        />
        <Button
          isDisabled={choose.isPending || folder.value === second.folder}
          onPress={() => choose.mutate(folder.value)}
        >
          {folder.value.trim() || !second.folder ? "Copy every backup there" : "Stop copying"}
        </Button>
      </Line>
      {second.folder && <Standing second={second} />}
    </Part>
  );
}

function Standing({ second }: Props) {
  if (second.problem) {
    const last = second.at ? ` The last one that worked: ${whenMade(second.at)}.` : "";
    return <Refusal why={`The last copy could not be written: ${second.problem}.${last}`} />;
  }
  return (
    <p>{second.at ? `Last copied: ${whenMade(second.at)}.` : "Nothing is copied there yet."}</p>
  );
}
