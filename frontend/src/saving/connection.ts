/** How saving goes: well, slowly, or not at all because nothing answers. */
import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { Refused } from "../api/client";

export interface Connection {
  state: "well" | "slow" | "offline";
  /** How many changes wait. */
  waiting: number;
}

/** After so long without an answer the line is called slow. */
const SLOW_MS = 1500;
const LOOK_MS = 500;

function connectionOf(client: QueryClient): Connection {
  const pending = client.getMutationCache().findAll({ mutationKey: ["save"], status: "pending" });
  const first = pending[0]?.state;
  if (!first) return { state: "well", waiting: 0 };
  const lost = first.failureCount > 0 && !(first.failureReason instanceof Refused);
  const slow = Date.now() - first.submittedAt > SLOW_MS;
  const unhurried = slow ? "slow" : "well";
  return { state: lost ? "offline" : unhurried, waiting: pending.length };
}

/** How saving goes now. */
export function useConnection(): Connection {
  const client = useQueryClient();
  const [connection, setConnection] = useState<Connection>({ state: "well", waiting: 0 });
  useEffect(() => {
    const look = () =>
      setConnection((old) => {
        const now = connectionOf(client);
        return now.state === old.state && now.waiting === old.waiting ? old : now;
      });
    const stop = client.getMutationCache().subscribe(look);
    const timer = window.setInterval(look, LOOK_MS);
    return () => {
      stop();
      window.clearInterval(timer);
    };
  }, [client]);
  return connection;
}
