import { useState } from "react";

import { Refused } from "../../api/client";

/**
 * Save, and keep the reason if the server refuses.
 * `names` are the fields a reason may stand under; any other reason is shown whole.
 */
export function useRefusal(...names: string[]) {
  const [refusal, setRefusal] = useState<string>();
  const tell = async (saving: () => Promise<unknown>) => {
    try {
      await saving();
      setRefusal(undefined);
      return true;
    } catch (problem) {
      if (problem instanceof Refused) setRefusal(problem.of(...names) ?? problem.message);
      return false;
    }
  };
  return { refusal, tell, forget: () => setRefusal(undefined) };
}
