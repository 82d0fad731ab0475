import { useQuery } from "@tanstack/react-query";
import { screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { answer, forget, leave, press, show } from "../../test/providers";
import { useAutosavedField } from "./useAutosavedField";
import { useSaveFields } from "./useSaveFields";

beforeEach(forget);
afterEach(() => {
  leave();
  vi.unstubAllGlobals();
});

/** What the field showed, each time it was drawn. */
const seen: string[] = [];

function Notes({ kept }: { kept: string }) {
  const save = useSaveFields("/api/record");
  const field = useAutosavedField({
    id: "r.notes",
    label: "Notes",
    names: ["notes"],
    kept,
    save: (notes, was, at) => save({ notes }, { notes: was }, at),
  });
  seen.push(field.value);
  return (
    <>
      <button onClick={() => field.type("new")}>type</button>
      <button onClick={field.commit}>leave</button>
      <output>{field.draft ? "on its way" : "saved"}</output>
    </>
  );
}

function View() {
  const record = useQuery({
    queryKey: ["record"],
    queryFn: async () => (await (await fetch("/api/record")).json()) as { notes: string },
  });
  return record.data ? <Notes kept={record.data.notes} /> : null;
}

test("a text once typed is never followed by the one before it, whenever its save is answered", async () => {
  let notes = "old";
  answer({
    "/api/record": () => {
      // The first asks what stands there, the second saves, the third asks again.
      const now = { notes };
      notes = "new";
      return now;
    },
  });
  show(<View />);
  press(await screen.findByRole("button", { name: "type" }));
  press(screen.getByRole("button", { name: "leave" }));
  await waitFor(() => expect(screen.getByRole("status").textContent).toBe("saved"));
  await waitFor(() => expect(seen.at(-1)).toBe("new"));
  expect([...new Set(seen)]).toEqual(["old", "new"]);
  expect(seen.lastIndexOf("old")).toBeLessThan(seen.indexOf("new"));
});
