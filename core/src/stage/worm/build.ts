import { crossedCylinders, reducedModulus } from '../../contact/index.ts';
import { boreReach, type ToothMaterial } from '../../gear/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import type { Bearing } from '../../schema/joint.ts';
import { isNeedle } from '../../shop/bearings.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import { couplingFor, ENDS_APART, HOLDER, reachInto, type Coupling } from '../coupling.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { frictionAngle } from './forces.ts';
import { wormGeometry, type WormGeometry } from './geometry.ts';
import type { WormParams } from './params.ts';

const hubOf = (bore: number, shape: WormParams['shape1']) => ({
  bore,
  shape,
  bolts: 0,
  boltCircle: 0,
  boltHole: 0,
  nuts: false,
});

/** A worm stage before any duty. */
export interface WormBuild {
  readonly geometry: WormGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /** What takes the end of a worm's own shaft; undefined for one that is bored, or too thick for any. */
  readonly coupling: Coupling | undefined;
  /** How far a worm's own shaft stands out beyond the bearing where it is driven, m. */
  readonly stub: number;
  /** What is left between roots and bore of worm and wheel, m; Infinity for a worm on its own shaft. */
  readonly wall1: number;
  readonly wall2: number;
  /** Reduced modulus of both by the shop, Pa, which the pressure of a point was worked out for. */
  readonly modulus: number;
  /** Pressure of fresh flanks, which touch in a point, under one newton, Pa. */
  readonly pointPressure: number;
}

/** How far a worm's own shaft stands out where no coupling takes it, m. */
const STUB = 0.012;

/**
 * How far a worm's own shaft stands out beyond its bearing, m: into a coupling, which stands clear of wheel and bearing, and of
 * what holds that.
 *
 * @param over the wheel's tip radius, m
 * @param wide the bearing's width, m
 */
export const stubOf = (
  { span }: Pick<WormParams, 'span'>,
  over: number,
  wide: number,
  c: Coupling | undefined,
): number => (c ? Math.max(HOLDER, over - (span + wide) / 2) : 0) + reachInto(c, STUB);

/** How far what drives a bored worm stands off its bearing and the wheel, m. */
const STANDS_OFF = 3e-3;

/** How far from the wheel's axis the worm's own shaft reaches where it is driven, m. */
export const endOf = (
  { span }: Pick<WormParams, 'span'>,
  { bearing, stub }: Pick<WormBuild, 'bearing' | 'stub'>,
): number => (span + bearing.width) / 2 + stub;

/** How far from the wheel's axis, along the worm's, what drives it begins, m. */
export const beginsAt = (
  p: Pick<WormParams, 'span' | 'bore1'>,
  b: Pick<WormBuild, 'bearing' | 'stub' | 'geometry'>,
): number =>
  p.bore1 > 0 ? Math.max((p.span + b.bearing.width) / 2, b.geometry.mesh.s2.ra) + STANDS_OFF : endOf(p, b) + ENDS_APART;

/** Builds a stage; refuses in words what does not go together. */
export function buildWorm(p: WormParams, shelf: Shelf): Result<WormBuild> {
  const made = wormGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const m = g.mesh;
  const materials = needMaterials(p, ['material1', 'material2'], shelf);
  if (!materials.ok) return materials;
  const found = needBearing(p.bearing, shelf, 'The worm’s shaft runs in two of them and leans on one.');
  if (!found.ok) return found;
  const bearing = found.value;
  const wall1 = p.bore1 > 0 ? m.sides[0].root - boreReach(hubOf(p.bore1, p.shape1)) : Infinity;
  const wall2 = m.sides[1].root - boreReach(hubOf(p.bore2, p.shape2));
  const [a, b] = materials.value;
  const coupling = p.bore1 > 0 ? undefined : couplingFor(bearing.bore);
  const modulus = reducedModulus(a.material.modulus, a.poisson, b.material.modulus, b.poisson);
  return ok({
    geometry: g,
    materials: materials.value,
    bearing,
    coupling,
    stub: p.bore1 > 0 ? 0 : stubOf(p, m.s2.ra, bearing.width, coupling),
    wall1,
    wall2,
    modulus,
    pointPressure: crossedCylinders(1, m.rho1, m.rho2, m.generators, modulus).pressure,
  });
}

/** Coefficient of friction of the teeth, as given or as the shop has it. */
export const frictionOf = (p: WormParams, shelf: Shelf): number =>
  p.frictionBy === 'given' ? p.friction : factor(shelf, 'worm.friction');

/** What does not go together, in words; it can still be drawn. */
export function wrongWorm(p: WormParams, b: WormBuild, shelf: Shelf): Result<never> | undefined {
  const { geometry: g, bearing, wall1, wall2 } = b;
  const rubbing = frictionAngle(frictionOf(p, shelf), p.pressure);
  const m = g.mesh;
  if (isNeedle(bearing))
    return refuse(
      `${bearing.name} takes no thrust.`,
      'A worm pushes along its shaft as hard as its wheel pulls round; needles carry across it only.',
      'Choose ball bearings.',
      'bearing',
    );
  if (wall1 <= 0)
    return refuse(
      'The bore cuts into the worm’s thread.',
      `Its roots reach down to ⌀ ${stated(2 * m.sides[0].root, 'length', 4)}.`,
      'Take a smaller bore, or a larger quotient.',
      'bore1',
    );
  if (wall2 <= 0)
    return refuse(
      'The bore cuts into the wheel’s teeth.',
      `Its roots reach down to ⌀ ${stated(2 * m.sides[1].root, 'length', 4)}.`,
      'Take a smaller bore, or more teeth.',
      'bore2',
    );
  if (g.lead + rubbing > 1.5)
    return refuse(
      'With so much friction the worm cannot turn its wheel at all.',
      `Lead and friction angle come to ${stated(g.lead + rubbing, 'angle', 3)}; at 90° the thread jams.`,
      'Give a smaller coefficient of friction, or fewer starts.',
      p.frictionBy === 'given' ? 'friction' : 'starts',
    );
  return undefined;
}
