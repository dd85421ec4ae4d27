import { LIMIT_KINDS } from '../brief/demand.ts';
import { MOTORS } from '../shop/motors.ts';
import { FORMAT, LIMIT_IDS, VERSION, type ArmCase, type Joint, type Limit, type Variant } from './joint.ts';

/** What a new joint needs from outside the core: identifiers and the time. */
export interface Stamp {
  readonly id: string;
  readonly now: string;
}

const deg = Math.PI / 180;

export const blankCase = (id: string): ArmCase => ({
  id, name: 'Arm', pattern: 'arm', load: 0.5, length: 0.25, armMass: 0.15, armCentre: 0.12, angleFrom: -30 * deg, angleTo: 60 * deg, speed: (20 * 2 * Math.PI) / 60, acceleration: 8, dynamicFactor: 1.3, rest: 1,
});

export const blankLimit = (id: Limit['id']): Limit => ({ id, sense: LIMIT_KINDS[id].sense, value: LIMIT_KINDS[id].start, need: id === 'torque' || id === 'speed' ? 'must' : 'wish' }) as Limit;

export const blankVariant = (id: string, name: string): Variant => ({
  id, name, notes: '', follows: false, motor: { ...MOTORS.find((m) => m.id === 'st42-48')! } as Variant['motor'], driver: { supplyVoltage: 24, currentLimit: 1.7, supplyCurrent: 4, microsteps: 16 }, sensor: { place: 'none', counts: 4096 }, stages: [],
});

/** A joint with one load case, the usual limits, and a variant without stages. */
export function createJoint(name: string, stamp: Stamp): Joint {
  return {
    format: FORMAT, version: VERSION, id: stamp.id, name, notes: '', created: stamp.now, changed: stamp.now,
    brief: { cases: [blankCase('arm')], limits: LIMIT_IDS.filter((x) => x !== 'turnBack' && x !== 'stiffness').map(blankLimit) },
    variants: [blankVariant('a', 'A')], activeVariant: 'a', builds: [], tests: [],
  };
}
