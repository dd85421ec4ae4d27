import { askedValue, type Demand } from '../brief/demand.ts';
import type { Limit, LimitId } from '../schema/joint.ts';
import type { Extent } from '../line/extent.ts';
import { countUpTo, fewOf, groupsOf, Sum, wantedBefore, type Group, type Marked } from './columns.ts';
import { NonDominated, Strongest } from './dominance.ts';
import { bestDriveOf, placeOf, RATIOS, windowOf, type Drive } from './drives.ts';
import type { Member } from './members.ts';

/** A line as places of its parts: motor first, then its stages from the motor to the output. */
export interface Composed {
  readonly drive: number;
  readonly stages: readonly Member[];
}

/** A line that comes near, and what keeps it out. */
export interface Miss extends Composed {
  readonly limit: LimitId;
  readonly value: number;
  readonly asked: number;
  /** How many times as much, or as little, as is asked. */
  readonly by: number;
}

/** What a line is chosen by; all to be small. */
export const AIMS = ['money', 'mass', 'play', 'stiffness', 'size', 'efficiency'] as const;
export type Aim = (typeof AIMS)[number];

/** A limit of the brief that the sum over columns knows. */
export interface Bound {
  readonly id: LimitId;
  readonly asked: number;
  /** The column that tells it. */
  readonly of: keyof Sums;
  readonly most: boolean;
}

interface Sums {
  money: number;
  mass: number;
  play: number;
  stiffness: number;
  size: number;
  length: number;
  torque: number;
  efficiency: number;
  /** Infinite where a stage holds by itself. */
  turnBack: number;
  /** Clear passage from the output to where the line turns aside, m; a hair where there is none. */
  bore: number;
}

const COLUMN: Partial<Record<LimitId, keyof Sums>> = {
  money: 'money',
  mass: 'mass',
  play: 'play',
  stiffness: 'stiffness',
  size: 'size',
  length: 'length',
  turnBack: 'turnBack',
  bore: 'bore',
};

/** Limits of the brief that the sum over columns knows: those that must be, or those that are wished for as well. */
export const boundsOf = (limits: readonly Limit[], demand: Demand, wishes = false): Bound[] =>
  limits.flatMap((l): Bound[] => {
    const of = COLUMN[l.id];
    const asked = askedValue(l, demand);
    return (wishes || l.need === 'must') && of && l.sense !== 'either' && asked > 0
      ? [{ id: l.id, asked, of, most: l.sense === 'max' }]
      : [];
  });

/** How far a line may lie outside of a bound here and still be computed whole: columns are near, not exact. */
const NEAR = 0.04;
/** What moves with the duty, so that a column tells it nearly. */
const MOVES: ReadonlySet<keyof Sums> = new Set(['stiffness', 'turnBack']);
/** What a line must spare by its columns to beat others: they tell what it carries within 7 % in 19 lines of 20. */
const SURE = 0.93;
/**
 * By how much one beats another, aim by aim, and how many it takes: stiffness and efficiency move with the duty, and some
 * of those that beat may be stopped by a check of the whole line.
 */
const [BEATS, SEVERAL] = [[0, 0, 0, 0.03, 0, 0.03], 3] as const;
/** Lines kept for one set of mechanisms, as alike within this share. */
const ALIKE = 0.05;
/** Steps of ratio, as logarithms, within which pairs of last stages do the same, and how many are kept of those. */
const [CELL, PAIRS] = [Math.log(1.12), 3];
/** As many as are kept of one set before more count as alike. */
const CROWD = 60;

/** Place of the highest bit of a mask. */
const placeOfBit = (mask: number): number => 31 - Math.clz32(mask);

/** A passage that is none, m: so that a line without one misses what is asked by a number. */
const HAIR = 1e-5;
/** The last two stages of longer lines, and how many lines they could make. */
interface Pair {
  readonly stages: readonly Marked[];
  readonly lines: number;
}

/**
 * Puts lines together from screened stages: the last carries the demand, each before it what the one after takes in. What
 * it sums is what a line's whole computation sums, from columns: mass, money, ratio and play exactly, what depends on duty
 * nearly. Stages that come first in a line are judged in blocks: where the best of everything in a block, with the best of
 * every motor, misses a must or is worse than a line that is there already, none of them is looked at alone.
 */
export class Composer {
  /** Non-dominated lines by their mechanisms: `planetary + belt`. */
  readonly fronts = new Map<string, NonDominated<Composed>>();
  /** The nearest miss of every kind that was looked at. */
  readonly misses = new Map<string, Miss>();
  /**
   * Of every kind the line that meets every must, with something to spare where one does, and
   * has the least product of all that lines are chosen by.
   */
  readonly even = new Map<string, Composed & { readonly aims: Float64Array; readonly by: number }>();
  /** How far the nearest miss of each kind misses, and what the most even line of each has: by the place of its bit. */
  private readonly missBy = new Float64Array(32).fill(Infinity);
  private readonly evenBy = new Float64Array(32).fill(Infinity);
  /** Kinds in a line that meets every must, as near as its columns tell: a bit each. */
  private met = 0;
  private readonly cells = new Map<number, NonDominated<Pair>>();
  /** Lines that all pairs could make. */
  private linesOffered = 0;
  /** Bounds on what lines are not chosen by. */
  private readonly beyond: readonly Bound[];
  private readonly pairAims: Float64Array;
  /** What is asked of the torque that turns a line back; small where nothing is. */
  private readonly backToBe: 'small' | 'large' | 'both';
  private readonly best = new Strongest(BEATS, SEVERAL);
  /** Lines that were judged, and those of them that were in blocks. */
  looked = 0;
  pruned = 0;
  private readonly bounds: readonly Bound[];
  private readonly sums: Sums = {
    money: 0,
    mass: 0,
    play: 0,
    stiffness: 0,
    size: 0,
    length: 0,
    torque: 0,
    efficiency: 0,
    turnBack: 0,
    bore: 0,
  };
  private readonly aims = new Float64Array(AIMS.length);
  /** How many times too much or too little of what must be there is, at worst, and the place of that bound: −1 for torque. */
  private out = 0;
  private worst = -1;
  /** Acceleration of every point of the demand, and whether it counts. */
  private readonly spins: Float64Array;
  private readonly counts: Uint8Array;
  /** Stages of every place by the torque they were screened at. */
  private readonly levels: {
    readonly torque: number;
    /** By ratio. */
    readonly list: readonly Marked[];
    readonly groups: readonly Group[];
    /** One of each kind and ratio, for lines of many stages. */
    readonly few: readonly Marked[];
  }[];
  /** Stages that can be last, by ratio: what runs straight is nowhere else. */
  private readonly lasts: readonly Marked[];
  private readonly rare: ReadonlySet<Member>;
  /** The largest total ratio of any use. */
  private readonly most: number;
  /** The best that any drive has of everything. */
  private readonly bestDrive: Drive;
  /** Places of the drives, the cheapest first. */
  private readonly cheapFirst: readonly number[];
  /** Drives that do for the line that is looked at. */
  private readonly does: number[] = [];
  private readonly at: readonly Sum[];
  private readonly next: Sum;

  /**
   * @param members screened, of any torque
   * @param stages most stages of a line
   * @param limits of the brief; musts bind
   * @param blocks whether stages are judged in blocks first; all alone is slower and gives the same
   */
  constructor(
    private readonly drives: readonly Drive[],
    members: readonly Member[],
    private readonly demand: Demand,
    limits: readonly Limit[],
    private readonly stages: number,
    holds: boolean,
    private readonly blocks = true,
  ) {
    this.bounds = boundsOf(limits, demand);
    this.beyond = this.bounds.filter((b) => b.of === 'length' || b.of === 'turnBack' || b.of === 'bore');
    const back = this.bounds.filter((b) => b.of === 'turnBack');
    this.backToBe = back.length > 1 ? 'both' : back[0]?.most === false ? 'large' : 'small';
    this.pairAims = new Float64Array(AIMS.length + 1 + this.beyond.length);
    this.spins = Float64Array.from(demand.points, (p) => p.acceleration ?? 0);
    this.counts = Uint8Array.from(demand.points, (p) => (p.torque > 0 && !(holds && p.speed === 0) ? 1 : 0));
    const kinds = [...new Set(members.map((m) => m.kind))];
    const marked = members.map((m): Marked => ({ ...m, mask: 1 << kinds.indexOf(m.kind), of: m }));
    const torques = [...new Set(members.map((m) => m.at))].sort((a, b) => b - a);
    const byRatio = [...marked].sort((a, b) => a.ratio - b.ratio);
    this.levels = torques.map((torque) => {
      const list = byRatio.filter((m) => m.at === torque && !m.ends);
      return { torque, list, groups: groupsOf(list), few: fewOf(list) };
    });
    this.lasts = byRatio.filter((m) => m.at === torques[0]);
    this.rare = new Set([...this.levels.flatMap((l) => l.few), ...fewOf(this.lasts.filter((m) => m.ends))]);
    // Where every stage passes on all, the widest window that any drive has.
    this.most = drives.reduce((w, d) => Math.max(w, windowOf(d, demand, 1, holds)?.[1] ?? 0), 0);
    this.bestDrive = bestDriveOf(drives, this.backToBe === 'large');
    this.cheapFirst = drives.map((_, i) => i).sort((a, b) => drives[a]!.money - drives[b]!.money || a - b);
    this.at = Array.from({ length: stages + 1 }, () => new Sum(demand.points.length));
    this.next = new Sum(demand.points.length);
    demand.points.forEach((p, k) => (this.at[0]!.asked[k] = p.torque));
  }

  /** How many first steps there are: one a stage that can be last; none where nothing carries what the output asks. */
  get steps(): number {
    const [most] = this.levels;
    return most && most.torque >= this.demand.peak * (1 - 1e-9) ? this.lasts.length : 0;
  }

  /** Looks at every line of one or two stages that ends in one stage; pairs that longer lines could be made of are kept. */
  step(k: number): void {
    const last = this.lasts[k]!;
    this.take(last, this.at[0]!, this.at[1]!);
    this.looked += this.drives.length;
    this.close(last, this.at[0]!, this.at[1]!);
    if (this.stages < 2) return;
    this.closeAll(this.at[1]!);
    if (this.stages > 2) this.goOn(this.at[1]!, 'list', (m, after) => this.keepPair(m, after));
  }

  /** Pairs of last stages that lines of three and more are made of: none much worse than another that does the same. */
  pairs(): readonly (readonly Marked[])[] {
    const kept = [...this.cells.values()].flatMap((cell) => cell.items.map((x) => x.of));
    const left = this.linesOffered - kept.reduce((n, p) => n + p.lines, 0);
    this.linesOffered -= left;
    this.looked += left;
    this.pruned += left;
    return kept.map((p) => p.stages);
  }

  /** Looks at every line of three or more stages that ends in a pair. */
  stepOn([before, last]: readonly Marked[]): void {
    this.take(last!, this.at[0]!, this.at[1]!);
    this.take(before!, this.at[1]!, this.at[2]!);
    this.longer(2);
  }

  private longer(depth: number): void {
    const sum = this.at[depth]!;
    this.closeAll(sum);
    if (depth + 1 >= this.stages || !sum.stages.every((m) => this.rare.has(m))) return;
    this.goOn(sum, 'few', (m) => {
      this.take(m, sum, this.at[depth + 1]!);
      this.longer(depth + 1);
    });
  }

  /** One more stage before those of a sum, as a sum of its own. */
  private take(m: Marked, after: Sum, into: Sum): void {
    into.put(m, after);
    into.stages = [m, ...after.stages];
    into.kinds = after.kinds ? `${m.kind} + ${after.kinds}` : m.kind;
  }

  /** The least level of torque that is enough before a stage; −1 where none is. */
  private levelFor(wanted: number): number {
    let level = -1;
    for (let i = 0; i < this.levels.length; i++) if (this.levels[i]!.torque >= wanted) level = i;
    return level;
  }

  /** Looks at the lines that one more stage before those of a sum makes. */
  private closeAll(sum: Sum): void {
    const wanted = wantedBefore(sum.stages[0]!);
    const level = this.levelFor(wanted);
    if (level < 0) return;
    const speed = this.demand.speed * sum.ratio;
    for (const group of this.levels[level]!.groups) this.closeGroup(group, sum, wanted, speed);
  }

  /** Goes on from a sum with every stage that could come before. */
  private goOn(sum: Sum, which: 'list' | 'few', hears: (m: Marked, after: Sum) => void): void {
    const wanted = wantedBefore(sum.stages[0]!);
    const level = this.levelFor(wanted);
    if (level < 0) return;
    const speed = this.demand.speed * sum.ratio;
    for (const m of this.levels[level]![which]) {
      if (sum.ratio * m.ratio > this.most) break;
      if (m.most < wanted || m.numbers.maxSpeed < speed * m.ratio) continue;
      hears(m, sum);
    }
  }

  private keepPair(m: Marked, after: Sum): void {
    const level = this.levelFor(wantedBefore(m));
    if (level < 0) return;
    const { next } = this;
    next.put(m, after);
    const lines = this.drives.length * countUpTo(this.levels[level]!.list, this.most / next.ratio);
    if (lines === 0) return;
    this.linesOffered += lines;
    this.sumWith(this.bestDrive, next, this.reach(this.bestDrive, next, placeOf(next.ratio)));
    this.setAims();
    // More stages cost more, weigh more, give more and pass on less.
    if (this.blocks && this.allMet(next.mask) && this.best.beat(this.aims)) return;
    const [kinds, step] = [32 * Math.log2(m.mask) + Math.log2(after.mask), Math.round(Math.log(next.ratio) / CELL)];
    const cell = this.cellOf((kinds * this.levels.length + level) * 1000 + step);
    const { pairAims, beyond } = this;
    pairAims.set(this.aims);
    // What stands wide before them makes those larger that reach far from where it stands.
    pairAims[AIMS.length] = Math.max(next.room.reaches, HAIR);
    for (let i = 0; i < beyond.length; i++) {
      const value = this.sums[beyond[i]!.of];
      pairAims[AIMS.length + 1 + i] = beyond[i]!.most ? value : 1 / value;
    }
    if (cell.welcomes(pairAims)) cell.take({ stages: [m, ...after.stages], lines }, pairAims);
  }

  private cellOf(key: number): NonDominated<Pair> {
    let cell = this.cells.get(key);
    if (!cell) this.cells.set(key, (cell = new NonDominated(ALIKE, PAIRS)));
    return cell;
  }

  /** Looks at the lines that stages of one kind before those of a sum make. */
  private closeGroup(group: Group, after: Sum, wanted: number, speed: number): void {
    const key = `${group.kind} + ${after.kinds}`;
    for (const { list, ideal } of group.blocks) {
      if (after.ratio * ideal.least > this.most) break;
      if (this.blocks) {
        this.next.putIdeal(ideal, after, this.backToBe === 'large');
        if (this.hopeless(key, group, after)) {
          const lines = countUpTo(list, this.most / after.ratio) * this.drives.length;
          this.looked += lines;
          this.pruned += lines;
          continue;
        }
      }
      for (let i = 0; i < list.length; i++) {
        const m = list[i]!;
        if (after.ratio * m.ratio > this.most) break;
        this.looked += this.drives.length;
        if (m.most < wanted || m.numbers.maxSpeed < speed * m.ratio) continue;
        this.next.put(m, after);
        if (this.blocks && this.hopeless(key, group, after)) this.pruned += this.drives.length;
        else this.close(m, after, this.next, key);
      }
    }
  }

  /**
   * Whether what `next` sums misses a must with the best of every motor by more than is known of its kinds, or is worse
   * than what is there already.
   */
  private hopeless(key: string, { mask }: Group, after: Sum): boolean {
    this.sumWith(this.bestDrive, this.next, this.reach(this.bestDrive, this.next, placeOf(this.next.ratio)));
    if (this.backToBe === 'both') this.sums.turnBack = NaN;
    this.weigh();
    if (this.out > 1 + NEAR) return this.out >= this.leastMiss(mask, after);
    this.setAims();
    if (this.allMet(mask | after.mask) && this.best.beat(this.aims)) return true;
    const front = this.fronts.get(key);
    return front !== undefined && !front.welcomes(this.aims);
  }

  /** Whether every kind of a line is in one that does what it must: why it is not among those found is then known. */
  private allMet(mask: number): boolean {
    return (this.met & mask) === mask;
  }

  /** The largest of the nearest misses of kinds in a line: what misses by more tells nothing of any of them. */
  private leastMiss(mask: number, after: Sum): number {
    const { missBy } = this;
    let most = 0;
    for (let left = mask | after.mask; left !== 0;) {
      const at = placeOfBit(left);
      left ^= 1 << at;
      if (missBy[at]! > most) most = missBy[at]!;
    }
    return most;
  }

  /** Sums a line with every drive and keeps it where it belongs. */
  private close(m: Marked, after: Sum, sum: Sum, key = sum.kinds): void {
    const place = placeOf(sum.ratio);
    let front = this.fronts.get(key);
    // Behind the same stages a motor that is dearer, no lighter and no smaller makes no better line.
    let kept = 0;
    // A motor too weak by more than any miss that is told of these kinds needs no further look.
    const weak = 1 / Math.max(1 + NEAR, this.leastMiss(m.mask, after));
    for (const d of this.cheapFirst) {
      const drive = this.drives[d]!;
      if (this.cheaperDoes(drive, kept, sum.room)) continue;
      const reach = this.reach(drive, sum, place);
      if (reach <= weak) continue;
      this.sumWith(drive, sum, reach);
      this.weigh();
      if (this.out > 1 + NEAR) {
        this.miss(d, m, after);
        continue;
      }
      this.does[kept++] = d;
      this.setAims();
      this.keepEven(d, m, after);
      if (this.allMet(sum.mask) && this.best.beat(this.aims)) continue;
      if (!front) this.fronts.set(key, (front = new NonDominated(ALIKE, CROWD)));
      if (!front.welcomes(this.aims)) continue;
      front.take({ drive: d, stages: this.lineOf(m, after) }, this.aims);
      this.met |= sum.mask;
      if (this.out <= SURE) this.best.add(this.aims);
    }
  }

  /** Keeps the most even line of every kind, beaten or not: by it is told why none of a kind is found. */
  private keepEven(drive: number, m: Marked, after: Sum): void {
    // One that spares something stands for its kind before one that may fall short when it is computed whole.
    let by = this.out <= SURE ? 1 : 1e9;
    for (let i = 0; i < this.aims.length; i++) by *= this.aims[i]!;
    for (let j = -1; j < after.stages.length; j++) {
      const { kind, mask } = j < 0 ? m : after.stages[j]!;
      const at = placeOfBit(mask);
      if (this.evenBy[at]! <= by) continue;
      this.evenBy[at] = by;
      this.even.set(kind, { drive, stages: this.lineOf(m, after), aims: this.aims.slice(), by });
    }
  }

  private lineOf(m: Marked, after: Sum): Member[] {
    return [m.of, ...after.stages.map((s) => s.of)];
  }

  /** Whether one of the first drives in `does` is no heavier than another and takes no more room. */
  private cheaperDoes(drive: Drive, kept: number, room: Extent): boolean {
    const size = kept > 0 ? room.size(drive) : 0;
    for (let i = 0; i < kept; i++) {
      const one = this.drives[this.does[i]!]!;
      if (one.mass <= drive.mass && room.size(one) <= size) return true;
    }
    return false;
  }

  /** @param reach least of available over asked at the motor */
  private sumWith(drive: Drive, sum: Sum, reach: number): void {
    const { sums } = this;
    sums.money = sum.money + drive.money;
    sums.mass = sum.mass + drive.mass;
    sums.play = sum.play;
    sums.stiffness = 1 / sum.compliance;
    sums.size = sum.room.size(drive);
    sums.length = sum.room.length(drive);
    sums.efficiency = sum.efficiency;
    sums.torque = this.demand.peak * reach;
    sums.bore = sum.turned ? Math.max(sum.bore, HAIR) : HAIR;
    sums.turnBack = sum.back === Infinity ? Infinity : sum.back * drive.idle + sum.drags;
  }

  /** Least of available over asked at the motor; what speeds up its own rotor comes with the motor. */
  private reach(drive: Drive, { asked, ratio }: Sum, place: number): number {
    let least = Infinity;
    const { spins, counts } = this;
    for (let k = 0; k < asked.length; k++) {
      if (counts[k] === 0) continue;
      const share = drive.gives[k * RATIOS + place]! / (asked[k]! + drive.rotor * ratio * spins[k]!);
      if (share < least) least = share;
    }
    return least;
  }

  /** Sees by how much what is summed misses what it must. */
  private weigh(): void {
    const { sums, bounds } = this;
    let worst = -1;
    let out = this.demand.peak / Math.max(sums.torque, 1e-12);
    for (let i = 0; i < bounds.length; i++) {
      const b = bounds[i]!;
      const value = sums[b.of];
      const share = b.most ? value / b.asked : b.asked / value;
      if (share > out && (share > 1 || MOVES.has(b.of))) {
        out = share;
        worst = i;
      }
    }
    this.out = out;
    this.worst = worst;
  }

  /** Keeps a near miss for its kinds. */
  private miss(drive: number, m: Marked, after: Sum): void {
    const { out: by } = this;
    for (let j = -1; j < after.stages.length; j++) {
      const { kind, mask } = j < 0 ? m : after.stages[j]!;
      const at = placeOfBit(mask);
      if (this.missBy[at]! <= by) continue;
      this.missBy[at] = by;
      const b = this.bounds[this.worst];
      this.misses.set(kind, {
        drive,
        stages: this.lineOf(m, after),
        limit: b?.id ?? 'torque',
        value: b?.of === 'bore' && this.sums.bore <= HAIR ? 0 : this.sums[b?.of ?? 'torque'],
        asked: b?.asked ?? this.demand.peak,
        by,
      });
    }
  }

  private setAims(): void {
    const { sums, aims } = this;
    aims[0] = sums.money;
    aims[1] = sums.mass;
    aims[2] = Math.max(sums.play, 1e-5);
    aims[3] = 1 / sums.stiffness;
    aims[4] = sums.size;
    aims[5] = 1 / sums.efficiency;
  }
}
