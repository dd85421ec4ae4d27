import {
  deadPoints,
  lobeCurvature,
  mostTorque,
  smallestHollow,
  type PlateDrive,
  type PlateForces,
  type PlateProfile,
} from '../../lobed/index.ts';
import { ok, type Result } from '../../result.ts';
import { phasesOf, type RingPlateParams } from './params.ts';
import { inMm as mm, stop } from '../refuse-stage.ts';
import { steppedDown } from '../../math/steps.ts';

/** Crank angles of a turn at which the plates are looked at. */
export const STEPS = 36;

/** The pins against one plate; arrays by pin. */
export interface PlateContacts {
  readonly nx: Float64Array;
  readonly ny: Float64Array;
  readonly arms: Float64Array;
  readonly slides: Float64Array;
  /** Angle at which each pin stands about the plate's middle, rad, and lever of its push about that, m. */
  readonly at: Float64Array;
  readonly levers: Float64Array;
  /** Curvature of the lobe at each pin, 1/m; hollow where it lies round it. */
  readonly curves: Float64Array;
}

/** A ring-plate stage; everything that no factor moves. */
export interface RingPlateGeometry {
  readonly profile: PlateProfile;
  readonly drive: PlateDrive;
  readonly hollow: number;
  readonly course: Float64Array;
  readonly greatest: number;
  readonly score: number;
  readonly steps: readonly {
    readonly torque: number;
    readonly plates: readonly PlateForces[];
    readonly contacts: readonly PlateContacts[];
  }[];
  readonly clocking: readonly number[];
  readonly alike: boolean;
}

/** The plates' lobes: cut for pins as much larger in radius as the gap. */
const profileOf = (p: RingPlateParams): PlateProfile => ({
  pins: p.pins,
  circle: p.circle / 2,
  pin: p.pin / 2 + p.offset,
  throw: p.throw,
});

/** Where the pins push a plate whose eccentric points along `crank`, the wheel standing as that crank has it. */
export function plateContacts(p: RingPlateParams, crank: number, wheel: number): PlateContacts {
  const profile = profileOf(p);
  const make = () => new Float64Array(p.pins);
  const out = { nx: make(), ny: make(), arms: make(), slides: make(), at: make(), levers: make(), curves: make() };
  const [px, py] = [-p.pins * p.throw * Math.cos(crank), -p.pins * p.throw * Math.sin(crank)];
  for (let j = 0; j < p.pins; j++) {
    const a = (2 * Math.PI * j) / p.pins + wheel;
    const [x, y] = [(p.circle / 2) * Math.cos(a), (p.circle / 2) * Math.sin(a)];
    const far = Math.hypot(x - px, y - py);
    out.nx[j] = (x - px) / far;
    out.ny[j] = (y - py) / far;
    out.arms[j] = x * out.ny[j]! - y * out.nx[j]!;
    out.slides[j] = far + p.pin / 2;
    const [across, up] = [x - p.throw * Math.cos(crank), y - p.throw * Math.sin(crank)];
    out.at[j] = Math.atan2(up, across);
    out.levers[j] = across * out.ny[j]! - up * out.nx[j]!;
    out.curves[j] = lobeCurvature(profile, a - crank);
  }
  return out;
}

/** Geometry of a stage; refuses in words what cannot be. */
export function ringPlateGeometry(p: RingPlateParams): Result<RingPlateGeometry> {
  const R = p.circle / 2;
  if (!(p.throw < (0.98 * R) / p.pins)) {
    const value = steppedDown((0.75 * R) / p.pins, 5e-5);
    return stop(
      `An eccentricity of ${mm(p.throw)} loops the lobes back on themselves.`,
      `It must stay below R/Z = ${mm(R / p.pins)}.`,
      `Take ${mm(value)} or less, fewer pins or a larger circle.`,
      'throw',
      value >= 5e-5 ? { path: 'throw', value, label: `Eccentricity ${mm(value)}` } : undefined,
    );
  }
  const apart = p.circle * Math.sin(Math.PI / p.pins);
  if (!(p.pin < apart)) {
    const value = steppedDown(0.85 * apart, 1e-4);
    return stop(
      'Neighbouring pins overlap.',
      `${p.pins} pins on ⌀ ${mm(p.circle)} leave ${mm(apart)} from middle to middle.`,
      `Take pins of ${mm(value)} or less, or fewer of them.`,
      'pin',
      { path: 'pin', value, label: `Pins ${mm(value)}` },
    );
  }
  const profile = profileOf(p);
  const hollow = smallestHollow(profile);
  if (!(profile.pin < hollow)) {
    const value = steppedDown(2 * (0.9 * hollow - p.offset), 1e-4);
    return stop(
      'The pins are too large: the tips of the plates’ lobes are cut away.',
      `Cut for a radius of ${mm(profile.pin)}, while the path of the pins is hollow as sharply as ${mm(hollow)}.`,
      `Take pins of ${mm(value)} or less, or less eccentricity.`,
      'pin',
      value >= 5e-4
        ? { path: 'pin', value, label: `Pins ${mm(value)}` }
        : { path: 'throw', value: steppedDown(0.8 * p.throw, 5e-5), label: 'Less eccentricity' },
    );
  }
  const phases = phasesOf(p);
  const drive: PlateDrive = { pins: p.pins, throw: p.throw, distance: p.distance, layout: p.layout, phases };
  const { torques, greatest, score } = deadPoints(drive, 48);
  const steps = Array.from({ length: STEPS }, (_, k) => {
    const crank = (2 * Math.PI * k) / STEPS;
    return {
      ...mostTorque(drive, crank),
      contacts: phases.map((phase) => plateContacts(p, crank + phase, -crank / p.pins)),
    };
  });
  const lobe = (2 * Math.PI) / (p.pins + 1);
  const clocking = phases.map((phase) => {
    const turn = phase / (p.pins + 1);
    const rest = turn - lobe * Math.round(turn / lobe);
    return Math.abs(rest) < 1e-12 ? 0 : rest;
  });
  return ok({
    profile,
    drive,
    hollow,
    course: torques,
    greatest,
    score,
    steps,
    clocking,
    alike: clocking.every((c) => Math.abs(c) < 1e-9),
  });
}
