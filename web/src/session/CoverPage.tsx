import type { ReactNode } from "react";
import styled from "styled-components";
import { Small } from "../shared/parts";

const Page = styled.main`
  min-height: 100%;
  display: grid;
  place-items: center;
  padding: 24px;
  background-image: repeating-linear-gradient(transparent 0 33px, var(--rule) 33px 34px);
  @media (max-width: 480px) {
    padding: 10px;
  }
`;
const Sheet = styled.div<{ $wide?: boolean }>`
  width: min(${(p) => (p.$wide ? "980px" : "380px")}, 100%);
  background: var(--sheet);
  border: 1px solid var(--strong);
  border-left: 6px double var(--strong);
  padding: 30px 32px;
  @media (max-width: 480px) {
    padding: 20px 16px;
  }
  h1 {
    font-size: 30px;
    font-weight: 650;
    line-height: 1.1;
  }
  form {
    display: grid;
    gap: 16px;
    margin-top: 22px;
  }
`;

interface Props {
  title: string;
  line: string;
  wide?: boolean;
  children: ReactNode;
}

/** A page before anybody is signed in: one sheet on the ruled table. */
export function CoverPage({ title, line, wide, children }: Props) {
  return (
    <Page>
      <Sheet $wide={wide}>
        <h1>{title}</h1>
        <Small>{line}</Small>
        {children}
      </Sheet>
    </Page>
  );
}
