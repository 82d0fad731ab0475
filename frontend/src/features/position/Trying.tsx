import { useEffect, useRef } from "react";
import styled from "styled-components";

import { Button, MainButton } from "../../ui/Button";

/** The bar that stands where the next thing is while something is previewed or nothing can be worked out. */
export const Trying = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 8px 14px;
  border: 2px dashed var(--mark);
  border-radius: 4px;
  background: var(--mark-soft);
  p {
    flex: 1;
    min-width: 0;
    font-size: 1.15rem;
    font-weight: 600;
  }
`;

/* Under the thumb: at the bottom of the screen, over whatever stands there. */
const Bar = styled(Trying)`
  @media (max-width: 760px) {
    position: fixed;
    inset: auto 0 0;
    z-index: 12;
    border-width: 2px 0 0;
    border-radius: 0;
    padding: 10px 12px calc(10px + env(safe-area-inset-bottom));
    p {
      flex: 1 1 100%;
      font-size: 1rem;
    }
    button {
      flex: 1;
    }
  }
`;

interface Props {
  /** What is previewed. */
  label: string;
  /** Use it: it is saved. */
  onUse: () => void;
  /** Put back what was. */
  onPutBack: () => void;
}

/** What is previewed on all instruments, with the way to use it and the way back. It takes the focus. */
export function TryingBar({ label, onUse, onPutBack }: Props) {
  const use = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    const from = document.activeElement;
    use.current?.focus({ preventScroll: true });
    return () => {
      if (from instanceof HTMLElement && from.isConnected) from.focus({ preventScroll: true });
      else document.querySelector<HTMLElement>("[role=slider]")?.focus({ preventScroll: true });
    };
  }, [label]);
  return (
    <Bar role="group" aria-label={`Preview: ${label}`} data-bar="">
      <p role="status">Preview: {label}</p>
      <MainButton ref={use} onPress={onUse}>
        Use it
      </MainButton>
      <Button onPress={onPutBack}>Put back</Button>
    </Bar>
  );
}
