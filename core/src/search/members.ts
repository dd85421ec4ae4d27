import type { Demand } from '../brief/demand.ts';
import { dutyAt } from '../line/numbers.ts';
import { asWished, carries, isWithin, type Within } from '../stage/choose-candidate.ts';
import type { AnyStageKind, Stage, StageNumbers, StageWish } from '../stage/contract.ts';

import { NonDominated, spreadOut } from './dominance.ts';

/** A stage of a kind that stands at a torque, screened for one place of a line. */
export interface Member {
  readonly kind: string;
  /** Runs straight: it can only be last. */
  readonly ends?: boolean;
  readonly params: Readonly<Record<string, unknown>>;
  readonly numbers: StageNumbers;
  /** Size of its ratio. */
  readonly ratio: number;
  /** Torque it was screened at, N·m, and the most it carries there. */
  readonly at: number;
  readonly most: number;
}

/** Ratios that stages are wanted of: from 1.5 to 200, a fifth apart. */
export const WANTED = Array.from({ length: 27 }, (_, i) => 1.5 * 1.2072 ** i);
/** The same where the last stage runs straight: what it counts as a ratio goes with the brief's radius, and may be below one. */
export const WANTED_STRAIGHT = [...Array.from({ length: 12 }, (_, i) => 1.5 * 1.2072 ** (i - 12)), ...WANTED];
/** How far a stage's ratio may lie from the one that was wanted, before another wish has it. */
const NEAR = 0.2;
/** Members kept for one kind and wish at the output, and before; and of those that alone are not within what must be. */
const [LAST, BEFORE, BEYOND] = [8, 4, 3];

/** What a member is chosen by, all to be small. */
const aimsOf = (n: StageNumbers, most: number, at: number, within: boolean): number[] => [
  n.money,
  n.mass,
  Math.max(n.play[0], 1e-6),
  1 / Math.max(n.stiffness, 1e-9),
  n.outside,
  1 / n.etaForward,
  // Strength beyond half as much again is worth nothing.
  1 / Math.min(most / at, 1.5),
  // What holds by itself and what turns back are both wanted.
  ...[n.etaBackward > 0 ? 1 : 2, n.etaBackward > 0 ? 2 : 1],
  within ? 1 : 2,
];

/** What was found of a kind at a wish: those that stand, and the one that carried most where none did. */
export interface Screened {
  readonly members: readonly Member[];
  readonly tried: number;
  /** The strongest that falls short of the largest torque, as a share of it; 0 where none was there. */
  readonly short: number;
}

/** A candidate that can be, with its parameters. */
interface Opening {
  readonly params: Readonly<Record<string, unknown>>;
  readonly stage: Stage;
}

/**
 * Candidates of a kind for one ratio: those of a kind that does not ask for which torque are the same for all, and are
 * thought of once.
 */
class Candidates {
  private readonly list: object[] = [];
  private rest: Iterator<object> | undefined;
  private asked = false;

  constructor(
    private readonly kind: AnyStageKind,
    private readonly wish: Omit<StageWish, 'torque'>,
  ) {}

  /** @param torque at the stage's output, N·m */
  *of(torque: number): Generator<object> {
    if (!this.rest || this.asked) {
      this.list.length = 0;
      this.rest = (this.kind.candidates(this.wishFor(torque)) as Iterable<object>)[Symbol.iterator]();
    }
    const { list, rest } = this;
    for (let i = 0; ; i++) {
      if (i === list.length) {
        const next = rest.next();
        if (next.done) return;
        list.push(next.value);
      }
      yield list[i]!;
    }
  }

  private wishFor(torque: number): StageWish {
    const asked = () => (this.asked = true);
    return {
      ...this.wish,
      get torque() {
        asked();
        return torque;
      },
    };
  }
}

/** A stage this many times as strong as it must be is no candidate beside smaller ones. */
const STRONGER = 12;

/**
 * Stages of a kind near a ratio that carry torques within a size and that no check stops, none of them worse than another
 * in everything.
 *
 * @param want what is wished: stages within it are found beside some that are not, by which misses are told. Play and
 *   stiffness are asked of the largest torque alone, the output's
 * @param torques at the stage's output, N·m, the largest first
 * @param tries most candidates looked at for one torque
 */
export function screenKind(
  kind: AnyStageKind,
  want: Omit<StageWish, 'torque' | 'duty'>,
  torques: readonly number[],
  demand: Demand,
  tries = Infinity,
): Screened {
  const { ratio, size, shelf } = want;
  // What comes before the output adds its play and stiffness through the ratio after it.
  const { play: _, stiffness: __, ...before } = want;
  const wishOf = (level: number): Within => (level === 0 ? want : before);
  const fronts = torques.map(() => new NonDominated<Member>(0.02));
  const opened = new Map<string, Stage | undefined>();
  const open = (params: unknown): Stage | undefined => {
    const key = JSON.stringify(params);
    if (opened.has(key)) return opened.get(key);
    const made = kind.open(params, shelf);
    const stage =
      made.ok && Math.abs(Math.log(Math.abs(made.value.kinematics.ratio) / ratio)) < NEAR ? made.value : undefined;
    opened.set(key, stage);
    return stage;
  };
  // How far the output goes is the same whatever it carries: a rack is as long, a cable as wide.
  const candidates = new Candidates(kind, { ...want, duty: dutyAt(demand, torques[0]!) });
  const stagesOf = (usual: object): readonly Opening[] =>
    asWished(kind, usual as Opening['params'], want).flatMap((params): Opening[] => {
      const stage = open(params);
      return stage ? [{ params, stage }] : [];
    });
  const known = new Map<object, readonly Opening[]>();
  let short = 0;
  torques.forEach((torque, level) => {
    if (kind.straight && level > 0) return;
    const at = dutyAt(demand, torque);
    const front = fronts[level]!;
    let looked = 0;
    for (const usual of candidates.of(torque)) {
      if (++looked > tries) break;
      let stages = known.get(usual);
      if (!stages) known.set(usual, (stages = stagesOf(usual)));
      let ample = 0;
      for (const { params, stage } of stages) {
        const numbers = stage.load(at);
        if (!(numbers.outside <= size)) continue;
        const most = carries({ numbers }, at);
        if (most > STRONGER * torque) ample++;
        if (!(most >= torque)) {
          if (level === 0) short = Math.max(short, most / torque);
          continue;
        }
        const aims = aimsOf(numbers, most, torque, isWithin(numbers, wishOf(level)));
        if (front.welcomes(aims) && stage.stands(at))
          front.take(
            {
              kind: kind.id,
              ...(kind.straight && { ends: true }),
              params,
              numbers,
              ratio: Math.abs(stage.kinematics.ratio),
              at: torque,
              most,
            },
            aims,
          );
      }
      // They come small first: what follows is larger and dearer still.
      if (ample > 0 && ample === stages.length) break;
    }
  });
  const members = fronts.flatMap(({ items }, level) =>
    [true, false].flatMap((within) => {
      const some = items.filter((x) => isWithin(x.of.numbers, wishOf(level)) === within);
      return spreadOut(
        some.map((x) => x.aims),
        within ? (level === 0 ? LAST : BEFORE) : BEYOND,
      ).map((i) => some[i]!.of);
    }),
  );
  return { members, tried: opened.size, short: fronts[0]!.items.length ? 0 : short };
}
