import { VERSION } from '../schema/joint.ts';
import { tidyMoment } from '../schema/moment.ts';

type Raw = Record<string, unknown>;
const isRecord = (x: unknown): x is Raw => typeof x === 'object' && x !== null && !Array.isArray(x);

/**
 * Version 1 held a single load (`brief.arm`), limits as an object of numbers keyed by limit, and no sensor or re-sizing
 * mark.
 * Version 2 has a list of load cases, limits with a sense and a need, and both marks.
 */
function fromOne(raw: Raw): Raw {
  const brief = isRecord(raw['brief']) ? raw['brief'] : {};
  const { arm, limits, ...keptBrief } = brief;
  const least = new Set(['torque', 'speed', 'stiffness']);
  const list = isRecord(limits)
    ? Object.entries(limits).map(([id, value]) => ({ id, sense: least.has(id) ? 'min' : 'max', value, need: 'must' }))
    : [];
  const variants = Array.isArray(raw['variants'])
    ? raw['variants'].map((x) => (isRecord(x) ? { follows: false, sensor: { place: 'none', counts: 4096 }, ...x } : x))
    : raw['variants'];
  return {
    ...raw,
    version: 2,
    brief: {
      ...keptBrief,
      cases: isRecord(arm) ? [{ id: 'arm', name: 'Arm', rest: 1, ...arm, pattern: 'arm' }] : [],
      limits: list,
    },
    variants,
  };
}

/**
 * Version 3 adds load patterns, motors, sensors, shafts and the factors a joint keeps; what version 2 lacks has a
 * starting value in the schema.
 */
const fromTwo = (raw: Raw): Raw => ({ ...raw, version: 3 });

/** A day for what has none that can be read. */
const SOME_DAY = '2000-01-01T00:00:00.000Z';

/**
 * A build or test whose date is ISO 8601; a date that cannot be read goes into its notes, and it stands on the day of
 * the joint.
 */
function dated(raw: unknown, day: string, name?: string): unknown {
  if (!isRecord(raw)) return raw;
  const named =
    name !== undefined && typeof raw['name'] === 'string' && raw['name'].trim() === '' ? { ...raw, name } : raw;
  if (typeof named['date'] !== 'string') return named;
  const date = tidyMoment(named['date']);
  if (date !== undefined) return { ...named, date };
  const notes = typeof named['notes'] === 'string' ? named['notes'] : '';
  return {
    ...named,
    date: day,
    ...(named['date'].trim() !== '' && {
      notes: `${notes}${notes ? '\n' : ''}Date as it was written: ${named['date'].slice(0, 80)}`.slice(0, 20_000),
    }),
  };
}

/** Version 4 takes dates as ISO 8601 alone and names of more than spaces, and finds recordings by their SHA-256. */
function fromThree(raw: Raw): Raw {
  const told = (key: string) => (typeof raw[key] === 'string' ? tidyMoment(raw[key]) : undefined);
  const changed = told('changed') ?? told('created') ?? SOME_DAY;
  const day = changed.slice(0, 10);
  const unnamed = (x: unknown, name: string) =>
    isRecord(x) && typeof x['name'] === 'string' && x['name'].trim() === '' ? { ...x, name } : x;
  const each = (key: string, change: (x: unknown, i: number) => unknown) =>
    Array.isArray(raw[key]) ? { [key]: raw[key].map(change) } : {};
  return {
    ...(unnamed(raw, 'Unnamed joint') as Raw),
    version: 4,
    ...(typeof raw['changed'] === 'string' && { changed }),
    ...(typeof raw['created'] === 'string' && { created: told('created') ?? changed }),
    ...each('variants', (x, i) => unnamed(x, `Variant ${i + 1}`)),
    ...each('builds', (x, i) => dated(x, day, `Build ${i + 1}`)),
    ...each('tests', (x) => dated(x, day)),
  };
}

/**
 * Version 5 keeps the two tests at a lever as every other test: readings under the names of their columns, and the
 * wind-up of the push as a choice.
 */
function fromFour(raw: Raw): Raw {
  const columns: Readonly<Record<string, readonly string[]>> = {
    'play-lever': ['angle', 'difference'],
    'torque-ladder': ['mass', 'outcome'],
  };
  const reading = (own: readonly string[]) => (r: unknown) => {
    if (!isRecord(r) || 'values' in r) return r;
    const rest = Object.fromEntries(Object.entries(r).filter(([k]) => !own.includes(k)));
    return { ...rest, values: Object.fromEntries(own.filter((k) => k in r).map((k) => [k, r[k]])) };
  };
  const test = (t: unknown) => {
    const own = isRecord(t) && columns[String(t['kind'])];
    if (!own || !isRecord(t)) return t;
    const rig = isRecord(t['rig']) ? { ...t['rig'] } : t['rig'];
    if (isRecord(rig) && typeof rig['correctWindUp'] === 'boolean')
      rig['correctWindUp'] = rig['correctWindUp'] ? 'yes' : 'no';
    return { ...t, rig, readings: Array.isArray(t['readings']) ? t['readings'].map(reading(own)) : t['readings'] };
  };
  return { ...raw, version: 5, ...(Array.isArray(raw['tests']) && { tests: raw['tests'].map(test) }) };
}

const STEPS: Readonly<Record<number, (raw: Raw) => Raw>> = { 1: fromOne, 2: fromTwo, 3: fromThree, 4: fromFour };

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
