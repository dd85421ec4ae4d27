import type { BeltSection } from '../../shop/section.ts';
import { findSection } from '../../shop/shelf.ts';
import type { StageWish } from '../contract.ts';
import { leastCentre, stockedNear } from './layout.ts';
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
        // A motor's 5 mm shaft carries about half a newton metre on set screws, and a fifth of that is kept in hand.
        const atMotor = want.torque / ratio;
        p.bore1 = atMotor < 0.6 ? 5e-3 : 8e-3;
        if ((z1 * section.pitch) / Math.PI < p.bore1 + 5e-3) p.bore1 = 5e-3;
        if (atMotor > 0.4) p.hold1 = 'key';
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

/** A belt that can be drawn and changed, where a wish is beyond any stocked one. */
export const plainBelt = (want: StageWish): BeltParams => ({
  ...base(want.shelf.sections[0]!, 6e-3, 18, 54),
  beltTeeth: 110,
  setBy: 'length',
});
