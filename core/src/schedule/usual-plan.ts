import type { BuildPlan } from '../schema/joint.ts';
import { HOUR } from './wall-clock.ts';

/** A plan to begin with: two hours on weekday evenings, five on Saturday, one printer that may run through the night. */
export const usualPlan = (start: string): BuildPlan => ({
  start,
  hours: [2, 2, 2, 2, 2, 5, 0].map((h) => h * HOUR),
  from: 17 * HOUR,
  off: [],
  joints: 1,
  printers: 1,
  unattended: true,
  longest: 12 * HOUR,
  bed: [0.22, 0.22],
  gap: 4e-3,
  tasks: {},
});
