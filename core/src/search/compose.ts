import { askedValue, type Demand } from '../brief/demand.ts';
import type { Limit, LimitId } from '../schema/joint.ts';
import { NonDominated } from './dominance.ts';
import { placeOf, RATIOS, windowOf, type Drive } from './drives.ts';
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
interface Bound {
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
}

const COLUMN: Partial<Record<LimitId, keyof Sums>> = {
  money: 'money',
  mass: 'mass',
  play: 'play',
  stiffness: 'stiffness',
  size: 'size',
  length: 'length',
  turnBack: 'turnBack',
};

const boundsOf = (limits: readonly Limit[], demand: Demand): Bound[] =>
  limits.flatMap((l): Bound[] => {
    const of = COLUMN[l.id];
    const asked = askedValue(l, demand);
    return l.need === 'must' && of && l.sense !== 'either' && asked > 0
      ? [{ id: l.id, asked, of, most: l.sense === 'max' }]
      : [];
  });

/** How far a line may lie outside of a bound here and still be computed whole: columns are near, not exact. */
const NEAR = 0.04;
/** Lines kept for one set of mechanisms, as alike within this share. */
const ALIKE = 0.05;

/** Steps of ratio, as logarithms, within which one member of a kind stands for the others. */
const APART = Math.log(1.3);

/** The cheapest of each kind in each step of ratio. */
function fewOf(list: readonly Member[]): Member[] {
  const best = new Map<string, Member>();
  for (const m of list) {
    const key = `${m.kind} ${Math.round(Math.log(m.ratio) / APART)}`;
    const known = best.get(key);
    if (!known || m.numbers.money < known.numbers.money) best.set(key, m);
  }
  return [...best.values()].sort((a, b) => a.ratio - b.ratio);
}

/**
 * Puts lines together from screened stages: the last carries the demand, each before it what the one after takes in. What
 * it sums is what a line's whole computation sums, from columns: mass, money, ratio and play exactly, what depends on duty
 * nearly.
 */
export class Composer {
  /** Non-dominated lines by their mechanisms: `planetary + belt`. */
  readonly fronts = new Map<string, NonDominated<Composed>>();
  /** The nearest miss of every kind that was looked at. */
  readonly misses = new Map<string, Miss>();
  looked = 0;
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
  };
  private readonly aims = new Float64Array(AIMS.length);
  /** At the motor, point after point: torque, acceleration there, and whether the point counts. */
  private readonly asked: Float64Array;
  private readonly spins: Float64Array;
  private readonly counts: Uint8Array;
  /** Stages of every place by the torque they were screened at, sorted by ratio. */
  private readonly levels: {
    readonly torque: number;
    readonly list: readonly Member[];
    /** One of each kind and ratio, for lines of many stages. */
    readonly few: readonly Member[];
  }[];
  private readonly rare: ReadonlySet<Member>;
  private readonly most: number;

  /**
   * @param members screened, of any torque
   * @param stages most stages of a line
   * @param limits of the brief; musts bind
   */
  constructor(
    private readonly drives: readonly Drive[],
    members: readonly Member[],
    private readonly demand: Demand,
    limits: readonly Limit[],
    private readonly stages: number,
    holds: boolean,
  ) {
    this.bounds = boundsOf(limits, demand);
    this.asked = new Float64Array(demand.points.length);
    this.spins = new Float64Array(demand.points.length);
    this.counts = Uint8Array.from(demand.points, (p) => (p.torque > 0 && !(holds && p.speed === 0) ? 1 : 0));
    const torques = [...new Set(members.map((m) => m.at))].sort((a, b) => b - a);
    this.levels = torques.map((torque) => {
      const list = members.filter((m) => m.at === torque).sort((a, b) => a.ratio - b.ratio);
      return { torque, list, few: fewOf(list) };
    });
    this.rare = new Set(this.levels.flatMap((l) => l.few));
    // Where every stage passes on all, the widest window that any drive has.
    this.most = drives.reduce((w, d) => Math.max(w, windowOf(d, demand, 1, holds)?.[1] ?? 0), 0);
  }

  /** How many first steps there are: one a stage that can be last; none where nothing carries what the output asks. */
  get steps(): number {
    const [most] = this.levels;
    return most && most.torque >= this.demand.peak * (1 - 1e-9) ? most.list.length : 0;
  }

  /** Looks at every line that ends in one stage. */
  step(k: number): void {
    const last = this.levels[0]!.list[k]!;
    this.from([last], last.ratio, this.rare.has(last));
  }

  /** @param rare whether all of its stages are of the few that longer lines are made of */
  private from(stages: readonly Member[], ratio: number, rare: boolean): void {
    const first = stages[0]!;
    this.close(stages, ratio);
    if (stages.length >= this.stages || (stages.length > 1 && !rare)) return;
    const { numbers } = first;
    const wanted = first.at / (first.ratio * numbers.etaForward) + numbers.drag;
    // The least torque of those screened that is enough: stronger ones are in it where they are cheap.
    let level = -1;
    for (let i = 0; i < this.levels.length; i++) if (this.levels[i]!.torque >= wanted) level = i;
    if (level < 0) return;
    const { list, few } = this.levels[level]!;
    const speed = this.demand.speed * ratio;
    for (const before of stages.length > 1 ? few : list) {
      const all = ratio * before.ratio;
      if (all > this.most) break;
      if (before.most < wanted || before.numbers.maxSpeed < speed * before.ratio) continue;
      this.from([before, ...stages], all, rare && this.rare.has(before));
    }
  }

  /** Sums a line with every drive and keeps it where it belongs. */
  private close(stages: readonly Member[], ratio: number): void {
    const { sums } = this;
    let [money, mass, play, compliance, size, length, after, efficiency] = [0, 0, 0, 0, 0, 0, 1, 1];
    for (let j = stages.length - 1; j >= 0; j--) {
      const n = stages[j]!.numbers;
      money += n.money;
      mass += n.mass;
      play += n.play[0] / after;
      compliance += 1 / (n.stiffness * after * after);
      if (n.outside > size) size = n.outside;
      length += n.length;
      efficiency *= n.etaForward;
      after *= stages[j]!.ratio;
    }
    // What turns a line back is what idles at the motor, times so much, and what drags on the way.
    let [times, drags] = [1, 0];
    for (let j = 0; j < stages.length; j++) {
      const { ratio: i, numbers } = stages[j]!;
      const by = numbers.etaBackward > 0 ? i / numbers.etaBackward : Infinity;
      times *= by;
      drags = (drags + numbers.drag) * by;
    }
    this.askMotor(stages, ratio);
    sums.play = play;
    sums.stiffness = 1 / compliance;
    sums.efficiency = efficiency;
    const place = placeOf(ratio);
    let front: NonDominated<Composed> | undefined;
    for (let d = 0; d < this.drives.length; d++) {
      const drive = this.drives[d]!;
      this.looked++;
      sums.money = money + drive.money;
      sums.mass = mass + drive.mass;
      sums.size = size > drive.frame ? size : drive.frame;
      sums.length = length + drive.length;
      sums.torque = this.demand.peak * this.reach(drive, ratio, place);
      sums.turnBack = times === Infinity ? Infinity : times * drive.idle + drags;
      if (!this.near(d, stages)) continue;
      front ??= this.frontOf(stages);
      this.setAims();
      if (front.welcomes(this.aims)) front.take({ drive: d, stages }, this.aims);
    }
  }

  private frontOf(stages: readonly Member[]): NonDominated<Composed> {
    const key = stages.map((m) => m.kind).join(' + ');
    let front = this.fronts.get(key);
    if (!front) this.fronts.set(key, (front = new NonDominated(ALIKE)));
    return front;
  }

  /** What every point of the demand asks at the motor, N·m; what speeds up its own rotor comes with the motor. */
  private askMotor(stages: readonly Member[], ratio: number): void {
    const { points } = this.demand;
    for (let k = 0; k < points.length; k++) {
      let asked = points[k]!.torque;
      for (let j = stages.length - 1; j >= 0; j--) {
        const m = stages[j]!;
        asked = asked / (m.ratio * m.numbers.etaForward) + m.numbers.drag;
      }
      this.asked[k] = asked;
      this.spins[k] = ratio * (points[k]!.acceleration ?? 0);
    }
  }

  /** Least of available over asked at the motor. */
  private reach(drive: Drive, ratio: number, place: number): number {
    let least = Infinity;
    const { asked, spins, counts } = this;
    for (let k = 0; k < asked.length; k++) {
      if (counts[k] === 0) continue;
      const share = drive.gives[k * RATIOS + place]! / (asked[k]! + drive.rotor * spins[k]!);
      if (share < least) least = share;
    }
    return least;
  }

  /** Whether a line meets what it must, nearly; a near miss is kept for its kinds. */
  private near(drive: number, stages: readonly Member[]): boolean {
    const { sums, bounds } = this;
    let worst = -1;
    let out = this.demand.peak / Math.max(sums.torque, 1e-12);
    for (let i = 0; i < bounds.length; i++) {
      const b = bounds[i]!;
      const value = sums[b.of];
      const share = b.most ? value / b.asked : b.asked / value;
      if (share > out && share > 1) [out, worst] = [share, i];
    }
    if (out <= 1 + NEAR) return true;
    for (let j = 0; j < stages.length; j++) {
      const { kind } = stages[j]!;
      const known = this.misses.get(kind);
      if (known && known.by <= out) continue;
      const b = bounds[worst];
      this.misses.set(kind, {
        drive,
        stages,
        limit: b?.id ?? 'torque',
        value: sums[b?.of ?? 'torque'],
        asked: b?.asked ?? this.demand.peak,
        by: out,
      });
    }
    return false;
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
