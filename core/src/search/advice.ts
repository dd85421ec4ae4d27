import { median } from 'simple-statistics';
import type { LimitId } from '../schema/joint.ts';
import { stageKind } from '../stage/registry.ts';
import { stated } from '../units/stated.ts';
import type { FoundLine } from './found.ts';

/** Lines by what a function says of each, in the order the answers came first. */
function grouped<K>(lines: readonly FoundLine[], by: (l: FoundLine) => K): Map<K, FoundLine[]> {
  const out = new Map<K, FoundLine[]>();
  for (const l of lines) {
    const key = by(l);
    const list = out.get(key);
    if (list) list.push(l);
    else out.set(key, [l]);
  }
  return out;
}

/** Lines of a group below which its middle says nothing. */
const SOME = 3;
const middle = (lines: readonly FoundLine[], of: (l: FoundLine) => number): number => median(lines.map(of));
const last = (l: FoundLine): string => l.stages[l.stages.length - 1]!.kind;
const named = (kind: string): string => (stageKind(kind)?.name ?? kind).toLowerCase();

/** What each stage more costs in efficiency, where lines of several lengths were found. */
function ofStages(lines: readonly FoundLine[]): string[] {
  const by = [...grouped(lines, (l) => l.stages.length)]
    .filter(([, list]) => list.length >= SOME)
    .map(([n, list]) => ({ n, eta: middle(list, (l) => l.aims.efficiency) }))
    .sort((a, b) => a.n - b.n);
  const [few, many] = [by[0], by[by.length - 1]];
  if (!few || !many || few === many || !(few.eta > many.eta)) return [];
  return [
    `Each stage more costs efficiency: in the middle lines of ${few.n === 1 ? 'one stage' : `${few.n} stages`} pass on ` +
      `${stated(few.eta, 'efficiency', 2)}, of ${many.n} stages ${stated(many.eta, 'efficiency', 2)}.`,
  ];
}

/** What play is left behind each kind of last stage. */
function ofPlay(lines: readonly FoundLine[]): string[] {
  const by = [...grouped(lines, last)]
    .filter(([, list]) => list.length >= SOME)
    .map(([kind, list]) => ({ kind, play: middle(list, (l) => l.aims.play) }))
    .sort((a, b) => a.play - b.play);
  const [low, high] = [by[0], by[by.length - 1]];
  if (!low || !high || !(high.play > 1.5 * low.play)) return [];
  return [
    `Play before the last stage is divided by its ratio, its own is not: behind a ${named(low.kind)} the middle of what is ` +
      `left is ${stated(low.play, 'smallAngle', 2)}, behind a ${named(high.kind)} ${stated(high.play, 'smallAngle', 2)}.`,
  ];
}

/** What half the play of the cheapest line costs. */
function ofMoney(lines: readonly FoundLine[]): string[] {
  const cheapest = lines.reduce((a, b) => (b.aims.money < a.aims.money ? b : a));
  const tight = lines.filter((l) => l.aims.play <= cheapest.aims.play / 2);
  if (tight.length === 0 || !(cheapest.aims.play > 0)) return [];
  const then = tight.reduce((a, b) => (b.aims.money < a.aims.money ? b : a));
  return [
    `Half the play of the cheapest line costs ${stated(then.aims.money - cheapest.aims.money, 'money', 2)} more: ` +
      `${stated(then.aims.money, 'money', 3)} at ${stated(then.aims.play, 'smallAngle', 2)} beside ` +
      `${stated(cheapest.aims.money, 'money', 3)} at ${stated(cheapest.aims.play, 'smallAngle', 2)}.`,
  ];
}

/** How many can be turned back as asked, or hold, and up to which ratio. */
function ofTurnBack(lines: readonly FoundLine[]): string[] {
  const id: LimitId = 'turnBack';
  const asked = lines[0]!.verdicts.find((v) => v.id === id);
  if (!asked || asked.sense === 'either') return [];
  const does = lines.filter((l) => l.verdicts.some((v) => v.id === id && v.state !== 'fails'));
  const count = `${does.length} of ${lines.length}`;
  if (asked.sense === 'min') {
    const own = does.filter((l) => l.verdicts.some((v) => v.id === id && v.says !== undefined)).length;
    return [
      `${count} hold ${stated(asked.asked, 'torque', 3)} unpowered, ${own} of them by a stage that cannot be driven back; ` +
        'the others need a brake for more, or hold by what the motor and friction give.',
    ];
  }
  if (does.length === 0 || does.length === lines.length) return [];
  const most = Math.max(...does.map((l) => l.ratio));
  return [
    `${count} turn back at ${stated(asked.asked, 'torque', 3)} or less, none of them of more ratio than ` +
      `${stated(most, 'ratio', 3)}: little ratio, little friction and a light rotor turn back.`,
  ];
}

/**
 * What the lines that were found say about choosing among them, each sentence with their own figures. It never says which
 * is the best.
 *
 * @param lines found whole; a handful at least
 */
export const adviceOf = (lines: readonly FoundLine[]): string[] =>
  lines.length < 2 * SOME ? [] : [...ofTurnBack(lines), ...ofStages(lines), ...ofPlay(lines), ...ofMoney(lines)];
