import type { AnyStageKind, Duty, StageNumbers, StageWish } from './contract.ts';
import { inMaterials } from './making.ts';

/**
 * Peak torque of a duty at which the first of a stage's limits is reached, at once or by heat, N·m. What wears or tires is
 * a matter of its life.
 */
export const carries = (m: { readonly numbers: StageNumbers }, at: Duty): number =>
  m.numbers.limits.reduce((least, l) => {
    if (l.time === 'life') return least;
    const scale = l.time === 'continuous' && at.torqueRms > 0 ? at.torque / at.torqueRms : 1;
    return Math.min(least, l.torque * scale);
  }, Infinity);

/** What a stage may take and must leave clear. */
export type Within = Pick<StageWish, 'length' | 'bore' | 'play' | 'stiffness' | 'mass' | 'money'>;

/**
 * Whether a stage takes no more than is wished, and leaves what is to be clear.
 * @example isWithin({ mass: 0.2, bore: 0.01 }, { mass: 0.3, bore: 0.02 }) // false
 */
export function isWithin(
  n: Pick<StageNumbers, 'length' | 'bore' | 'play' | 'stiffness' | 'mass' | 'money'>,
  want: Within,
): boolean {
  const most = (value: number, limit = Infinity) => value <= limit * (1 + 1e-9);
  return (
    most(n.money, want.money) &&
    most(n.mass, want.mass) &&
    most(n.length, want.length) &&
    most(want.bore ?? 0, n.bore) &&
    most(n.play[0], want.play) &&
    most(want.stiffness ?? 0, n.stiffness)
  );
}

/** What of a kind makes other stages of a usual one. */
type Variable = Pick<AnyStageKind, 'fields' | 'passage'>;

/** A usual stage, and the same bored as wide as is asked where it can be. */
function bored<P extends object>(kind: Variable, usual: P, bore: number): readonly P[] {
  const { passage } = kind;
  const now = passage === undefined ? Infinity : (usual as Record<string, number>)[passage]!;
  return now >= bore ? [usual] : [usual, { ...usual, [passage!]: bore }];
}

/** What a usual stage is tried as: bored as wide as is wished where it can be, of each material that it may be made of. */
export const asWished = <P extends object>(
  kind: Variable,
  usual: P,
  want: Pick<StageWish, 'bore' | 'making' | 'shelf'>,
): readonly P[] => bored(kind, usual, want.bore ?? 0).flatMap((one) => inMaterials(kind, one, want.making, want.shelf));

/** The same wish for the nearest ratio of a range. */
export const nearRatio = (want: StageWish, least: number, most: number): StageWish => ({
  ...want,
  ratio: Math.min(most, Math.max(least, Math.abs(want.ratio))),
});

/** Torque in hand that a stage is chosen with. */
const IN_HAND = 1.2;

/**
 * The first candidate of a kind that carries what is wished with a fifth in hand, keeps within the rest, and that no check
 * stops. Where none does: of those that carry it and keep within the rest, or do one of both, the strongest.
 *
 * @returns parameters of the kind; undefined where none can be opened
 */
export function firstThatCarries<P extends object>(
  kind: Variable & { candidates(want: StageWish): Iterable<P>; open: AnyStageKind['open'] },
  want: StageWish,
): P | undefined {
  const at: Duty = { ...(want.duty ?? { torqueRms: want.torque / 2, speed: 0 }), torque: want.torque };
  let best: { readonly p: P; readonly does: number; readonly strong: number } | undefined;
  for (const usual of kind.candidates(want))
    for (const p of asWished(kind, usual, want)) {
      const opened = kind.open(p, want.shelf);
      if (!opened.ok) continue;
      const numbers = opened.value.load(at);
      const most = carries({ numbers }, at);
      const does = Number(most >= IN_HAND * want.torque) + Number(isWithin(numbers, want));
      if (does === 2 && opened.value.stands(at)) return p;
      // They come small first: of those that carry it, the first stays.
      const strong = Math.min(most, IN_HAND * want.torque);
      if (!best || does > best.does || (does === best.does && strong > best.strong)) best = { p, does, strong };
    }
  return best?.p;
}
