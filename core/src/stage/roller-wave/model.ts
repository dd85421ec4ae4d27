import { term } from '../../figure/index.ts';
import { reducedModulus } from '../../contact/index.ts';
import {
  bearingDrag,
  bearingStiffness,
  blankMass,
  crept,
  cutPartPrice,
  elastic,
  flankCrush,
  greaseDrag,
  lobesLast,
  ringBending,
  rideOver,
  shortestLife,
  strengthOf,
  wallStress,
  type ToothMaterial,
} from '../../gear/index.ts';
import { carry, linePressure } from '../../lobed/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import type { Bearing } from '../../schema/joint.ts';
import { ratedLife } from '../../shop/bearings.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { PIN_PRICE, rodMass, sumCosts } from '../costs.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import type { Kept } from '../kept.ts';
import { limitOf, type Limit } from '../limits.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { inMm, stop } from '../refuse-stage.ts';
import { pulledBy } from '../push.ts';
import { Stack, type StackLoad } from '../stack-load.ts';
import { spring, together } from '../springs.ts';
import { heldShare, lobesOf, rollerWaveRatio, type RollerWaveParams } from './params.ts';
import { leastHollow, rowState, type RollerWave, type RowState } from './wave.ts';

/** Crank angles over a roller's pitch that a load is looked at. */
export const STEPS = 12;
/** Thickness of the cage's plate and of a cover, m; room between what turns, m. */
export const [PLATE, ROOM] = [4e-3, 5e-4] as const;

/** A roller wave stage before any duty. */
export interface RollerWaveBuild {
  readonly wave: RollerWave;
  readonly materials: readonly [ring: ToothMaterial, cage: ToothMaterial, rollers: ToothMaterial];
  readonly bearing: Bearing;
  readonly hollow: number;
  /** Least and largest distance of the ring's profile from the axis, gap and all, m. */
  readonly reach: readonly [number, number];
  /** Cage: inner and outer radius, and the thinnest place of a wall, m. */
  readonly cage: readonly [number, number];
  readonly wall: number;
  /** Rows at each angle of a pitch. */
  readonly states: readonly (readonly RowState[])[];
  readonly outside: number;
}

/** What one load does, worst over a pitch and means. */
interface Spread {
  readonly force: number;
  readonly pressure: number;
  readonly wall: number;
  readonly bearing: number;
  readonly bearingMean: number;
  /** What all rows together do to the eccentrics' shaft. */
  readonly shaft: StackLoad;
  readonly carrying: number;
  readonly stiffness: number;
  /** The ring’s way past its rollers for a radian, by their forces over the moment. */
  readonly ringWay: number;
  /** Sums of wall push times way over the moment: of rollers that rise, for a radian of the crank against the cage. */
  readonly wallSlide: number;
  /** Of rollers that spin as they roll on the ring, for a radian of the ring against the cage. */
  readonly wallSpin: number;
  /** Loads of the eccentric bearings times the radius of their bore, over the moment. */
  readonly journal: number;
}

/** Everything computed about a roller wave stage. */
export interface RollerWaveModel extends RollerWaveBuild {
  readonly spread: Spread;
  /**
   * How often the eccentric's bearings turn for a turn of the output: the crank against what they carry, which rolls on the
   * rollers, against the way of the ring.
   */
  readonly rolls: number;
  readonly playGap: number;
  readonly playSlot: number;
  /** How far the ring's profile and the slots' places may be off together, m: a gap that is less may bind. */
  readonly off: number;
  readonly contact: number;
  readonly shaking: number;
  readonly couple: number;
  /** What bends the wall of a row's ring most, Pa; worked out when it is looked at. */
  readonly rimStress: () => number;
  readonly bearingLife: number;
  readonly limits: readonly Limit[];
  readonly costs: ReturnType<typeof costsOf>;
  readonly numbers: StageNumbers;
}

/** Phase of a row's throw, rad. */
export const phaseOf = (p: Pick<RollerWaveParams, 'rows'>, row: number): number => (2 * Math.PI * row) / p.rows;

/** Builds a stage; refuses in words what does not go together. */
export function buildRollerWave(p: RollerWaveParams, shelf: Shelf): Result<RollerWaveBuild> {
  const materials = needMaterials(p, ['materialR', 'materialC', 'materialP'], shelf);
  if (!materials.ok) return materials;
  const found = needBearing(p.bearing, shelf, 'The rollers run on its outer ring.');
  if (!found.ok) return found;
  const bearing = found.value;
  const wave: RollerWave = {
    eccentric: bearing.outside / 2 + p.sleeve,
    roller: p.roller / 2,
    throw: p.throw,
    rollers: p.rollers,
    lobes: lobesOf(p),
  };
  const far = wave.eccentric + wave.roller;
  if (p.throw >= 0.25 * far)
    return stop(
      `An eccentricity of ${inMm(p.throw)} is too much for an eccentric of ⌀ ${inMm(2 * wave.eccentric)}.`,
      'The rollers would not stay between eccentric and ring.',
      'Take less eccentricity or a larger eccentric.',
      'throw',
      { path: 'throw', value: Number((0.03 * far).toPrecision(2)), label: 'Less eccentricity' },
    );
  const hollow = leastHollow(wave);
  const offset = wave.roller + p.gap;
  if (!(hollow > offset))
    return stop(
      'The ring is undercut: its crests come out pointed.',
      `The rollers’ path bends as sharply as ${inMm(hollow)} there, and the ring is cut ${inMm(offset)} outside of it.`,
      'Take less eccentricity, thinner rollers or fewer of them.',
      'throw',
      {
        path: 'throw',
        value: Math.floor(p.throw * Math.min(0.9, (0.85 * hollow) / offset) * 2e4) / 2e4 || 5e-5,
        label: `Eccentricity ${inMm(Math.floor(p.throw * Math.min(0.9, (0.85 * hollow) / offset) * 2e4) / 2e4 || 5e-5)}`,
      },
    );
  // Of a ring that is not undercut crests and hollows are its nearest and farthest.
  const middle = far + wave.roller + p.gap;
  const reach = [middle - p.throw, middle + p.throw] as const;
  // The cage stands between the eccentric at its farthest and the ring's crests.
  const cage = [wave.eccentric + p.throw + ROOM, reach[0] - ROOM] as const;
  const inmost = Math.max(cage[0], far - p.throw - wave.roller);
  const wall = (2 * Math.PI * inmost) / p.rollers - p.roller - p.slot;
  if (!(wall > 2e-4))
    return stop(
      'The rollers meet in the cage.',
      `${p.rollers} of ${inMm(p.roller)} leave ${inMm(Math.max(0, wall))} of wall between their slots.`,
      'Take fewer or thinner rollers, or a larger eccentric.',
      'rollers',
      {
        path: 'sleeve',
        value: Math.ceil((p.sleeve + ((1.2e-3 - wall) * p.rollers) / (2 * Math.PI)) * 2e3) / 2e3,
        label: 'A larger eccentric',
      },
    );
  if (!(cage[1] - cage[0] > 2e-4))
    return stop(
      'No room is left for the cage.',
      `Between the eccentric at its farthest and the ring’s crests there are ${inMm(Math.max(0, cage[1] - cage[0] + 2 * ROOM))}, ` +
        'and half a millimetre of room is wanted on either side.',
      'Take thicker rollers or less eccentricity.',
      'roller',
      { path: 'throw', value: Math.floor(p.throw * 0.6 * 2e4) / 2e4 || 5e-5, label: 'Less eccentricity' },
    );
  const angles = Array.from({ length: STEPS }, (_, k) => (2 * Math.PI * k) / p.rollers / STEPS);
  return ok({
    wave,
    materials: materials.value,
    bearing,
    hollow,
    reach,
    cage,
    wall,
    states: angles.map((a) => Array.from({ length: p.rows }, (_, i) => rowState(wave, a + phaseOf(p, i), p.gap))),
    outside: 2 * (reach[1] + p.rim),
  });
}

/** What does not go together, in words; it can still be drawn. */
export const wrongRollerWave = (p: RollerWaveParams, { bearing }: RollerWaveBuild): Result<never> | undefined =>
  p.shaft / 2 + p.throw < bearing.bore / 2 - 3e-4
    ? undefined
    : refuse(
        'The shaft breaks through the eccentric.',
        `In a bearing of ⌀ ${inMm(bearing.bore)} it stands ${inMm(p.throw)} beside the shaft’s middle.`,
        'Take a larger bearing, a thinner shaft or less eccentricity.',
        'shaft',
      );

/** Spreads a moment between ring and cage over all rollers: each pushes as its gap has closed. */
function spreadOf(p: RollerWaveParams, b: RollerWaveBuild, contact: number, modulus: number, moment: number): Spread {
  const N = p.rollers;
  let [force, pressure, wall, bearing, cubes, carrying, stiffness] = [0, 0, 0, 0, 0, 0, 0];
  let [ringWay, wallSlide, wallSpin, journal] = [0, 0, 0, 0];
  const shaft = new Stack(p.rows);
  for (const rows of b.states) {
    const c = carry(rows, contact, moment);
    carrying += c.carrying / STEPS;
    stiffness += c.stiffness / STEPS;
    rows.forEach((s, d) => {
      let [x, y] = [0, 0];
      for (let k = 0; k < N; k++) {
        const f = c.forces[d * N + k]!;
        if (f === 0) continue;
        force = Math.max(force, f);
        // The ring hugs the roller in its hollows and meets it with a crest elsewhere.
        const ring = -s.curves[k]! / (1 + s.curves[k]! * b.wave.roller);
        pressure = Math.max(pressure, linePressure(f, p.width, modulus, 1 / b.wave.roller + ring));
        ringWay += (f * s.slides[k]!) / moment / STEPS;
        const q = f * Math.abs(s.wall[k]!);
        wall = Math.max(wall, q);
        wallSlide += (q * Math.abs(s.rise[k]!)) / moment / STEPS;
        wallSpin += (q * s.slides[k]!) / moment / STEPS;
        x += f * s.ex[k]!;
        y += f * s.ey[k]!;
      }
      shaft.put(d, x, y);
      const load = Math.sqrt(x * x + y * y);
      bearing = Math.max(bearing, load);
      cubes += load ** 3 / (STEPS * p.rows);
      journal += (load * b.bearing.bore) / 2 / moment / STEPS;
    });
    shaft.close();
  }
  return {
    force,
    pressure,
    wall,
    bearing,
    bearingMean: Math.cbrt(cubes),
    shaft: shaft.load,
    carrying,
    stiffness,
    ringWay,
    wallSlide,
    wallSpin,
    journal,
  };
}

/**
 * Largest moment in the wall of a row's ring, N·m: each roller pushes it out and, by its lever, on round.
 *
 * @param radius of the wall's middle line, m
 */
export function rimMoment(states: RollerWaveBuild['states'], contact: number, moment: number, radius: number): number {
  let most = 0;
  for (const rows of states) {
    const { forces } = carry(rows, contact, moment);
    rows.forEach(({ arms, rho }, d) => {
      const push = Array.from(arms, (_, k) => forces[d * arms.length + k]!);
      const sine = Array.from(arms, (arm, k) => arm / rho[k]!);
      const outward = push.map((f, k) => f * Math.sqrt(1 - sine[k]! ** 2));
      // What closes as the ring turns on pushes it back.
      const round = push.map((f, k) => -f * sine[k]!);
      most = Math.max(most, ringBending(outward, round, radius));
    });
  }
  return most;
}

/**
 * Turn of the ring against the cage that a gap leaves both ways, rad: the first roller to touch either way, mean over a
 * pitch; the other rows stop it as well.
 */
export function gapPlay(states: RollerWaveBuild['states'], gap: number): number {
  let mean = 0;
  for (const rows of states) {
    let [most, least] = [0, 0];
    for (const { arms } of rows)
      for (let k = 0; k < arms.length; k++) {
        most = Math.max(most, arms[k]!);
        least = Math.min(least, arms[k]!);
      }
    mean += (gap / most - gap / least) / states.length;
  }
  return mean;
}

/** How many plates the cage's walls stand between or on. */
const platesOf = (p: RollerWaveParams): number => (p.carriedBy === 'both' ? 2 : 1);

/** Volume of one of them, m³. */
const cagePlate = (b: RollerWaveBuild): number => Math.PI * b.cage[1] ** 2 * PLATE;

/** What each part weighs and costs. */
function costsOf(p: RollerWaveParams, b: RollerWaveBuild, shelf: Shelf) {
  const [ring, cage, roller] = b.materials;
  const high = p.rows * p.width + (p.rows - 1) * ROOM;
  const ringMass = blankMass(b.outside / 2, (b.reach[0] + b.reach[1]) / 2, high, ring, shelf);
  const walls =
    Math.PI * (b.cage[1] ** 2 - b.cage[0] ** 2) * high - p.rollers * p.roller * (b.cage[1] - b.cage[0]) * high;
  const plate = cagePlate(b) * cage.material.density;
  const cageMass = Math.max(0, walls) * cage.material.density + plate;
  const sleeve = Math.PI * (b.wave.eccentric ** 2 - (b.bearing.outside / 2) ** 2) * p.width * 7850;
  const crank = rodMass(b.bearing.bore, high, 7850) - rodMass(p.shaft, high, 7850);
  return {
    // A row's rollers stand where the next row's lobes let none through: each has a ring of its own.
    ring: {
      quantity: p.rows,
      mass: ringMass / p.rows,
      money: cutPartPrice(ring, ringMass / p.rows, b.wave.lobes, shelf),
    },
    cage: { quantity: 1, mass: cageMass, money: cutPartPrice(cage, cageMass, p.rollers, shelf) },
    // Screwed on: in one piece with the walls it would let no roller in.
    cagePlate: { quantity: platesOf(p) - 1, mass: plate, money: cutPartPrice(cage, plate, 0, shelf) },
    roller: {
      quantity: p.rollers * p.rows,
      mass: rodMass(p.roller, p.width, roller.material.density),
      money: PIN_PRICE,
    },
    crank: { quantity: 1, mass: crank, money: 6 * crank + 3 },
    sleeve: { quantity: p.sleeve > 0 ? p.rows : 0, mass: sleeve, money: p.sleeve > 0 ? 6 * sleeve + 2 : 0 },
    bearing: { quantity: p.rows, mass: b.bearing.mass, money: b.bearing.price },
  };
}

/** Computes a roller wave stage at a duty on its output. Source: contact equilibrium of every roller (`wave.ts`), Hertz along a line. */
export function modelRollerWave(
  p: RollerWaveParams,
  b: RollerWaveBuild,
  at: Duty,
  shelf: Shelf,
  kept: Kept,
): RollerWaveModel {
  const { wave, bearing } = b;
  const [ring, cage, roller] = b.materials;
  const held = heldShare(p);
  const ratio = rollerWaveRatio(p);
  const ambient = factor(shelf, 'ambient');
  const [er, ec, ep] = [ring, cage, roller].map((m) => elastic(m, ambient, shelf)) as [number, number, number];
  const modulus = reducedModulus(er, ring.poisson, ep, roller.poisson);
  const steel = reducedModulus(ep, roller.poisson, 210e9, 0.3);
  // Ring and eccentric one after the other; a line's approach is all but even.
  const line = (e: number) => (Math.PI / 4) * e * p.width;
  const contact = 1 / (1 / line(modulus) + 1 / line(steel));
  const spreadAt = (name: string, moment: number) =>
    kept.step(name, [contact, modulus, moment], shelf, () => spreadOf(p, b, contact, modulus, moment));
  const moment = Math.max(1e-3, at.torque * held);
  const s = spreadAt('load', moment);
  // Crank against cage for a radian of the output; ring against cage turns a radian, whichever of them is held.
  const spins = p.held === 'ring' ? Math.abs(ratio - 1) : Math.abs(ratio);
  const far = wave.eccentric + wave.roller;
  const rolls = spins + (p.more * (far + wave.roller)) / wave.eccentric;
  const slide = factor(shelf, 'lobe.slide');
  // A roller rolls on ring and eccentric and so rubs on its wall, by its rise and by its spin: both run the same way there.
  const loss = held * (slide * (s.wallSlide * spins + s.wallSpin) + factor(shelf, 'pin.roll') * s.journal * rolls);
  // Play: gaps at the ring, slots, and how far profile and slots are off.
  const steep = Math.max(...b.states[0]![0]!.arms);
  const playGap = gapPlay(b.states, p.gap) * held;
  const playSlot = (p.slot / far) * held;
  const off = Math.hypot(factor(shelf, 'lobe.profile'), factor(shelf, 'lobe.place'));
  const wrong = (2 * off * held) / steep;
  const crank = (2 * factor(shelf, 'lobe.crank') * held) / steep;
  const play = playGap + playSlot;
  // Walls as beams of the slots' depth, for all that carry.
  const high = p.width;
  const depth = b.cage[1] - b.cage[0];
  const inertia = (depth * b.wall ** 3) / 12;
  const bend = p.carriedBy === 'both' ? (384 * ec * inertia) / high ** 3 : (8 * ec * inertia) / high ** 3;
  const carried = Math.max(1, s.carrying);
  const springs = [
    spring('rollers on ring and eccentric', Math.max(1, s.stiffness) / held ** 2, crept(ring)),
    spring('cage’s walls bend', (bend * carried * far ** 2) / held ** 2, crept(cage)),
    spring('eccentric bearings', bearingStiffness(cage, shelf) / (p.rows * ((s.bearing / moment) * held) ** 2), 1),
  ];
  const stiffness = together(springs);
  const costs = costsOf(p, b, shelf);
  // Rollers go in and out, each along its own radius: together they throw, and store, half of what they would on the
  // eccentric itself.
  const mass = b.bearing.mass + costs.sleeve.mass + (costs.roller.mass * p.rollers) / 2;
  const shake = mass * p.throw * (at.speed * ratio) ** 2;
  // Limits from the load of a newton metre, or of what is asked where that is more.
  const base = Math.max(moment, 1);
  const strong = moment >= 1 ? s : spreadAt('unit', 1);
  const crush = Math.min(flankCrush(ring, ambient, shelf), flankCrush(roller, ambient, shelf));
  const lasts = lobesLast(
    {
      lobes: ring,
      pins: roller,
      press: strong.pressure / Math.sqrt(base / held),
      slide: strong.ringWay * held,
      rolls: true,
      area: p.rows * p.width * Math.PI * (b.reach[0] + b.reach[1]),
      lift: p.throw,
      meetings: p.rollers,
    },
    at,
    shelf,
  );
  const section = (depth * b.wall ** 2) / 6;
  const moment1 = p.carriedBy === 'both' ? high / 12 : high / 2;
  const limits: Limit[] = [
    limitOf(
      'flank',
      ring.plastic ? 'lobes of the ring wear' : 'lobes of the ring pit',
      'life',
      lasts.torque,
      ring.plastic
        ? 'What rollers that roll rub off the lobes (linear wear as in VDI 2736-2).'
        : 'Hertzian pressure each time a roller goes by (pitting).',
      'turns that it stands over how often they come',
      lasts.life,
      undefined,
      lasts.told,
    ),
    limitOf(
      'crush',
      'lobes are crushed by a roller',
      'static',
      (base / held) * (crush / strong.pressure) ** 2,
      'Hertzian pressure of the worst roller’s line contact, with the ring’s own curvature there.',
      'T·(p_P/p)²',
      Infinity,
      () => [
        term('T', 'torque that is told for', base / held, 'torque', 'computed'),
        term('p_P', 'pressure that the softer bears', crush, 'stress', 'computed'),
        term('p', 'pressure of the worst roller at it', strong.pressure, 'stress', 'computed'),
      ],
    ),
    limitOf(
      'walls',
      'walls of the cage break',
      'static',
      ((base / held) * strengthOf(cage, 'across', shelf) * section) / (strong.wall * moment1),
      `The worst roller’s push across, bending the wall between two slots held at ${p.carriedBy === 'both' ? 'both ends' : 'one end'}; printed upright.`,
      'R·h·w²/6/(Q·M₁)',
    ),
    limitOf(
      'dent',
      'eccentric bearing dents',
      'static',
      (base / held) * (bearing.static / strong.bearing),
      'Static rating C0 of the eccentric bearing against the sum of all rollers of its row.',
      'T·C₀/F',
    ),
    {
      ...rideOver((base / held) * ((bearingStiffness(cage, shelf) * 2 * p.throw) / strong.bearing)),
      mode: 'rollers ride over the lobes (skip)',
      why: 'What pushes rollers out of the lobes is held by the eccentric’s bearings in their seats; given way by twice the eccentricity, they ride over.',
      formula: 'T·k·2e/F',
    },
  ];
  const lasting = at.equivalent && at.meanSpeed ? (s.bearingMean * at.equivalent * held) / moment : 0;
  const bearingLife = lasting > 0 ? ratedLife(bearing, lasting, at.meanSpeed! * rolls) : Infinity;
  const ringInertia = (p.rows * costs.ring.mass * ((b.outside / 2) ** 2 + ((b.reach[0] + b.reach[1]) / 2) ** 2)) / 2;
  const plateMass = cagePlate(b) * cage.material.density;
  const cageInertia =
    (costs.cage.mass - plateMass) * ((b.cage[0] + b.cage[1]) / 2) ** 2 +
    (platesOf(p) * plateMass * b.cage[1] ** 2) / 2 +
    costs.roller.mass * p.rollers * p.rows * far ** 2;
  const numbers: StageNumbers = {
    ratio,
    etaForward: 1 / (1 + loss),
    etaBackward: 1 - loss,
    // Rows push against each other, and tilt the shaft they are on; one leans on it.
    ...(p.shaft > 0 && pulledBy(at, (at.torque * held) / moment, s.shaft, p.width + ROOM)),
    drag: greaseDrag(b.outside, shelf) + p.rows * bearingDrag(bearing, at.speed * rolls, shelf),
    play: [play + crank / 2, Math.max(0, play - wrong), play + wrong + crank],
    stiffness,
    springs,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: (costs.crank.mass * ((bearing.bore / 2) ** 2 + (p.shaft / 2) ** 2)) / 2 + mass * p.rows * p.throw ** 2,
    inertiaOut: p.held === 'ring' ? cageInertia : ringInertia,
    limits: limits.map((l) => ({ mode: l.mode, time: l.time, torque: l.torque, life: l.life })),
    ...sumCosts(Object.values(costs)),
    outside: b.outside,
    length: p.rows * p.width + (p.rows - 1) * ROOM + platesOf(p) * PLATE + 2 * ROOM,
    maxSpeed: (ring.plastic ? 4 : 10) / (far + wave.roller),
    bore: p.shaft,
    beside: false,
    life: Math.min(bearingLife, shortestLife(limits)),
  };
  return {
    ...b,
    spread: s,
    rolls,
    playGap,
    playSlot,
    off,
    contact,
    shaking: p.rows === 1 ? shake : 0,
    couple: p.rows === 2 ? shake * (p.width + ROOM) : 0,
    rimStress: () =>
      kept.step('rim', [contact, moment], shelf, () =>
        wallStress(rimMoment(b.states, contact, moment, b.reach[1] + p.rim / 2), p.rim, p.width),
      ),
    bearingLife,
    limits,
    costs,
    numbers,
  };
}
