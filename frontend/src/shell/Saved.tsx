import { useEffect, useState } from "react";
import styled from "styled-components";

import { useConnection } from "../saving/connection";

const Said = styled.span`
  font-size: 0.9rem;
  color: var(--ink-soft);
  @media (max-width: 480px) {
    display: none;
  }
`;

/** How long "saved" stands after the last save has been answered. */
const STAYS_MS = 2500;

/** Quietly, whether what was typed is with the server. What goes wrong is said in the notices. */
export function Saved() {
  const { waiting } = useConnection();
  const saving = waiting > 0;
  const [lately, setLately] = useState(false);
  if (saving && !lately) setLately(true);
  useEffect(() => {
    if (saving || !lately) return;
    const timer = window.setTimeout(() => setLately(false), STAYS_MS);
    return () => window.clearTimeout(timer);
  }, [saving, lately]);
  const after = lately ? "Saved" : "";
  const said = saving ? "Saving" : after;
  return <Said>{said}</Said>;
}
