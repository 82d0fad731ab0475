import type { ReactNode } from "react";
import { Dialog, Heading, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";

import { Button } from "./Button";

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
  background: rgb(0 0 0 / 35%);
`;

const Panel = styled(Modal)`
  position: absolute;
  inset: 0 auto 0 0;
  width: min(460px, 100vw);
  background: var(--ground);
  color: var(--ink);
  border-right: 2px solid var(--ink);
`;

const Body = styled(Dialog)`
  height: 100%;
  overflow: auto;
  padding: 16px 20px 32px;
  outline: none !important;
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  margin-bottom: 12px;
`;

const Title = styled(Heading)`
  font-size: 1.35rem;
  font-weight: 650;
`;

const Stack = styled.div`
  display: flex;
  flex-direction: column;
  gap: 14px;
`;

interface Props {
  /** Its heading. */
  title: string;
  /** Whether it is seen. */
  open: boolean;
  /** Shut it. */
  onClose: () => void;
  /** What stands in it. */
  children: ReactNode;
}

/** A sheet over the work, for what is asked and answered before one goes on. */
export function Sheet({ title, open, onClose, children }: Props) {
  return (
    <Veil isOpen={open} onOpenChange={(o) => !o && onClose()} isDismissable>
      <Panel>
        <Body>
          <Head>
            <Title slot="title">{title}</Title>
            <Button onPress={onClose}>Close</Button>
          </Head>
          <Stack>{children}</Stack>
        </Body>
      </Panel>
    </Veil>
  );
}
