import type { Calendar, CalendarImport } from "../api/client";

type Worker = Calendar["people"][number];

/** A person's row, as it is where nobody has said anything: by name of the list, at the shop's hours. */
export const workerOf = (calendar: Calendar, id: number): Worker =>
  calendar.people.find((one) => one.id === id) ?? { id, works: false, hours: null, lunch: null };

/** What is kept of a calendar. */
export const kept = ({ revision, bays, people, away, closed }: Calendar) => ({
  revision,
  bays,
  people: [...people].sort((one, other) => one.id - other.id),
  away,
  closed: [...closed].sort(),
});

type Event = CalendarImport["events"][number];

/** Whole days of a file, each day once. */
export function daysOf(events: Event[]): string[] {
  const days = events
    .filter((event) => event.whole_days)
    .flatMap((event) => {
      const dates: string[] = [];
      const end = event.to.slice(0, 10);
      for (let date = event.from.slice(0, 10); date < end && dates.length < 366; date = dayAfter(date))
        dates.push(date);
      return dates;
    });
  return [...new Set(days)].sort();
}

const dayAfter = (date: string) => new Date(Date.parse(`${date}T12:00:00Z`) + 86_400_000).toISOString().slice(0, 10);

/** Times of a file as somebody's absences. */
export const absencesOf = (events: Event[], person: number): Calendar["away"] =>
  events.map(({ from, to, what }) => ({ person, from, to, why: what }));

/** "gb_sct" as "United Kingdom, SCT", in the shop's language. */
export function regionName(id: string, locale: string): string {
  const [country = id, part] = id.split("_");
  const name = new Intl.DisplayNames([locale], { type: "region", fallback: "code" }).of(country.toUpperCase());
  return [name ?? country, part?.toUpperCase()].filter(Boolean).join(", ");
}

/** Ids as they are typed: "two post lift, crane". */
export const equipmentText = (ids: string[]) => ids.map((id) => id.replaceAll("-", " ")).join(", ");

/** "Two-post lift, crane" as the ids engines ask for. */
export const equipmentOf = (text: string) =>
  text
    .split(",")
    .map((one) => one.trim().toLowerCase().replace(/\s+/g, "-"))
    .filter((one) => one !== "");
