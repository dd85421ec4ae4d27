import { RANGE } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Freedom, GapSide } from '../freedom.ts';
import { gapPlay, type RollerWaveBuild } from './model.ts';
import { heldShare, type RollerWaveParams } from './params.ts';

/** Room between ring and rollers, as the mean over a pitch, and of the rollers in their slots; rollers are bought. */
export function rollerWaveFreedom(p: RollerWaveParams, b: RollerWaveBuild, shelf: Shelf): Freedom {
  const held = heldShare(p);
  const far = b.wave.eccentric + b.wave.roller;
  const common = { wobble: 0, centre: 0, perCentre: 0 };
  const side = (part: 'ring' | 'cage', share: number, usual: number): GapSide => ({
    part,
    name: part,
    contour: 'hole',
    share,
    each: false,
    usual,
    radius: 0,
    perGrowth: 0,
  });
  const steep = Math.max(...b.states[0]![0]!.arms);
  return {
    chains: [
      {
        name: 'lobes',
        paths: 1,
        gaps: [
          {
            ...common,
            name: 'rollers and ring',
            drawn: p.gap,
            turn: gapPlay(b.states, 1) * held,
            sides: [side('ring', 1, factor(shelf, 'lobe.profile') / RANGE)],
            place: factor(shelf, 'lobe.place') / RANGE,
          },
        ],
        apart: 0,
        extra: (2 * factor(shelf, 'lobe.crank') * held) / steep,
      },
      {
        name: 'slots',
        paths: 1,
        gaps: [
          {
            ...common,
            name: 'rollers in their slots',
            drawn: p.slot,
            turn: held / far,
            sides: [side('cage', 2, 0)],
            place: 0,
          },
        ],
        apart: 0,
        extra: 0,
      },
    ],
    wider: (by) => ({ gap: p.gap + by, slot: p.slot + by }),
  };
}
