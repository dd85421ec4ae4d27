import { BY_HAND, meshGap, takenOutBy, type WheelPart } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Freedom } from '../freedom.ts';
import type { SpurBuild } from './model.ts';
import type { SpurParams } from './params.ts';

/** Room in the meshes of a train: one after the other, each with two wheels. */
export function spurFreedom(p: SpurParams, { geometry: g }: SpurBuild, shelf: Shelf): Freedom {
  const last = g.wheels.length - 1;
  const radius = g.meshes.at(-1)!.pair.rw2;
  const part = (i: number): WheelPart =>
    i === 0
      ? { part: 'driver', name: 'driving wheel', each: false }
      : i === last
        ? { part: 'driven', name: 'driven wheel', each: false }
        : { part: 'idler', name: 'idler', each: true };
  const gaps = g.meshes.map((m, i) =>
    meshGap(last > 1 ? `mesh ${i + 1}` : 'the mesh', m, [part(i), part(i + 1)], 1 / radius, shelf),
  );
  const way = takenOutBy(p);
  // What is taken out of the last mesh by hand is left by hand.
  const set = way === 'eccentric' || way === 'taper' ? 2 * BY_HAND[0] : 0;
  const free = way === 'none' ? gaps.length : gaps.length > 1 ? gaps.length - 1 : 0;
  const train = gaps.map((gap, i) => (way !== 'none' && i === gaps.length - 1 ? { ...gap, taken: true } : gap));
  const extra = (factor(shelf, 'gear.tilt') * free + set) / radius;
  return {
    chains: [{ name: 'train', paths: 1, gaps: train, apart: 0, extra }],
    wider: (by) => ({ allowance1: p.allowance1 + by / 2, allowance2: p.allowance2 + by / 2 }),
  };
}
