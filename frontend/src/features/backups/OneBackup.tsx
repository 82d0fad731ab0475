import { useMutation, useQuery } from "@tanstack/react-query";
import styled from "styled-components";

import { client, unwrap, type Schemas } from "../../api/client";
import { MainButton, SmallButton } from "../../ui/Button";
import { Refusal } from "../../ui/Refusal";
import { begunAnew } from "../../saving/begunAnew";

const Inside = styled.div`
  display: grid;
  gap: 10px;
  padding: 10px 0 16px 16px;
  border-left: 3px solid var(--mark);
  text-align: left;
`;

const Items = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(340px, 100%), 1fr));
  gap: 0 28px;
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 10px;
    min-height: 44px;
    border-top: 1px solid var(--rule-soft);
  }
  span {
    overflow-wrap: anywhere;
  }
`;

const Back = styled(SmallButton)`
  white-space: nowrap;
`;

const NOW = { same: "", changed: "changed since", gone: "not on the bench now" };

/** What is said of the items of a backup that are on the bench just as they were. */
function saidOfRest(all: number, differing: number): string {
  if (all === 0) return "There is no item in this backup.";
  const same = all - differing;
  if (differing === 0)
    return same === 1 ? "Its one item is unchanged." : `All ${same} items are unchanged.`;
  if (same === 0) return "";
  return same === 1 ? "One other item is unchanged." : `${same} other items are unchanged.`;
}

interface Props {
  /** The backup. */
  backup: Schemas["BackupOut"];
}

/** What can be brought back of a backup: all of it, or one item. */
export function OneBackup({ backup }: Props) {
  const path = { name: backup.name };
  const items = useQuery({
    queryKey: ["backups", backup.name],
    queryFn: () => unwrap(client.GET("/api/backups/{name}/items", { params: { path } })),
  });
  const all = useMutation({
    mutationFn: () => unwrap(client.POST("/api/backups/{name}/restore", { params: { path } })),
    onSuccess: (back) =>
      begunAnew(
        `Brought back: ${back.holds.line}. What was here is kept as the newest backup in this list.`,
        "/backups",
      ),
  });
  const one = useMutation({
    mutationFn: (item: string) =>
      unwrap(client.POST("/api/backups/{name}/item", { params: { path }, body: { item } })),
    onSuccess: (back) =>
      begunAnew(
        `Brought back ${back.name}. Undo on the bench takes that back.`,
        `/equipment/${back.id}`,
      ),
  });
  const differing = (items.data ?? []).filter((i) => i.now !== "same");
  const busy = all.isPending || one.isPending;
  return (
    <Inside>
      <div>
        <MainButton isDisabled={busy} onPress={() => all.mutate()}>
          {all.isPending ? "Bringing it back" : "Bring back the whole bench"}
        </MainButton>
      </div>
      <p>
        Everything becomes what it was then: {backup.holds.line}. What is here now is backed up
        first.
      </p>
      <Refusal why={all.error?.message ?? one.error?.message ?? items.error?.message} />
      <h2>Or one item; everything else stays as it is</h2>
      {items.isPending && <p role="status">Opening the backup…</p>}
      <Items>
        {differing.map((i) => (
          <li key={i.id}>
            <span>
              {i.name}, {i.lamps === 1 ? "1 lamp" : `${i.lamps} lamps`}: {NOW[i.now]}
            </span>
            <Back
              isDisabled={busy}
              aria-label={`Bring back ${i.name}`}
              onPress={() => one.mutate(i.id)}
            >
              Bring back
            </Back>
          </li>
        ))}
      </Items>
      {items.data && <p>{saidOfRest(items.data.length, differing.length)}</p>}
    </Inside>
  );
}
