import type { ToothMaterial } from '../../gear/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import type { Bearing } from '../../schema/joint.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { steppedUp } from '../../math/steps.ts';
import { inMm, stop } from '../refuse-stage.ts';
import { cycloidalGeometry, seated, wallBehind, type CycloidalGeometry } from './geometry.ts';
import { outPushes, reaches, type OutPushes } from './output-pins.ts';
import type { CycloidalParams } from './params.ts';

/** A cycloidal stage before any duty. */
export interface CycloidalBuild {
  readonly geometry: CycloidalGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /** How the discs push the output pins. */
  readonly pushes: OutPushes;
  /** Across a hole of the output pins, m. */
  readonly hole: number;
  /** Thinnest places of a disc: between holes, to the bearing's seat, to the hollows, m. */
  readonly webs: { readonly hole: number; readonly bearing: number; readonly rim: number };
}

/** Builds a stage; refuses in words what does not go together. */
export function buildCycloidal(p: CycloidalParams, shelf: Shelf): Result<CycloidalBuild> {
  const made = cycloidalGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const materials = needMaterials(p, ['materialD', 'materialP', 'materialH'], shelf);
  if (!materials.ok) return materials;
  const found = needBearing(p.bearing, shelf, 'Each disc turns on one, on its eccentric.');
  if (!found.ok) return found;
  const bearing = found.value;
  const hole = p.outPin + 2 * p.throw + p.outGap;
  const small = g.profile.circle - g.profile.pin - p.throw;
  const neighbours = p.outCircle * Math.sin(Math.PI / p.outPins) - hole;
  const webs = {
    hole: neighbours,
    bearing: (p.outCircle - hole - bearing.outside) / 2,
    rim: small - (p.outCircle + hole) / 2,
  };
  return ok({ geometry: g, materials: materials.value, bearing, hole, webs, pushes: outPushes(p, reaches(p)) });
}

/** What does not go together, in words; it can still be drawn. */
export function wrongCycloidal(p: CycloidalParams, b: CycloidalBuild): Result<never> | undefined {
  const { geometry: g, bearing, hole, webs } = b;
  const small = g.profile.circle - g.profile.pin - p.throw;
  if (!(wallBehind(p) > 0)) {
    const value = steppedUp(p.rim - wallBehind(p) + 2e-3, 5e-4);
    return stop(
      seated(p) ? 'The pins stand out of the housing.' : 'The housing has no wall.',
      `A wall of ${inMm(p.rim)} outside the pins’ middles ends ${inMm(-wallBehind(p))} within ${seated(p) ? 'the pins' : 'its own bore'}.`,
      `Take ${inMm(value)} or more.`,
      'rim',
      { path: 'rim', value, label: `Wall ${inMm(value)}` },
    );
  }
  if (webs.bearing <= 0)
    return refuse(
      'The output holes break into the bearing’s seat.',
      `Holes of ${stated(hole, 'length', 4)} on ⌀ ${stated(p.outCircle, 'length', 4)} reach in to ⌀ ` +
        `${stated(p.outCircle - hole, 'length', 4)}, the bearing out to ` +
        `${stated(bearing.outside, 'length', 4)}.`,
      'Take a larger circle of output pins, thinner pins or a smaller bearing.',
      'outCircle',
    );
  if (webs.rim <= 0)
    return refuse(
      'The output holes break through the lobes.',
      `They reach out to ⌀ ${stated(p.outCircle + hole, 'length', 4)}, the hollows in to ${stated(2 * small, 'length', 4)}.`,
      'Take a smaller circle of output pins, or thinner pins.',
      'outCircle',
    );
  if (webs.hole <= 0)
    return refuse(
      'Neighbouring output holes run into one another.',
      `${p.outPins} holes of ${stated(hole, 'length', 4)} do not fit on ⌀ ${stated(p.outCircle, 'length', 4)}.`,
      'Take fewer or thinner output pins.',
      'outPins',
    );
  if (p.shaft / 2 + p.throw >= bearing.bore / 2 - 3e-4)
    return refuse(
      'The motor’s shaft breaks through the eccentric.',
      `The eccentric of ⌀ ${stated(bearing.bore, 'length', 4)} stands ${stated(p.throw, 'length', 4)} beside the shaft’s middle.`,
      'Take a larger bearing, a thinner shaft or less eccentricity.',
      'shaft',
    );
  return undefined;
}
