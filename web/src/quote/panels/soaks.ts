/** Soak protocols as the trade says them. */
export const SOAKS: Record<string, string> = {
  none: "No soak",
  short: "Short soak",
  "crack-and-soak": "Crack and soak",
  overnight: "Overnight",
  "overnight-impact": "Overnight, impact",
};
