import { stated } from '../../units/stated.ts';
import { reducedModulus } from '../../contact/index.ts';
import { flankLimit, modeLimits, type Mode, type ToothMaterial } from '../../gear/index.ts';
import type { Bearing } from '../../schema/joint.ts';
import { linePressure, pinContact, platePathRadius } from '../../lobed/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { ringPlateGeometry, type RingPlateGeometry } from './geometry.ts';
import { spreadOf, type PlateSpread } from './spread.ts';
import { ringPlateRatio, type RingPlateParams } from './params.ts';

/** Everything computed about a ring-plate stage. */
export interface RingPlateModel {
  readonly geometry: RingPlateGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /** Stiffness of one contact, N/m. */
  readonly contact: number;
  /** Worst over a turn at the peak: crank force, pin force, pressure. */
  readonly crankForce: number;
  readonly crankMean: number;
  readonly pinForce: number;
  readonly pressure: number;
  readonly lossPins: number;
  readonly lossBearings: number;
  readonly forward: number;
  readonly backward: number;
  readonly bind: number;
  readonly shaking: number;
  readonly modes: readonly Mode[];
  readonly masses: readonly [number, number];
  readonly numbers: StageNumbers;
}

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
    spread: spreadOf(g),
    drawnPlay: drawnPlay(p, g),
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
 * Mean play over a turn of the crank with pins and lobes as drawn, rad: a plate alone plays by its gap over the longest
 * levers either way; several leave what the tightest leaves.
 */
function drawnPlay(p: RingPlateParams, g: RingPlateGeometry): number {
  const plays = g.steps.map((s) =>
    Math.min(...s.contacts.map((c) => p.offset / Math.max(...c.arms) + p.offset / -Math.min(...c.arms))),
  );
  return plays.reduce((a, b) => a + b, 0) / plays.length;
}

/** Computes a ring-plate stage at a duty on its wheel. */
export function modelRingPlate(p: RingPlateParams, built: RingPlateBuild, at: Duty, shelf: Shelf): RingPlateModel {
  const { geometry: g, bearing, inner, spread: s, drawnPlay: drawn } = built;
  const [mp, mw, mh] = built.materials;
  const R = p.circle / 2;
  const modulus = reducedModulus(mp.material.modulus, mp.poisson, mw.material.modulus, mw.poisson);
  const contact = pinContact(modulus, p.width, factor(shelf, 'lobe.seat') * Math.min(1, mh.material.modulus / 3e9));
  const mu = factor(shelf, p.pinsRun === 'fixed' ? 'lobe.slide' : 'lobe.roll');
  const roll = factor(shelf, 'pin.roll');
  const torque = Math.max(1e-3, at.torque);
  const pinForce = s.pinForce * torque;
  const crankForce = s.crankForce * torque;
  const lossPins = mu * s.pinSlide;
  const lossBearings = roll * s.crankSum * (bearing.bore / 2) * p.pins;
  // The sharpest meeting of pin and lobe: the lobe's tip, where the plate bulges inwards.
  const tip = platePathRadius(g.profile, Math.PI / (p.pins + 1));
  const curve = tip < 0 ? 1 / (-tip - g.profile.pin) : -1 / (tip + g.profile.pin);
  const pressure = linePressure(pinForce, p.width, modulus, 2 / p.pin + curve);
  const loss = lossPins + lossBearings;
  const rough = 2 / (p.pins * p.throw);
  const spread = rough * Math.hypot(factor(shelf, 'lobe.profile'), factor(shelf, 'lobe.place'));
  const likely = Math.max(0, drawn - rough * factor(shelf, 'lobe.place')) + rough * factor(shelf, 'lobe.crank');
  const play: [number, number, number] = [
    likely,
    Math.max(0, drawn - spread - rough * factor(shelf, 'lobe.place')),
    drawn + spread + rough * factor(shelf, 'lobe.crank'),
  ];
  // A newton metre over twice the energy it stores.
  const energy = s.pinSquares / contact + s.crankSquares / factor(shelf, 'gear.housing');
  const stiffness = energy > 0 ? 1 / energy : contact;
  const outer = inner + p.wall;
  const cranks = p.layout === 'one' ? 1 : 2;
  const plateMass =
    (Math.PI * (outer ** 2 - inner ** 2) + cranks * (bearing.outside + 2 * p.wall) * (p.distance - inner * 0.8)) *
      p.width *
      mp.material.density +
    cranks * bearing.mass;
  const wheelMass =
    Math.PI *
    ((R + p.pin / 4) ** 2 - (p.bore / 2) ** 2) *
    (p.plates * p.width + 2e-3) *
    mh.material.density *
    factor(shelf, 'gear.solid');
  const omega = at.speed * p.pins;
  const phases = g.drive.phases;
  const unbalance = Math.hypot(
    phases.reduce((s, x) => s + Math.cos(x), 0),
    phases.reduce((s, x) => s + Math.sin(x), 0),
  );
  const permissible = Math.min(
    flankLimit(mp, factor(shelf, 'ambient'), shelf),
    flankLimit(mw, factor(shelf, 'ambient'), shelf),
  );
  const worst = Math.min(...g.steps.map((s) => s.torque));
  const modes: Mode[] = [
    {
      id: 'flank',
      mode: 'lobes wear at the pins',
      torque: torque * (permissible / Math.max(1, pressure)) ** 2,
      ever: true,
      why: 'Hertzian pressure of the worst pin at a lobe’s tip for ever at the RMS torque.',
      grows: 'width',
    },
    {
      id: 'dead',
      mode: 'crank bearings dent near a dead point',
      torque: Math.max(1e-9, bearing.static * worst),
      ever: false,
      why: 'At the worst crank angle the plates need the most force for a torque; no bearing may carry more than its static rating.',
      grows: 'none',
    },
  ];
  const mean = Math.cbrt(s.crankCubes) * torque;
  const wear = at.equivalent && at.meanSpeed ? (mean * at.equivalent) / torque : 0;
  const life = wear > 0 ? ((bearing.dynamic / wear) ** 3 * 1e6 * 2 * Math.PI) / (at.meanSpeed! * p.pins) : Infinity;
  const numbers: StageNumbers = {
    ratio: ringPlateRatio(p),
    etaForward: 1 / (1 + loss),
    etaBackward: 1 - loss,
    drag: factor(shelf, 'gear.churn'),
    play,
    stiffness,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: p.plates * plateMass * p.throw ** 2,
    inertiaOut: (wheelMass * R * R) / 2,
    limits: modeLimits(modes, at.torque, at.torqueRms),
    mass: p.plates * plateMass + wheelMass,
    money:
      p.plates * ((plateMass - cranks * bearing.mass) * mp.material.price + cranks * bearing.price) +
      wheelMass * mh.material.price +
      p.pins * 0.2,
    outside: (p.layout === 'one' ? outer + p.distance : 2 * p.distance) + bearing.outside + 2 * p.wall + 2 * p.throw,
    length: p.plates * p.width + 2e-3,
    maxSpeed: (mp.plastic || mw.plastic ? 4 : 12) / p.throw / p.pins,
    bore: p.bore,
    beside: true,
    life,
  };
  return {
    geometry: g,
    materials: [mp, mw, mh],
    bearing,
    contact,
    crankForce,
    crankMean: mean,
    pinForce,
    pressure,
    lossPins,
    lossBearings,
    forward: numbers.etaForward,
    backward: numbers.etaBackward,
    bind: drawn - spread - rough * factor(shelf, 'lobe.place'),
    shaking: plateMass * p.throw * omega ** 2 * (unbalance < 1e-9 ? 0 : unbalance),
    modes,
    masses: [plateMass, wheelMass],
    numbers,
  };
}
