const DAYS = ["sun", "mon", "tue", "wed", "thu", "fri", "sat"] as const;

/**
 * When the shop opens on the next day it does, after a moment: a soak stands overnight until then.
 * @param hours day to opening and closing, "08:00"
 * @returns null where it never opens
 */
export function nextOpening(hours: Record<string, string[] | null | undefined>, after: Date): Date | null {
  for (let days = 1; days <= 7; days += 1) {
    const day = new Date(after);
    day.setDate(day.getDate() + days);
    const opens = hours[DAYS[day.getDay()] ?? "sun"]?.[0];
    if (!opens) continue;
    const [hour = 0, minute = 0] = opens.split(":").map(Number);
    day.setHours(hour, minute, 0, 0);
    return day;
  }
  return null;
}
