import { useMemo } from "react";

import type { Schemas } from "../../../api/client";
import type { Changes } from "../../../api/client";
import { useShop } from "../../../api/queries";
import { useDraft } from "../../../saving/useDraft";

type Draft = ReturnType<typeof useDraft>;

/** What is typed for a quick sum, each kept until it is typed over. */
export interface QuickTexts {
  rail: Draft;
  led: Draft;
  vf: Draft;
  count: Draft;
  strings: Draft;
  drive: Draft;
  series: Draft;
  rounding: Draft;
}

const asCount = (text: string) => (/^\s*\d+\s*$/.test(text) ? Number(text) : text);

interface Taken {
  label: string;
  changes: Changes;
}

/** Remedies that were taken in a quick sum, until they are put back. */
function useTaken() {
  const draft = useDraft("quick.taken", "");
  const read = useMemo(() => {
    try {
      return JSON.parse(draft.value) as Taken;
    } catch {
      return { label: "", changes: {} };
    }
  }, [draft.value]);
  return {
    ...read,
    take: (label: string, changes: Changes) =>
      draft.type(
        JSON.stringify({
          label: read.label ? `${read.label}; ${label}` : label,
          changes: { ...read.changes, ...changes },
        }),
      ),
    putBack: draft.clear,
  };
}

/** The texts of a quick sum, and what they ask the server. */
export function useQuickTexts() {
  const texts: QuickTexts = {
    rail: useDraft("quick.rail", ""),
    led: useDraft("quick.led", "warm-5-diffused"),
    vf: useDraft("quick.vf", ""),
    count: useDraft("quick.count", "1"),
    strings: useDraft("quick.strings", "1"),
    drive: useDraft("quick.drive", "5mA"),
    series: useDraft("quick.series", useShop().data?.series ?? "E24"),
    rounding: useDraft("quick.rounding", "up"),
  };
  const taken = useTaken();
  const { changes } = taken;
  const [rail, led, vf, count, strings, drive, series, rounding] = [
    texts.rail.value,
    texts.led.value,
    texts.vf.value,
    texts.count.value,
    texts.strings.value,
    texts.drive.value,
    texts.series.value,
    texts.rounding.value,
  ];
  const input = useMemo(
    () =>
      // A count that is no number is sent as it is, for the server to refuse by name.
      ({
        rail,
        position: {
          led_id: led,
          vf: { text: vf, source: "assumed", note: "" },
          in_series: asCount(count),
          branches: asCount(strings),
          target: { text: drive, source: "assumed", note: "" },
          series,
          rounding,
        },
        changes,
      }) as unknown as Schemas["QuickIn"],
    [rail, led, vf, count, strings, drive, series, rounding, changes],
  );
  return { texts, input, taken, ready: rail.trim() !== "" && drive.trim() !== "" };
}
