import type { BeltSection } from '../../shop/section.ts';
import { findSection } from '../../shop/shelf.ts';
import type { StageWish } from '../contract.ts';
import { carries } from '../choose-candidate.ts';
import { leastCentre, stockedNear } from './layout.ts';
import { buildBelt, modelBelt, wrongBelt } from './model.ts';
import { startsOf } from '../param.ts';
import { beltParams, type BeltParams } from './params.ts';

/** Sections tried, fine to coarse. The others are for those who have them. */
const TRIED = ['R2', 'R3', 'R5', 'R8'];

const base = (section: BeltSection, width: number, z1: number, z2: number): BeltParams => ({
  ...startsOf(beltParams),
  section: section.id,
  width,
  z1,
  z2,
  beltTeeth: 100,
  tension: 10,
  bore1: 5e-3,
  hold1: 'screws',
});

/**
 * Belt stages for a wish, small and light first: section, width, teeth, then the shortest stocked belt with six teeth
 * in mesh.
 */
export function* beltCandidates(want: StageWish): Generator<BeltParams> {
  const ratio = Math.abs(want.ratio);
  for (const id of TRIED) {
    const section = findSection(want.shelf, id);
    if (!section) continue;
    for (const width of section.widths) {
      for (const z1 of [section.minTeeth, section.minTeeth + 2, section.minTeeth + 4, section.minTeeth + 8]) {
        const z2 = Math.round(z1 * ratio);
        if (z2 < section.minTeeth || z2 > 240) continue;
        const p = base(section, width, z1, z2);
        // A motor's 5 mm shaft carries about half a newton metre on set screws.
        p.bore1 = want.torque / ratio < 0.6 ? 5e-3 : 8e-3;
        if ((z1 * section.pitch) / Math.PI < p.bore1 + 5e-3) p.bore1 = 5e-3;
        if (p.bore1 > 5e-3) p.hold1 = 'key';
        for (const near of stockedNear(p, section, leastCentre(p, section) * 1.05, 4)) {
          const size = near.centre + ((z1 + z2) * section.pitch) / (2 * Math.PI);
          if (size > want.size) continue;
          const tension = Math.ceil(((want.torque * Math.PI) / (z2 * section.pitch)) * 1.08);
          yield { ...p, beltTeeth: near.teeth, centre: near.centre, tension: Math.max(5, tension) };
        }
      }
    }
  }
}

/** The first candidate that carries the wish with a fifth in hand; the strongest one when none does. */
export function beltDefaults(want: StageWish): BeltParams {
  let best: BeltParams | undefined;
  let bestScore = -Infinity;
  for (const p of beltCandidates(want)) {
    const at = { torque: want.torque, torqueRms: want.torque, speed: 0 };
    for (const hold1 of [p.hold1, 'key'] as const) {
      const tried = { ...p, hold1 };
      const b = buildBelt(tried, want.shelf);
      if (!b.ok || wrongBelt(tried, b.value)) break;
      const { mesh1 } = b.value.layout;
      const share = carries(modelBelt(tried, b.value, at, want.shelf), at) / Math.max(want.torque, 1e-9);
      if (share >= 1.2 && mesh1 >= 6) return tried;
      const score = Math.min(share, 1.2) * Math.min(1, mesh1 / 6);
      if (score > bestScore) [best, bestScore] = [tried, score];
    }
  }
  if (best) return best;
  // Even a wish beyond any stocked belt starts from something that can be drawn and changed.
  return { ...base(want.shelf.sections[0]!, 6e-3, 18, 54), beltTeeth: 110, setBy: 'length' };
}
