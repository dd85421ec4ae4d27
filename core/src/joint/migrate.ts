import { VERSION } from './joint.ts';

type Raw = Record<string, unknown>;
const isRecord = (x: unknown): x is Raw => typeof x === 'object' && x !== null && !Array.isArray(x);

/**
 * Version 1 held a single load (`brief.arm`), limits as an object of numbers keyed by limit, and no sensor or re-sizing mark.
 * Version 2 has a list of load cases, limits with a sense and a need, and both marks.
 */
function fromOne(raw: Raw): Raw {
  const brief = isRecord(raw['brief']) ? raw['brief'] : {};
  const { arm, limits, ...keptBrief } = brief;
  const least = new Set(['torque', 'speed', 'stiffness']);
  const list = isRecord(limits) ? Object.entries(limits).map(([id, value]) => ({ id, sense: least.has(id) ? 'min' : 'max', value, need: 'must' })) : [];
  const variants = Array.isArray(raw['variants']) ? raw['variants'].map((x) => (isRecord(x) ? { follows: false, sensor: { place: 'none', counts: 4096 }, ...x } : x)) : raw['variants'];
  return { ...raw, version: 2, brief: { ...keptBrief, cases: isRecord(arm) ? [{ id: 'arm', name: 'Arm', rest: 1, ...arm, pattern: 'arm' }] : [], limits: list }, variants };
}

/** Version 3 adds load patterns, motors, sensors, shafts and the factors a joint keeps; what version 2 lacks has a starting value in the schema. */
const fromTwo = (raw: Raw): Raw => ({ ...raw, version: 3 });

const STEPS: Readonly<Record<number, (raw: Raw) => Raw>> = { 1: fromOne, 2: fromTwo };

/** Brings an older joint record up to the present version, one version at a time. A present one comes back as it is. */
export function migrate(raw: Raw): Raw {
  let now = raw;
  while (typeof now['version'] === 'number' && now['version'] < VERSION) {
    const step = STEPS[now['version']];
    if (!step) return now;
    now = step(now);
  }
  return now;
}
