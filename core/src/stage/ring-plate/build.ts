import type { ToothMaterial } from '../../gear/index.ts';
import { Rim } from '../../gear/rim.ts';
import { ok, refuse, type Result } from '../../result.ts';
import type { Bearing } from '../../schema/joint.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { ringPlateGeometry, type RingPlateGeometry } from './geometry.ts';
import type { RingPlateParams } from './params.ts';
import { spreadOf, type PlateSpread } from './spread.ts';

/** A ring-plate stage before any duty. */
export interface RingPlateBuild {
  readonly geometry: RingPlateGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /** Reach of the lobes from the wheel's middle, m. */
  readonly inner: number;
  readonly spread: PlateSpread;
  /** Levers of the play by crank angle, one over metres times the gap. */
  readonly drawnPlay: number;
}

/** Builds a stage; refuses in words what does not go together. */
export function buildRingPlate(p: RingPlateParams, shelf: Shelf): Result<RingPlateBuild> {
  const made = ringPlateGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const materials = needMaterials(p, ['materialP', 'materialW', 'materialH'], shelf);
  if (!materials.ok) return materials;
  const found = needBearing(p.bearing, shelf, 'Each plate turns on one on every eccentric.');
  if (!found.ok) return found;
  const bearing = found.value;
  const R = p.circle / 2;
  const inner = R + p.throw + p.pin / 2 + p.offset;
  return ok({
    geometry: g,
    materials: materials.value,
    bearing,
    inner,
    spread: spreadOf(g, p.pin, rimOf(p, inner, bearing)),
    drawnPlay: drawnPlay(p, g),
  });
}

/** A plate about the wheel as a rim: from its lobes' reach to its outside, which goes straight to the eyes of its cranks. */
export function rimOf(p: RingPlateParams, inner: number, bearing: Pick<Bearing, 'outside'>): Rim {
  const big = inner + p.wall;
  const small = bearing.outside / 2 + p.wall;
  const leaves = Math.acos(Math.max(-1, Math.min(1, (big - small) / p.distance)));
  return new Rim(inner + p.wall / 2, (angle) => {
    const off = Math.acos(Math.cos(angle));
    const eye = p.layout === 'one' ? off : Math.min(off, Math.PI - off);
    const out = eye >= leaves ? big : Math.min(big / Math.cos(leaves - eye), p.distance + small);
    return out - inner;
  });
}

/** What does not go together, in words; it can still be drawn. */
export function wrongRingPlate(p: RingPlateParams, { bearing, inner }: RingPlateBuild): Result<never> | undefined {
  const R = p.circle / 2;
  if (p.distance - bearing.outside / 2 <= inner)
    return refuse(
      'A crank’s bearing breaks into the lobes.',
      `The lobes reach out to ${stated(inner, 'length', 4)}, the bearing in to ` +
        `${stated(p.distance - bearing.outside / 2, 'length', 4)} from the wheel’s middle.`,
      `Move the crank out to ${stated(inner + bearing.outside / 2 + 2e-3, 'length', 4)} or more, or take a smaller bearing.`,
      'distance',
    );
  if (p.shaft > 0 && p.shaft / 2 + p.throw >= bearing.bore / 2 - 3e-4)
    return refuse(
      'The motor’s shaft breaks through the eccentric.',
      `The eccentric of ⌀ ${stated(bearing.bore, 'length', 4)} stands ${stated(p.throw, 'length', 4)} beside the shaft’s middle.`,
      'Take larger bearings, a thinner shaft or less eccentricity.',
      'shaft',
    );
  if (p.bore / 2 >= R - p.pin / 2 - 5e-4)
    return refuse(
      'The bore leaves no wheel for its pins.',
      `They reach in to ⌀ ${stated(2 * R - p.pin, 'length', 4)}.`,
      'Take a smaller bore.',
      'bore',
    );
  return undefined;
}

/**
 * Mean play over a turn of the crank with pins and lobes as drawn, rad: the gap over the longest lever, either way; of
 * several plates the first to touch stops the wheel.
 */
function drawnPlay(p: RingPlateParams, g: RingPlateGeometry): number {
  const plays = g.steps.map((s) => {
    const on = Math.max(...s.contacts.map((c) => Math.max(...c.arms)));
    const back = Math.max(...s.contacts.map((c) => -Math.min(...c.arms)));
    return p.offset / on + p.offset / back;
  });
  return plays.reduce((a, b) => a + b, 0) / plays.length;
}
