/**
 * Hours in a dryer before a plastic is printed, by the material's identifier in the shop. What takes up water foams at
 * the nozzle and comes out weak.
 *
 * Source: usual processing sheets of the generic plastics; at 45 °C for PLA, 65 °C for PETG and TPU, 80 °C for the rest.
 */
const HOURS: Readonly<Record<string, number>> = {
  petg: 4,
  abs: 3,
  asa: 3,
  pc: 6,
  pa12: 8,
  'pa-cf': 8,
  tpu: 5,
};

/** Time in a dryer, s; 0 for what is printed as it comes, and for what is not known. */
export const dryingTime = (id: string): number => (HOURS[id] ?? 0) * 3600;

/** Time in daylight or under a lamp after a resin is washed, s. */
export const POST_CURE = 3600;
