import { useMutation, useQueryClient } from "@tanstack/react-query";
import styled from "styled-components";

import { client, unwrap, type Schemas } from "../../api/client";
import { SmallButton } from "../../ui/Button";
import { Choice } from "../../ui/Choice";

export const List = styled.ul`
  margin: 0 0 18px;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    gap: 4px 16px;
    padding: 10px 0;
    border-bottom: 1px solid var(--rule-soft);
  }
  small {
    display: block;
    font-size: 0.9rem;
    color: var(--ink-soft);
  }
`;

const Name = styled.strong`
  font-size: 1.125rem;
  overflow-wrap: anywhere;
`;

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 6px 14px;
  align-items: end;
`;

const when = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" });
/** What a phone may do. */
export const RIGHTS = [
  { id: "owner", label: "Works like the bench" },
  { id: "learner", label: "Only looks" },
];

/** Do something to phones, links or sharing, and ask anew for what is shown of them. */
export function useAct<Told = void>(act: (told: Told) => Promise<unknown>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSettled: () => queries.invalidateQueries({ queryKey: ["devices"] }),
  });
}

/** A paired device: when it was last seen, what it may do, and the way to take it away at once. */
export function DeviceRow({ device }: { device: Schemas["DeviceOut"] }) {
  const params = { path: { key: device.id } };
  const away = useAct(() => unwrap(client.DELETE("/api/devices/{key}", { params })));
  const other = useAct(() =>
    unwrap(client.PATCH("/api/devices/{key}", { params, body: { may_write: !device.may_write } })),
  );
  return (
    <li>
      <span>
        <Name>{device.name}</Name>
        <small>
          {device.expired
            ? "Not seen for too long: it must be paired again."
            : `Last seen ${when.format(new Date(device.seen))}`}
        </small>
      </span>
      <Acts>
        <Choice
          label={`What ${device.name} does`}
          value={device.may_write ? "owner" : "learner"}
          options={RIGHTS}
          onChange={(id) => {
            if ((id === "owner") !== device.may_write) other.mutate();
          }}
        />
        <SmallButton aria-label={`Take away ${device.name}`} onPress={() => away.mutate()}>
          Take away
        </SmallButton>
      </Acts>
    </li>
  );
}
