import type { Calendar } from "../api/client";

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

/** "Two-post lift, crane" as ids. */
export const equipmentOf = (text: string) =>
  text
    .split(",")
    .map((one) => one.trim())
    .filter((one) => one !== "");
