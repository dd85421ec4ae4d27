import {
  leastShift,
  makeMesh,
  meshPair,
  shiftSum,
  splitShift,
  trimTips,
  wheel,
  type Gear,
  type Mesh,
} from '../../gear/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import type { StageProblem } from '../contract.ts';
import type { SpurParams } from './params.ts';

/** A train's wheels in order and their meshes; everything that no factor moves. */
export interface SpurGeometry {
  readonly wheels: readonly Gear[];
  readonly meshes: readonly Mesh[];
  /** Centres of the wheels, m. */
  readonly places: readonly (readonly [number, number])[];
  readonly x1: number;
  readonly x2: number;
  readonly outside: number;
  /** From the driving wheel's axis to the farthest of any wheel, m. */
  readonly beside: number;
}

/** Geometry of a train; refuses in words what does not mesh. */
export function spurGeometry(p: SpurParams): Result<SpurGeometry> {
  const ring = p.form === 'ring';
  const before = p.idlers > 0 ? p.zi : p.z1;
  if (ring && p.z2 <= before + 2) {
    const least = before + 8;
    const problem: StageProblem = {
      what: `A ring of ${p.z2} teeth is too small for a wheel of ${before} inside it.`,
      why: 'The wheel must run inside, and its tips must pass.',
      mend: `Give the ring ${least} teeth or more.`,
      place: 'z2',
      fix: { path: 'z2', value: least, label: `Ring ${least} teeth` },
    };
    return { ok: false, problem };
  }
  let [x1, x2] = [p.x1, p.x2];
  if (p.setBy === 'centre') {
    if (p.idlers > 0)
      return refuse(
        'A centre distance cannot be given for a train with idlers.',
        'Each mesh has its own.',
        'Give the shifts, or leave the idlers out.',
        'setBy',
      );
    const sum = shiftSum(p.module, p.z1, p.z2, p.pressure, p.helix, ring, p.centre);
    if (!sum.ok) return sum;
    if (Math.abs(sum.value) > 2)
      return refuse(
        'That centre distance needs more shift than teeth can take.',
        `The sum of shifts would be ${sum.value.toFixed(2)}; between −1 and 2 is usual.`,
        'Move the centres nearer to the plain distance, or change the teeth or the module.',
        'centre',
      );
    const g1 = wheel(p, p.z1, { helix: p.helix });
    [x1, x2] = splitShift(sum.value, ring, p.split, leastShift(g1), (a, b) =>
      meshPair({ ...g1, shift: a }, wheel(p, p.z2, { helix: ring ? p.helix : -p.helix, shift: b, ring })),
    );
  }
  // The hand turns at each outside mesh and stays at a ring.
  const base: Gear[] = [wheel(p, p.z1, { helix: p.helix, shift: x1, allowance: p.allowance1 })];
  for (let i = 0; i < p.idlers; i++)
    base.push(wheel(p, p.zi, { helix: -base[i]!.helix, shift: p.xi, allowance: p.allowance1 }));
  const last = base[base.length - 1]!;
  base.push(
    wheel(p, p.z2, {
      helix: ring ? last.helix : -last.helix,
      shift: x2,
      ring,
      allowance: p.allowance2,
      cutter: last.teeth,
    }),
  );
  const short = base.map(() => 0);
  if (p.trim === 'yes') {
    for (let i = 0; i + 1 < base.length; i++) {
      const [a, b] = trimTips(base[i]!, base[i + 1]!);
      short[i] = Math.max(short[i]!, a);
      short[i + 1] = Math.max(short[i + 1]!, b);
    }
  }
  const wheels = base.map((g, i) => ({ ...g, short: short[i]! }));
  const meshes: Mesh[] = [];
  for (let i = 0; i + 1 < wheels.length; i++) {
    const made = makeMesh(wheels[i]!, wheels[i + 1]!, p.width, p.double === 'yes');
    if (!made.ok) return made;
    meshes.push(made.value);
  }
  const places: [number, number][] = [[0, 0]];
  let heading = 0;
  meshes.forEach((m, i) => {
    if (i > 0) heading += p.bend;
    const a = m.pair.ring ? -m.pair.centre : m.pair.centre;
    // A ring's centre lies back beyond the wheel that runs in it.
    places.push([places[i]![0] + a * Math.cos(heading), places[i]![1] + a * Math.sin(heading)]);
  });
  const reach = wheels.map((g, i) =>
    g.ring ? meshes[i - 1]!.sides[1].root + p.rim : (i === 0 ? meshes[0]!.pair.s1 : meshes[i - 1]!.pair.s2).ra,
  );
  let outside = 0;
  const beside = Math.max(
    ...places.map((at, i) => Math.hypot(at[0] - places[0]![0], at[1] - places[0]![1]) + reach[i]!),
  );
  for (let i = 0; i < places.length; i++)
    for (let j = i; j < places.length; j++)
      outside = Math.max(
        outside,
        Math.hypot(places[i]![0] - places[j]![0], places[i]![1] - places[j]![1]) + reach[i]! + reach[j]!,
      );
  return ok({ wheels, meshes, places, x1, x2, outside, beside });
}
