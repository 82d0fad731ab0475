import { createContext, useContext, useState } from "react";
import { useLocation } from "react-router";

const HASH = "#panel=";

/** The panel that a field stands in, by a name of its view's own; "" for what is always in sight. */
export const PanelPlace = createContext("");

export const usePanelPlace = (): string => useContext(PanelPlace);

/** The address of a panel of a view. */
export const panelAt = (path: string, panel: string): string =>
  panel ? `${path}${HASH}${encodeURIComponent(panel)}` : path;

/** What is open in a view, where the address may ask for one of its panels. */
export function useOpened(): [string, (panel: string) => void] {
  const { hash, key } = useLocation();
  const asked = hash.startsWith(HASH) ? decodeURIComponent(hash.slice(HASH.length)) : "";
  const [open, setOpen] = useState({ panel: asked, at: key });
  // Asked for anew, by a link to it: the panel is shown once more.
  if (open.at !== key) setOpen({ panel: asked || open.panel, at: key });
  return [open.panel, (panel) => setOpen({ panel, at: key })];
}

/** Whether one panel is open. */
export function useOpen(panel: string): [boolean, (open: boolean) => void] {
  const [open, setOpen] = useOpened();
  return [open === panel, (now) => setOpen(now ? panel : "")];
}
