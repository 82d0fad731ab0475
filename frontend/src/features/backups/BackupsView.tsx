import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";

import { client, unwrap, type Schemas } from "../../api/client";
import { useBackups } from "../../api/queries";
import { say } from "../../saving/notices";
import { Missing } from "../../shell/Missing";
import { Shell } from "../../shell/Shell";
import { Button, SmallButton } from "../../ui/Button";
import { Refusal } from "../../ui/Refusal";
import { ViewHead, ViewTitle } from "../../ui/ViewHead";
import { OneBackup } from "./OneBackup";
import { SecondCopy } from "./SecondCopy";
import { WholeBench } from "./WholeBench";
import { REASONS, whenMade } from "./said";

const COLUMNS = ["items", "lamps", "readings", "photographs"] as const;

const Ledger = styled.table`
  width: 100%;
  border-collapse: collapse;
  margin: 6px 0 22px;
  th,
  td {
    padding: 8px 14px 8px 0;
    text-align: left;
    vertical-align: baseline;
    border-bottom: 1px solid var(--rule-soft);
  }
  thead th {
    font-size: 0.9rem;
    font-weight: 600;
    color: var(--ink-soft);
    border-bottom: 2px solid var(--ink);
  }
  tbody th {
    font-weight: 600;
  }
  [data-number] {
    text-align: right;
  }
  td[data-number] {
    font: 600 1.35rem/1.1 var(--mono);
    letter-spacing: -0.04em;
  }
  tr[data-now] td,
  tr[data-now] th {
    border-bottom: 2px solid var(--ink);
  }
  td:last-child {
    padding-right: 0;
    text-align: right;
  }
  @media (max-width: 760px) {
    thead {
      display: none;
    }
    tr {
      display: grid;
      grid-template-columns: repeat(4, minmax(0, 1fr));
      gap: 2px 10px;
      padding: 10px 0;
      border-bottom: 1px solid var(--rule-soft);
    }
    th,
    td,
    tr[data-now] td,
    tr[data-now] th {
      border: 0;
      padding: 0;
    }
    tbody th,
    td:last-child {
      grid-column: 1 / -1;
      text-align: left;
    }
    td[data-number] {
      text-align: left;
    }
    td[data-number]::after {
      content: attr(data-number);
      display: block;
      font: 400 0.85rem var(--sans);
      letter-spacing: 0;
      color: var(--ink-soft);
    }
  }
`;

const Beside = styled.small`
  display: block;
  font: 400 0.9rem var(--sans);
  letter-spacing: 0;
  color: var(--pencil);
`;

const For = styled.span`
  display: block;
  font-weight: 400;
  font-size: 0.9rem;
  color: var(--ink-soft);
`;

/** Backups: what each holds beside what is on the bench, and the ways to get it back. */
export default function BackupsView() {
  const query = useBackups();
  const queries = useQueryClient();
  const [open, setOpen] = useState<string>();
  const make = useMutation({
    mutationFn: () => unwrap(client.POST("/api/backups")),
    onSuccess: (made) => {
      say({ text: `Backed up: ${made.holds.line}.` });
      return queries.invalidateQueries({ queryKey: ["backups"] });
    },
  });
  if (!query.data) {
    return <Shell title="Backups">{query.isError && <Missing problem={query.error} />}</Shell>;
  }
  const { now, backups, second, folder } = query.data;
  return (
    <Shell title="Backups">
      <ViewHead>
        <ViewTitle>Backups</ViewTitle>
        <Button isDisabled={make.isPending} onPress={() => make.mutate()}>
          {make.isPending ? "Backing up" : "Back up now"}
        </Button>
      </ViewHead>
      <p>
        One is made at each start, before each update, and in every hour in which something changed.
        They stay hourly for a day, daily for a week, weekly for ten weeks.
      </p>
      <Refusal why={make.error?.message} />
      <Ledger aria-label="What each backup holds">
        <thead>
          <tr>
            <th>Made</th>
            {COLUMNS.map((name) => (
              <th key={name} data-number="">
                {name[0]?.toUpperCase()}
                {name.slice(1)}
              </th>
            ))}
            <th>
              <span hidden>Bring back</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr data-now="">
            <th scope="row">On the bench now</th>
            {COLUMNS.map((name) => (
              <td key={name} data-number={name}>
                {now[name]}
              </td>
            ))}
            <td />
          </tr>
          {backups.map((b) => (
            <Row
              key={b.name}
              backup={b}
              now={now}
              open={open === b.name}
              onOpen={() => setOpen(open === b.name ? undefined : b.name)}
            />
          ))}
        </tbody>
      </Ledger>
      {backups.length === 0 && <p>There is no backup yet. Press “Back up now”.</p>}
      <SecondCopy second={second} />
      <WholeBench />
      <p>
        The backups are files in <code>{folder}</code>. If Swap Glow no longer starts, it shows the
        command that brings one back.
      </p>
    </Shell>
  );
}

interface RowProps {
  /** The backup. */
  backup: Schemas["BackupOut"];
  /** What is on the bench. */
  now: Schemas["Holds"];
  /** Whether what can be done with it is seen. */
  open: boolean;
  /** Show or fold that away. */
  onOpen: () => void;
}

function Row({ backup, now, open, onOpen }: RowProps) {
  const when = whenMade(backup.at);
  return (
    <>
      <tr>
        <th scope="row">
          {when}
          <For>{REASONS[backup.why] ?? ""}</For>
        </th>
        {COLUMNS.map((name) => (
          <td key={name} data-number={name}>
            {backup.holds[name]}
            <Difference by={backup.holds[name] - now[name]} />
          </td>
        ))}
        <td>
          <SmallButton aria-expanded={open} aria-label={`Bring back ${when}`} onPress={onOpen}>
            Bring back…
          </SmallButton>
        </td>
      </tr>
      {open && (
        <tr>
          <td colSpan={6}>
            <OneBackup backup={backup} />
          </td>
        </tr>
      )}
    </>
  );
}

/** How many fewer or more a backup holds than the bench. */
function Difference({ by }: { by: number }) {
  if (by === 0) return null;
  return <Beside>{by < 0 ? `${-by} fewer than now` : `${by} more than now`}</Beside>;
}
