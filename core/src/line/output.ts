import { crossedCylinders, reducedModulus } from '../contact/hertz-point.ts';
import { strengthOf } from '../gear/material-state.ts';
import { asToothMaterial } from '../gear/tooth-material.ts';
import { inSeries } from '../math/springs.ts';
import type { Bearing, OutputShaft } from '../schema/joint.ts';
import {
  crossedLoad,
  crossedStatic,
  equivalentLoad,
  isCrossed,
  isNeedle,
  lifeExponent,
  pitchDiameter,
  staticLoad,
} from '../shop/bearings.ts';
import { bearingStocked, type Stocked } from '../shop/drawer.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { NO_PUSH, type Push, type Pushes } from '../stage/push.ts';
import { stated } from '../units/stated.ts';

type Race = NonNullable<OutputShaft['race']>;

/** Poisson's ratio for the shear modulus G = E/2(1 + ν) of metals; plastics are near enough. */
const POISSON = 0.3;

export interface OutputNumbers {
  /** Torsional stiffness of the shaft, N·m/rad; Infinity for none. */
  readonly stiffness: number;
  /** Equivalent load that lasts on the nearer bearing, or on the ball that carries most, N; NaN where none is chosen. */
  readonly load: number;
  /** Static safety; NaN where no bearing is chosen or nothing loads it, 0 where it cannot bear what is asked of it. */
  readonly safety: number;
  /** L10 at the mean speed, s; Infinity where nothing wears. */
  readonly life: number;
  /** Stiffness against tilting, N·m/rad; NaN where no bearing is chosen. */
  readonly tiltStiffness: number;
  /** How far the load tilts the shaft, rad, and how far it sags in its own plane, m; 0 where no bearing is chosen. */
  readonly tilt: number;
  readonly sag: number;
  readonly mass: number;
  readonly money: number;
}

const NONE: OutputNumbers = {
  stiffness: Infinity,
  load: NaN,
  safety: NaN,
  life: Infinity,
  tiltStiffness: NaN,
  tilt: 0,
  sag: 0,
  mass: 0,
  money: 0,
};

/** Polar second moment of a hollow round shaft, π(d⁴ − d_i⁴)/32, m⁴. */
const polar = (d: number, hollow: number): number => (Math.PI * (d ** 4 - hollow ** 4)) / 32;

/**
 * Forces on two rows of bearings under a side force that overhangs them and a tilting moment, N: the nearer one carries
 * (F·(overhang + span) + M)/span, the other (F·overhang + M)/span the other way.
 *
 * Source: equilibrium of a beam on two supports.
 * @example twoRows(30, 6, 0.02, 0.015) // [470, 440]
 */
export const twoRows = (force: number, moment: number, overhang: number, span: number): [number, number] => [
  (force * (overhang + span) + moment) / span,
  (force * overhang + moment) / span,
];

/** What a bearing arrangement says to a load. */
type Borne = Pick<OutputNumbers, 'load' | 'safety' | 'tiltStiffness' | 'tilt' | 'sag'> & {
  /** L10, turns; Infinity where no life is known. */
  readonly turns: number;
  readonly mass: number;
  readonly money: number;
};

const NO_BEARING: Borne = {
  load: NaN,
  safety: NaN,
  tiltStiffness: NaN,
  tilt: 0,
  sag: 0,
  turns: Infinity,
  mass: 0,
  money: 0,
};

/** Radial stiffness of a bearing with its seat in the joint, N/m. */
const seated = (shelf: Shelf): number => inSeries(factor(shelf, 'bearing.radial'), factor(shelf, 'bearing.seat'));

/**
 * How two rows give: each by its force over its stiffness, the nearer one out and the other back.
 *
 * Source: a rigid shaft on two springs; a pair k apart by s resists tilting with k·s²/2.
 */
function twoRowsGive(o: OutputShaft, near: number, far: number, k: number) {
  const tilt = (near + far) / k / o.span;
  return { tilt, sag: near / k + tilt * o.overhang, tiltStiffness: (k * o.span ** 2) / 2 };
}

/**
 * How one row gives: along its circle it is a bed of springs, and against tilting k·d²/8 of it.
 *
 * Source: ∮ (k/2π)·(d/2·cos ψ)² dψ = k·d²/8, as stiff along the axis as across it.
 */
function oneRowGives(o: OutputShaft, diameter: number, k: number) {
  const tiltStiffness = (k * diameter ** 2) / 8;
  const tilt = (o.load * o.overhang + (o.moment ?? 0)) / tiltStiffness;
  return { tilt, sag: o.load / k + tilt * o.overhang, tiltStiffness };
}

/**
 * Two rows of one bearing; the nearer one carries most, and what pushes along the shaft. The last stage's wheel stands
 * between the rows: half of what pulls it across comes to each.
 */
function pairBears(o: OutputShaft, b: Bearing, shelf: Shelf, by: Push): Borne {
  const axial = (o.axial ?? 0) + by.along;
  const [own, far] = twoRows(o.load, o.moment ?? 0, o.overhang, o.span);
  const near = own + by.across / 2 + by.moment / o.span;
  const able = !(axial > 0 && isNeedle(b));
  const load = !able ? near : isCrossed(b) ? crossedLoad(b, near, axial, 0) : equivalentLoad(b, near, axial);
  const fixed = isCrossed(b) ? crossedStatic(b, near, axial, 0) : staticLoad(near, axial);
  return {
    load,
    safety: !(load > 0) ? NaN : able ? b.static / fixed : 0,
    turns: (b.dynamic / load) ** lifeExponent(b) * 1e6,
    ...twoRowsGive(o, own, far, seated(shelf)),
    mass: 2 * b.mass,
    money: 2 * b.price,
  };
}

/**
 * One row. Crossed rollers carry a moment as a pair of forces at their circle; the balls of a deep-groove bearing carry it as
 * a force along the axis on the half that is pressed, 2M/d_pw, for which they are poorly made. Needles carry none.
 */
function singleBears(o: OutputShaft, b: Bearing, shelf: Shelf, by: Push): Borne {
  const axial = (o.axial ?? 0) + by.along;
  const across = o.load + by.across;
  const moment = o.load * o.overhang + (o.moment ?? 0) + by.moment;
  const crossed = isCrossed(b);
  const along = axial + (2 * moment) / pitchDiameter(b);
  const able = !(isNeedle(b) && along > 0);
  const load = crossed ? crossedLoad(b, across, axial, moment) : able ? equivalentLoad(b, across, along) : across;
  const fixed = crossed ? crossedStatic(b, across, axial, moment) : staticLoad(across, along);
  return {
    load,
    safety: able ? (load > 0 ? b.static / fixed : NaN) : 0,
    turns: (b.dynamic / load) ** lifeExponent(b) * 1e6,
    ...oneRowGives(o, pitchDiameter(b), seated(shelf)),
    mass: b.mass,
    money: b.price,
  };
}

/** Cosine and sine of the angle at which the balls of a race touch. */
const CONTACT = Math.SQRT1_2;
/** Radius of a race's groove over the ball's diameter. */
const GROOVE = 0.52;
const BALL_STEEL = { modulus: 208e9, poisson: 0.3, density: 7800, price: 0.05 };

/**
 * Force on the ball that carries most, N: 4.37·F_r/(Z·cos α) + F_a/(Z·sin α) + 4.37·M/(d·Z·sin α).
 *
 * Source: Stribeck's share of point contacts that are loaded over half the circle; 4.37 = π/∫₀^{π/2} cos^2.5 ψ dψ.
 * @example mostLoadedBall({ diameter: 0.08, balls: 40 }, 100, 50, 13) // 42.3
 */
export const mostLoadedBall = (
  race: { readonly diameter: number; readonly balls: number },
  radial: number,
  axial: number,
  moment: number,
): number => (STRIBECK * radial + axial + (STRIBECK * moment) / race.diameter) / (race.balls * CONTACT);
const STRIBECK = 4.37;

/**
 * Pressure of a race's most loaded ball in the inner groove, Pa.
 *
 * Source: Hertz, a ball in a groove of 0.52 of its diameter, bent the other way along the race.
 */
export function racePressure(race: Race, force: number): number {
  const m = asToothMaterial(race.material);
  const r = race.ball / 2;
  const across = (1 / r) * (1 - 1 / (2 * GROOVE));
  const along = 1 / r + CONTACT / (race.diameter / 2 - r * CONTACT);
  const modulus = reducedModulus(BALL_STEEL.modulus, BALL_STEEL.poisson, race.material.modulus, m.poisson);
  return force > 0 ? crossedCylinders(force, 1 / along, 1 / across, Math.PI / 2, modulus).pressure : 0;
}

/**
 * Balls between two grooves of the joint's own. Crushed once the pressure is that of a plastic flank; force goes with its
 * cube. How long a groove lasts under rolling balls is not known.
 */
function raceBears(o: OutputShaft, race: Race, shelf: Shelf, by: Push): Borne {
  const moment = o.load * o.overhang + (o.moment ?? 0) + by.moment;
  const load = mostLoadedBall(race, o.load + by.across, (o.axial ?? 0) + by.along, moment);
  const m = asToothMaterial(race.material);
  const stands = strengthOf(m, 'along', shelf) * factor(shelf, 'gear.crush');
  const steel = race.balls * ballMass(race);
  const rings = ringsMass(race);
  return {
    load,
    safety: load > 0 ? (stands / racePressure(race, load)) ** 3 : NaN,
    turns: Infinity,
    ...oneRowGives(o, race.diameter, factor(shelf, 'bearing.seat')),
    mass: steel + rings,
    money: race.balls * BALL_STEEL.price + rings * race.material.price,
  };
}

/** Mass of one ball of a race, kg. */
const ballMass = (race: Race): number => (Math.PI / 6) * race.ball ** 3 * BALL_STEEL.density;

/** Mass of its rings, kg: two, two balls high, a ball thick on either side. */
const ringsMass = (race: Race): number =>
  Math.PI * race.diameter * 2 * race.ball * 2 * race.ball * race.material.density;

/** Most balls that go on a race's circle with a fiftieth of their diameter between them. */
export const fullRace = (race: Pick<Race, 'diameter' | 'ball'>): number =>
  Math.floor((Math.PI * race.diameter) / (1.02 * race.ball));

/** Volume of so much of the output shaft, m³. */
const shaftVolume = (o: OutputShaft, length: number): number =>
  (Math.PI / 4) * (o.shaftDiameter ** 2 - Math.min(o.shaftBore, o.shaftDiameter) ** 2) * length;

/** A piece of the output: what one weighs, kg, and costs, and how many there are. */
export interface OutputPiece {
  readonly name: string;
  readonly material: string;
  readonly note: string;
  readonly quantity: number;
  readonly mass: number;
  readonly money: number;
  readonly stocked?: Stocked;
}

/** What shaft and bearings of an output are made of; none where nothing is chosen. */
export function outputPieces(o: OutputShaft | undefined): readonly OutputPiece[] {
  if (!o) return [];
  const { shaftMaterial, race, bearing } = o;
  const length = o.shaftLength + ((o.arrangement ?? 'pair') === 'pair' ? o.span : 0);
  const shaft = shaftVolume(o, length) * shaftMaterial.density;
  const size = (x: number) => stated(x, 'length', 5);
  return [
    ...(shaft > 0
      ? [
          {
            name: 'Output shaft',
            material: shaftMaterial.name,
            note: `⌀ ${size(o.shaftDiameter)}${o.shaftBore > 0 ? `, bored ${size(o.shaftBore)}` : ''}, ${size(length)} long`,
            quantity: 1,
            mass: shaft,
            money: shaft * shaftMaterial.price,
          },
        ]
      : []),
    ...(o.arrangement === 'race' && race
      ? [
          {
            name: 'Ball of the output’s race',
            material: 'Bearing steel',
            note: `⌀ ${size(race.ball)}`,
            quantity: race.balls,
            mass: ballMass(race),
            money: BALL_STEEL.price,
          },
          {
            name: 'Rings of the output’s race, a pair',
            material: race.material.name,
            note: `grooves on ⌀ ${size(race.diameter)}`,
            quantity: 1,
            mass: ringsMass(race),
            money: ringsMass(race) * race.material.price,
          },
        ]
      : []),
    ...(o.arrangement !== 'race' && bearing
      ? [
          {
            name: `Bearing ${bearing.name}`,
            material: 'as supplied',
            note: `${size(bearing.bore)} × ${size(bearing.outside)} × ${size(bearing.width)}`,
            quantity: o.arrangement === 'single' ? 1 : 2,
            mass: bearing.mass,
            money: bearing.price,
            stocked: bearingStocked(bearing),
          },
        ]
      : []),
  ];
}

/** What the chosen bearings say to the load and to what the last stage's wheel puts on them. */
function bears(o: OutputShaft, shelf: Shelf, by: Push): Borne {
  if (o.arrangement === 'race') return o.race ? raceBears(o, o.race, shelf, by) : NO_BEARING;
  if (!o.bearing) return NO_BEARING;
  return o.arrangement === 'single' ? singleBears(o, o.bearing, shelf, by) : pairBears(o, o.bearing, shelf, by);
}

/**
 * Shaft and bearings between the last stage and the load: k = G·I_p/L; two rows, one, or a race of balls; L10 = (C/P)^p·10⁶
 * turns (ISO 281), static safety C0/P0 (ISO 76). What the last stage's wheel puts on them is taken the way in which it adds
 * most: its direction against the load's is nobody's choice yet.
 *
 * @param meanSpeed mean speed of the output over the load cycle, rad/s
 * @param by what that wheel puts on the bearings; left out where forces balance
 */
export function outputNumbers(
  o: OutputShaft | undefined,
  meanSpeed: number,
  shelf: Shelf,
  by: Pushes = { peak: NO_PUSH, lasting: NO_PUSH },
): OutputNumbers {
  if (!o) return NONE;
  const hollow = Math.min(o.shaftBore, o.shaftDiameter);
  const g = o.shaftMaterial.modulus / (2 * (1 + POISSON));
  const stiffness = o.shaftLength > 0 ? (g * polar(o.shaftDiameter, hollow)) / o.shaftLength : Infinity;
  const between = (o.arrangement ?? 'pair') === 'pair' ? o.span : 0;
  const shaft = shaftVolume(o, o.shaftLength + between) * o.shaftMaterial.density;
  const { turns, mass, money, ...borne } = bears(o, shelf, by.lasting);
  const rate = meanSpeed / (2 * Math.PI);
  return {
    ...borne,
    safety: bears(o, shelf, by.peak).safety,
    stiffness,
    life: borne.load > 0 && rate > 0 ? turns / rate : Infinity,
    mass: shaft + mass,
    money: shaft * o.shaftMaterial.price + money,
  };
}
