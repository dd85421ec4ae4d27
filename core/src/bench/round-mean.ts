import { stated } from '../units/stated.ts';
import { fisher95, fitTelling, roundBlock, trendBlock, type Block } from './telling.ts';
import { fromBounds, typeA, type Contribution } from './uncertainty.ts';

/** The mean over a turn of something read at several angles of it. */
export interface RoundMean {
  readonly mean: number;
  /** Scatter, and what the readings do besides: parts of the uncertainty of the mean. */
  readonly budget: readonly Contribution[];
  /** What was seen besides scatter, and the reading that would settle it. */
  readonly says: readonly string[];
}

const TURN = 2 * Math.PI;
/** Angles closer than this are one. */
const SAME = 1e-3;

/** Numbers the angles that are apart, 0 … count − 1. */
function placesOf(angle: Float64Array): { place: Int32Array; count: number } {
  const known: number[] = [];
  const place = Int32Array.from(angle, (a) => {
    const own = ((a % TURN) + TURN) % TURN;
    const at = known.findIndex((k) => Math.min(Math.abs(k - own), TURN - Math.abs(k - own)) < SAME);
    return at >= 0 ? at : known.push(own) - 1;
  });
  return { place, count: known.length };
}

/** What to do about a result that changes from reading to reading. */
const CREEPS =
  'Zero the reading anew before each push, look whether the stand or the clamp gives, and read the first angle again at the end.';

/**
 * The mean over the turn: where readings go up and down once round, that is fitted, so that the angles that happened to
 * be chosen do not make the mean; where angles differ otherwise more than repeats do, it is the angles that count and not
 * the readings; where readings go on growing from the first to the last, the mean is known no better than that.
 *
 * @param angles output angle of each reading, rad, in the order they were read
 * @param values what was read, in the unit of `quantity`
 * @param name what is read, for sentences: “play”
 * Source: partial F tests; one-way analysis of variance of what is left.
 */
export function roundMean(angles: readonly number[], values: readonly number[], name: string): RoundMean {
  const n = values.length;
  const more = `about ${n * 4} readings in place of ${n}`;
  const plain = typeA(values);
  const scatter = (u: number, dof: number, halve = more): Contribution => ({
    id: 'scatter',
    name: 'scatter of the readings',
    u,
    dof,
    halve,
  });
  const angle = Float64Array.from(angles);
  const { place, count } = placesOf(angle);
  const blocks: Block[] = [...(count >= 3 ? [roundBlock('once', 1, angle)] : []), ...(n >= 4 ? [trendBlock(n)] : [])];
  const y = Float64Array.from(values);
  const fit = n >= 4 && fitTelling(y, [new Float64Array(n).fill(1)], blocks);
  if (!fit) return { mean: plain.mean, budget: [scatter(plain.u, plain.dof)], says: [] };
  const mean = fit.values[0]!;
  const budget: Contribution[] = [];
  const says: string[] = [];
  const own = Math.sqrt(fit.covariance[0]![0]!);
  const apart = betweenAngles(fit.residuals, place, count, fit.at('once') >= 0 ? 3 : 1);
  if (apart) {
    budget.push(scatter(Math.max(own, apart.u), apart.dof, `${name} read at about ${count * 4} angles`));
    says.push(
      `The ${name} differs between angles of the output by more than repeats do: it is the ${count} angles that count, ` +
        'not the readings. Read at more angles, once each.',
    );
  } else budget.push(scatter(own, fit.dof));
  const once = fit.at('once');
  if (once >= 0) {
    const [a, b] = [fit.values[once]!, fit.values[once + 1]!];
    const high = (Math.atan2(b, a) + TURN) % TURN;
    says.push(
      `The ${name} goes once round with the output, ${stated(Math.hypot(a, b), 'smallAngle', 2)} to either side of its mean, ` +
        `most at ${stated(high, 'angle', 3)}: a part at the output runs out, or teeth do.`,
    );
  }
  const trend = fit.at('trend');
  if (trend >= 0) {
    const grown = fit.values[trend]!;
    budget.push({
      id: 'creep',
      name: 'change from the first reading to the last',
      // Whether the first or the last is right is not known, and how much it grew not quite.
      u: Math.hypot(fromBounds(grown / 2), Math.sqrt(fit.covariance[trend]![trend]!) / 2),
      dof: Infinity,
      halve: 'readings that do not creep',
    });
    says.push(
      `From the first reading to the last the ${name} ${grown > 0 ? 'grows' : 'falls'} by ${stated(Math.abs(grown), 'smallAngle', 2)}: ` +
        `something creeps or warms. ${CREEPS}`,
    );
  }
  return { mean, budget, says };
}

/**
 * The uncertainty of a mean whose readings stick together by angle; undefined where angles differ no more than chance
 * lets them.
 *
 * @param fitted how many numbers were fitted that tell angles apart
 */
function betweenAngles(
  residuals: Float64Array,
  place: Int32Array,
  count: number,
  fitted: number,
): { u: number; dof: number } | undefined {
  const n = residuals.length;
  const dof = count - fitted;
  if (dof < 1 || n <= count) return undefined;
  const sums = new Float64Array(count);
  const each = new Float64Array(count);
  for (let i = 0; i < n; i++) {
    sums[place[i]!]! += residuals[i]!;
    each[place[i]!]! += 1;
  }
  const means = sums.map((s, k) => s / each[k]!);
  let [between, within] = [0, 0];
  for (let i = 0; i < n; i++) {
    between += means[place[i]!]! ** 2;
    within += (residuals[i]! - means[place[i]!]!) ** 2;
  }
  if (!(between / dof > (fisher95(dof, n - count) * within) / (n - count))) return undefined;
  return { u: Math.sqrt(means.reduce((s, m) => s + m * m, 0) / dof / count), dof };
}
