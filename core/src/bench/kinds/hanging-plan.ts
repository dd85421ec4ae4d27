import { stated } from '../../units/stated.ts';
import type { PlanAsk, PlannedRig } from '../contract.ts';

/** Standard gravity for planning, m/s². */
const G = 9.81;

/**
 * A lever for the torque that matters, about six kilograms at its end; fine enough where one step of the scale tells
 * expected from asked.
 */
export function hangingPlan({ expected, asked, wanted, instrument }: PlanAsk): PlannedRig {
  if (!instrument) return { says: 'as its sheet says', values: {}, enough: true };
  const most = Math.max(expected, Number.isFinite(asked) ? asked : 0);
  const lever = Math.min(0.5, Math.max(0.1, Math.ceil((most / G / 6) * 20) / 20));
  const u = 1.96 * G * lever * Math.hypot(instrument.resolution / Math.sqrt(12), instrument.error / Math.sqrt(3));
  return {
    values: { lever, instrument: instrument.id },
    enough: u < wanted,
    says:
      `lever of ${stated(lever, 'length', 5)}, masses up to ` +
      `${stated(most / G / lever, 'mass', 2)} by ${instrument.name}, steps of ` +
      `${stated(Math.max(0.02, wanted / G / lever), 'mass', 1)} near the end`,
  };
}
