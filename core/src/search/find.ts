import type { Demand } from '../brief/demand.ts';
import { analyseLine, stopping, type LineReport, type Verdict } from '../line/analyse.ts';
import { sumLine } from '../line/numbers.ts';
import { openFor, openLine, rememberingOpener, type StageOpener } from '../line/open.ts';
import { playAtOutput } from '../line/sum.ts';
import type { Limit, Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import { askedBore, mustSize } from '../sizing/size.ts';
import type { Within } from '../stage/choose-candidate.ts';
import type { AnyStageKind } from '../stage/contract.ts';
import { FIRST, setUp, stagesOf, type FindAsk } from './ask.ts';
import { chanceOf } from './chance.ts';
import { AIMS, boundsOf, Composer, type Aim, type Bound, type Composed, type Miss } from './compose.ts';
import { NonDominated, spreadOut } from './dominance.ts';
import { windowOf } from './drives.ts';
import type { Analysed, FindProgress, FindResult, KeptOut, WhyNot } from './found.ts';
import { fromDrawer } from './from-drawer.ts';
import {
  betterThan,
  fewBetter,
  madeOf,
  membersOf,
  recordOf,
  type Drawn,
  type Screening,
  type Weighed,
} from './lines.ts';
import { screenKind, WANTED, WANTED_STRAIGHT, type Member } from './members.ts';
import { weighed, whyNot } from './why-not.ts';

/** Lines shown at most. */
export const SHOWN = 60;
/** Lines computed whole beyond those, for some that checks of the whole line stop. */
const SPARE = 30;
/** Lines that are computed whole: of one set of mechanisms, and in all. */
const [EACH, WHOLE] = [12, 600];
/** Torques that stages before the last are screened at, as shares of the output's. */
const BEFORE = [1 / 2.5, 1 / 6, 1 / 16, 1 / 45];

/** What of a brief's musts a stage alone can break; a passage that is only wished for is looked for as well. */
function mustsOf(bounds: readonly Bound[], limits: readonly Limit[]): Within {
  const of = Object.fromEntries(bounds.filter((b) => b.most === (b.of !== 'stiffness')).map((b) => [b.of, b.asked]));
  const { money, mass, length, play, stiffness } = of;
  return Object.fromEntries(
    Object.entries({ money, mass, length, play, stiffness, bore: askedBore(limits) }).filter(
      ([, v]) => v !== undefined,
    ),
  );
}

/**
 * Screens stages of every kind at what each place of a line carries; one of several parts, which together are the whole.
 */
export function* screenStages(ask: FindAsk, part = 0, parts = 1): Generator<FindProgress, Screening> {
  const { demand, holds, kinds, drives, shelf, making } = setUp(ask);
  const size = mustSize(ask.joint);
  const musts = mustsOf(boundsOf(ask.joint.brief.limits, demand), ask.joint.brief.limits);
  const most = Math.max(0, ...drives.map((d) => windowOf(d, demand, 1, holds)![1]));
  const torques = [1, ...(ask.first ? BEFORE.slice(0, 2) : BEFORE)].map((s) => s * demand.peak);
  const asked = (all: readonly number[]) =>
    all.filter((r, i) => r <= most * 1.1 && (!ask.first || i % FIRST.ratios === 1));
  const wanted = { turns: asked(WANTED), runs: asked(WANTED_STRAIGHT) };
  const works = wanted.runs
    .flatMap((ratio) =>
      kinds.filter((kind) => kind.straight || wanted.turns.includes(ratio)).map((kind) => ({ ratio, kind })),
    )
    .map((work, wish) => ({ ...work, wish }))
    .filter(({ wish }) => wish % parts === part);
  const members: Member[] = [];
  const wishes: number[] = [];
  const short: Record<string, number> = {};
  let screened = 0;
  for (const [i, { ratio, kind, wish: number }] of works.entries()) {
    const wish = { ratio, size, ...musts, ...(making && { making }), shelf };
    const s = screenKind(kind, wish, torques, demand, ask.first ? FIRST.tries : Infinity);
    members.push(...s.members);
    for (let n = 0; n < s.members.length; n++) wishes.push(number);
    screened += s.tried;
    short[kind.id] = Math.max(short[kind.id] ?? 0, s.short);
    yield { doing: 'screening', share: (i + 1) / works.length, screened, looked: 0 };
  }
  return { members, wishes, short, screened };
}

/** What composing the lines of one block gave: those worth a look by their mechanisms, and the nearest misses by kind. */
export interface Composing {
  readonly block: number;
  readonly fronts: readonly (readonly [string, readonly (Drawn & { readonly aims: Float64Array })[]])[];
  readonly misses: readonly (readonly [string, Drawn & Omit<Miss, 'stages'>])[];
  /** The most even line of every kind. */
  readonly even: readonly (Drawn & { readonly aims: Float64Array })[];
  readonly looked: number;
  readonly pruned: number;
}

/** Lines that are worth computing whole, and why kinds are not among them. */
export interface Worth {
  readonly lines: readonly (Drawn & { readonly kinds: readonly string[] })[];
  readonly misses: ReadonlyMap<string, Drawn & Omit<Miss, 'stages'>>;
  /** Kinds in a line that meets every must, as near as its columns tell. */
  readonly met: readonly string[];
  readonly screened: number;
  readonly looked: number;
  readonly pruned: number;
}

/** How many it takes to beat a line by its columns: some of those may be stopped by a check of the whole line. */
const SEVERAL = 3;
/** Blocks that lines are composed in: as many whoever composes them, so that the set is the same. */
const BLOCKS = 8;

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
    const composer = new Composer(drives, members, demand, ask.joint.brief.limits, stagesOf(ask), holds);
    const progress = (done: number): FindProgress => ({
      doing: 'composing',
      share: (out.length + done) / Math.ceil((BLOCKS - part) / parts),
      screened,
      looked: looked + composer.looked,
    });
    for (let k = block; k < composer.steps; k += BLOCKS) {
      composer.step(k);
      yield progress((0.3 * k) / composer.steps);
    }
    const pairs = composer.pairs();
    for (const [i, pair] of pairs.entries()) {
      composer.stepOn(pair);
      if (i % 16 === 0) yield progress(0.3 + (0.7 * i) / pairs.length);
    }
    looked += composer.looked;
    out.push({
      block,
      fronts: [...composer.fronts].map(([key, front]) => [
        key,
        front.items.map((x) => ({ ...drawn(x.of), aims: x.aims })),
      ]),
      misses: [...composer.misses].map(([kind, miss]) => [kind, { ...miss, ...drawn(miss) }]),
      even: [...composer.even.values()].map((x) => ({ ...drawn(x), aims: x.aims })),
      looked: composer.looked,
      pruned: composer.pruned,
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
    .flatMap(([, { items }]) =>
      spreadOut(
        items.map((x) => x.aims),
        EACH,
      ).map((i) => items[i]!),
    );
  const able = fewBetter(each, SEVERAL);
  const picked = spread(ask, able, ask.first ? FIRST.whole : WHOLE);
  const members = membersOf(screenings);
  const kindsOf = ({ of }: Weighed) => of.stages.map((k) => members[k]!.kind);
  const even = blocks.flatMap((b) => b.even.map(({ aims, ...of }) => ({ of, aims })));
  const all = ask.first ? picked : withEveryKind(picked, even, kindsOf, () => false);
  // The most even line may stand for several kinds, and be among those picked.
  const once = new Map(all.map((x) => [`${x.of.drive} ${x.of.stages.join()}`, x]));
  const lines = [...once.values()].map((x) => ({ ...x.of, kinds: kindsOf(x) }));
  return {
    lines,
    misses,
    met: [...new Set(even.flatMap(kindsOf))],
    screened: screenedOf(screenings),
    looked: blocks.reduce((n, b) => n + b.looked, 0),
    pruned: blocks.reduce((n, b) => n + b.pruned, 0),
  };
}

/** Share of those picked that are within all that the brief wishes, where there are so many. */
const WITHIN = 2 / 3;

/** Lines that stand apart, two thirds of them within what the brief wishes as well as what must be. */
function spread<T extends Weighed>(ask: FindAsk, lines: readonly T[], most: number): T[] {
  const bounds = boundsOf(ask.joint.brief.limits, setUp(ask).demand, true);
  const within = (x: T) =>
    bounds.every(({ of, asked, most: atMost }) => {
      const place = AIMS.findIndex((a) => a === of);
      if (place < 0) return true;
      // Stiffness is chosen by as what gives.
      return of === 'stiffness' ? 1 / x.aims[place]! >= asked === !atMost : x.aims[place]! <= asked === atMost;
    });
  const inside = lines.filter(within);
  const isInside = new Set(inside);
  const outside = lines.filter((x) => !isInside.has(x));
  const seats = Math.max(Math.round(WITHIN * most), most - outside.length);
  const apart = (list: readonly T[], n: number) =>
    spreadOut(
      list.map((x) => x.aims),
      n,
    ).map((i) => list[i]!);
  const first = apart(inside, seats);
  const chosen = new Set([...first, ...apart(outside, most - first.length)]);
  return lines.filter((x) => chosen.has(x));
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
  const { limits } = ask.joint.brief;
  const bounds = boundsOf(limits, demand);
  const life = limits.find((l) => l.id === 'life' && l.need === 'must')?.value ?? 0;
  const out: (Float64Array | undefined)[] = [];
  for (let i = from; i < to; i++) {
    const line = worth.lines[i]!;
    const record = recordOf(madeOf(line, members), drives, ask.variant);
    const aims = summed(demand, bounds, life, record, shelf, open);
    if (aims) aims[0]! -= drives[line.drive]!.saves;
    out.push(aims);
    yield { ...told(worth), doing: 'computing', share: (0.5 * (i + 1 - from)) / (to - from) };
  }
  return out;
}

const told = ({ screened, looked, pruned }: Worth) => ({ screened, looked, pruned });

/** Which of the lines that were summed whole are analysed: none worse than another, spread out. */
export function worthAnalysing(
  ask: FindAsk,
  worth: Pick<Worth, 'lines'>,
  aims: readonly (Float64Array | undefined)[],
): number[] {
  const whole = aims.flatMap((a, i) => (a ? [{ aims: a, of: worth.lines[i]!, i }] : []));
  const best = whole.filter((x) => !whole.some((y) => y !== x && betterThan(y, x)));
  const picked = spread(ask, best, ask.first ? FIRST.shown : SHOWN + SPARE);
  if (ask.first) return picked.map((x) => x.i);
  // A kind of which none can be summed is analysed all the same: then it is known what stops it.
  const rest = worth.lines.map((of, i) => ({ of, i, aims: aims[i] ?? Float64Array.of(1e12) }));
  const there = (kind: string) => picked.some((x) => x.of.kinds.includes(kind));
  return withEveryKind(picked, rest, (x) => x.of.kinds, there).map((x) => x.i);
}

/** Lines of a kind that are computed to say why none of it is shown. */
const SAMPLES = 4;

/** Adds, for every kind that is not there yet, the lines of it that are the most even: what beats or stops them is told. */
function withEveryKind<T extends Weighed>(
  picked: readonly T[],
  all: readonly T[],
  kindsOf: (x: T) => readonly string[],
  there: (kind: string) => boolean,
): T[] {
  const out = [...picked];
  const even = ({ aims }: Weighed) => Array.from(aims).reduce((sum, v) => sum + Math.log(Math.max(v, 1e-12)), 0);
  for (const kind of new Set(all.flatMap((x) => kindsOf(x)))) {
    if (there(kind)) continue;
    const own = all.filter((x) => kindsOf(x).includes(kind));
    out.push(...own.sort((a, b) => even(a) - even(b)).slice(0, SAMPLES));
  }
  return [...new Set(out)];
}

/**
 * Analyses lines with their bands, one of several parts of them.
 *
 * @param chosen places of those analysed among the lines worth computing
 * @returns in their order; those that a must or a check keeps out with the reason
 */
export function* analyseFound(
  ask: FindAsk,
  screenings: readonly Screening[],
  worth: Worth,
  chosen: readonly number[],
  part = 0,
  parts = 1,
): Generator<FindProgress, Analysed[]> {
  const { drives } = setUp(ask);
  const { drawer } = ask.shelf;
  const members = membersOf(screenings);
  const [from, to] = stretch(chosen.length, part, parts);
  const open = rememberingOpener(400);
  const analysed: Analysed[] = [];
  for (let n = from; n < to; n++) {
    const line = madeOf(worth.lines[chosen[n]!]!, members);
    const record = recordOf(line, drives, ask.variant);
    const report = analyseLine(ask.joint, record, ask.shelf, { open, mends: false });
    yield { ...told(worth), doing: 'computing', share: 0.5 + (0.5 * (n + 1 - from)) / (to - from) };
    if (report.problem) continue;
    const figure = (id: string) => report.figures.find((f) => f.id === id)?.value ?? NaN;
    const there = drawer ? fromDrawer(boughtFor(record, ask.shelf, open), drawer) : [];
    const aims = Object.fromEntries(AIMS.map((a) => [a, figure(a)])) as Record<Aim, number>;
    const out = keptOut(report);
    analysed.push({
      line: {
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
      },
      ...(out && { out }),
    });
  }
  return analysed;
}

/** The must that a line misses by most, or the first check that stops it; undefined where nothing keeps it out. */
function keptOut(report: LineReport): KeptOut | undefined {
  const failed = report.verdicts.flatMap(({ id, need, state, figure, asked, sense }) =>
    need === 'must' && state === 'fails'
      ? [{ limit: id, value: figure?.value ?? NaN, asked, by: missedBy(figure?.value ?? NaN, asked, sense) }]
      : [],
  );
  if (failed.length > 0) {
    const { limit, value, asked } = failed.reduce((a, b) => (b.by > a.by ? b : a));
    return { limit, value, asked };
  }
  const [stop] = stopping(report);
  return stop && { check: `${stop.check.name} (${stop.where})` };
}

const missedBy = (value: number, asked: number, sense: Verdict['sense']): number =>
  sense === 'max' ? value / asked : asked / value;

/** What was found, with the reason for every kind that is not in it. */
export function foundOf(
  ask: FindAsk,
  screenings: readonly Screening[],
  worth: Worth,
  analysed: readonly Analysed[],
): FindResult {
  const { demand, drives, kinds } = setUp(ask);
  const members = membersOf(screenings);
  const able = analysed.filter((a) => !a.out).map((a) => weighed(a.line));
  const good = able.filter((a) => !able.some((b) => b !== a && betterThan(b, a))).map((a) => a.line);
  const lines = good.slice(0, ask.first ? FIRST.shown : SHOWN);
  const isShown = (kind: string) => lines.some((l) => l.stages.some((s) => s.kind === kind));
  // What comes last is there for its kinds alone.
  for (const line of good.slice(lines.length)) if (!line.stages.every((s) => isShown(s.kind))) lines.push(line);
  const short = (kind: string) => Math.max(0, ...screenings.map((s) => s.short[kind] ?? 0));
  return {
    lines,
    whyNot: kinds
      // A first look does not compute why a kind that could do it is not shown.
      .filter((k) => !isShown(k.id) && !(ask.first && worth.met.includes(k.id)))
      .map((k) => {
        const miss = worth.misses.get(k.id);
        const near = miss && { ...miss, ...madeOf(miss, members) };
        const why = whyNot(k.id, analysed, lines, near, drives, ask.variant, short(k.id) * demand.peak, demand.peak);
        const across = isWeak(why) && !ask.first ? acrossFor(k, ask) : undefined;
        return { ...why, ...(across !== undefined && { across }) };
      }),
    ...told(worth),
  };
}

/** Whether a kind is left out because what of it fits in carries too little. */
const isWeak = (why: WhyNot): boolean =>
  !why.beaten && why.check === undefined && (why.limit === undefined || why.limit === 'torque');

/** Every so many ratios a kind is tried at where it is asked how large it would have to be. */
const EVERY = 3;

/**
 * The outside of the smallest stage of a kind that carries what the output asks, if it may be larger than is allowed, and
 * what is allowed, m; undefined where nothing limits it, or none was found.
 */
function acrossFor(kind: AnyStageKind, ask: FindAsk): WhyNot['across'] {
  const allowed = mustSize(ask.joint);
  if (!Number.isFinite(allowed)) return undefined;
  const { demand, shelf, making } = setUp(ask);
  const needs = (kind.straight ? WANTED_STRAIGHT : WANTED)
    .filter((_, i) => i % EVERY === 0)
    .flatMap(
      (ratio) =>
        screenKind(kind, { ratio, size: Infinity, ...(making && { making }), shelf }, [demand.peak], demand).members,
    )
    .reduce((least, m) => Math.min(least, m.numbers.outside), Infinity);
  return Number.isFinite(needs) && needs > allowed ? { needs, allowed } : undefined;
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
 *   kind without one the reason: what beats it, stops it, or how far its nearest line misses
 */
export function* composeLines(ask: FindAsk, screenings: readonly Screening[]): Generator<FindProgress, FindResult> {
  const worth = worthComputing(ask, screenings, yield* composeBlocks(ask, screenings));
  const chosen = worthAnalysing(ask, worth, yield* sumWhole(ask, screenings, worth));
  return foundOf(ask, screenings, worth, yield* analyseFound(ask, screenings, worth, chosen));
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

/** What a line is chosen by, summed whole, all to be small; undefined where it cannot be or a stage does not stand. */
function summed(
  demand: Demand,
  bounds: readonly Bound[],
  life: number,
  variant: Variant,
  shelf: Shelf,
  open: StageOpener,
): Float64Array | undefined {
  const opened = openFor(demand.travel, variant.stages, shelf, open).all;
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
  const told = { ...n, play };
  if (n.life < life) return undefined;
  if (bounds.some(({ of, asked, most }) => (most ? told[of] > asked : told[of] < asked))) return undefined;
  return Float64Array.of(
    n.money,
    n.mass,
    Math.max(play, 1e-5),
    1 / n.stiffness,
    n.size,
    1 / Math.max(n.efficiency, 1e-3),
  );
}
