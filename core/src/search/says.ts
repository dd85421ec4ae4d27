import { LIMIT_KINDS } from '../brief/demand.ts';
import { stageKind } from '../stage/registry.ts';
import { stated } from '../units/stated.ts';
import type { QuantityId } from '../units/quantity.ts';
import { AIMS, type Aim } from './compose.ts';
import type { FoundLine, WhyNot } from './found.ts';

/** What an aim is called, in what it is told, and how a line is called that is first or last in it. */
export const AIM_WORDS: Readonly<
  Record<
    Aim,
    {
      readonly name: string;
      readonly quantity: QuantityId;
      readonly most: boolean;
      readonly first: string;
      readonly last: string;
    }
  >
> = {
  money: { name: 'money', quantity: 'money', most: false, first: 'the cheapest', last: 'dear' },
  mass: { name: 'mass', quantity: 'mass', most: false, first: 'the lightest', last: 'heavy' },
  play: { name: 'play', quantity: 'smallAngle', most: false, first: 'the least play', last: 'much play' },
  stiffness: { name: 'stiffness', quantity: 'stiffness', most: true, first: 'the stiffest', last: 'soft' },
  size: { name: 'size across', quantity: 'length', most: false, first: 'the smallest across', last: 'large across' },
  efficiency: {
    name: 'efficiency',
    quantity: 'efficiency',
    most: true,
    first: 'the most efficient',
    last: 'much is lost',
  },
};

/** Values within this share of the first count as first. */
const ALIKE = 0.005;

/** Where a line stands among others in one aim: 0 first, 1 last, counted by those that are before it by a share. */
function standing(line: FoundLine, lines: readonly FoundLine[], aim: Aim, alike = ALIKE): number {
  const { most } = AIM_WORDS[aim];
  const own = line.aims[aim];
  const before = lines.filter((l) => (most ? l.aims[aim] > own * (1 + alike) : l.aims[aim] < own * (1 - alike))).length;
  return lines.length > 1 ? before / (lines.length - 1) : 0;
}

/**
 * One sentence of what a line is best at among those found, and what it gives up for that; never which is the best.
 */
export function characterOf(line: FoundLine, lines: readonly FoundLine[]): string {
  if (lines.length < 2) return 'The only one that was found.';
  const places = AIMS.map((aim) => ({ aim, at: standing(line, lines, aim) }));
  const firsts = places.filter((p) => p.at === 0);
  const near = [...places].sort((a, b) => a.at - b.at)[0]!;
  const far = [...places].sort((a, b) => b.at - a.at)[0]!;
  const said = (aim: Aim) => stated(line.aims[aim], AIM_WORDS[aim].quantity, 3);
  const good = firsts.length
    ? firsts.map(({ aim }) => `${AIM_WORDS[aim].first} (${said(aim)})`).join(', ')
    : near.at < 0.34
      ? `among the first third in ${AIM_WORDS[near.aim].name} (${said(near.aim)})`
      : 'in the middle of everything';
  const bad = far.at > 0.6 ? `; ${AIM_WORDS[far.aim].last}, ${said(far.aim)}` : '';
  return `${good[0]!.toUpperCase()}${good.slice(1)}${bad}.`;
}

/**
 * A count of lines in words, and how many of them were judged by what bounds them, many at a time.
 *
 * @example countSays(1_358_678_688, 1_337_000_000) // '1359 million, 98 % judged many at a time by what bounds them'
 */
export function countSays(looked: number, pruned = 0): string {
  const count = looked >= 1e7 ? `${Math.round(looked / 1e6)} million` : `${looked}`;
  const share = Math.floor((100 * pruned) / Math.max(1, looked));
  return share > 0 ? `${count}, ${share} % judged many at a time by what bounds them` : count;
}

const nameOf = (kind: string): string => stageKind(kind)?.name ?? kind;

/** Why a kind has no line in the set, in a sentence with its number. */
export function whyNotSays({ kind, limit, value, asked, line, check, beaten, across }: WhyNot): string {
  const name = nameOf(kind);
  if (across) {
    const [needs, allowed] = [stated(across.needs, 'length', 3), stated(across.allowed, 'length', 3)];
    return `${name}: it would have to be ${needs} across to carry ${stated(asked, 'torque', 3)}; you allow ${allowed}.`;
  }
  if (beaten) {
    const behind = beaten.behind.map(({ aim, own, other }) => {
      const { name: of, quantity } = AIM_WORDS[aim];
      return `${of} ${stated(own, quantity, 3)} beside ${stated(other, quantity, 3)}`;
    });
    const by = beaten.by.map((k) => nameOf(k).toLowerCase()).join(' + ');
    return `${name}: a line of it does what is asked, but ${by} is as good or better in everything: ${behind.join(', ')}.`;
  }
  if (check !== undefined) return `${name}: the nearest line is stopped by a check, ${check}.`;
  if (limit === undefined) return `${name}: none can be had of a ratio that a line could use, within the size allowed.`;
  const { quantity, sense, name: of } = LIMIT_KINDS[limit];
  if (limit === 'turnBack' && value === Infinity)
    return `${name}: the nearest line holds by itself; at most ${stated(asked, quantity, 3)} is asked to turn it back.`;
  const [is, may] = [stated(value, quantity, 3), stated(asked, quantity, 3)];
  if (limit === 'torque')
    return line
      ? `${name}: the nearest line brings ${is} where ${may} are asked.`
      : `${name}: the strongest that was tried carries ${is} where ${may} are asked.`;
  return `${name}: the nearest line has ${of.toLowerCase()} ${is}; ${sense === 'max' ? 'at most' : 'at least'} ${may} is asked.`;
}

/** What lines are put in order by: an aim, or how likely every must is met. */
export type Priority = Aim | 'chance';
export const PRIORITIES: readonly Priority[] = ['chance', ...AIMS];

/** Lines in the order of priorities: by their very place in each, times its weight; the set does not change. */
export function inOrderOf(
  lines: readonly FoundLine[],
  weights: Readonly<Partial<Record<Priority, number>>>,
): FoundLine[] {
  const surer = (l: FoundLine) =>
    lines.filter((o) => o.chance.all > l.chance.all + ALIKE).length / Math.max(1, lines.length - 1);
  const score = new Map(
    lines.map((l) => [
      l,
      PRIORITIES.reduce((s, p) => s + (weights[p] ?? 0) * (p === 'chance' ? surer(l) : standing(l, lines, p, 0)), 0),
    ]),
  );
  return [...lines].sort((a, b) => score.get(a)! - score.get(b)!);
}
