import { BY_HAND, meshGap, RANGE } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Freedom, Gap } from '../freedom.ts';
import type { RackBuild } from './model.ts';
import type { RackParams } from './params.ts';

/**
 * Room between pinion and rack, along it; rollers are set into theirs, and known as a whole only.
 *
 * @returns in ways of the carriage, m
 */
export function rackFreedom(p: RackParams, { geometry: g }: RackBuild, shelf: Shelf): Freedom | undefined {
  if (!g.mesh) return undefined;
  const mesh = meshGap(
    'pinion and rack',
    g.mesh,
    [
      { part: 'pinion', name: 'pinion', each: false },
      { part: 'rack', name: 'rack', each: false },
    ],
    1,
    shelf,
  );
  const [pinion, rack] = mesh.sides as [Gap['sides'][0], Gap['sides'][0]];
  const gap: Gap = {
    ...mesh,
    // A rack grows towards the pinion by its height, not as the wheel without end that it is a piece of.
    sides: [pinion, { ...rack, radius: p.back }],
    centre: g.axis + p.back,
    place: (2 * p.straight * Math.tan(g.angle)) / RANGE,
    ...(p.takenOut !== 'none' && { taken: true }),
  };
  const set = p.takenOut === 'eccentric' || p.takenOut === 'taper';
  const extra = p.takenOut === 'none' ? factor(shelf, 'gear.tilt') : set ? 2 * BY_HAND[0] : 0;
  return {
    chains: [{ name: 'mesh', paths: 1, gaps: [gap], apart: 0, extra }],
    wider: (by) => ({ allowance1: p.allowance1 + by / 2, allowance2: p.allowance2 + by / 2 }),
  };
}
