import { demandOf, LIMIT_KINDS, type Demand } from '../brief/demand.ts';
import { analyseLine, stopping, type LineReport, type Verdict } from '../line/analyse.ts';
import { sumLine } from '../line/numbers.ts';
import { openLine, rememberingOpener, type StageOpener } from '../line/open.ts';
import { playAtOutput } from '../line/sum.ts';
import type { Joint, Limit, LimitId, StageRecord, Variant } from '../schema/joint.ts';
import type { Problem } from '../result.ts';
import { paidFor } from '../shop/drawer.ts';
import type { Shelf } from '../shop/shelf.ts';
import { mustSize } from '../sizing/size.ts';
import { stageKinds } from '../stage/registry.ts';
import { stated } from '../units/stated.ts';
import { chanceOf, type Chance } from './chance.ts';
import { AIMS, Composer, type Aim, type Composed, type Miss } from './compose.ts';
import { dominates, NonDominated, spreadOut } from './dominance.ts';
import { driveOf, windowOf, type Drive } from './drives.ts';
import { fromDrawer, type FromDrawer } from './from-drawer.ts';
import { makingOf } from './making.ts';
import { screenKind, WANTED, type Member } from './members.ts';

/** What is looked for. */
export interface FindAsk {
  readonly joint: Pick<Joint, 'brief'>;
  /** What a line has beside motor and stages: sensor, mount, output; and its own motor. */
  readonly variant: Variant;
  readonly shelf: Shelf;
  /** Kinds of stage that may be used; all where left out. */
  readonly kinds?: readonly string[];
  /** Motors of the shop that may be used, by id; all, and the variant's own, where left out. */
  readonly motors?: readonly string[];
  /** Most stages of a line. */
  readonly stages?: number;
  /** A first look: few ratios, few of each kind, some lines; a second or two in place of half a minute. */
  readonly first?: boolean;
}

/** What a first look leaves out: ratios but every so many, candidates beyond so many, lines beyond so many. */
const FIRST = { ratios: 3, tries: 6, whole: 40, shown: 12 };

/** A line that does it, whole. */
export interface FoundLine {
  readonly id: string;
  readonly motor: Variant['motor'];
  readonly driver: Variant['driver'];
  readonly stages: readonly StageRecord[];
  /** How it stands to each limit of the brief. */
  readonly verdicts: readonly Pick<Verdict, 'id' | 'sense' | 'need' | 'state' | 'asked' | 'says'>[];
  /** Size of its total ratio. */
  readonly ratio: number;
  /** What it is chosen by, SI; its money without what lies in the drawer. */
  readonly aims: Readonly<Record<Aim, number>>;
  readonly chance: Chance;
  /** What of it lies in the drawer; left out where nothing does. */
  readonly there?: readonly FromDrawer[];
}

/** Why a kind has no line in the set. */
export interface WhyNot {
  readonly kind: string;
  /** The limit that stops its nearest miss; undefined where no stage of it could be had at all. */
  readonly limit: LimitId | undefined;
  readonly value: number;
  readonly asked: number;
  /** The nearest miss itself, to be looked at. */
  readonly line: Pick<FoundLine, 'motor' | 'driver' | 'stages'> | undefined;
}

export interface FindResult {
  readonly lines: readonly FoundLine[];
  readonly whyNot: readonly WhyNot[];
  /** Stages screened and lines looked at. */
  readonly screened: number;
  readonly looked: number;
}

/** How far a search is: what it does, the share done, and what it has so far. */
export interface FindProgress {
  readonly doing: 'screening' | 'composing' | 'computing';
  readonly share: number;
  readonly screened: number;
  readonly looked: number;
}

/** Lines shown at most. */
export const SHOWN = 60;
/** Lines computed whole beyond those, for some that checks of the whole line stop. */
const SPARE = 30;
/** Lines that are computed whole: of one set of mechanisms, and in all. */
const [EACH, WHOLE] = [12, 320];
/** Torques that stages before the last are screened at, as shares of the output's. */
const BEFORE = [1 / 2.5, 1 / 6, 1 / 16, 1 / 45];

/** Why nothing can be looked for, in words; undefined where it can. */
export function cannotFind(ask: FindAsk): Problem | undefined {
  const { demand, kinds, drives, making } = setUp(ask);
  if (!(demand.peak > 0) || !(demand.speed > 0))
    return {
      what: `The brief asks for no ${demand.peak > 0 ? 'speed' : 'torque'}.`,
      why: 'A line is looked for by what it must carry, and how fast.',
      mend: 'Say in the brief what the joint must do: a load, and a move or a speed.',
    };
  const against = contradiction(ask.joint.brief.limits);
  if (against) return against;
  if (kinds.length === 0)
    return {
      what: 'No kind of stage is allowed.',
      why: 'A line is made of stages.',
      mend: 'Allow at least one kind.',
    };
  if (making?.main.length === 0)
    return {
      what: 'No material is allowed that stages could be made of.',
      why: 'Wheels, discs and plates are printed or milled.',
      mend: 'Allow one that is printed, or one that is milled.',
    };
  if (drives.length === 0)
    return {
      what: 'No motor that is allowed meets the brief at any ratio.',
      why: `It asks ${stated(demand.peak, 'torque', 3)} at up to ${stated(demand.speed, 'speed', 3)}: more ratio gives torque and takes speed.`,
      mend: 'Look at the ratio desk: it names the two nearest ways out. Or bring a larger motor to the shop.',
    };
  return undefined;
}

/** Two musts of a brief that nothing can meet together, in words; undefined where there are none. */
function contradiction(limits: readonly Limit[]): Problem | undefined {
  const must = (id: LimitId, sense: Limit['sense']) =>
    limits.find((l) => l.id === id && l.sense === sense && l.need === 'must' && l.value !== null)?.value ?? undefined;
  const [bore, size] = [must('bore', 'min'), must('size', 'max')];
  if (bore !== undefined && size !== undefined && bore >= size)
    return {
      what: 'Two musts of the brief contradict each other.',
      why: `A hollow bore of ${stated(bore, 'length', 3)} does not fit into an outside size of ${stated(size, 'length', 3)}.`,
      mend: 'Ask for a smaller bore, or allow more outside.',
    };
  const [least, most] = [must('turnBack', 'min'), must('turnBack', 'max')];
  if (least !== undefined && most !== undefined && least > most)
    return {
      what: 'Two musts of the brief contradict each other.',
      why: `It must hold ${stated(least, 'torque', 3)} unpowered, and be turned back by ${stated(most, 'torque', 3)}.`,
      mend: 'Make one of the two a wish, or remove it.',
    };
  const none = limits.find((l) => l.need === 'must' && l.sense === 'max' && l.value !== null && !(l.value > 0));
  return (
    none && {
      what: `The brief allows no ${LIMIT_KINDS[none.id].name.toLowerCase()} at all.`,
      why: 'Every line has some.',
      mend: 'Allow more than nought, or make it a wish.',
    }
  );
}

/** Stages that were screened, and for each kind the strongest that fell short, as a share of the torque at the output. */
export interface Screening {
  readonly members: readonly Member[];
  /** For each of them the number of the wish that it came from, so that parts are put together in one order. */
  readonly wishes: readonly number[];
  readonly short: Readonly<Record<string, number>>;
  readonly screened: number;
}

/** What every part of a search starts from. */
function setUp(ask: FindAsk) {
  const { joint, variant } = ask;
  const { drawer } = ask.shelf;
  // What is there already counts as paid for while lines are looked for; what they cost is told by true prices.
  const shelf = { ...ask.shelf, bearings: paidFor(ask.shelf.bearings, drawer?.bearings) };
  const demand = demandOf(joint.brief, shelf);
  const holds = joint.brief.limits.some((l) => l.id === 'turnBack' && l.sense === 'min' && l.need === 'must');
  const kinds = stageKinds().filter((k) => !ask.kinds || ask.kinds.includes(k.id));
  const own = shelf.motors.some((m) => m.id === variant.motor.id) ? [] : [variant.motor];
  const drives = [...own, ...shelf.motors]
    .filter((m) => !ask.motors || ask.motors.includes(m.id))
    .map((m) => {
      const there = (drawer?.motors?.[m.id] ?? 0) > 0;
      return driveOf(m.id === variant.motor.id ? variant.motor : m, variant, demand, shelf, there);
    })
    .filter((d) => windowOf(d, demand, 1, holds));
  return {
    demand,
    holds,
    kinds,
    drives,
    shelf,
    making: makingOf(ask.shelf.materials, drawer?.materials),
  };
}

/**
 * Screens stages of every kind at what each place of a line carries; one of several parts, which together are the whole.
 */
export function* screenStages(ask: FindAsk, part = 0, parts = 1): Generator<FindProgress, Screening> {
  const { demand, holds, kinds, drives, shelf, making } = setUp(ask);
  const size = mustSize(ask.joint);
  const most = Math.max(0, ...drives.map((d) => windowOf(d, demand, 1, holds)![1]));
  const torques = [1, ...(ask.first ? BEFORE.slice(0, 2) : BEFORE)].map((s) => s * demand.peak);
  const works = WANTED.filter((r, i) => r <= most * 1.1 && (!ask.first || i % FIRST.ratios === 1))
    .flatMap((ratio) => kinds.map((kind) => ({ ratio, kind })))
    .map((work, wish) => ({ ...work, wish }))
    .filter(({ wish }) => wish % parts === part);
  const members: Member[] = [];
  const wishes: number[] = [];
  const short: Record<string, number> = {};
  let screened = 0;
  for (const [i, { ratio, kind, wish }] of works.entries()) {
    const s = screenKind(kind, ratio, torques, size, demand, shelf, making, ask.first ? FIRST.tries : Infinity);
    members.push(...s.members);
    for (let n = 0; n < s.members.length; n++) wishes.push(wish);
    screened += s.tried;
    short[kind.id] = Math.max(short[kind.id] ?? 0, s.short);
    yield { doing: 'screening', share: (i + 1) / works.length, screened, looked: 0 };
  }
  return { members, wishes, short, screened };
}

/** A line in as few words as it takes: its motor, and the numbers of its stages among those screened. */
export interface Drawn {
  readonly drive: number;
  readonly stages: readonly number[];
}

/** What composing the lines of one block gave: those worth a look by their mechanisms, and the nearest misses by kind. */
export interface Composing {
  readonly block: number;
  readonly fronts: readonly (readonly [string, readonly (Drawn & { readonly aims: Float64Array })[]])[];
  readonly misses: readonly (readonly [string, Drawn & Omit<Miss, 'stages'>])[];
  readonly looked: number;
}

/** Lines that are worth computing whole, and why kinds are not among them. */
export interface Worth {
  readonly lines: readonly Drawn[];
  readonly misses: ReadonlyMap<string, Drawn & Omit<Miss, 'stages'>>;
  readonly screened: number;
  readonly looked: number;
}

/** Blocks that lines are composed in: as many whoever composes them, so that the set is the same. */
const BLOCKS = 8;

/** All screened stages in the order of their wishes, however many parts they were screened in. */
const membersOf = (screenings: readonly Screening[]): Member[] =>
  screenings
    .flatMap((s) => s.members.map((of, i) => ({ of, wish: s.wishes[i]! })))
    .sort((a, b) => a.wish - b.wish)
    .map((m) => m.of);
const screenedOf = (screenings: readonly Screening[]): number => screenings.reduce((n, s) => n + s.screened, 0);

/**
 * Puts screened stages together with every motor; one of several parts, which together are the whole.
 *
 * @param screenings the parts of `screenStages`, in their order
 */
export function* composeBlocks(
  ask: FindAsk,
  screenings: readonly Screening[],
  part = 0,
  parts = 1,
): Generator<FindProgress, Composing[]> {
  const { demand, holds, drives } = setUp(ask);
  const members = membersOf(screenings);
  const screened = screenedOf(screenings);
  const numbered = new Map(members.map((m, i) => [m, i]));
  const drawn = (of: Composed): Drawn => ({ drive: of.drive, stages: of.stages.map((m) => numbered.get(m)!) });
  const out: Composing[] = [];
  let looked = 0;
  for (let block = part; block < BLOCKS; block += parts) {
    const composer = new Composer(drives, members, demand, ask.joint.brief.limits, ask.stages ?? 3, holds);
    for (let k = block; k < composer.steps; k += BLOCKS) {
      composer.step(k);
      const share = (out.length + k / composer.steps) / Math.ceil((BLOCKS - part) / parts);
      yield { doing: 'composing', share, screened, looked: looked + composer.looked };
    }
    looked += composer.looked;
    out.push({
      block,
      fronts: [...composer.fronts].map(([key, front]) => [
        key,
        front.items.map((x) => ({ ...drawn(x.of), aims: x.aims })),
      ]),
      misses: [...composer.misses].map(([kind, miss]) => [kind, { ...miss, ...drawn(miss) }]),
      looked: composer.looked,
    });
  }
  return out;
}

/** Which of all composed lines are computed whole: what is best in something, of every set of mechanisms. */
export function worthComputing(ask: FindAsk, screenings: readonly Screening[], parts: readonly Composing[]): Worth {
  const blocks = [...parts].sort((a, b) => a.block - b.block);
  const fronts = new Map<string, NonDominated<Drawn>>();
  const misses = new Map<string, Drawn & Omit<Miss, 'stages'>>();
  for (const b of blocks) {
    for (const [key, items] of b.fronts) {
      let front = fronts.get(key);
      // No slack here: what a block left out lies within it of what it kept.
      if (!front) fronts.set(key, (front = new NonDominated()));
      for (const { aims, drive, stages } of items) front.take({ drive, stages }, aims);
    }
    for (const [kind, miss] of b.misses) if (miss.by < (misses.get(kind)?.by ?? Infinity)) misses.set(kind, miss);
  }
  const each = [...fronts]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([, front]) =>
      spreadOut(
        front.items.map((x) => x.aims),
        EACH,
      ).map((i) => front.items[i]!),
    );
  const lines = spreadOut(
    each.map((x) => x.aims),
    ask.first ? FIRST.whole : WHOLE,
  ).map((i) => each[i]!.of);
  return { lines, misses, screened: screenedOf(screenings), looked: blocks.reduce((n, b) => n + b.looked, 0) };
}

/** Where a part of several begins and ends in a list: neighbours share their stages, and so stay together. */
const stretch = (length: number, part: number, parts: number): readonly [number, number] => [
  Math.floor((length * part) / parts),
  Math.floor((length * (part + 1)) / parts),
];

/**
 * Sums lines whole, one of several parts of them.
 *
 * @returns what each is chosen by, all to be small; undefined where it cannot be or a stage does not stand
 */
export function* sumWhole(
  ask: FindAsk,
  screenings: readonly Screening[],
  worth: Worth,
  part = 0,
  parts = 1,
): Generator<FindProgress, (Float64Array | undefined)[]> {
  const { demand, drives, shelf } = setUp(ask);
  const members = membersOf(screenings);
  const [from, to] = stretch(worth.lines.length, part, parts);
  // Lines share their stages: each is opened once.
  const open = rememberingOpener(400);
  const out: (Float64Array | undefined)[] = [];
  for (let i = from; i < to; i++) {
    const line = worth.lines[i]!;
    const record = recordOf(madeOf(line, members), drives, ask.variant);
    const aims = summed(demand, record, shelf, open);
    if (aims) aims[0]! -= drives[line.drive]!.saves;
    out.push(aims);
    yield { ...told(worth), doing: 'computing', share: (0.5 * (i + 1 - from)) / (to - from) };
  }
  return out;
}

const told = ({ screened, looked }: Worth) => ({ screened, looked });
const madeOf = ({ drive, stages }: Drawn, members: readonly Member[]): Composed => ({
  drive,
  stages: stages.map((k) => members[k]!),
});

/** Which of the lines that were summed whole are analysed: none worse than another, spread out. */
export function worthAnalysing(ask: FindAsk, aims: readonly (Float64Array | undefined)[]): number[] {
  const whole = aims.flatMap((a, i) => (a ? [{ a, i }] : []));
  const best = whole.filter((x) => !whole.some((y) => y !== x && dominates(y.a, x.a)));
  return spreadOut(
    best.map((x) => x.a),
    ask.first ? FIRST.shown : SHOWN + SPARE,
  ).map((k) => best[k]!.i);
}

/**
 * Analyses lines with their bands, one of several parts of them.
 *
 * @param chosen places of those analysed among the lines worth computing
 * @returns those that meet every must and are stopped by no check, in their order
 */
export function* analyseFound(
  ask: FindAsk,
  screenings: readonly Screening[],
  worth: Worth,
  chosen: readonly number[],
  part = 0,
  parts = 1,
): Generator<FindProgress, FoundLine[]> {
  const { drives } = setUp(ask);
  const { drawer } = ask.shelf;
  const members = membersOf(screenings);
  const [from, to] = stretch(chosen.length, part, parts);
  const open = rememberingOpener(400);
  const lines: FoundLine[] = [];
  for (let n = from; n < to; n++) {
    const line = madeOf(worth.lines[chosen[n]!]!, members);
    const record = recordOf(line, drives, ask.variant);
    const report = analyseLine(ask.joint, record, ask.shelf, { open });
    yield { ...told(worth), doing: 'computing', share: 0.5 + (0.5 * (n + 1 - from)) / (to - from) };
    if (report.problem || stopping(report).length > 0 || !meets(report)) continue;
    const figure = (id: string) => report.figures.find((f) => f.id === id)?.value ?? NaN;
    const there = drawer ? fromDrawer(boughtFor(record, ask.shelf, open), drawer) : [];
    const aims = Object.fromEntries(AIMS.map((a) => [a, figure(a)])) as Record<Aim, number>;
    lines.push({
      id: nameOf(record, figure('money')),
      motor: record.motor,
      driver: record.driver,
      stages: record.stages,
      verdicts: report.verdicts.map(({ id, sense, need, state, asked, says }) => ({
        id,
        sense,
        need,
        state,
        asked,
        ...(says !== undefined && { says }),
      })),
      ratio: line.stages.reduce((p, m) => p * m.ratio, 1),
      aims: { ...aims, money: there.reduce((m, x) => m - x.saves, aims.money) },
      chance: chanceOf(report.verdicts),
      ...(there.length > 0 && { there }),
    });
  }
  return lines;
}

/** What was found, with the reason for every kind that is not in it. */
export function foundOf(
  ask: FindAsk,
  screenings: readonly Screening[],
  worth: Worth,
  analysed: readonly FoundLine[],
): FindResult {
  const { demand, drives, kinds } = setUp(ask);
  const members = membersOf(screenings);
  const lines = analysed.slice(0, ask.first ? FIRST.shown : SHOWN);
  const shown = new Set(lines.flatMap((l) => l.stages.map((s) => s.kind)));
  const short = (kind: string) => Math.max(0, ...screenings.map((s) => s.short[kind] ?? 0));
  return {
    lines,
    whyNot: kinds
      .filter((k) => !shown.has(k.id))
      .map((k) => {
        const miss = worth.misses.get(k.id);
        const nearest = miss && { ...miss, ...madeOf(miss, members) };
        return whyNot(k.id, nearest, drives, ask.variant, short(k.id) * demand.peak, demand.peak);
      }),
    ...told(worth),
  };
}

/** The whole search in one go: `screenStages`, then `composeLines`. */
export function* findLines(ask: FindAsk): Generator<FindProgress, FindResult> {
  return yield* composeLines(ask, [yield* screenStages(ask)]);
}

/**
 * Looks for whole lines that do what a brief asks: screened stages are put together with every motor, and what is best in
 * something is computed whole. Deterministic; between one `next` and the following lies a piece of work. Each of its steps
 * can be done in parts by several workers, which gives the same.
 *
 * @param screenings the parts of `screenStages`, in their order
 * @returns lines none of which is worse than another in money, mass, play, stiffness, size and efficiency, and for each
 *   kind without one its nearest miss
 */
export function* composeLines(ask: FindAsk, screenings: readonly Screening[]): Generator<FindProgress, FindResult> {
  const worth = worthComputing(ask, screenings, yield* composeBlocks(ask, screenings));
  const chosen = worthAnalysing(ask, yield* sumWhole(ask, screenings, worth));
  return foundOf(ask, screenings, worth, yield* analyseFound(ask, screenings, worth, chosen));
}

function whyNot(
  kind: string,
  miss: Miss | undefined,
  drives: readonly Drive[],
  variant: Variant,
  carried: number,
  peak: number,
): WhyNot {
  if (miss) {
    const { motor, driver, stages } = recordOf(miss, drives, variant);
    return { kind, limit: miss.limit, value: miss.value, asked: miss.asked, line: { motor, driver, stages } };
  }
  return { kind, limit: carried > 0 ? 'torque' : undefined, value: carried, asked: peak, line: undefined };
}

/** What a line needs that is bought by designation: its motor, and what its stages say. */
function boughtFor({ motor, stages }: Variant, shelf: Shelf, open: StageOpener): Parameters<typeof fromDrawer>[0] {
  const opened = openLine(stages, shelf, open).all;
  const parts = opened.ok ? opened.value.map((s) => s.parts()) : [];
  return [
    { name: motor.name, quantity: 1, money: motor.price, stocked: { shelf: 'motors', id: motor.id } },
    ...parts.flatMap((p) => (p.ok ? p.value : [])),
  ];
}

/** The same for the same line of another search. */
const nameOf = ({ motor, stages }: Variant, money: number): string =>
  [motor.id, ...stages.map((s) => s.kind), money.toPrecision(9)].join(' ');

/** The variant with a line's motor and stages. */
export const recordOf = ({ drive, stages }: Composed, drives: readonly Drive[], variant: Variant): Variant => ({
  ...variant,
  follows: false,
  motor: drives[drive]!.motor,
  driver: drives[drive]!.driver,
  stages: stages.map((m, j) => ({ id: `s${j + 1}`, kind: m.kind, params: { ...m.params } })),
});

/** No must of the brief is failed. */
const meets = (report: LineReport): boolean => report.verdicts.every((v) => v.need !== 'must' || v.state !== 'fails');

/** What a line is chosen by, summed whole, all to be small; undefined where it cannot be or a stage does not stand. */
function summed(demand: Demand, variant: Variant, shelf: Shelf, open: StageOpener): Float64Array | undefined {
  const opened = openLine(variant.stages, shelf, open).all;
  if (!opened.ok) return undefined;
  const made = sumLine({ variant, stages: opened.value, demand, shelf });
  if (!made.ok) return undefined;
  const n = made.value.numbers;
  if (!(n.torque >= demand.peak * (1 - 1e-9)) || !opened.value.every((s, j) => s.stands(n.duties[j]!)))
    return undefined;
  const play = playAtOutput(
    n.stages,
    n.stages.map((s) => s.play[0]),
  );
  return Float64Array.of(
    n.money,
    n.mass,
    Math.max(play, 1e-5),
    1 / n.stiffness,
    n.size,
    1 / Math.max(n.efficiency, 1e-3),
  );
}
