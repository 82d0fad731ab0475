import { useEffect } from "react";
import { useLocation } from "react-router";

/** Each question begins at the top of the window. */
export function useTop(): void {
  const { search } = useLocation();
  useEffect(() => {
    window.scrollTo(0, 0);
  }, [search]);
}
