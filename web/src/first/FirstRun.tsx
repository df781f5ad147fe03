import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useMemo, useState } from "react";
import { Form, I18nProvider } from "react-aria-components";
import styled from "styled-components";
import { api, type NewShop } from "../api/client";
import { CoverPage } from "../session/CoverPage";
import { Field } from "../shared/fields/Field";
import { NumberBox } from "../shared/fields/NumberBox";
import { Pick } from "../shared/fields/Pick";
import { faultsByPath } from "../shared/faults";
import { Button, Notice, Small } from "../shared/parts";
import { PlaceFields } from "../shared/PlaceFields";
import { currencies, exponentOf, placeOf } from "../shared/places";
import { Specimen } from "./Specimen";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 270px;
  gap: 34px;
  align-items: start;
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 1fr);
  }
  fieldset {
    border: 0;
    border-top: 1px solid var(--strong);
    margin: 0;
    padding: 12px 0 0;
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 12px 18px;
  }
  legend {
    font-weight: 650;
    padding: 0 10px 0 0;
  }
  .wide {
    grid-column: 1 / -1;
  }
  @media (max-width: 560px) {
    fieldset {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

const LANGUAGE = navigator.language || "en-US";
const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";
/** A server with no shop yet: this page opens one, with an empty garage. */
export function FirstRun() {
  const queries = useQueryClient();
  const [place, setPlace] = useState(() => placeOf(LANGUAGE, ZONE));
  const [text, setText] = useState({ shop: "", owner: "", email: "", password: "", tax: "Sales tax" });
  const [rate, setRate] = useState<number | null>(null);
  const [tax, setTax] = useState<number | null>(null);
  const known = useMemo(() => currencies(), []);
  const write = (key: keyof typeof text) => (value: string) => setText((now) => ({ ...now, [key]: value }));
  const set = (change: Partial<typeof place>) => setPlace((now) => ({ ...now, ...change }));
  const exponent = exponentOf(place.currency);
  const open = useMutation({
    mutationFn: async (shop: NewShop) => {
      const made = await api.openShop(shop);
      await api.signIn(made.email, shop.owner.password);
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ["session"] }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    open.mutate({
      owner: { name: text.owner, email: text.email, password: text.password },
      shop: {
        name: text.shop,
        locale: place.locale,
        currency: place.currency,
        distance_unit: place.distance,
        time_zone: place.timeZone,
        paper: place.paper,
      },
      rate_cents: Math.round((rate ?? 0) * 10 ** exponent),
      tax: tax ? { label: text.tax, percent: tax, on: ["labor", "parts", "fees"] } : null,
    });
  };
  const faults = faultsByPath(open.error);

  return (
    <I18nProvider locale={place.locale}>
      <CoverPage
        wide
        title="Open the ledger"
        line="This server has no shop yet. What you say of the shop can be changed later, under House."
      >
        <Form onSubmit={submit}>
          <Columns>
            <div style={{ display: "grid", gap: 20 }}>
              <fieldset>
                <legend>The shop</legend>
                <PlaceFields
                  name={text.shop}
                  onName={write("shop")}
                  place={place}
                  onPlace={set}
                  faults={{ name: faults["/shop/name"], time_zone: faults["/shop/time_zone"] }}
                >
                  <Pick
                    label="Currency"
                    value={place.currency}
                    items={known}
                    onPick={(currency) => currency && set({ currency })}
                    none="No currency is called that."
                    isRequired
                    problem={faults["/shop/currency"]}
                  />
                </PlaceFields>
              </fieldset>
              <fieldset>
                <legend>What an hour costs</legend>
                <NumberBox
                  className="wide"
                  label={`Labor rate per hour, ${place.currency}`}
                  value={rate}
                  onValue={setRate}
                  decimals={exponent}
                  fixed
                  least={0}
                  isRequired
                  problem={faults["/rate_cents"]}
                />
                <Field label="Tax, as the quote calls it" value={text.tax} onChange={write("tax")} maxLength={60} />
                <NumberBox
                  label="Tax rate, %"
                  value={tax}
                  onValue={setTax}
                  least={0}
                  placeholder="none"
                  help="On labor, parts and fees; House rules can tell them apart."
                  problem={faults["/tax/percent"]}
                />
              </fieldset>
              <fieldset>
                <legend>You, the owner</legend>
                <Field label="Your name" value={text.owner} onChange={write("owner")} isRequired maxLength={120} />
                <Field
                  label="E-mail"
                  type="email"
                  value={text.email}
                  onChange={write("email")}
                  isRequired
                  autoComplete="username"
                  problem={faults["/owner/email"]}
                />
                <Field
                  className="wide"
                  label="Password"
                  type="password"
                  value={text.password}
                  onChange={write("password")}
                  isRequired
                  autoComplete="new-password"
                  help="At least 10 characters."
                  problem={faults["/owner/password"]}
                />
              </fieldset>
            </div>
            <Specimen place={place} shop={text.shop} rate={rate} tax={tax} taxName={text.tax} exponent={exponent} />
          </Columns>
          {open.error && Object.keys(faults).length === 0 && (
            <Notice role="alert">
              <p>{open.error.message}</p>
            </Notice>
          )}
          <p style={{ display: "flex", gap: 14, alignItems: "center", flexWrap: "wrap" }}>
            <Button type="submit" $main isDisabled={!rate} isPending={open.isPending}>
              {open.isPending ? "Opening…" : "Open the shop"}
            </Button>
            <Small>
              {rate ? "The garage starts empty. People are invited under House." : "Still needed: what an hour costs."}
            </Small>
          </p>
        </Form>
      </CoverPage>
    </I18nProvider>
  );
}
