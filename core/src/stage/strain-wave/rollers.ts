import type { Shelf } from '../../shop/shelf.ts';
import { isBall } from '../../shop/bearings.ts';
import type { Mend } from '../../figure/index.ts';
import type { Result } from '../../result.ts';
import type { StageProblem } from '../contract.ts';
import { buildStrainWave, misfit, type StrainWaveBuild } from './build.ts';
import { hasRollers, type StrainWaveParams } from './params.ts';

/** Rollers round a contour, so that a spline is carried at its lobes and drawn in between. */
const ROUND = [12, 8];
/** Rollers may take up as much of the chord from one to the next. */
const FILLED = 0.92;

/** A generator with its shaft no thicker than it has room for; undefined where it does not go together. */
function goesWith(p: StrainWaveParams, shelf: Shelf): StrainWaveParams | undefined {
  const one = buildStrainWave(p, shelf);
  if (!one.ok) return undefined;
  const shaft = Math.min(p.shaft, Math.floor(one.value.bore * 1e3) / 1e3);
  return misfit({ ...p, shaft }, one.value) ? undefined : { ...p, shaft };
}

/** The largest ball bearing of the shelf that goes in as a roller, rather with the shaft as it is; undefined where none does. */
function rollerMend(p: StrainWaveParams, across: number, shelf: Shelf): Mend | undefined {
  const smaller = shelf.bearings.filter((b) => isBall(b) && b.outside < across).sort((a, b) => b.outside - a.outside);
  let thinner: Mend | undefined;
  for (const b of smaller) {
    const found = goesWith({ ...p, bearing: b.id }, shelf);
    if (!found) continue;
    const mend = { path: 'bearing', value: b.id, label: `Rollers ${b.name}` };
    if (found.shaft === p.shaft) return mend;
    thinner ??= { ...mend, also: { shaft: found.shaft } };
  }
  return thinner;
}

/** What does not go together, in words; where rollers are too large, with the largest that are not. */
export function wrongStrainWave(p: StrainWaveParams, b: StrainWaveBuild, shelf: Shelf): Result<never> | undefined {
  const wrong = misfit(p, b);
  if (!wrong || wrong.ok || !hasRollers(p)) return wrong;
  const fix = rollerMend(p, b.bearing.outside, shelf);
  const problem: StageProblem = { ...wrong.problem, ...(fix && { fix }) };
  return { ok: false, problem };
}

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
      const found = goesWith({ ...p, shape: 'many', rollers, bearing: b.id }, shelf);
      if (found) return found;
    }
  }
  return undefined;
}
