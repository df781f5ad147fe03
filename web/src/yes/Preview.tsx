import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import { api } from "../api/client";
import { Heading, LoneLink, Small } from "../shared/parts";

const Column = styled.aside`
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding: 16px 18px 18px;
  border-left: 5px double var(--strong);
  background: var(--sheet);
  @media (max-width: 1100px) {
    border-left: 0;
    border-top: 5px double var(--strong);
  }
`;
const Phone = styled.iframe`
  flex: 1;
  width: 100%;
  min-height: 560px;
  border: 1px solid var(--strong);
  border-radius: 10px;
  margin-top: 10px;
  background: var(--sheet);
`;

/** The page as the customer sees it; nothing in it can be pressed from here. */
export function Preview({ quote, version, link }: { quote: string; version: string; link?: string | null }) {
  const page = useQuery({ queryKey: ["preview", quote, version], queryFn: () => api.preview(quote) });
  return (
    <Column aria-busy={page.isFetching}>
      <Heading>
        <span>As the customer sees it</span>
        {link && (
          <Small>
            <LoneLink href={new URL(link).pathname} target="_blank" rel="noreferrer">
              Open their page
            </LoneLink>
          </Small>
        )}
      </Heading>
      {page.data && (
        <Phone sandbox="allow-same-origin" srcDoc={styledHere(page.data.html)} title="The customer's page" />
      )}
      {page.error && <Small role="alert">{page.error.message}</Small>}
    </Column>
  );
}

/** The page's style may be drawn here under this page's own policy only. */
function styledHere(html: string): string {
  const nonce = document.querySelector<HTMLMetaElement>("meta[property=csp-nonce]")?.nonce ?? "";
  return html.replace(/<style nonce="[^"]*">/, `<style nonce="${nonce}">`).replace(/<script[^>]*><\/script>/g, "");
}
