import { LIMIT_KINDS } from '../brief/demand.ts';
import { DRIVERS, SUPPLIES } from '../shop/drives.ts';
import { MOTORS } from '../shop/motors.ts';
import { loadPattern } from '../brief/patterns.ts';
import { MATERIALS } from '../shop/materials.ts';
import { FORMAT, VERSION, type Joint, type Limit, type LoadCase, type Variant } from '../schema/joint.ts';

/** What a new joint needs from outside the core: identifiers and the time. */
export interface Stamp {
  readonly id: string;
  readonly now: string;
}

/** A load case of a pattern with values to begin from. */
export const blankCase = <P extends LoadCase['pattern'] = 'arm'>(
  id: string,
  pattern: P = 'arm' as P,
): Extract<LoadCase, { pattern: P }> => loadPattern(pattern).blank(id) as Extract<LoadCase, { pattern: P }>;

/** Limits a new joint starts with; the others are added when they matter. */
const USUAL = ['torque', 'speed', 'play', 'tip', 'size', 'mass', 'money'] as const;

export const blankLimit = (id: Limit['id']): Limit =>
  ({
    id,
    sense: LIMIT_KINDS[id].sense,
    value: LIMIT_KINDS[id].start,
    need: id === 'torque' || id === 'speed' ? 'must' : 'wish',
  }) as Limit;

/** A limit that a new joint brings along: what nobody has asked for is only a suggestion. */
const suggestedLimit = (id: Limit['id']): Limit => {
  const limit = blankLimit(id);
  return limit.need === 'wish' ? { ...limit, suggested: true } : limit;
};

export const blankVariant = (id: string, name: string): Variant => ({
  id,
  name,
  notes: '',
  follows: false,
  motor: { ...MOTORS.find((m) => m.id === 'st42-48')! } as Variant['motor'],
  driver: {
    supplyVoltage: 24,
    currentLimit: 1.7,
    sets: 'peak',
    supplyCurrent: 4,
    microsteps: 16,
    unit: { ...DRIVERS.find((d) => d.id === 'dr-st-module')! },
    supply: { ...SUPPLIES.find((s) => s.id === 'sp-24-4')! },
  },
  sensor: { place: 'none', counts: 4096, outputCounts: 16384, error: 0, noise: 0 },
  mount: { ...MATERIALS.find((m) => m.id === 'petg')! },
  stages: [],
});

/** A joint with one load case, the usual limits, and a variant without stages. */
export function createJoint(name: string, stamp: Stamp): Joint {
  return {
    format: FORMAT,
    version: VERSION,
    id: stamp.id,
    name,
    notes: '',
    created: stamp.now,
    changed: stamp.now,
    brief: { cases: [blankCase('arm')], limits: USUAL.map((id) => suggestedLimit(id)) },
    variants: [blankVariant('a', 'A')],
    activeVariant: 'a',
    builds: [],
    tests: [],
  };
}
