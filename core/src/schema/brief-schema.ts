import * as v from 'valibot';
import { quantity } from './quantity-schema.ts';

const factorOf = (min: number, max: number) =>
  v.pipe(
    v.number('must be a number'),
    v.minValue(min, `must be at least ${min}`),
    v.maxValue(max, `must be at most ${max}`),
  );
const shock = v.pipe(factorOf(1, 20), v.description('Shock: peak torque is multiplied by it'));

/** How a move is given and shaped; the same for every pattern that moves. */
const move = {
  given: v.pipe(
    v.optional(v.picklist(['limits', 'time']), 'limits'),
    v.description('Whether speed and acceleration are given, or the time of the move'),
  ),
  profile: v.pipe(
    v.optional(v.picklist(['trapezoid', 's-curve']), 'trapezoid'),
    v.description('Acceleration in steps, or with bounded jerk'),
  ),
  moveTime: v.pipe(
    v.optional(quantity('time', 1e-4, 1e6), 1),
    v.description('Time of one move where that is given, s'),
  ),
  rampShare: v.pipe(
    v.optional(quantity('efficiency', 0.01, 0.5), 1 / 3),
    v.description('Share of that time spent speeding up, and again slowing down'),
  ),
};

const common = { id: v.string(), name: v.string() };
const turn = {
  ...move,
  speed: v.pipe(quantity('speed', 0, 1e3), v.description('Speed wanted while moving, rad/s')),
  acceleration: v.pipe(quantity('acceleration', 0, 1e5), v.description('Acceleration wanted, rad/s²')),
  jerk: v.pipe(v.optional(quantity('jerk', 1e-3, 1e8), 100), v.description('Jerk of an S-curve, rad/s³')),
};

/** Arm against gravity. Angles from the horizontal, positive upwards. */
export const armCaseSchema = v.looseObject({
  ...common,
  pattern: v.literal('arm'),
  load: v.pipe(quantity('mass', 0, 1e4), v.description('Mass carried at the tip, kg')),
  length: v.pipe(quantity('length', 1e-3, 20), v.description('Axis to load, m')),
  armMass: v.pipe(quantity('mass', 0, 1e4), v.description('Mass of the arm itself, kg')),
  armCentre: v.pipe(quantity('length', 0, 20), v.description('Axis to the arm’s centre of mass, m')),
  ownInertia: v.pipe(
    v.optional(quantity('inertia', 0, 1e4), 0),
    v.description('Inertia of load and arm about their own centres, kg·m²'),
  ),
  angleFrom: v.pipe(
    quantity('angle', -2 * Math.PI, 2 * Math.PI),
    v.description('Lowest angle from the horizontal, rad'),
  ),
  angleTo: v.pipe(
    quantity('angle', -2 * Math.PI, 2 * Math.PI),
    v.description('Highest angle from the horizontal, rad'),
  ),
  ...turn,
  dynamicFactor: shock,
  rest: v.pipe(quantity('time', 0, 1e6), v.description('Rest at each end of the move, s')),
});

/** Two-segment leg; knee angles are inside the knee, 180° straight. */
export const legCaseSchema = v.looseObject({
  ...common,
  pattern: v.literal('leg'),
  mass: v.pipe(quantity('mass', 0, 1e5), v.description('Mass of the machine that stands, kg')),
  share: v.pipe(quantity('efficiency', 0, 1), v.description('Share of the weight on this leg')),
  thigh: v.pipe(quantity('length', 1e-3, 20), v.description('Hip to knee, m')),
  shank: v.pipe(quantity('length', 1e-3, 20), v.description('Knee to foot, m')),
  kneeStand: v.pipe(quantity('angle', 0.01, Math.PI), v.description('Angle inside the knee when standing, rad')),
  kneeCrouch: v.pipe(quantity('angle', 0.01, Math.PI), v.description('Angle inside the knee when crouched, rad')),
  footOffset: v.pipe(
    v.optional(quantity('length', -20, 20), 0),
    v.description('Foot in front of the hip, m; 0 is under it'),
  ),
  driven: v.pipe(v.optional(v.picklist(['knee', 'hip']), 'knee'), v.description('Which joint this is')),
  dynamicFactor: v.pipe(factorOf(1, 20), v.description('Foot force over the static share of the weight')),
  dropHeight: v.pipe(
    v.optional(quantity('length', 0, 100), 0),
    v.description('Height it lands from, m; 0 where it never does'),
  ),
  landingTravel: v.pipe(
    v.optional(quantity('length', 1e-4, 20), 0.05),
    v.description('How far the leg gives on landing, m'),
  ),
  ...turn,
  standTime: v.pipe(quantity('time', 0, 1e6), v.description('Standing in each cycle, s')),
  crouchTime: v.pipe(quantity('time', 0, 1e6), v.description('Crouched in each cycle, s')),
});

/** Mass that turns: a table, a yaw axis, a dial. */
export const turningCaseSchema = v.looseObject({
  ...common,
  pattern: v.literal('turning'),
  inertia: v.pipe(quantity('inertia', 0, 1e5), v.description('Moment of inertia about the axis, kg·m²')),
  friction: v.pipe(v.optional(quantity('torque', 0, 1e5), 0), v.description('Friction of the axis, N·m')),
  unbalance: v.pipe(
    v.optional(quantity('torque', 0, 1e5), 0),
    v.description('Torque of an unbalance, wind or process, against the move and at rest, N·m'),
  ),
  angle: v.pipe(quantity('angle', 0, 1e4), v.description('Angle of one move, rad')),
  ...turn,
  rest: v.pipe(quantity('time', 0, 1e6), v.description('Rest between moves, s')),
  radius: v.pipe(
    v.optional(quantity('length', 0, 100), 0),
    v.description('Radius at which errors count, m; 0 where none does'),
  ),
  dynamicFactor: shock,
});

/** Carriage on a straight guide, driven by a pinion, a pulley or a screw. */
export const straightCaseSchema = v.looseObject({
  ...common,
  pattern: v.literal('straight'),
  mass: v.pipe(quantity('mass', 0, 1e5), v.description('Moving mass, kg')),
  friction: v.pipe(v.optional(factorOf(0, 5), 0), v.description('Coefficient of friction of the guide')),
  slope: v.pipe(
    v.optional(quantity('angle', -Math.PI / 2, Math.PI / 2), 0),
    v.description('Slope of the guide against the move, rad; 90° is straight up'),
  ),
  force: v.pipe(v.optional(quantity('force', -1e7, 1e7), 0), v.description('Process force against the move, N')),
  drive: v.pipe(v.picklist(['pinion', 'pulley', 'screw']), v.description('What turns rotation into travel')),
  radius: v.pipe(v.optional(quantity('length', 1e-4, 10), 0.01), v.description('Pitch radius of pinion or pulley, m')),
  lead: v.pipe(v.optional(quantity('length', 1e-5, 1), 0.005), v.description('Lead of the screw, m per turn')),
  driveEfficiency: v.pipe(
    v.optional(quantity('efficiency', 0.01, 1), 1),
    v.description('Efficiency of pinion, pulley or screw'),
  ),
  stroke: v.pipe(quantity('length', 0, 1e3), v.description('Length of one move, m')),
  ...move,
  speed: v.pipe(quantity('linearSpeed', 0, 100), v.description('Speed wanted while moving, m/s')),
  acceleration: v.pipe(quantity('linearAcceleration', 0, 1e5), v.description('Acceleration wanted, m/s²')),
  jerk: v.pipe(v.optional(quantity('linearJerk', 1e-3, 1e8), 10), v.description('Jerk of an S-curve, m/s³')),
  rest: v.pipe(quantity('time', 0, 1e6), v.description('Rest at each end of the move, s')),
  dynamicFactor: shock,
});

/** Torque and speed as measured or worked out elsewhere. */
export const pointsCaseSchema = v.looseObject({
  ...common,
  pattern: v.literal('points'),
  rows: v.pipe(
    v.array(
      v.looseObject({
        torque: v.pipe(quantity('torque', -1e6, 1e6), v.description('Torque at the joint, N·m')),
        speed: v.pipe(quantity('speed', -1e4, 1e4), v.description('Speed, rad/s')),
        seconds: v.pipe(quantity('time', 0, 1e6), v.description('For how long, s')),
      }),
    ),
    v.minLength(1, 'needs at least one point'),
    v.maxLength(5000, 'must have at most 5000 points'),
  ),
  inertia: v.pipe(
    v.optional(quantity('inertia', 0, 1e5), 0),
    v.description('Inertia of the load, kg·m²; for acceleration and natural frequency'),
  ),
  radius: v.pipe(v.optional(quantity('length', 0, 100), 0), v.description('Radius at which errors count, m')),
  dynamicFactor: shock,
});

export const caseSchema = v.variant(
  'pattern',
  [armCaseSchema, legCaseSchema, turningCaseSchema, straightCaseSchema, pointsCaseSchema],
  'must be arm, leg, turning, straight or points',
);

const LIMIT_QUANTITY = {
  torque: 'torque',
  speed: 'speed',
  play: 'smallAngle',
  stiffness: 'stiffness',
  tip: 'length',
  resolution: 'smallAngle',
  repeatability: 'smallAngle',
  turnBack: 'torque',
  size: 'length',
  length: 'length',
  bore: 'length',
  mass: 'mass',
  money: 'money',
  life: 'life',
  noise: 'count',
} as const;

export const LIMIT_IDS = Object.keys(LIMIT_QUANTITY) as (keyof typeof LIMIT_QUANTITY)[];

const limitOf = <K extends keyof typeof LIMIT_QUANTITY>(id: K) =>
  v.looseObject({
    id: v.literal(id),
    sense: v.pipe(
      v.picklist(['min', 'max', 'either']),
      v.description('At least, at most; turn-back may also be either'),
    ),
    value: v.pipe(
      v.nullable(quantity(LIMIT_QUANTITY[id], 0, 1e9)),
      v.description('SI value; null follows the load cases (torque and speed only) or is not a number (noise)'),
    ),
    need: v.picklist(['must', 'wish']),
    suggested: v.pipe(
      v.optional(v.boolean()),
      v.description('A new joint’s own value that nobody has asked for yet; a wish that counts for nothing'),
    ),
    note: v.pipe(
      v.optional(v.pipe(v.string(), v.maxLength(500, 'must be at most 500 characters'))),
      v.description('In words, where a number does not say it (noise)'),
    ),
  });

export const limitSchema = v.variant('id', [
  limitOf('torque'),
  limitOf('speed'),
  limitOf('play'),
  limitOf('stiffness'),
  limitOf('tip'),
  limitOf('resolution'),
  limitOf('repeatability'),
  limitOf('turnBack'),
  limitOf('size'),
  limitOf('length'),
  limitOf('bore'),
  limitOf('mass'),
  limitOf('money'),
  limitOf('life'),
  limitOf('noise'),
]);

export const briefSchema = v.looseObject({
  cases: v.pipe(
    v.array(caseSchema),
    v.minLength(1, 'needs at least one load case'),
    v.maxLength(20, 'must have at most 20 load cases'),
  ),
  limits: v.pipe(v.array(limitSchema), v.maxLength(40, 'must have at most 40 limits')),
});
