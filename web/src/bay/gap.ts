import { MM_PER_INCH } from "../shared/units";

export interface Gap {
  low: number;
  high: number;
}

/** The core's own slack for a gap that was read in one unit and kept in another. */
const NEARLY = 1e-9;

const within = (value: number, { low, high }: Gap) => value >= low && value <= high;

/** What is odd about a gap as typed: no plug has it, or only if it was read in inches. */
export function doubt(gap: number | null, believed: Gap): string | undefined {
  if (gap === null || within(gap, believed)) return undefined;
  return within(gap * MM_PER_INCH, believed) ? "Inches? Give it in mm." : "No gap of a plug.";
}

/** Whether a gap is not what is wanted. */
export const isOff = (gap: number | null, wanted: Gap | undefined): boolean =>
  gap !== null && wanted !== undefined && !within(gap, { low: wanted.low - NEARLY, high: wanted.high + NEARLY });
