/** Where a shop is at home, as far as its browser tells: what the first page starts from. Everything can be changed. */
export interface Place {
  locale: string;
  currency: string;
  timeZone: string;
  paper: "a4" | "letter";
  distance: "km" | "mi";
}

const CURRENCIES: Record<string, string> = {
  US: "USD", CA: "CAD", GB: "GBP", AU: "AUD", NZ: "NZD", CH: "CHF", JP: "JPY", NO: "NOK", SE: "SEK", DK: "DKK",
  PL: "PLN", CZ: "CZK", ZA: "ZAR", IN: "INR", BR: "BRL", MX: "MXN",
}; // prettier-ignore
const EURO = new Set("AT BE DE ES FI FR GR HR IE IT LT LU LV MT NL PT SI SK EE CY".split(" "));
const LETTER = new Set(["US", "CA", "MX"]);
const MILES = new Set(["US", "GB"]);

/** Ways of writing that are offered; the browser's own is added. */
const LOCALES = (
  "en-US en-GB en-IE en-CA en-AU en-NZ en-ZA de-DE de-AT de-CH fr-FR fr-CA fr-CH nl-NL it-IT es-ES es-MX pt-PT pt-BR " +
  "da-DK sv-SE nb-NO fi-FI pl-PL cs-CZ ja-JP"
).split(" ");

const region = (locale: string) => new Intl.Locale(locale).maximize().region ?? "US";

export function placeOf(locale: string, timeZone: string): Place {
  const at = region(locale);
  return {
    locale,
    timeZone,
    currency: CURRENCIES[at] ?? (EURO.has(at) ? "EUR" : "USD"),
    paper: LETTER.has(at) ? "letter" : "a4",
    distance: MILES.has(at) ? "mi" : "km",
  };
}

/** Ways of writing, with what people call them. */
export function localesFor(own: string): { id: string; text: string }[] {
  const names = new Intl.DisplayNames("en", { type: "language", languageDisplay: "standard" });
  return [...new Set([...LOCALES, own])]
    .map((id) => ({ id, text: names.of(id) ?? id }))
    .sort((a, b) => a.text.localeCompare(b.text));
}

/** Currencies in use, found by code and name. */
export function currencies(): { id: string; text: string; more: string; words: string }[] {
  const names = new Intl.DisplayNames("en", { type: "currency" });
  return Intl.supportedValuesOf("currency").map((id) => {
    const name = names.of(id) ?? id;
    return { id, text: `${id}, ${name}`, more: "", words: `${id} ${name}` };
  });
}

/** Time zones, found by city or region. */
export const timeZones = (): { id: string; text: string; more: string; words: string }[] =>
  [...new Set([...Intl.supportedValuesOf("timeZone"), "UTC"])].map((id) => ({
    id,
    text: id,
    more: "",
    words: id.replaceAll(/[/_]/g, " "),
  }));

/** Decimals of a currency's smallest unit. */
export const exponentOf = (currency: string): number =>
  new Intl.NumberFormat("en", { style: "currency", currency }).resolvedOptions().maximumFractionDigits ?? 2;
