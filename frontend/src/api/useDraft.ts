import { useCallback, useEffect, useState } from "react";

const PREFIX = "swapglow.draft.";

/**
 * What is typed in a field, kept in local storage until it is saved: a reload brings it back.
 * `saved` is what the server holds; without a draft the field shows that.
 */
export function useDraft(key: string, saved: string) {
  const [draft, setDraft] = useState<string | null>(() => localStorage.getItem(PREFIX + key));
  useEffect(() => {
    if (draft !== null && draft === saved) {
      localStorage.removeItem(PREFIX + key);
    }
  }, [draft, key, saved]);
  const type = useCallback(
    (text: string) => {
      localStorage.setItem(PREFIX + key, text);
      setDraft(text);
    },
    [key],
  );
  const clear = useCallback(() => {
    localStorage.removeItem(PREFIX + key);
    setDraft(null);
  }, [key]);
  return { value: draft ?? saved, dirty: draft !== null && draft !== saved, type, clear };
}
