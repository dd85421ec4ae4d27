import { stated } from '../units/stated.ts';
import type { Gear } from './gear.ts';
import { spanOver } from './measure.ts';

const mm = (x: number): string => stated(x, 'length', 6);

/** Module, teeth, shift and helix of a wheel as they stand on its sheet. */
export function toothWords(g: Gear, double: boolean): string {
  const hand = double ? 'double' : g.helix > 0 ? 'right' : 'left';
  const helix = g.helix === 0 ? '' : `, helix ${stated(Math.abs(g.helix), 'angle', 3)} ${hand}`;
  return `m ${mm(g.module)}, ${g.teeth} teeth, x ${g.shift.toFixed(3)}${helix}`;
}

/** The span measurement over `k` teeth, or a ring's spaces. */
export const spanWords = (g: Gear, k: number): string =>
  `span over ${k} ${g.ring ? 'spaces' : 'teeth'} ${mm(spanOver(g, k))}`;

/** The bore of a hub and what takes its torque; nothing for a wheel on its own shaft. */
export const boreWords = (bore: number, shape: string): string =>
  bore > 0 ? `, bore ${mm(bore)}${shape === 'round' ? '' : ` with a ${shape}`}` : '';
