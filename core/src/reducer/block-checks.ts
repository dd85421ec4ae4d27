import { check, type Check } from '../figure/index.ts';
import type { MotorFace } from '../shop/motor-face.ts';
import { stated } from '../units/stated.ts';
import { LEAST_WALL, type Aside, type Block } from './aside.ts';
import type { StandingStage } from './layout.ts';
import type { Working } from './link-loads.ts';
import { STEP } from './plan.ts';
import type { Reducer, ReducerVariant } from './reducer.ts';
import { TRUSTED } from './sides.ts';

/** Rounded up to half millimetres. */
const up = (x: number): number => Math.ceil(x * 2e3 - 1e-6) / 2e3;

/** A bearing block as a bar between the grooves of two plates, pushed in its middle by the ring of its bearing, m. */
export interface Bar {
  /** Between the grooves. */
  readonly long: number;
  /** Of both its legs beside the bearing together, and how thick they are. */
  readonly wide: number;
  readonly thick: number;
  /** Radius of the ring that pushes. */
  readonly ring: number;
}

/** How far from its middle half of a ring pushes, m: where the middle of half a circle's line is. */
const lever = (ring: number): number => (2 * ring) / Math.PI;

/**
 * Stress of a bar that rests on both ends and is pushed by a ring in its middle, Pa, in its legs beside the ring.
 *
 * Source: beam on two supports under two forces of F/2, each 2·r/π off the middle; W = b·h²/6.
 * @param force N
 * @example barStress(100, { long: 0.02, wide: 0.005, thick: 0.006, ring: 0.005 }).toExponential(3) // '1.136e+7'
 */
export const barStress = (force: number, { long, wide, thick, ring }: Bar): number =>
  (((force / 2) * Math.max(0, long / 2 - lever(ring))) / (wide * thick * thick)) * 6;

/**
 * How stiff such a bar is, N/m: bent, and sheared as short ones are.
 *
 * Source: beam on two supports, δ = P·a²·(3·L − 4·a)/(6·E·I) under each of two forces P = F/2 at a from the ends; with shear
 * P·a/(⅚·G·A), G = E/2.7 for plastics and near it for metals.
 * @param modulus Pa
 * @example barStiffness(2e9, { long: 0.02, wide: 0.005, thick: 0.006, ring: 0.005 }).toExponential(3) // '1.126e+6'
 */
export function barStiffness(modulus: number, { long, wide, thick, ring }: Bar): number {
  const a = long / 2 - lever(ring);
  if (!(a > 0)) return Infinity;
  const inertia = (wide * thick ** 3) / 12;
  const bent = (0.5 * a * a * (3 * long - 4 * a)) / (6 * modulus * inertia);
  const sheared = (0.5 * a) / ((5 / 6) * (modulus / 2.7) * wide * thick);
  return 1 / (bent + sheared);
}

/** A bearing block as a bar; undefined for the motor's. */
export function barOf({ borne, pad }: Aside, b: Block): Bar | undefined {
  if (!borne || !pad || !b.seat) return undefined;
  return {
    long: 2 * pad.half + STEP,
    wide: b.high - b.low - borne.outside,
    thick: b.to - b.from,
    ring: borne.outside / 2,
  };
}

/**
 * How stiff the block that takes the push of the shaft lets the stage's output be, N·m/rad: the softer of the two.
 *
 * @param modulus of what it is made of, Pa
 */
export function blockSpring(aside: Aside, modulus: number): number {
  const stiff = aside.blocks.flatMap((b) => {
    const bar = barOf(aside, b);
    return bar ? [barStiffness(modulus, bar)] : [];
  });
  return stiff.length ? Math.min(...stiff) * aside.borne!.lever ** 2 : Infinity;
}

/** Whether blocks that bear what comes in across hold its bearings, and a bored one's shaft goes through both. */
export function blockChecks(aside: Aside | undefined, stage: StandingStage | undefined, face: MotorFace): Check[] {
  if (!aside?.borne || !stage) return [];
  const { borne, wall, apart, blocks } = aside;
  const list: Check[] = [];
  if (Number.isFinite(wall))
    list.push(
      check({
        id: 'block-wall',
        name: 'Bearing blocks hold their bearings beside the wheel',
        figure: Math.max(0, wall),
        limit: LEAST_WALL,
        sense: 'min',
        quantity: 'length',
        near: 0,
        severity: wall > 0 ? 'warn' : 'stop',
        why:
          wall > 0
            ? 'So much of the block is left between the bearing and the room that the wheel turns in.'
            : 'The bearing stands within the room that the wheel turns in: no block can hold it there.',
        mend: {
          path: `stages.${stage.index}.${borne.spanBy}`,
          value: up(apart),
          label: `Bearings ${stated(up(apart), 'length', 4)} apart`,
        },
        advice: 'Set the bearings farther apart, take smaller ones, or leave less room to what moves.',
      }),
    );
  const { boredBy, shaft } = stage.ports.input;
  const far = blocks.find((b) => b.id === 'far');
  if (shaft > 0 && far?.seat)
    list.push(
      check({
        id: 'motor-through',
        name: 'Motor’s shaft goes through both bearings',
        figure: face.reach,
        limit: far.seat.to - aside.face,
        sense: 'min',
        quantity: 'length',
        near: 0,
        severity: 'warn',
        why: 'What is bored for it is borne on either side by bearings on the same shaft.',
        ...(boredBy !== undefined && {
          mend: {
            path: `stages.${stage.index}.${boredBy}`,
            value: 0,
            label: `Stage ${stage.index + 1}: in one with a shaft of its own, coupled`,
          },
        }),
        advice: 'Take a motor with a longer shaft, or a shaft of its own with a coupling: no bore.',
      }),
    );
  return list;
}

/**
 * Whether the blocks and their grooves stand what pushes along the shaft that comes in across.
 *
 * @param working of every stage of the line
 */
export function blockLoadChecks(
  { plan }: Pick<Reducer, 'plan'>,
  { housing }: ReducerVariant,
  working: readonly Working[],
): Check[] {
  const aside = plan?.aside;
  const [first] = working;
  if (!aside?.borne || !first || !housing) return [];
  const push = Math.abs(first.duty.torque) / aside.borne.lever;
  const m = housing.material;
  const stands = TRUSTED * (m.across ?? m.strength);
  const bearing = aside.blocks.flatMap((b) => {
    const bar = barOf(aside, b);
    return bar ? [{ bar, groove: 2 * STEP * (b.tongue.high - b.tongue.low) }] : [];
  });
  const common = { figure: push, sense: 'max', quantity: 'force' } as const;
  return [
    check({
      ...common,
      id: 'block-bends',
      name: 'Bearing blocks stand the push along their shaft',
      limit: Math.min(...bearing.map(({ bar }) => stands / barStress(1, bar))),
      why: 'One of them takes all that the wheel pushes along the shaft: its legs beside the bearing bend between the plates.',
      advice:
        'Make the walls of the housing thicker: blocks are as much wider than their bearings. Or take a stronger material.',
    }),
    check({
      ...common,
      id: 'block-grooves',
      name: 'Grooves of the bearing blocks stand that push',
      limit: Math.min(...bearing.map(({ groove }) => stands * groove)),
      why: `Its tongues press on the sides of their grooves, ${stated(STEP, 'length', 2)} deep in either plate.`,
      advice: 'Make the walls of the housing thicker: tongues are as much wider. Or take a stronger material.',
    }),
  ];
}
