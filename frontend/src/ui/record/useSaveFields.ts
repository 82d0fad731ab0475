import { useSave } from "../../saving/useSave";
import type { SaveFields } from "./record";

/** How fields of a record are saved: only those that were typed, with what was seen of them. */
export function useSaveFields(path: string): SaveFields {
  const save = useSave();
  return (fields, was, field) =>
    save("PATCH", path, was ? { ...fields, was } : fields, field ? { field } : {});
}
