import type { ReactNode } from "react";
import { Button as AriaButton, type ButtonProps } from "react-aria-components";
import styled, { css } from "styled-components";

/** Type sizes of the ledger: 13, 15, 17, 30; one step of weight. */
export const Small = styled.span`
  font-size: 13px;
  font-weight: 400;
  color: var(--second);
`;
export const Strong = styled.span`
  font-weight: 650;
`;
export const Mono = styled.span`
  font-family: "Atkinson Hyperlegible Mono Variable", monospace;
  font-variant-numeric: normal;
`;

/** A part number: never misread, never broken over two lines. */
export const Part = styled(Mono)`
  font-size: 13px;
  color: var(--second);
  white-space: nowrap;
  margin-right: 6px;
`;

/** A license plate: never misread. */
export const Plate = styled(Mono)`
  display: inline-block;
  border: 1.6px solid var(--ink);
  border-radius: 5px;
  padding: 3px 10px;
  font-size: 17px;
  letter-spacing: 0.04em;
  background: var(--sheet);
  white-space: nowrap;
`;

/** The key that works a control, shown on the control. */
export const KeyHint = styled.kbd`
  font-family: "Atkinson Hyperlegible Mono Variable", monospace;
  font-size: 12px;
  line-height: 1;
  padding: 3px 5px;
  min-width: 19px;
  display: inline-block;
  text-align: center;
  border: 1px solid var(--strong);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
  :root[data-keys="off"] & {
    display: none;
  }
  @media (max-width: 560px) {
    display: none;
  }
  @media print {
    display: none;
  }
`;

const pressed = css`
  background: var(--ink);
  color: var(--sheet);
  border-color: var(--ink);
`;

/** A button that may wait: it keeps the focus and takes no press meanwhile. */
function Waiting({ isPending, onPress, type, ...rest }: ButtonProps) {
  return (
    <AriaButton
      {...rest}
      type={isPending ? "button" : type}
      onPress={isPending ? undefined : onPress}
      data-pending={isPending || undefined}
    />
  );
}

export const Button = styled(Waiting)<{ $main?: boolean }>`
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: 36px;
  padding: 5px 13px;
  border: 1.4px solid var(--ink);
  border-radius: 6px;
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
  font-weight: 550;
  text-decoration: none;
  white-space: nowrap;
  ${(p) => p.$main && pressed}
  &[data-hovered] {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  &[data-pressed] {
    transform: translateY(1px);
  }
  &[data-disabled],
  &[data-pending] {
    opacity: 0.55;
    cursor: default;
    text-decoration: none;
  }
`;

/** A link that stands alone, not in a sentence: tall enough for a finger. */
export const LoneLink = styled.a`
  display: inline-block;
  line-height: 24px;
`;

const Text = styled.button`
  border: 0;
  padding: 0;
  background: none;
  cursor: pointer;
  color: inherit;
  text-align: inherit;
  text-decoration: underline dotted var(--strong);
  text-underline-offset: 3px;
  &:hover {
    text-decoration-color: var(--ink);
  }
  &:disabled {
    cursor: default;
  }
`;

interface AskedProps {
  onPress?: () => void;
  isDisabled?: boolean;
  children: ReactNode;
  /** What it does, where its words alone do not say it. */
  "aria-label"?: string;
}

/**
 * Looks like text, works like a button: figures that can be asked "why?". There are many on a page, so it is the
 * browser's own.
 */
export function Asked({ onPress, isDisabled, children, ...label }: AskedProps) {
  return (
    <Text type="button" onClick={onPress} disabled={isDisabled} {...label}>
      {children}
    </Text>
  );
}

export const Heading = styled.h2`
  font-weight: 650;
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 0 12px;
  & > :first-child {
    white-space: nowrap;
  }
`;

/** A place where something is missing, failing or still coming, with what to do about it. */
export const Notice = styled.div`
  border-left: 4px solid var(--ink);
  background: var(--sheet);
  padding: 10px 14px;
  max-width: 62ch;
  & > p + p {
    margin-top: 4px;
    color: var(--second);
  }
`;

/** A page of the book other than the Quote: a title over a strong rule, then its matter. */
export const BookPage = styled.main`
  max-width: 1120px;
  margin: 0 auto;
  padding: 26px 32px 40px;
  @media (max-width: 600px) {
    padding: 18px 16px 32px;
  }
  > header {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 20px;
    align-items: baseline;
    justify-content: space-between;
    border-bottom: 2px solid var(--ink);
    padding-bottom: 12px;
  }
  h1 {
    font-size: 30px;
    font-weight: 650;
    line-height: 1.1;
  }
`;

/** Read out, not drawn. */
export const Unseen = styled.span`
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
  white-space: pre;
`;
