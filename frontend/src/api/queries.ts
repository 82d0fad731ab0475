import { keepPreviousData, queryOptions, useQuery, type QueryClient } from "@tanstack/react-query";

import { askedAgain } from "./askedAgain";
import { client, unwrap, type Changes, type Schemas } from "./client";

export const keys = {
  bench: ["bench"] as const,
  equipment: (id: string) => ["equipment", id] as const,
  position: (id: string) => ["position", id] as const,
  budget: (rail: string) => ["budget", rail] as const,
  report: (id: string) => ["report", id] as const,
};

export const useCatalogue = () =>
  useQuery({
    queryKey: ["catalogue"],
    queryFn: () => unwrap(client.GET("/api/catalogue")),
    staleTime: Infinity,
  });

/** What the program is; it does not change while it runs. */
export const useAbout = (asked: boolean) =>
  useQuery({
    queryKey: ["about"],
    queryFn: () => unwrap(client.GET("/api/about")),
    staleTime: Infinity,
    enabled: asked,
  });

/** Whom the bench takes this page for. */
export const useMe = () =>
  useQuery({ queryKey: ["me"], queryFn: () => unwrap(client.GET("/api/me")) });

/** Sharing, the pairing that was begun, devices and links; a phone that pairs itself is seen at once. */
export const useDevices = () =>
  useQuery({
    queryKey: ["devices"],
    queryFn: () => unwrap(client.GET("/api/devices")),
    refetchInterval: 1000,
  });

/** Whether this bench is new; asked only at the bench itself. */
export const useFirstStart = (asked: boolean) =>
  useQuery({
    queryKey: ["first-start"],
    queryFn: () => unwrap(client.GET("/api/first-start")),
    enabled: asked,
  });

/** A job card by its link. */
export const useLook = (token: string) =>
  useQuery({
    queryKey: ["look", token],
    queryFn: () => unwrap(client.GET("/api/look/{token}", { params: { path: { token } } })),
    retry: askedAgain,
  });

/** All backups beside what is on the bench. */
export const useBackups = () =>
  useQuery({ queryKey: ["backups"], queryFn: () => unwrap(client.GET("/api/backups")) });

/** What a rail gives to its lamps, before and after. */
export const useBudget = (rail: string) =>
  useQuery({
    queryKey: keys.budget(rail),
    queryFn: () =>
      unwrap(client.GET("/api/rails/{key}/budget", { params: { path: { key: rail } } })),
    placeholderData: keepPreviousData,
  });

/** How soon lamps that are being worked out anew are asked for again. */
const SOON_MS = 400;
const untilFresh = (lamps: Schemas["Summary"][] | undefined) =>
  lamps?.some((lamp) => !lamp.fresh) ? SOON_MS : false;

export const useBench = () =>
  useQuery({
    queryKey: keys.bench,
    queryFn: () => unwrap(client.GET("/api/bench")),
    refetchInterval: ({ state }) =>
      untilFresh(state.data?.equipment.flatMap((item) => item.positions)),
  });

export const useEquipment = (id: string) =>
  useQuery({
    queryKey: keys.equipment(id),
    queryFn: () => unwrap(client.GET("/api/equipment/{key}", { params: { path: { key: id } } })),
    refetchInterval: ({ state }) => untilFresh(state.data?.positions),
  });

/** Lamps of an item on one line of light: those named, or all of them. */
export const useMatch = (id: string, lamps: string) =>
  useQuery({
    queryKey: ["match", id, lamps],
    queryFn: () =>
      unwrap(
        client.GET("/api/equipment/{key}/match", {
          params: { path: { key: id }, query: { lamps } },
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** All lamps of an item beside each other. */
export const useRow = (id: string) =>
  useQuery({
    queryKey: ["row", id],
    queryFn: () =>
      unwrap(client.GET("/api/equipment/{key}/row", { params: { path: { key: id } } })),
    placeholderData: keepPreviousData,
  });

/** The bench's own LEDs. */
export const useLeds = () =>
  useQuery({ queryKey: ["leds"], queryFn: () => unwrap(client.GET("/api/leds")) });

/** The shop's habits. */
export const useShop = () =>
  useQuery({ queryKey: ["shop"], queryFn: () => unwrap(client.GET("/api/shop")) });

export const usePosition = (id: string) =>
  useQuery({
    queryKey: keys.position(id),
    queryFn: () => unwrap(client.GET("/api/positions/{key}", { params: { path: { key: id } } })),
    refetchInterval: ({ state }) => untilFresh(state.data?.siblings),
    placeholderData: keepPreviousData,
  });

const reportOf = (id: string, changes: Changes) =>
  queryOptions({
    queryKey: [...keys.report(id), changes],
    queryFn: ({ signal }) =>
      unwrap(
        client.POST("/api/positions/{key}/assess", {
          params: { path: { key: id } },
          body: { changes },
          signal,
        }),
      ),
  });

/** The report of a position, with changes tried on it; the last one stays while the next is asked. */
export const useReport = (id: string, changes: Changes) =>
  useQuery({ ...reportOf(id, changes), placeholderData: keepPreviousData });

/** The report of a position as it is kept now, asked anew: until it is there what is shown is older. */
export const askReport = (queries: QueryClient, id: string) =>
  queries.fetchQuery({ ...reportOf(id, {}), staleTime: 0 });

export const useQuick = (input: Schemas["QuickIn"], enabled: boolean) =>
  useQuery({
    queryKey: ["quick", input],
    queryFn: ({ signal }) => unwrap(client.POST("/api/quick", { body: input, signal })),
    placeholderData: keepPreviousData,
    enabled,
    retry: false,
  });

export const useSpice = (id: string, enabled: boolean) =>
  useQuery({
    queryKey: ["spice", id],
    queryFn: () =>
      unwrap(client.GET("/api/positions/{key}/spice", { params: { path: { key: id } } })),
    enabled,
  });

export const useSwaps = (id: string) =>
  useQuery({
    queryKey: ["swaps", id],
    queryFn: () =>
      unwrap(client.GET("/api/positions/{key}/swaps", { params: { path: { key: id } } })),
    placeholderData: keepPreviousData,
  });

/** The earlier states of a lamp. */
export const usePast = (id: string) =>
  useQuery({
    queryKey: ["past", id],
    queryFn: () =>
      unwrap(client.GET("/api/positions/{key}/past", { params: { path: { key: id } } })),
    placeholderData: keepPreviousData,
  });

/** Two moments of a lamp beside each other; without a second, one and now. */
export const useCompared = (id: string, first: number, second: number | undefined) =>
  useQuery({
    queryKey: ["past", id, "compared", first, second ?? null],
    queryFn: () =>
      unwrap(
        client.GET("/api/positions/{key}/compare", {
          params: {
            path: { key: id },
            query: second === undefined ? { first } : { first, second },
          },
        }),
      ),
    placeholderData: keepPreviousData,
  });

export const useDrawer = (series: "E6" | "E12" | "E24" = "E12") =>
  useQuery({
    queryKey: ["drawer", series],
    queryFn: () => unwrap(client.GET("/api/drawer", { params: { query: { series } } })),
    placeholderData: keepPreviousData,
  });

/** What a resistance can be made of out of the drawer; judged in a lamp where one is named. */
export const useMade = (ohm: string, position: string | undefined) =>
  useQuery({
    queryKey: ["drawer", "made", ohm, position ?? ""],
    queryFn: () =>
      unwrap(
        client.GET("/api/drawer/made", {
          params: { query: position === undefined ? { ohm } : { ohm, position } },
        }),
      ),
    retry: false,
  });

/** What stands on a part, read. */
export const useMarkRead = (kind: MarkKind, text: string, expected: string) =>
  useQuery({
    queryKey: ["marks", "read", kind, text, expected],
    queryFn: () =>
      unwrap(client.GET("/api/marks/read", { params: { query: { kind, text, expected } } })),
    enabled: text.trim() !== "",
    retry: false,
    staleTime: Infinity,
  });

/** How a part of a value is marked. */
export const useMarkWritten = (kind: MarkKind, value: string, tolerance: number) =>
  useQuery({
    queryKey: ["marks", "write", kind, value, tolerance],
    queryFn: () =>
      unwrap(client.GET("/api/marks/write", { params: { query: { kind, value, tolerance } } })),
    enabled: value.trim() !== "",
    retry: false,
    staleTime: Infinity,
  });

export type MarkKind = "bands" | "chip" | "capacitor";

/** What must be bought for all open work. */
export const useBuying = () =>
  useQuery({
    queryKey: ["drawer", "buying"],
    queryFn: () => unwrap(client.GET("/api/buying")),
    refetchInterval: ({ state }) => (state.data && !state.data.fresh ? SOON_MS : false),
  });

/** What a lamp takes out of the drawer, and from where. */
export const useDrawn = (id: string) =>
  useQuery({
    queryKey: ["drawer", "drawn", id],
    queryFn: () =>
      unwrap(client.GET("/api/positions/{key}/drawer", { params: { path: { key: id } } })),
    retry: false,
  });

/** A day at the bench. */
export const useDay = (hours: number, begins: string) =>
  useQuery({
    queryKey: ["day", hours, begins],
    queryFn: () => unwrap(client.GET("/api/day", { params: { query: { hours, begins } } })),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data && !state.data.fresh ? SOON_MS : false),
    retry: false,
  });

/** What has all that is asked for. */
export const useFind = (asked: string) =>
  useQuery({
    queryKey: ["find", asked],
    queryFn: () => unwrap(client.GET("/api/find", { params: { query: { asked } } })),
    enabled: asked !== "",
    placeholderData: keepPreviousData,
  });

/** What a text is taken for, as the server reads it. */
export const useEcho = (text: string, unit: Schemas["EchoIn"]["unit"]) =>
  useQuery({
    queryKey: ["echo", unit, text],
    queryFn: () => unwrap(client.POST("/api/echo", { body: { text, unit } })),
    enabled: text.trim() !== "",
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

/** The other lamps of a lamp's item, and what tells each from it. */
export const useAlike = (id: string, asked = true) =>
  useQuery({
    queryKey: ["alike", id],
    queryFn: () =>
      unwrap(client.GET("/api/positions/{key}/alike", { params: { path: { key: id } } })),
    enabled: asked,
  });

/** Names for so many copies of a lamp; none is asked for without a count. */
export const useCopyNames = (id: string, count: number) =>
  useQuery({
    queryKey: ["copy-names", id, count],
    queryFn: () =>
      unwrap(
        client.GET("/api/positions/{key}/copies/names", {
          params: { path: { key: id }, query: { count } },
        }),
      ),
    enabled: count > 0,
    placeholderData: keepPreviousData,
    retry: askedAgain,
  });
