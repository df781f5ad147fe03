/** Formatting of what the server computed, in the shop's locale and units. Nothing is decided here. */
export interface ShopUnits {
  locale: string;
  distance_unit: "km" | "mi";
  currency: string;
  currency_exponent: number;
  time_zone: string;
}

const KM_PER_MILE = 1.609344;

export function formatter(units: ShopUnits) {
  const digits = { minimumFractionDigits: units.currency_exponent, maximumFractionDigits: units.currency_exponent };
  const plain = new Intl.NumberFormat(units.locale, digits);
  const full = new Intl.NumberFormat(units.locale, { style: "currency", currency: units.currency, ...digits });
  const whole = new Intl.NumberFormat(units.locale, { maximumFractionDigits: 0 });
  const plainNumber = new Intl.NumberFormat(units.locale, { maximumFractionDigits: 3 });
  const byDecimals = [0, 1, 2].map(
    (decimals) =>
      new Intl.NumberFormat(units.locale, { minimumFractionDigits: decimals, maximumFractionDigits: decimals }),
  );
  const figure = (value: number, decimals?: 0 | 1 | 2) =>
    (decimals === undefined ? plainNumber : (byDecimals[decimals] ?? plainNumber)).format(value);
  const bareDistance = (km: number) => whole.format(units.distance_unit === "mi" ? km / KM_PER_MILE : km);
  const minor = 10 ** units.currency_exponent;
  const when = new Intl.DateTimeFormat(units.locale, {
    day: "numeric",
    month: "short",
    hour: "numeric",
    minute: "2-digit",
    timeZone: units.time_zone,
  });
  const day = new Intl.DateTimeFormat(units.locale, {
    day: "numeric",
    month: "short",
    year: "numeric",
    timeZone: "UTC",
  });
  const month = new Intl.DateTimeFormat(units.locale, { month: "long", year: "numeric", timeZone: "UTC" });
  const weekday = new Intl.DateTimeFormat("en", { weekday: "long", timeZone: units.time_zone });
  const time = new Intl.DateTimeFormat(units.locale, { hour: "numeric", minute: "2-digit", timeZone: units.time_zone });
  const shortDay = new Intl.DateTimeFormat(units.locale, { day: "numeric", month: "short", timeZone: units.time_zone });
  const today = new Intl.DateTimeFormat("en-CA", { timeZone: units.time_zone });
  const wall = new Intl.DateTimeFormat(units.locale, {
    weekday: "short",
    hour: "numeric",
    minute: "2-digit",
    timeZone: "UTC",
  });
  const clockTime = new Intl.DateTimeFormat(units.locale, { hour: "numeric", minute: "2-digit", timeZone: "UTC" });
  const weekdayLong = new Intl.DateTimeFormat("en", { weekday: "long", timeZone: "UTC" });
  const weekdayBrief = new Intl.DateTimeFormat("en", { weekday: "short", timeZone: "UTC" });
  const dated = new Intl.DateTimeFormat(units.locale, {
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "numeric",
    minute: "2-digit",
    timeZone: "UTC",
  });
  return {
    money: (cents: number) => plain.format(cents / minor).replace("-", "−"),
    moneyWithSign: (cents: number) => full.format(cents / minor),
    signed: (cents: number) => `${cents < 0 ? "−" : "+"}${plain.format(Math.abs(cents) / minor)}`,
    hours: (hours: number) => figure(hours, 1),
    /** A bare number with so many decimals, or as many as it has. */
    figure,
    years: (years: number) => `${plainNumber.format(years)} ${years === 1 ? "year" : "years"}`,
    minutes: (minutes: number) => (minutes > 0 && minutes < 1 ? "<1" : String(Math.round(minutes))),
    /** A distance in the shop's unit, the unit unsaid. */
    bareDistance,
    distance: (km: number) => `${bareDistance(km)} ${units.distance_unit}`,
    toKm: (value: number) => (units.distance_unit === "mi" ? value * KM_PER_MILE : value),
    fromKm: (km: number) => Math.round(units.distance_unit === "mi" ? km / KM_PER_MILE : km),
    percent: (share: number) => `${figure(share * 100, share < 0.1 ? 1 : 0)} %`,
    /**
     * A moment of the shop's wall clock, as the server says it: "2026-11-24T15:30". By its weekday within the week to
     * come, by its date otherwise.
     */
    wall: (text: string, now = new Date()) => {
      const moment = new Date(`${text}:00Z`);
      const days = (Date.parse(text.slice(0, 10)) - Date.parse(today.format(now))) / 86_400_000;
      if (Number.isNaN(moment.getTime())) return text;
      return (days >= 0 && days < 7 ? wall : dated).format(moment);
    },
    /** Its time of day alone. */
    wallTime: (text: string) => clockTime.format(new Date(`${text}:00Z`)),
    /** "Tuesday", of a day of the shop's calendar. */
    weekdayOf: (date: string) => weekdayLong.format(new Date(`${date}T12:00:00Z`)),
    weekdayShort: (date: string) => weekdayBrief.format(new Date(`${date}T12:00:00Z`)),
    oneIn: (share: number) =>
      share <= 0 ? "never" : share >= 0.1 ? `${Math.round(share * 100)} in 100` : `1 in ${Math.round(1 / share)}`,
    /** A day of the shop's calendar, as the server says it: "2026-11-24". */
    day: (text: string) => day.format(new Date(`${text}T12:00:00Z`)),
    /** A month as the server says it: "2026-11". */
    month: (text: string) => month.format(new Date(`${text}-15T12:00:00Z`)),
    weekday: (now: Date) => weekday.format(now),
    /** The day it is where the shop is: "2026-11-24". */
    dayNow: (now = new Date()) => today.format(now),
    /** A moment that has passed, short: its time of today, else its day. */
    lately: (iso: string, now = new Date()) => {
      const moment = new Date(iso);
      return (today.format(moment) === today.format(now) ? time : shortDay).format(moment);
    },
    when: (iso: string) => when.format(new Date(iso)),
  };
}

export type Formatter = ReturnType<typeof formatter>;

/** What the core says of a place, as a sentence of its own: "is too short" becomes "Is too short." */
export const sentence = (text: string) =>
  `${text.charAt(0).toUpperCase()}${text.slice(1).replace(/\.$/, "")}${text.endsWith("?") ? "" : "."}`;

/** "1", "1 and 3", "1, 3 and 5" */
export function list(items: (string | number)[]): string {
  return items.length < 3 ? items.join(" and ") : `${items.slice(0, -1).join(", ")} and ${items.at(-1)}`;
}
