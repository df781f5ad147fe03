import type { ReactNode } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";
import { useSession } from "../session/SessionGate";
import { Button, Notice, Small } from "./parts";

const Row = styled.div`
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  align-items: center;
  margin-top: 14px;
`;

interface FileProps {
  types: string[];
  name: string;
  isReading: boolean;
  /** How far long reading has come. */
  percent?: number | null;
  isFound: boolean;
  onFile: (file: File) => void;
}

/** First step of an import: the file. */
export function FileChoice({ types, name, isReading, percent, isFound, onFile }: FileProps) {
  return (
    <Row>
      <FileTrigger acceptedFileTypes={types} onSelect={(files) => files?.[0] && onFile(files[0])}>
        <Button $main={!isFound}>Choose a file</Button>
      </FileTrigger>
      {name && <Small>{name}</Small>}
      {isReading && <Small role="status">Reading…</Small>}
      {isReading && percent != null && <progress max={100} value={percent} aria-label="Rows compared" />}
    </Row>
  );
}

interface YesProps {
  /** What the yes does, in words. */
  does: string;
  isDisabled: boolean;
  isPending: boolean;
  onYes: () => void;
  onClose: () => void;
}

/** Last step of an import: the owner's yes, under the report of what it changes. */
export function OwnersYes({ does, isDisabled, isPending, onYes, onClose }: YesProps) {
  const { account } = useSession();
  return (
    <Row>
      {account.role === "owner" ? (
        <Button $main onPress={onYes} isDisabled={isDisabled} isPending={isPending}>
          {does}
        </Button>
      ) : (
        <Small>The owner imports; this is the report to show them.</Small>
      )}
      <Button onPress={onClose}>Close</Button>
    </Row>
  );
}

/** What the import would do, or what is wrong with the file; nothing is stored before the yes. */
export function ImportReport({ problem, children }: { problem?: string; children: ReactNode }) {
  if (problem)
    return (
      <Notice role="alert" style={{ marginTop: 12 }}>
        <p>{problem}</p>
        <p>Nothing was stored.</p>
      </Notice>
    );
  return children ? (
    <section aria-label="What the import would do" style={{ marginTop: 12 }}>
      {children}
    </section>
  ) : null;
}
