import { useState, type ReactNode } from "react";

import { SmallButton } from "./Button";

interface Props {
  /** What it says while it is shut. */
  label: string;
  children: ReactNode;
}

/** Something that is asked for by a press, and not worked out before. */
export function Disclosed({ label, children }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <div>
      <SmallButton aria-expanded={open} onPress={() => setOpen(!open)}>
        {label}
      </SmallButton>
      {open && children}
    </div>
  );
}
