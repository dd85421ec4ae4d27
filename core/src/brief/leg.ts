import { stated } from '../units/stated.ts';
import { term, type Figure } from '../figure/index.ts';
import type { LegCase } from '../schema/joint.ts';
import type { Problem } from '../result.ts';
import { sumCycle, type Stretch } from './cycle.ts';
import { planMove, stretchesOf } from './move.ts';
import { cycleFigures, moveFields, TURNING } from './move-fields.ts';
import { rmsPoint, sure, type CaseLoads, type LoadPattern } from './pattern.ts';

const deg = Math.PI / 180;

export interface LegPose {
  /** Hip to foot, m. */
  readonly reach: number;
  /**
   * Horizontal distances from the joints to the line of action, which runs upright through the foot, m; the knee's is
   * positive in front of it.
   */
  readonly kneeLever: number;
  readonly hipLever: number;
  /** Knee and foot with the hip at the origin, y up, m. */
  readonly knee: readonly [number, number];
  readonly foot: readonly [number, number];
}

/**
 * A leg of two segments with a knee angle (inside, 180° straight) and its foot so far in front of the hip. The knee
 * bends forward.
 */
export function legPose(c: Pick<LegCase, 'thigh' | 'shank' | 'footOffset'>, knee: number): LegPose {
  const { thigh: a, shank: b } = c;
  const reach = Math.sqrt(Math.max(0, a * a + b * b - 2 * a * b * Math.cos(knee)));
  const x = Math.max(-reach, Math.min(reach, c.footOffset));
  const down = -Math.sqrt(Math.max(0, reach * reach - x * x));
  // Along and across the line from hip to foot; the knee stands off it by a·b·sin κ / r.
  const off = reach > 0 ? (a * b * Math.sin(knee)) / reach : a;
  const along = Math.sqrt(Math.max(0, a * a - off * off)) * (a * a + reach * reach >= b * b ? 1 : -1);
  const [ux, uy] = reach > 0 ? [x / reach, down / reach] : [0, -1];
  const kneeAt = [ux * along - uy * off, uy * along + ux * off] as const;
  return { reach, kneeLever: kneeAt[0] - x, hipLever: -x, knee: kneeAt, foot: [x, down] };
}

/** Knee angle at which hip and foot are so far apart; NaN where the segments cannot reach. */
export const kneeFor = (c: Pick<LegCase, 'thigh' | 'shank'>, reach: number): number =>
  Math.acos((c.thigh ** 2 + c.shank ** 2 - reach * reach) / (2 * c.thigh * c.shank));

/** Knee angle at the end of a landing that begins standing. */
export const landingKnee = (c: LegCase): number => kneeFor(c, legPose(c, c.kneeStand).reach - c.landingTravel);

const lever = (c: LegCase, p: LegPose): number => (c.driven === 'knee' ? p.kneeLever : p.hipLever);

/** Mean force of a landing on this leg: m·g·share·(1 + h/s), N. */
export const landingForce = (c: LegCase, g: number): number =>
  c.mass * g * c.share * (1 + c.dropHeight / c.landingTravel);

/**
 * Torque of the driven joint standing, crouched and landing: foot force times the horizontal distance from the joint to
 * the line of
 * action. Statics only; the body's own acceleration is the dynamic factor's.
 *
 * @param g local gravity, m/s²
 */
export function legLoads(c: LegCase, g: number): CaseLoads {
  const still = c.mass * g * c.share;
  const force = still * c.dynamicFactor;
  const stand = legPose(c, c.kneeStand);
  const crouch = legPose(c, c.kneeCrouch);
  const lands = c.dropHeight > 0;
  const land = lands ? legPose(c, landingKnee(c)) : stand;
  const landing = lands ? landingForce(c, g) : 0;
  const from = Math.min(c.kneeStand, c.kneeCrouch);
  const to = Math.max(c.kneeStand, c.kneeCrouch);
  const torqueAt = (knee: number) => still * lever(c, legPose(c, knee));
  const move = planMove(to - from, c);
  const pass = (back: boolean): Stretch[] =>
    stretchesOf(move, back, (p) => ({
      position: from + p.position,
      speed: p.speed,
      torque: torqueAt(from + p.position),
      acceleration: p.acceleration,
    }));
  const rest = (duration: number, knee: number): Stretch => ({
    duration,
    steady: true,
    at: () => ({ position: knee, speed: 0, torque: torqueAt(knee) }),
  });
  const opens = c.kneeStand >= c.kneeCrouch;
  const closing = opens ? pass(true) : pass(false);
  const opening = opens ? pass(false) : pass(true);
  const sums = sumCycle([rest(c.standTime, c.kneeStand), ...closing, rest(c.crouchTime, c.kneeCrouch), ...opening]);
  const most = Math.max(sums.most, Math.abs(torqueAt(c.kneeStand)), Math.abs(torqueAt(c.kneeCrouch)));
  const landTorque = landing * Math.abs(lever(c, land));
  const peak = Math.max(most * c.dynamicFactor, landTorque, landing * Math.abs(lever(c, stand)));
  const hold = Math.max(Math.abs(torqueAt(c.kneeStand)), Math.abs(torqueAt(c.kneeCrouch)));
  const speed = move.top || c.speed;
  const rms = sums.cycle > 0 ? sums.rms : hold;
  const x = Math.max(Math.abs(lever(c, stand)), Math.abs(lever(c, crouch)));
  return {
    ...sums,
    rms,
    peak,
    hold,
    speed,
    moveTime: move.duration,
    inertia: c.mass * c.share * x * x,
    friction: 0,
    arm: c.driven === 'knee' ? c.shank : stand.reach,
    swing: to - from,
    points: [
      {
        name: landTorque >= most * c.dynamicFactor ? 'landing' : 'crouch',
        torque: peak,
        speed,
        time: 'peak',
        acceleration: move.peakAcceleration,
      },
      rmsPoint(sums, rms),
      { name: 'hold', torque: hold, speed: 0, time: 'continuous' },
    ],
    values: {
      forceStatic: still,
      force,
      forceLanding: landing,
      kneeStand: force * Math.abs(stand.kneeLever),
      kneeCrouch: force * Math.abs(crouch.kneeLever),
      kneeLanding: landing * Math.abs(land.kneeLever),
      hipStand: force * Math.abs(stand.hipLever),
      hipCrouch: force * Math.abs(crouch.hipLever),
      hipLanding: landing * Math.abs(land.hipLever),
      kneeStandStatic: still * Math.abs(stand.kneeLever),
      kneeCrouchStatic: still * Math.abs(crouch.kneeLever),
      leverStand: Math.abs(stand.kneeLever),
      leverCrouch: Math.abs(crouch.kneeLever),
      landingKnee: lands ? landingKnee(c) : c.kneeStand,
    },
  };
}

function wrong(c: LegCase): Problem | undefined {
  const least = Math.min(legPose(c, c.kneeStand).reach, legPose(c, c.kneeCrouch).reach);
  if (Math.abs(c.footOffset) > least)
    return {
      what: 'The foot is further in front than the leg is long.',
      why: `Bent, it reaches ${stated(least, 'length', 3)}.`,
      mend: 'Move the foot towards the hip, or bend the knee less.',
    };
  if (
    c.dropHeight > 0 &&
    !(legPose(c, c.kneeStand).reach - c.landingTravel > Math.max(Math.abs(c.thigh - c.shank), Math.abs(c.footOffset)))
  )
    return {
      what: 'The leg cannot give that far on landing.',
      why: `Standing, it is ${stated(legPose(c, c.kneeStand).reach, 'length', 3)} long, and folded ${stated(Math.abs(c.thigh - c.shank), 'length', 3)}.`,
      mend: 'Take a shorter landing travel.',
    };
  return undefined;
}

function figures(c: LegCase, g: number): Figure[] {
  const l = legLoads(c, g);
  const v = l.values;
  const segments = [
    term('a', 'hip to knee', c.thigh, 'length', 'brief'),
    term('b', 'knee to foot', c.shank, 'length', 'brief'),
  ];
  const force = [
    term('m', 'mass', c.mass, 'mass', 'brief'),
    term('g', 'gravity', g, 'gravity', 'shop', 'gravity'),
    term('share', 'share on this leg', c.share, 'efficiency', 'brief'),
    term('k', 'dynamic factor', c.dynamicFactor, 'ratio', 'brief'),
  ];
  const source = 'statics; the foot force acts upright through the foot';
  const hip =
    c.footOffset === 0 ? 'With the foot under the hip the force passes through the hip, and its torque is nought.' : '';
  return [
    sure('peak', 'Peak', 'torque', l.peak, () => ({
      formula: 'max(F·x over the range, F_land·x at the end of the landing)',
      terms: [
        ...force,
        term('F', 'foot force', v['force']!, 'force', 'computed'),
        term('F_land', 'landing, mean', v['forceLanding']!, 'force', 'computed'),
      ],
      source,
      note: 'A landing’s force is a mean; its peak depends on how the leg is controlled.',
    })),
    sure('rms', 'RMS', 'torque', l.rms, () => ({
      formula: '√(Σ T²·t / Σ t) over stand, lower, crouch, rise',
      terms: [
        term('t', 'one move', l.moveTime, 'time', 'computed'),
        term('F_s', 'static share', v['forceStatic']!, 'force', 'computed'),
      ],
      source: 'Gauss–Legendre over each stretch; without the dynamic factor',
    })),
    sure('hold', 'Hold', 'torque', l.hold, () => ({
      formula: 'm·g·share·x at the worse rest',
      terms: [...force.slice(0, 3), term('x', 'lever crouched', v['leverCrouch']!, 'length', 'computed')],
      source,
    })),
    sure('knee-stand', 'Knee, standing', 'torque', v['kneeStand']!, () => ({
      formula: 'F·a·b·sin κ / r for a foot under the hip',
      terms: [
        ...segments,
        term('κ', 'knee angle', c.kneeStand, 'angle', 'brief'),
        term('F', 'foot force', v['force']!, 'force', 'computed'),
      ],
      source,
    })),
    sure('knee-crouch', 'Knee, crouched', 'torque', v['kneeCrouch']!, () => ({
      formula: 'F·a·b·sin κ / r for a foot under the hip',
      terms: [
        ...segments,
        term('κ', 'knee angle', c.kneeCrouch, 'angle', 'brief'),
        term('x', 'lever', v['leverCrouch']!, 'length', 'computed'),
        term('F', 'foot force', v['force']!, 'force', 'computed'),
      ],
      source,
    })),
    ...(c.dropHeight > 0
      ? [
          sure('knee-land', 'Knee, landing', 'torque', v['kneeLanding']!, () => ({
            formula: 'm·g·share·(1 + h/s)·x at the end of the travel',
            terms: [
              ...force.slice(0, 3),
              term('h', 'drop', c.dropHeight, 'length', 'brief'),
              term('s', 'travel', c.landingTravel, 'length', 'brief'),
              term('κ', 'knee at the end', v['landingKnee']!, 'angle', 'computed'),
            ],
            source: 'energy: the mean force over the travel takes up the fall',
          })),
        ]
      : []),
    sure('hip-crouch', 'Hip, crouched', 'torque', v['hipCrouch']!, () => ({
      formula: 'F·x',
      terms: [
        term('F', 'foot force', v['force']!, 'force', 'computed'),
        term('x', 'foot in front of the hip', Math.abs(c.footOffset), 'length', 'brief'),
      ],
      source,
      ...(hip && { note: hip }),
    })),
    ...cycleFigures(l),
  ];
}

/** Two segments, foot on the ground: standing, crouching, landing. */
export const legPattern: LoadPattern<LegCase> = {
  id: 'leg',
  name: 'Two-segment leg',
  summary: 'A leg that stands, crouches and lands; crouched is the worst.',
  fields: [
    {
      as: 'choice',
      path: 'driven',
      label: 'This joint is',
      group: 'Load',
      help: 'Which of the two the line drives.',
      options: [
        { value: 'knee', label: 'the knee' },
        { value: 'hip', label: 'the hip' },
      ],
    },
    {
      as: 'quantity',
      path: 'mass',
      label: 'Mass that stands',
      group: 'Load',
      quantity: 'mass',
      step: 0.5,
      min: 0,
      max: 1e5,
      help: 'The whole machine with what it carries.',
    },
    {
      as: 'quantity',
      path: 'share',
      label: 'Share on this leg',
      group: 'Load',
      quantity: 'efficiency',
      step: 0.05,
      min: 0,
      max: 1,
      help: 'Half on two legs; all of it when one is lifted.',
    },
    {
      as: 'quantity',
      path: 'dynamicFactor',
      label: 'Dynamic factor',
      group: 'Load',
      quantity: 'ratio',
      step: 0.1,
      min: 1,
      max: 20,
      help: 'Foot force over the static share: 1.0 standing, 1.3 rising smoothly, 2 walking briskly, 3 and more for hops.',
    },
    {
      as: 'quantity',
      path: 'thigh',
      label: 'Hip to knee',
      group: 'Load',
      quantity: 'length',
      step: 0.005,
      min: 1e-3,
      max: 20,
      help: 'Axis to axis.',
    },
    {
      as: 'quantity',
      path: 'shank',
      label: 'Knee to foot',
      group: 'Load',
      quantity: 'length',
      step: 0.005,
      min: 1e-3,
      max: 20,
      help: 'Axis to the point of contact.',
    },
    {
      as: 'quantity',
      path: 'footOffset',
      label: 'Foot ahead of hip',
      group: 'Load',
      quantity: 'length',
      step: 0.005,
      min: -20,
      max: 20,
      help: '0: the foot is under the hip, and the hip carries no torque.',
    },
    {
      as: 'quantity',
      path: 'dropHeight',
      label: 'Lands from',
      group: 'Load',
      quantity: 'length',
      step: 0.01,
      min: 0,
      max: 100,
      help: 'Height of the fall; 0 where it never lands.',
    },
    {
      as: 'quantity',
      path: 'landingTravel',
      label: 'Gives by',
      group: 'Load',
      quantity: 'length',
      step: 0.005,
      min: 1e-4,
      max: 20,
      help: 'How far hip and foot close up while it stops the fall.',
      when: (c) => c.dropHeight > 0,
    },
    {
      as: 'quantity',
      path: 'kneeStand',
      label: 'Knee, standing',
      group: 'Move',
      quantity: 'angle',
      step: deg,
      min: 0.01,
      max: Math.PI,
      help: 'Inside the knee; 180° is straight.',
    },
    {
      as: 'quantity',
      path: 'kneeCrouch',
      label: 'Knee, crouched',
      group: 'Move',
      quantity: 'angle',
      step: deg,
      min: 0.01,
      max: Math.PI,
      help: 'Inside the knee.',
    },
    ...moveFields<LegCase>(TURNING),
    {
      as: 'quantity',
      path: 'standTime',
      label: 'Stands for',
      group: 'Move',
      quantity: 'time',
      step: 0.5,
      min: 0,
      max: 1e6,
      help: 'In each cycle.',
    },
    {
      as: 'quantity',
      path: 'crouchTime',
      label: 'Crouches for',
      group: 'Move',
      quantity: 'time',
      step: 0.5,
      min: 0,
      max: 1e6,
      help: 'In each cycle; holding heats the motor.',
    },
  ],
  blank: (id) => ({
    id,
    name: 'Leg',
    pattern: 'leg',
    mass: 6,
    share: 0.5,
    thigh: 0.16,
    shank: 0.16,
    kneeStand: 150 * deg,
    kneeCrouch: 80 * deg,
    footOffset: 0,
    driven: 'knee',
    dynamicFactor: 1.5,
    dropHeight: 0,
    landingTravel: 0.04,
    given: 'limits',
    profile: 'trapezoid',
    speed: 3,
    acceleration: 20,
    jerk: 300,
    moveTime: 0.6,
    rampShare: 1 / 3,
    standTime: 5,
    crouchTime: 1,
  }),
  wrong,
  loads: legLoads,
  figures,
};
