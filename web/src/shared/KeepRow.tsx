import type { ReactNode } from "react";
import styled from "styled-components";
import { Button, Small } from "./parts";

const Row = styled.p`
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
  margin-top: 12px;
`;

/** The foot of a form that changes what quotes are priced with: keep it, or leave it as it is. */
export function KeepRow({
  isPending,
  onLeave,
  children,
}: {
  isPending: boolean;
  onLeave: () => void;
  children?: ReactNode;
}) {
  return (
    <Row>
      <Button $main type="submit" isPending={isPending}>
        Keep
      </Button>
      {children}
      <Button onPress={onLeave}>Leave as it is</Button>
      <Small>Re-prices every open quote; saved ones stay as they are.</Small>
    </Row>
  );
}
