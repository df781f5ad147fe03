/** Units the trade reads beside the metric ones the figures are kept in. */
export const MM_PER_INCH = 25.4;
const NM_PER_LB_FT = 1.3558179483;

/** Writes a number as the shop does. */
type Say = (value: number, decimals?: 0 | 1 | 2) => string;

/** A torque in both units, rounded as a wrench is set: "25 N·m (18 lb-ft)". */
export const torque = (nm: number, say: Say) =>
  `${say(Math.round(nm * 10) / 10)} N·m (${say(nm / NM_PER_LB_FT, nm < 20 ? 1 : 0)} lb-ft)`;
