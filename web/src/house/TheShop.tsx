import { useState } from "react";
import styled from "styled-components";
import { useSession } from "../session/SessionGate";
import { Button, Heading, LoneLink } from "../shared/parts";
import { whenOpened } from "../shared/whenOpened";

const ShopDialog = whenOpened(async () => (await import("./ShopDialog")).ShopDialog);

const Line = styled.p`
  border-top: 1px solid var(--strong);
  border-bottom: 1px solid var(--rule);
  padding: 10px 0;
  margin: 8px 0 0;
  overflow-wrap: anywhere;
`;

/** How the shop is called, where it is and how it writes; its owner changes it here. */
export function TheShop() {
  const { shop } = useSession();
  const [changing, setChanging] = useState(false);
  const language = new Intl.DisplayNames("en", { type: "language", languageDisplay: "standard" }).of(shop.locale);
  return (
    <section aria-label="The shop">
      <Heading style={{ marginTop: 18, alignItems: "center" }}>
        <span>The shop</span>
        <span style={{ display: "flex", gap: 16, alignItems: "baseline" }}>
          <LoneLink href="/api/everything" style={{ fontSize: 14, fontWeight: 400 }}>
            Everything the shop owns, as open files
          </LoneLink>
          <Button onPress={() => setChanging(true)}>Change</Button>
        </span>
      </Heading>
      <Line>
        {shop.name} · numbers and dates as in {language} · {shop.distance_unit === "km" ? "kilometers" : "miles"} ·{" "}
        {shop.paper === "a4" ? "A4" : "Letter"} paper · {shop.time_zone}
      </Line>
      {changing && <ShopDialog onClose={() => setChanging(false)} />}
    </section>
  );
}
