/** Units the trade reads beside the metric ones the figures are kept in. */
export const MM_PER_INCH = 25.4;
const NM_PER_LB_FT = 1.3558179483;

/** Writes a number as the shop does. */
type Say = (value: number, decimals?: 0 | 1 | 2) => string;

/** Below this a wrench is marked in pound-inches. */
const SMALL_NM = 15;
/** Below this a pound-foot is too coarse to be said whole. */
const FINE_NM = 20;

/** A torque in both units, rounded as a wrench is set: "25 N·m (18 lb-ft)", "8 N·m (71 lb-in)". */
export const torque = (nm: number, say: Say) => {
  const pounds = nm / NM_PER_LB_FT;
  const other = nm < SMALL_NM ? `${say(pounds * 12, 0)} lb-in` : `${say(pounds, nm < FINE_NM ? 1 : 0)} lb-ft`;
  return `${say(Math.round(nm * 10) / 10)} N·m (${other})`;
};
