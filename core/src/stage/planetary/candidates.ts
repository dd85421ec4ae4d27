import { MODULES, plainToothing, spacesEvenly } from '../../gear/index.ts';
import type { StageWish } from '../contract.ts';
import { startsOf } from '../param.ts';
import { planetaryParams, type PlanetaryParams } from './params.ts';

/** A set with usual proportions for its module and width. */
export function basePlanetary(
  module: number,
  width: number,
  zs: number,
  zp: number,
  planets: number,
  sets: number,
): PlanetaryParams {
  const pin = Math.max(2e-3, Math.min(8e-3, Math.round(zp * module * 0.3 * 1e3) * 1e-3));
  return {
    ...startsOf(planetaryParams),
    zs,
    zp,
    zr: zs + 2 * zp,
    planets,
    spacing: spacesEvenly(zs, zs + 2 * zp, planets) ? 'even' : 'stepped',
    sets,
    floating: planets === 3 ? 'sun' : 'none',
    ...plainToothing(module, width),
    trim: 'yes',
    pins: 'plain',
    pin,
    rim: Math.max(2.5e-3, 3 * module),
    boreS: zs * module > 9e-3 ? 5e-3 : 0,
  };
}

/** Wall between a sun's bore and its roots, m. */
const SUN_WALL = 2e-3;

/**
 * Counts whose ratio is nearest to one wanted, evenly spaced, neighbours clear.
 *
 * @param least fewest teeth of the sun
 */
function countsFor(ratio: number, planets: number, least = 12): { zs: number; zp: number }[] {
  const out: { zs: number; zp: number; error: number }[] = [];
  for (let zs = Math.max(12, least); zs <= Math.max(36, least + 6); zs++) {
    for (const zr of [
      Math.round(zs * (ratio - 1)) - 2,
      Math.round(zs * (ratio - 1)) - 1,
      Math.round(zs * (ratio - 1)),
      Math.round(zs * (ratio - 1)) + 1,
      Math.round(zs * (ratio - 1)) + 2,
    ]) {
      const zp = (zr - zs) / 2;
      if (
        !Number.isInteger(zp) ||
        zp < 12 ||
        !spacesEvenly(zs, zr, planets) ||
        (zs + zp) * Math.sin(Math.PI / planets) - (zp + 2) < 0.5
      )
        continue;
      out.push({ zs, zp, error: Math.abs(Math.log((1 + zr / zs) / ratio)) });
    }
  }
  // A set a percent off with a smaller ring is worth more than an exact one.
  return out.sort((a, b) => a.error + (a.zs + 2 * a.zp) / 4000 - b.error - (b.zs + 2 * b.zp) / 4000).slice(0, 2);
}

/** Sets for a wish, small and light first. */
export function* planetaryCandidates(want: StageWish): Generator<PlanetaryParams> {
  const ratio = Math.abs(want.ratio);
  const sets = ratio > 9 ? (ratio > 60 ? 3 : 2) : 1;
  const each = Math.max(2.6, ratio ** (1 / sets));
  for (const module of MODULES.slice(2)) {
    for (const width of [8, 14]) {
      for (const planets of each < 4.4 ? [4, 3] : [3]) {
        // A sun that is bored wide needs teeth round it, beside what is asked without.
        const wide = want.bore ? countsFor(each, planets, Math.ceil((want.bore + 2 * SUN_WALL) / module + 2.5)) : [];
        for (const c of [...countsFor(each, planets), ...wide]) {
          const p = basePlanetary(module, width * module * 1.0 + 4e-3, c.zs, c.zp, planets, sets);
          if ((p.zr + 2.5) * module + 2 * p.rim <= want.size) yield p;
        }
      }
    }
  }
}
