import { arrivingShare } from '../stage/arriving.ts';
import { Extent } from '../line/extent.ts';
import type { Before } from '../stage/contract.ts';
import type { Member } from './members.ts';

/** Steps of ratio, as logarithms, within which one member of a kind stands for the others. */
const APART = Math.log(1.3);

/** The cheapest of each kind in each step of ratio. */
export function fewOf(list: readonly Marked[]): Marked[] {
  const best = new Map<string, Marked>();
  for (const m of list) {
    const key = `${m.kind} ${Math.round(Math.log(m.ratio) / APART)}`;
    const known = best.get(key);
    if (!known || m.numbers.money < known.numbers.money) best.set(key, m);
  }
  return [...best.values()].sort((a, b) => a.ratio - b.ratio);
}

/** Stages in a block that are judged together before each is. */
const BLOCK = 12;

/** The best that any stage of some has of everything: what no line with one of them can beat. */
export interface Ideal {
  readonly money: number;
  readonly mass: number;
  readonly play: number;
  readonly compliance: number;
  readonly outside: number;
  readonly length: number;
  readonly before: Before | undefined;
  readonly eta: number;
  readonly drag: number;
  /** Of what turns it back: so many times what idles before it. */
  readonly back: readonly [least: number, most: number];
  readonly mostDrag: number;
  readonly bore: number;
  readonly least: number;
  readonly most: number;
}

/** How many times what idles before a stage turns it back; Infinity where it holds by itself. */
const backOf = ({ ratio, numbers }: Member): number =>
  numbers.etaBackward > 0 ? ratio / numbers.etaBackward : Infinity;

/** The nearest that what comes before any of some stages of one kind can stand; how high it lies is not told. */
function leastBefore(list: readonly Member[]): Before | undefined {
  const befores = list.flatMap((m) => m.numbers.before ?? []);
  if (befores.length < list.length) return undefined;
  const least = (of: (b: Before) => number) => befores.reduce((x, b) => Math.min(x, of(b)), Infinity);
  const across = befores.every((b) => b.across) && {
    far: least((b) => b.across!.far),
    high: NaN,
    lean: -least((b) => -Math.abs(b.across!.lean)),
  };
  return { beside: least((b) => b.beside ?? 0), off: least((b) => b.off ?? 0), ...(across && { across }) };
}

function idealOf(list: readonly Member[]): Ideal {
  const least = (of: (m: Member) => number) => list.reduce((b, m) => Math.min(b, of(m)), Infinity);
  return {
    money: least((m) => m.numbers.money),
    mass: least((m) => m.numbers.mass),
    play: least((m) => m.numbers.play[0]),
    compliance: least((m) => 1 / m.numbers.stiffness),
    outside: least((m) => m.numbers.outside),
    length: least((m) => m.numbers.length),
    before: leastBefore(list),
    eta: -least((m) => -arrivingShare(m.numbers)),
    drag: least((m) => m.numbers.drag),
    back: [least(backOf), -least((m) => -backOf(m))],
    mostDrag: -least((m) => -m.numbers.drag),
    bore: -least((m) => -m.numbers.bore),
    least: least((m) => m.ratio),
    most: -least((m) => -m.ratio),
  };
}

/** A screened stage, with a bit for its kind. */
export type Marked = Member & { readonly mask: number; readonly of: Member };

/** Torque that a stage asks of what comes before it, N·m. */
export const wantedBefore = ({ at, ratio, numbers }: Member): number =>
  at / (ratio * arrivingShare(numbers)) + numbers.drag;

/** How many of a list by ratio are not above one. */
export function countUpTo(list: readonly Member[], ratio: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]!.ratio <= ratio) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Stages of one kind, by ratio, in blocks. */
export interface Group {
  readonly kind: string;
  readonly mask: number;
  readonly blocks: readonly { readonly list: readonly Marked[]; readonly ideal: Ideal }[];
}

export const groupsOf = (list: readonly Marked[]): Group[] =>
  [...new Set(list.map((m) => m.kind))].map((kind) => {
    const own = list.filter((m) => m.kind === kind);
    const blocks = Array.from({ length: Math.ceil(own.length / BLOCK) }, (_, i) => {
      const some = own.slice(i * BLOCK, (i + 1) * BLOCK);
      return { list: some, ideal: idealOf(some) };
    });
    return { kind, mask: own[0]!.mask, blocks };
  });

/** Stages from one to the output, and what they sum to there. */
export class Sum {
  /** From the motor's side. */
  stages: readonly Marked[] = [];
  /** `planetary + belt`. */
  kinds = '';
  /** A bit for each kind. */
  mask = 0;
  ratio = 1;
  money = 0;
  mass = 0;
  play = 0;
  compliance = 0;
  readonly room = new Extent();
  efficiency = 1;
  /** What turns it back: so many times what idles before it, and what drags on the way. */
  back = 1;
  drags = 0;
  /** The narrowest passage so far, and whether the line has turned aside from the output's axis. */
  bore = Infinity;
  turned = false;
  /** What every point of the demand asks at its input, N·m. */
  readonly asked: Float64Array;

  constructor(points: number) {
    this.asked = new Float64Array(points);
  }

  /** Sums one more stage before those of another. */
  put(m: Marked, after: Sum): void {
    const n = m.numbers;
    this.mask = after.mask | m.mask;
    this.money = after.money + n.money;
    this.mass = after.mass + n.mass;
    this.play = after.play + n.play[0] / after.ratio;
    this.compliance = after.compliance + 1 / (n.stiffness * after.ratio * after.ratio);
    this.room.put(n, after.room);
    this.efficiency = after.efficiency * arrivingShare(n);
    this.ratio = after.ratio * m.ratio;
    this.back = after.back * backOf(m);
    this.drags = after.drags + n.drag * this.back;
    this.bore = after.turned || after.bore < n.bore ? after.bore : n.bore;
    this.turned = after.turned || n.beside;
    for (let k = 0; k < this.asked.length; k++) this.asked[k] = after.asked[k]! / (m.ratio * arrivingShare(n)) + n.drag;
  }

  /**
   * The best that any of some stages before those of another comes to.
   *
   * @param holds whether what turns it back is to be large
   */
  putIdeal(b: Ideal, after: Sum, holds: boolean): void {
    this.back = after.back * b.back[holds ? 1 : 0];
    this.drags = after.drags + (holds ? b.mostDrag : b.drag) * this.back;
    this.money = after.money + b.money;
    this.mass = after.mass + b.mass;
    this.play = after.play + b.play / after.ratio;
    this.compliance = after.compliance + b.compliance / (after.ratio * after.ratio);
    this.room.put(b, after.room);
    this.efficiency = after.efficiency * b.eta;
    this.ratio = after.ratio * b.least;
    this.bore = after.turned || after.bore < b.bore ? after.bore : b.bore;
    this.turned = true;
    for (let k = 0; k < this.asked.length; k++) this.asked[k] = after.asked[k]! / (b.most * b.eta) + b.drag;
  }
}
