const DAYS = ["sun", "mon", "tue", "wed", "thu", "fri", "sat"] as const;

/**
 * When the shop opens on the next day it does: a soak stands overnight until then.
 * @param hours day to opening and closing, "08:00"
 * @returns the moment on the shop's wall clock, "2026-12-02T08:00"; null where it never opens
 */
export function nextOpening(hours: Record<string, string[] | null | undefined>, after: Date): string | null {
  for (let days = 1; days <= 7; days += 1) {
    const day = new Date(after.getFullYear(), after.getMonth(), after.getDate() + days, 12);
    const opens = hours[DAYS[day.getDay()] ?? "sun"]?.[0];
    const two = (value: number) => String(value).padStart(2, "0");
    if (opens) return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}T${opens}`;
  }
  return null;
}
