import type { ReactNode } from "react";
import { Dialog as AriaDialog, Heading, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";
import { scrolls } from "./scrolls";

const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
  display: grid;
  place-items: center;
  padding: 16px;
  overflow: auto;
  background: color-mix(in srgb, var(--ink) 38%, transparent);
  :root[data-chart="night"] & {
    background: rgb(0 0 0 / 60%);
  }
`;
const Page = styled(Modal)<{ $wide?: boolean }>`
  width: min(${(p) => (p.$wide ? "760px" : "520px")}, 100%);
  max-height: calc(100vh - 32px);
  ${scrolls}
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-left: 6px double var(--strong);
  padding: 22px 26px;
  h2 {
    font-size: 17px;
    font-weight: 650;
    margin-bottom: 12px;
  }
`;

/** Holds the focus when a dialog opens; the frame around it says so already. */
const Body = styled(AriaDialog)`
  &&:focus-visible {
    outline: none;
  }
`;

interface Props {
  title: string;
  onClose: () => void;
  children: ReactNode;
  wide?: boolean;
  /** Neither Escape nor a press beside it closes it. */
  stays?: boolean;
}

export function Dialog({ title, onClose, children, wide, stays }: Props) {
  return (
    <Overlay
      isOpen
      isDismissable={!stays}
      isKeyboardDismissDisabled={stays}
      onOpenChange={(open) => !open && onClose()}
    >
      <Page $wide={wide}>
        <Body>
          <Heading slot="title" level={2}>
            {title}
          </Heading>
          {children}
        </Body>
      </Page>
    </Overlay>
  );
}
