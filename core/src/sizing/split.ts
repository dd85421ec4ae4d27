import { stated } from '../units/stated.ts';
import { demandOf } from '../brief/demand.ts';
import type { Joint, StageRecord, Variant } from '../schema/joint.ts';
import { ok, refuse, type Result } from '../result.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Duty, StageNumbers, StageWish } from '../stage/contract.ts';
import { inputDuty, outputDuty } from '../line/numbers.ts';
import { carries } from '../stage/choose-candidate.ts';
import { stageKind, stageKinds } from '../stage/registry.ts';
import { atArm } from '../stage/straight.ts';
import { mustSize, wishOf } from './size.ts';

export type SplitId = 'inertia' | 'equal' | 'strong';

export interface Split {
  readonly id: SplitId;
  readonly name: string;
  readonly why: string;
  /** Ratios from the motor to the output; their product is the total. */
  readonly ratios: readonly number[];
  /**
   * Inertia of the stages at the motor in units of the first driving wheel's, for wheels of one width; for comparing
   * splits.
   */
  readonly inertia: number;
}

/**
 * Inertia at the motor of a train with like driving wheels, in units of one of them: Σ (1 + i_k²·…)/Π before². A wheel
 * i_k times as large has
 * i_k⁴ the inertia and turns 1/i_k as fast.
 */
export function trainInertia(ratios: readonly number[]): number {
  let [sum, before] = [0, 1];
  for (const i of ratios) {
    sum += (1 + i * i) / (before * before);
    before *= i;
  }
  return sum;
}

/** The split of least inertia at the motor: i_{k+1} = √((i_k⁴ − 1)/2), the first found by halving. */
function leastInertia(total: number, n: number): number[] {
  const chain = (first: number) => {
    const list = [first];
    for (let k = 1; k < n; k++) list.push(Math.sqrt(Math.max(0, (list[k - 1]! ** 4 - 1) / 2)));
    return list;
  };
  let [lo, hi] = [1, total];
  for (let k = 0; k < 80; k++) {
    const mid = Math.sqrt(lo * hi);
    if (chain(mid).reduce((p, x) => p * x, 1) < total) lo = mid;
    else hi = mid;
  }
  return chain(hi);
}

/**
 * The best of the recursion over all stages, over fewer with the last at one, and of an even split: for little ratio
 * the recursion's optimum lies outside.
 */
function leastInertiaOf(total: number, n: number): number[] {
  const tried = [Array.from({ length: n }, () => total ** (1 / n))];
  for (let m = 1; m <= n; m++) {
    const list = leastInertia(total, m);
    if (list.every((x) => x >= 1)) tried.push([...list, ...Array.from({ length: n - m }, () => 1)]);
  }
  return tried.reduce((a, b) => (trainInertia(b) < trainInertia(a) ? b : a));
}

/** How much smaller the last stage's ratio is than an even share, where it should be the strongest. */
const STRONG = 1.35;

/** Ways of sharing a total ratio among stages. */
export function splits(total: number, n: number): Split[] {
  const even = total ** (1 / n);
  const strongLast =
    n === 1
      ? [total]
      : Array.from({ length: n }, (_, k) =>
          k === n - 1 ? Math.max(1, even / STRONG) : (total / Math.max(1, even / STRONG)) ** (1 / (n - 1)),
        );
  const make = (id: SplitId, name: string, why: string, ratios: number[]): Split => ({
    id,
    name,
    why,
    ratios,
    inertia: trainInertia(ratios),
  });
  return [
    make('inertia', 'Least inertia', 'Small ratio first: what turns fast stays small.', leastInertiaOf(total, n)),
    make(
      'equal',
      'Equal',
      'Stages alike: fewest different parts.',
      Array.from({ length: n }, () => even),
    ),
    make('strong', 'Strongest last', 'Small ratio last: large driving wheel where most is carried.', strongLast),
  ];
}

/**
 * Play at the output when a last stage of a ratio follows: what came before is divided by it, its own adds whole, rad.
 */
export const playAfter = (before: number, ratio: number, own: number): number => before / Math.abs(ratio) + own;

export type Preference = 'money' | 'play' | 'mass';

/** A stage chosen for a place. */
interface Fit {
  readonly kind: string;
  readonly params: Record<string, unknown>;
  readonly numbers: StageNumbers;
  readonly carries: number;
}

/** How far a kind's ratio may lie from the one wanted. */
const NEAR = 0.12;

function fits(
  want: Omit<StageWish, 'torque' | 'duty'>,
  at: Duty,
  only: string | undefined,
  /** Of the brief's straight axis, where this is the last place of its line. */
  travel: number | undefined,
): Fit[] {
  const { ratio, size, shelf } = want;
  const list: Fit[] = [];
  for (const known of stageKinds()) {
    const kind = atArm(known, travel);
    if (!kind || (only && kind.id !== only)) continue;
    const params = kind.defaults({ ...want, torque: at.torque, duty: at }) as Record<string, unknown>;
    const opened = kind.open(params, shelf);
    if (!opened.ok || Math.abs(Math.abs(opened.value.kinematics.ratio) / ratio - 1) > NEAR) continue;
    const numbers = opened.value.load(at);
    const share = carries({ numbers }, at) / Math.max(at.torque, 1e-9);
    if (share >= 1 && numbers.outside <= size) list.push({ kind: kind.id, params, numbers, carries: share });
  }
  return list;
}

const SCORE: Readonly<Record<Preference, (n: StageNumbers) => number>> = {
  money: (n) => n.money,
  play: (n) => n.play[2] + 1e-9 * n.money,
  mass: (n) => n.mass,
};

/**
 * Fills a line with stages for a split: for every place, from the output back, the kind that fits and is best by the
 * preference.
 *
 * @param only a kind to use throughout; any that fits where left out
 * @returns new stages, or a problem that names the place no kind fits
 */
export function fillLine(
  joint: Joint,
  variant: Variant,
  shelf: Shelf,
  ratios: readonly number[],
  prefer: Preference,
  identify: (j: number) => string,
  only?: string,
): Result<StageRecord[]> {
  const demand = demandOf(joint.brief, shelf);
  const size = mustSize(joint);
  const out = new Array<StageRecord>(ratios.length);
  let at: Duty = outputDuty(demand);
  let slack = 1;
  let beside = false;
  for (let j = ratios.length - 1; j >= 0; j--) {
    // What rounding to real teeth added or took away is made up by the stages before.
    const wanted = Math.max(1, ratios[j]! * slack ** (1 / (j + 1)));
    const found = fits(
      { ...wishOf(joint, shelf, beside), ratio: wanted },
      at,
      only,
      j === ratios.length - 1 ? demand.travel : undefined,
    ).sort((a, b) => SCORE[prefer](a.numbers) - SCORE[prefer](b.numbers))[0];
    if (!found) {
      const name = only ? stageKind(only)?.name.toLowerCase() : undefined;
      return refuse(
        `No ${name ?? 'kind of stage'} fits as stage ${j + 1}, ratio ${wanted.toPrecision(3)} at ` +
          `${stated(at.torque, 'torque', 3)}${Number.isFinite(size) ? ` within ${stated(size, 'length', 3)}` : ''}.`,
        'Either it cannot carry that torque, cannot be made in that ratio, or is too large across.',
        name
          ? 'Let any kind be taken, or share the ratio among more stages.'
          : 'Share the ratio among more stages, or allow more size.',
      );
    }
    out[j] = { id: identify(j), kind: found.kind, params: found.params };
    slack *= wanted / Math.abs(found.numbers.ratio);
    at = inputDuty(at, found.numbers);
    if (found.numbers.beside) beside = true;
  }
  return ok(out);
}
