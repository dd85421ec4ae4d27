import type { Shelf } from '../../shop/shelf.ts';
import { isBall } from '../../shop/bearings.ts';
import { buildStrainWave, wrongStrainWave } from './build.ts';
import type { StrainWaveParams } from './params.ts';

/** Rollers round a contour, so that a spline is carried at its lobes and drawn in between. */
const ROUND = [12, 8];
/** Rollers may take up as much of the chord from one to the next. */
const FILLED = 0.92;

/**
 * The same generator as a ring of small ball bearings: the largest that the spline has room for.
 * @returns undefined where none of the shelf fit
 */
export function rollersFor(p: StrainWaveParams, shelf: Shelf): StrainWaveParams | undefined {
  const made = buildStrainWave(p, shelf);
  if (!made.ok) return undefined;
  const { geometry: g } = made.value;
  const inside = g.radius - g.wall / 2;
  for (const rollers of ROUND.filter((n) => n % p.lobes === 0)) {
    const chord = Math.sin(Math.PI / rollers);
    // Middles stand at inside − r: 2(inside − r)·sin(π/N) from one to the next.
    const largest = FILLED * 2 * ((inside * chord) / (1 + chord));
    const fitting = shelf.bearings
      .filter((b) => isBall(b) && b.outside <= largest)
      .sort((a, b) => b.outside - a.outside || b.static - a.static);
    for (const b of fitting.slice(0, 3)) {
      const tried: StrainWaveParams = { ...p, shape: 'many', rollers, bearing: b.id };
      const one = buildStrainWave(tried, shelf);
      if (!one.ok) continue;
      const shaft = Math.min(p.shaft, Math.floor(one.value.bore * 1e3) / 1e3);
      if (!wrongStrainWave({ ...tried, shaft }, one.value)) return { ...tried, shaft };
    }
  }
  return undefined;
}
