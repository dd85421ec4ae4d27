import * as v from 'valibot';
import { quantity } from './quantity-schema.ts';

/** Arm against gravity. Angles from the horizontal, positive upwards. */
export const armCaseSchema = v.looseObject({
  id: v.string(),
  name: v.string(),
  pattern: v.literal('arm'),
  load: v.pipe(quantity('mass', 0, 1e4), v.description('Mass carried at the tip, kg')),
  length: v.pipe(quantity('length', 1e-3, 20), v.description('Axis to load, m')),
  armMass: v.pipe(quantity('mass', 0, 1e4), v.description('Mass of the arm itself, kg')),
  armCentre: v.pipe(quantity('length', 0, 20), v.description('Axis to the arm’s centre of mass, m')),
  angleFrom: v.pipe(quantity('angle', -2 * Math.PI, 2 * Math.PI), v.description('Lowest angle from the horizontal, rad')),
  angleTo: v.pipe(quantity('angle', -2 * Math.PI, 2 * Math.PI), v.description('Highest angle from the horizontal, rad')),
  speed: v.pipe(quantity('speed', 0, 1e3), v.description('Speed wanted while moving, rad/s')),
  acceleration: v.pipe(quantity('acceleration', 0, 1e5), v.description('Acceleration wanted, rad/s²')),
  dynamicFactor: v.pipe(v.number('must be a number'), v.minValue(1, 'must be at least 1'), v.maxValue(20, 'must be at most 20'), v.description('Shock: peak torque is multiplied by it')),
  rest: v.pipe(quantity('time', 0, 1e6), v.description('Rest at each end of the move, s')),
});

export const LIMIT_IDS = ['torque', 'speed', 'play', 'stiffness', 'tip', 'turnBack', 'size', 'mass', 'money'] as const;

const LIMIT_QUANTITY = { torque: 'torque', speed: 'speed', play: 'smallAngle', stiffness: 'stiffness', tip: 'length', turnBack: 'torque', size: 'length', mass: 'mass', money: 'money' } as const;

const limitOf = <K extends (typeof LIMIT_IDS)[number]>(id: K) =>
  v.looseObject({
    id: v.literal(id),
    sense: v.picklist(['min', 'max']),
    value: v.pipe(v.nullable(quantity(LIMIT_QUANTITY[id], 0, 1e9)), v.description('SI value; null follows the load cases (torque and speed only)')),
    need: v.picklist(['must', 'wish']),
  });

export const limitSchema = v.variant('id', [limitOf('torque'), limitOf('speed'), limitOf('play'), limitOf('stiffness'), limitOf('tip'), limitOf('turnBack'), limitOf('size'), limitOf('mass'), limitOf('money')]);

export const briefSchema = v.looseObject({
  cases: v.pipe(v.array(armCaseSchema), v.minLength(1, 'needs at least one load case'), v.maxLength(20)),
  limits: v.pipe(v.array(limitSchema), v.maxLength(40)),
});
