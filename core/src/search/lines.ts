import type { Variant } from '../schema/joint.ts';
import type { Composed } from './compose.ts';
import { dominates } from './dominance.ts';
import type { Drive } from './drives.ts';
import type { Member } from './members.ts';

/** Stages that were screened, and for each kind the strongest that fell short, as a share of the torque at the output. */
export interface Screening {
  readonly members: readonly Member[];
  /** For each of them the number of the wish that it came from, so that parts are put together in one order. */
  readonly wishes: readonly number[];
  readonly short: Readonly<Record<string, number>>;
  readonly screened: number;
}

/** A line in as few words as it takes: its motor, and the numbers of its stages among those screened. */
export interface Drawn {
  readonly drive: number;
  readonly stages: readonly number[];
}

/** All screened stages in the order of their wishes, however many parts they were screened in. */
export const membersOf = (screenings: readonly Screening[]): Member[] =>
  screenings
    .flatMap((s) => s.members.map((of, i) => ({ of, wish: s.wishes[i]! })))
    .sort((a, b) => a.wish - b.wish)
    .map((m) => m.of);

/** A line with its screened stages in place of their numbers. */
export const madeOf = ({ drive, stages }: Drawn, members: readonly Member[]): Composed => ({
  drive,
  stages: stages.map((k) => members[k]!),
});

/** A variant without a housing: lines are compared by what is in it, since each would have another. */
export function bare(variant: Variant): Variant {
  const { housing: _, ...rest } = variant;
  return rest;
}

/** The variant with a line's motor and stages. */
export const recordOf = ({ drive, stages }: Composed, drives: readonly Drive[], variant: Variant): Variant => ({
  ...bare(variant),
  follows: false,
  motor: drives[drive]!.motor,
  driver: drives[drive]!.driver,
  stages: stages.map((m, j) => ({ id: `s${j + 1}`, kind: m.kind, params: { ...m.params } })),
});

/** A line by what it is chosen by, all to be small. */
export interface Weighed {
  readonly of: Pick<Drawn, 'stages'>;
  readonly aims: ArrayLike<number>;
}

/** A line of more stages must be better by this share in something than one of fewer. */
const SIMPLER = 0.05;

/** Whether a line is as good as another in everything and better in something, or about as good with fewer stages. */
export const betterThan = (a: Weighed, b: Weighed): boolean =>
  dominates(a.aims, b.aims, a.of.stages.length < b.of.stages.length ? SIMPLER : 0);

/**
 * Those of a list that fewer than several others are better than, as `betterThan` has it; all aims positive.
 *
 * One that is better has the smaller product of its aims, but for what simplicity is worth: in the order of that product only
 * those before it need be asked, the strongest first.
 */
export function fewBetter<T extends Weighed>(list: readonly T[], several: number): T[] {
  const count = list.length;
  const width = list[0]?.aims.length ?? 0;
  const product = Float64Array.from(list, ({ aims }) => {
    let sum = 0;
    for (let k = 0; k < width; k++) sum += Math.log(aims[k]!);
    return sum;
  });
  const order = Uint32Array.from(list, (_, i) => i).sort((a, b) => product[a]! - product[b]! || a - b);
  const room = width * Math.log(1 + SIMPLER) + 1e-9;
  const aims = new Float64Array(count * width);
  const stages = new Uint8Array(count);
  order.forEach((of, n) => {
    aims.set(list[of]!.aims, n * width);
    stages[n] = list[of]!.of.stages.length;
  });
  const stays = new Uint8Array(count);
  for (let n = 0; n < count; n++) {
    const until = product[order[n]!]! + room;
    let better = 0;
    for (let j = 0; j < count && product[order[j]!]! <= until; j++)
      if (j !== n && isBetter(aims, j * width, n * width, width, stages[j]! < stages[n]! ? SIMPLER : 0)) {
        better++;
        if (better === several) break;
      }
    if (better < several) stays[order[n]!] = 1;
  }
  return list.filter((_, i) => stays[i] === 1);
}

/** `dominates` for aims that stand one after the other. */
function isBetter(aims: Float64Array, a: number, b: number, width: number, slack: number): boolean {
  let better = slack > 0;
  for (let k = 0; k < width; k++) {
    const x = aims[a + k]!;
    const y = aims[b + k]!;
    if (x > y + slack * y) return false;
    if (x < y) better = true;
  }
  return better;
}
