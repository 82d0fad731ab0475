import { useLayoutEffect, useRef, type KeyboardEvent, type ReactNode } from "react";
import styled from "styled-components";

import { SmallButton } from "./Button";
import { PanelPlace } from "./panelPlace";

const Aside = styled.section`
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
  border: 2px solid var(--ink);
  border-radius: 4px;
  background: var(--sheet);
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  padding: 6px 8px 6px 16px;
  border-bottom: 1.5px solid var(--rule);
`;

const Title = styled.h2`
  font-size: 1.2rem;
  font-weight: 650;
  scroll-margin-top: 80px;
`;

const Body = styled.div`
  position: relative;
  display: flex;
  flex-direction: column;
  gap: 14px;
  min-height: 0;
  overflow: auto;
  padding: 12px 16px 20px;
  & > * {
    flex: none;
  }
`;

interface Props {
  /** Its heading. */
  title: string;
  /** Shut it. */
  onClose: () => void;
  /** What stands in it. */
  children: ReactNode;
  /** Its name in the view's address: a text left in it can be found again. */
  place?: string;
}

/**
 * A panel beside the instruments, for editing one part while they move. It takes the focus when it opens and
 * gives it back to where it was; Escape closes it, and what was typed is kept.
 */
export function Panel({ title, onClose, children, place = "" }: Props) {
  const panel = useRef<HTMLElement>(null);
  const heading = useRef<HTMLHeadingElement>(null);
  useLayoutEffect(() => {
    const here = panel.current;
    const from = document.activeElement;
    heading.current?.focus({ preventScroll: true });
    heading.current?.scrollIntoView?.({ block: "nearest" });
    return () => {
      if (from instanceof HTMLElement && from.isConnected && here?.contains(document.activeElement))
        from.focus();
    };
  }, []);
  const keys = (e: KeyboardEvent) => {
    // An open list closes first.
    const listed = e.target instanceof Element && e.target.getAttribute("aria-expanded") === "true";
    if (e.key !== "Escape" || listed || e.defaultPrevented) return;
    e.stopPropagation();
    onClose();
  };
  return (
    <Aside ref={panel} aria-label={title} onKeyDown={keys} data-panel="">
      <Head>
        <Title ref={heading} tabIndex={-1}>
          {title}
        </Title>
        <SmallButton onPress={onClose}>Close</SmallButton>
      </Head>
      <Body>
        <PanelPlace value={place}>{children}</PanelPlace>
      </Body>
    </Aside>
  );
}
