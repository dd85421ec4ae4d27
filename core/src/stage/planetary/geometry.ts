import { stated } from '../../units/stated.ts';
import {
  trimTips,
  makeMesh,
  meshPair,
  plainCentre,
  shiftSum,
  steppedPlaces,
  wheel,
  type Gear,
  type Mesh,
} from '../../gear/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import type { StageProblem } from '../contract.ts';
import type { PlanetaryParams } from './params.ts';

/**
 * Radius of the carrier's plates, m: half a pin of wall round the planets' pins, two millimetres at least.
 * @example carrierRadius({ pin: 4e-3 }, 0.01125) // 0.01525
 */
export const carrierRadius = ({ pin }: Pick<PlanetaryParams, 'pin'>, centre: number): number =>
  centre + Math.max(pin, pin / 2 + 2e-3);

/** Everything about a planetary set that no factor moves. */
export interface PlanetaryGeometry {
  readonly sun: Gear;
  readonly planet: Gear;
  readonly ring: Gear;
  readonly sunMesh: Mesh;
  readonly ringMesh: Mesh;
  readonly centre: number;
  /** Shift of the ring with which both meshes have one centre distance. */
  readonly ringShift: number;
  readonly places: readonly number[];
  /** Least gap between the tips of neighbouring planets, m. */
  readonly gap: number;
  readonly outside: number;
}

/** Geometry of a set; refuses in words what does not close. */
export function planetaryGeometry(p: PlanetaryParams): Result<PlanetaryGeometry> {
  const fit = p.zs + 2 * p.zp;
  if (p.zr <= p.zp + 2) {
    const problem: StageProblem = {
      what: `A ring of ${p.zr} teeth has no room for planets of ${p.zp} round a sun of ${p.zs}.`,
      why: `Sun and two planets span ${fit} teeth.`,
      mend: `Give the ring ${fit} teeth, or smaller planets.`,
      place: 'zr',
      fix: { path: 'zr', value: fit, label: `Ring ${fit} teeth` },
    };
    return { ok: false, problem };
  }
  const sunBase = wheel(p, p.zs, { helix: p.helix, shift: p.xs, allowance: p.allowanceS });
  const planetBase = wheel(p, p.zp, { helix: -p.helix, shift: p.xp, allowance: p.allowanceP });
  const pair = meshPair(sunBase, planetBase);
  if (!pair.ok) return pair;
  const centre = pair.value.centre;
  const sum = shiftSum(p.module, p.zp, p.zr, p.pressure, p.helix, true, centre);
  if (!sum.ok || Math.abs(sum.value + p.xp) > 1.6) {
    const plain = plainCentre(p.module, p.zp, p.zr, p.helix, true);
    const problem: StageProblem = {
      what: `A ring of ${p.zr} teeth does not close round sun ${p.zs} and planets ${p.zp}.`,
      why: `The sun sets the planets ${stated(centre, 'length', 5)} out; the ring wants ${stated(plain, 'length', 5)}, too far to shift.`,
      mend: `Give the ring ${fit} teeth, or one or two more or fewer.`,
      place: 'zr',
      fix: { path: 'zr', value: fit, label: `Ring ${fit} teeth` },
    };
    return { ok: false, problem };
  }
  const ringShift = sum.value + p.xp;
  const ringBase = wheel(p, p.zr, {
    helix: -p.helix,
    ring: true,
    shift: ringShift,
    allowance: p.allowanceR,
    cutter: p.zp,
  });
  const [shortS, shortP1] = p.trim === 'yes' ? trimTips(sunBase, planetBase) : [0, 0];
  const [shortP2, shortR] = p.trim === 'yes' ? trimTips(planetBase, ringBase) : [0, 0];
  const sun = { ...sunBase, short: shortS };
  const planet = { ...planetBase, short: Math.max(shortP1, shortP2) };
  const ring = { ...ringBase, short: shortR };
  const sunMesh = makeMesh(sun, planet, p.width, p.double === 'yes');
  if (!sunMesh.ok) return sunMesh;
  const ringMesh = makeMesh(planet, ring, p.width, p.double === 'yes');
  if (!ringMesh.ok) return ringMesh;
  const places =
    p.spacing === 'even'
      ? Array.from({ length: p.planets }, (_, i) => (2 * Math.PI * i) / p.planets)
      : steppedPlaces(p.zs, p.zr, p.planets);
  let nearest = Infinity;
  places.forEach((a, i) => {
    const b = places[(i + 1) % places.length]! + (i + 1 === places.length ? 2 * Math.PI : 0);
    nearest = Math.min(nearest, 2 * centre * Math.sin((b - a) / 2));
  });
  const root = ringMesh.value.sides[1].root;
  if (root + p.rim <= 0)
    return refuse('The ring has no wall.', 'Its outside lies within its roots.', 'Give it a thicker wall.', 'rim');
  return ok({
    sun,
    planet,
    ring,
    sunMesh: sunMesh.value,
    ringMesh: ringMesh.value,
    centre,
    ringShift,
    places,
    gap: nearest - 2 * sunMesh.value.pair.s2.ra,
    outside: 2 * (root + p.rim),
  });
}
