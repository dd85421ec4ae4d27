import { asToothMaterial, type ToothMaterial } from '../../gear/index.ts';
import type { ContactSet } from '../../lobed/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import type { Bearing } from '../../schema/joint.ts';
import type { BeltSection } from '../../shop/section.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { contactsOf } from './contacts.ts';
import { strainWaveGeometry, type StrainWaveGeometry } from './geometry.ts';
import { hasRollers, type StrainWaveParams } from './params.ts';

/** A strain-wave stage before any duty. */
export interface StrainWaveBuild {
  readonly geometry: StrainWaveGeometry;
  /** Spline, ring, generator. */
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /** Radius at which rollers' middles stand, or of the generator's plug at a lobe's top, m. */
  readonly seat: number;
  /** Middles of the rollers round the generator, a lobe's top on the x axis, m; none for a contour. */
  readonly rollers: readonly (readonly [x: number, y: number])[];
  /** Largest bore of the generator, m. */
  readonly bore: number;
  /** Teeth in their spaces, as contacts that close when the spline is turned on. */
  readonly contacts: ContactSet;
}

/** What a belt is of across its cords, which carry only along it: they lie in the neutral line and bend with nothing. */
const beltBody = (section: BeltSection, shelf: Shelf): ToothMaterial =>
  asToothMaterial({
    id: 'belt',
    name: `a belt ${section.name}`,
    made: 'bought',
    strength: factor(shelf, 'belt.body'),
    modulus: factor(shelf, 'belt.body'),
    softening: BELT_SOFTENS,
    density: factor(shelf, section.ids.mass) / section.height,
    price: 0,
    source: 'the belt’s own',
  });
/** Belts are warm enough for nothing more at 80 °C. */
const BELT_SOFTENS = 353.15;

/** Materials of spline, ring and generator; a belt is its own. */
function splineRingGenerator(
  p: StrainWaveParams,
  section: BeltSection | undefined,
  shelf: Shelf,
): Result<readonly [ToothMaterial, ToothMaterial, ToothMaterial]> {
  if (!section) return needMaterials(p, ['materialS', 'materialR', 'materialG'], shelf);
  const others = needMaterials(p, ['materialR', 'materialG'], shelf);
  return others.ok ? ok([beltBody(section, shelf), ...others.value]) : others;
}

/** Builds a stage; refuses in words what does not go together. */
export function buildStrainWave(p: StrainWaveParams, shelf: Shelf): Result<StrainWaveBuild> {
  const made = strainWaveGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const materials = splineRingGenerator(p, g.section, shelf);
  if (!materials.ok) return materials;
  const use = hasRollers(p) ? 'It is what rolls in the spline.' : 'It is what the spline rides on.';
  const found = needBearing(p.bearing, shelf, use);
  if (!found.ok) return found;
  const bearing = found.value;
  const w0 = g.throw;
  const inner = g.radius - g.wall / 2;
  const rollers = hasRollers(p);

  // What the generator takes up inside.
  const seat = rollers
    ? inner + w0 - bearing.outside / 2
    : inner + w0 - (p.run === 'bearing' ? (bearing.outside - bearing.bore) / 2 : 0);
  const places = rollerPlaces(p, g, bearing.outside);
  const bore = rollers
    ? Math.max(0, 2 * (Math.min(...places.map(([x, y]) => Math.hypot(x, y))) - bearing.outside / 2 - 1e-3))
    : Math.max(0, 2 * ((p.run === 'bearing' ? bearing.bore / 2 : inner) - w0 * 1.05 - 2.5e-3));
  return ok({
    geometry: g,
    materials: materials.value,
    bearing,
    seat,
    rollers: places,
    bore,
    contacts: contactsOf(g, p),
  });
}

/** Distance of the middles of the rollers nearest to one another, m; Infinity for fewer than two. */
function closestRollers(places: StrainWaveBuild['rollers']): number {
  if (places.length < 2) return Infinity;
  return Math.min(
    ...places.map(([x, y], k) => {
      const next = places[(k + 1) % places.length]!;
      return Math.hypot(next[0] - x, next[1] - y);
    }),
  );
}

/**
 * Middles of the rollers, m: each touches the wall where that is at the roller's angle, and stands the gap further in.
 * @param outside of a roller, m
 */
function rollerPlaces(
  p: StrainWaveParams,
  g: StrainWaveGeometry,
  outside: number,
): (readonly [x: number, y: number])[] {
  const at = new Float64Array(4);
  const d = g.wall / 2 + outside / 2 + p.slack;
  return rollerAngles(p, g).map((a) => {
    let along = a;
    // Points of the line run a little ahead of, or behind, their place at rest.
    for (let k = 0; k < 4; k++) {
      g.made.at(along * g.radius, at);
      const off = a - Math.atan2(at[1]!, at[0]!);
      along += off - 2 * Math.PI * Math.round(off / (2 * Math.PI));
    }
    g.made.at(along * g.radius, at);
    return [at[0]! - d * Math.cos(at[2]!), at[1]! - d * Math.sin(at[2]!)];
  });
}

/** What does not go together, in words; it can still be drawn. */
export function misfit(p: StrainWaveParams, b: StrainWaveBuild): Result<never> | undefined {
  const { geometry: g, bearing, seat, bore } = b;
  const w0 = g.throw;
  const rollers = hasRollers(p);
  if (rollers && !(seat > bearing.bore / 2 + 1e-3))
    return refuse(
      'The rollers do not fit inside the spline.',
      `Rollers of ⌀ ${stated(bearing.outside, 'length', 4)} would stand ${stated(seat, 'length', 4)} from the middle.`,
      'Take smaller rollers or more teeth.',
      'bearing',
    );
  const closest = closestRollers(b.rollers);
  if (rollers && closest < bearing.outside)
    return refuse(
      'Neighbouring rollers run into one another.',
      `Their middles are ${stated(closest, 'length', 4)} apart, each is ⌀ ${stated(bearing.outside, 'length', 4)}.`,
      p.shape === 'many' ? 'Take fewer or smaller rollers.' : 'Set them wider apart, or take smaller ones.',
      p.shape === 'many' ? 'rollers' : p.shape === 'four' ? 'spread' : 'bearing',
    );
  if (!rollers && p.run === 'bearing' && !(bearing.bore / 2 - w0 > 1.5e-3))
    return refuse(
      'The bearing leaves no plug to push it out.',
      `Its bore of ${stated(bearing.bore, 'length', 4)} is drawn in by ${stated(w0, 'length', 4)}.`,
      'Take a larger bearing.',
      'bearing',
    );
  if (p.shaft > bore + 1e-9)
    return refuse(
      'The motor’s shaft leaves no wall in the generator.',
      `At most ⌀ ${stated(bore, 'length', 4)} can be bored, ${stated(p.shaft, 'length', 4)} are wanted.`,
      'Take a thinner shaft or a larger generator.',
      'shaft',
    );
  return undefined;
}

/** Angles of the rollers round the generator, rad, from a lobe's top. */
function rollerAngles(p: StrainWaveParams, g: Pick<StrainWaveGeometry, 'line'>): number[] {
  if (!hasRollers(p)) return [];
  if (p.shape === 'many') return Array.from({ length: p.rollers }, (_, k) => (2 * Math.PI * k) / p.rollers);
  const half = p.shape === 'four' ? g.line.form.spread : 0;
  return Array.from({ length: p.lobes }, (_, k) => (2 * Math.PI * k) / p.lobes).flatMap((a) =>
    half > 0 ? [a - half, a + half] : [a],
  );
}
