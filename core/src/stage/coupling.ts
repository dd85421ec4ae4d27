import { check, type Check } from '../figure/index.ts';
import { circle } from '../shape/outline.ts';
import { prism } from '../shape/solid.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';
import type { BodyPlace, Part, Port, Spring } from './contract.ts';
import { rodMass, type Cost } from './costs.ts';
import { spring } from './springs.ts';

/** A coupling of two clamped hubs with an elastomer between, for a shaft that is in one with what it carries. */
export interface Coupling {
  /** Thickest shaft that it can be bored for, m. */
  readonly most: number;
  /** Across and over all, m. */
  readonly outside: number;
  readonly length: number;
  /** Torque that it is rated for, N·m. */
  readonly torque: number;
  /** How stiff it is against a torque that stays, N·m/rad, as usual sheets state it. */
  readonly stiffness: number;
  readonly money: number;
  /** kg and kg·m². */
  readonly mass: number;
  readonly inertia: number;
}

/** Hubs of aluminium, and the share of their cylinder that claws, bores and slits leave. */
const [ALUMINIUM, FULL] = [2700, 0.8];

const size = (
  most: number,
  outside: number,
  length: number,
  torque: number,
  stiffness: number,
  money: number,
): Coupling => {
  const mass = FULL * rodMass(outside, length, ALUMINIUM);
  return { most, outside, length, torque, stiffness, money, mass, inertia: (mass * outside ** 2) / 8 };
};

/**
 * Usual sizes, starting values: claws with an elastomer of 98 Shore A. Source: what data sheets of such couplings have in
 * common, within a third.
 */
const SIZES = [
  size(7e-3, 0.014, 0.022, 2, 20, 5),
  size(0.01, 0.02, 0.03, 5, 45, 7),
  size(0.012, 0.025, 0.034, 9, 90, 9),
  size(0.016, 0.03, 0.035, 12.5, 170, 11),
  size(0.024, 0.04, 0.066, 20, 600, 18),
  size(0.032, 0.055, 0.078, 60, 1500, 30),
];

/** What drives a shaft may be so much thicker than it, and the same coupling still takes both. */
const THICKER = 1.25;

/**
 * The coupling for a shaft and for one a quarter thicker that drives it; the largest one where that is too much to ask.
 *
 * @param shaft m
 * @returns undefined where none takes the shaft itself
 * @example couplingFor(8e-3).outside // 0.02
 */
export const couplingFor = (shaft: number): Coupling | undefined =>
  SIZES.find((c) => c.most >= THICKER * shaft - 1e-9) ?? (SIZES.at(-1)!.most >= shaft ? SIZES.at(-1) : undefined);

/** Between the two ends in a coupling; between it and what stands beside it, m. */
export const [ENDS_APART, CLEAR] = [1e-3, 1e-3] as const;

/** Behind a bearing beside a coupling there is so much room for what holds it, m. */
export const HOLDER = 5e-3;

/** How far a shaft's end reaches beyond what stands beside it for a coupling, m; `none` where there is no coupling for it. */
export const reachInto = (c: Coupling | undefined, none: number): number => (c ? CLEAR + c.length / 2 : none);

/** How far from the end of the shaft that it takes a coupling keeps the face of a motor, m. */
export const keepsOff = (c: Coupling): number => c.length / 2 + CLEAR;

/** What of a port tells that a coupling takes the end there, and the end of what drives it. */
export const coupledPort = (c: Coupling | undefined): Pick<Port, 'coupling'> =>
  c ? { coupling: { over: c.length / 2, most: c.most } } : {};

/** What it costs; nothing where there is none. */
export const couplingCost = (c: Coupling | undefined): Cost =>
  c ? { quantity: 1, mass: c.mass, money: c.money } : { quantity: 0, mass: 0, money: 0 };

/**
 * It as a spring of the stage behind it.
 *
 * @param turns what a radian at the coupling is at the output: radians, or metres where that runs straight
 */
export const couplingSpring = (c: Coupling | undefined, turns: number, shelf: Shelf): Spring[] =>
  c ? [spring('coupling', (c.stiffness * factor(shelf, 'coupling.stiff')) / turns ** 2)] : [];

/**
 * The coupling as a part.
 *
 * @param shaft that it takes, m
 * @param place of its end that is away from the stage, its length running towards it
 */
export const couplingPart = (c: Coupling | undefined, shaft: number, place: (crank: number) => BodyPlace): Part[] =>
  c
    ? [
        {
          id: 'coupling',
          name: `Shaft coupling ${Math.round(c.outside * 1e3)}×${Math.round(c.length * 1e3)}`,
          ...couplingCost(c),
          made: 'bought',
          material: 'as supplied',
          note: `${stated(c.length, 'length', 3)} long, clamped hubs with an elastomer of 98 Shore A, bored for ⌀ ${stated(shaft, 'length', 4)} and for what drives it, up to ⌀ ${stated(c.most, 'length', 3)}`,
          curves: [],
          turns: 'input',
          places: (crank) => [place(crank)],
          seen: () => ({
            prisms: [prism(circle(0, 0, c.outside / 2), 0, c.length, [circle(0, 0, shaft / 2)])],
          }),
        },
      ]
    : [];

/**
 * Whether a coupling carries what comes in.
 *
 * @param torque at the stage's input, peak, N·m
 */
export const couplingChecks = (c: Coupling | undefined, torque: number): Check[] =>
  c
    ? [
        check({
          id: 'coupling',
          name: 'Coupling carries what comes in',
          figure: torque,
          limit: c.torque,
          sense: 'max',
          quantity: 'torque',
          severity: 'warn',
          why: `Rated for ${stated(c.torque, 'torque', 3)} with an elastomer of 98 Shore A; beyond, its claws shear the elastomer or its hubs slip.`,
          advice: 'Take bearings of a larger bore: a thicker shaft takes a larger coupling.',
        }),
      ]
    : [];
