import type { Schemas } from "../api/client";
import type { FromField } from "../saving/saves";
import { inPassing, useSave } from "../saving/useSave";

/** Keep a reading of a lamp after its swap; its refusal comes back to the field. */
export function useKeepReading(positionId: string) {
  const save = useSave();
  return (reading: Schemas["BenchReading"], field: FromField) => {
    const more = { field, label: "A reading", done: "Kept the reading." };
    inPassing(save("POST", `/api/positions/${positionId}/reading`, reading, more));
  };
}
