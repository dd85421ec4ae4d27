import { toothSide, type Gear, type TakenOut } from '../gear/index.ts';
import type { Part } from './contract.ts';
import type { Cost } from './costs.ts';

/** A wheel of some width as a part: what of it depends on whether it is a half that springs turn. */
type WheelOf = (
  width: number,
  sprung: boolean,
) => Pick<Part, 'curves' | 'solid'> & {
  readonly note: string;
};

/**
 * A wheel as one piece, or as two halves side by side of which springs turn the second against the first.
 *
 * The first half is held as the whole wheel is. The second turns beside it, so that nothing fastens it: its maker leaves out
 * keys, screws and nut traps where `sprung` is told.
 *
 * @param cost of each piece, and how many pieces of both halves together
 * @param about what does not depend on the width
 */
export function wheelParts(
  split: boolean,
  about: Omit<Part, 'curves' | 'solid' | 'note' | keyof Cost> & { readonly teeth: Gear },
  width: number,
  double: boolean,
  cost: Cost,
  of: WheelOf,
): readonly Part[] {
  if (!split) return [{ ...about, ...cost, ...of(width, false) }];
  const each = { ...cost, quantity: cost.quantity / 2 };
  const [held, turned] = [of(width / 2, false), of(width / 2, true)];
  // A single helix goes on in the second half where the first leaves off; hands come back to where they began.
  const on = double ? 0 : ((width / 2) * Math.tan(about.teeth.helix)) / toothSide(about.teeth).size.r;
  const places = about.places;
  return [
    { ...about, ...each, ...held, name: `${about.name}, held half`, note: `${held.note}; half of a split wheel` },
    {
      ...about,
      ...each,
      ...turned,
      id: `${about.id}-sprung`,
      name: `${about.name}, sprung half`,
      note: `${turned.note}; turned against the other half by springs, in slots as they ask`,
      ...(places && {
        places: (crank: number) =>
          places(crank).map((q) => ({
            ...q,
            at: [q.at[0], q.at[1], q.at[2] + width / 2] as const,
            turn: q.turn + on,
            apart: [q.apart[0], q.apart[1], q.apart[2] * 1.4] as const,
          })),
      }),
    },
  ];
}

/** Mass of a small extension spring of wire of half a millimetre, kg, and its price. Source: usual stock; starting value. */
const SPRING = { mass: 1e-3, money: 0.3 };

/** Springs that take play out: what they weigh and cost. */
export const springsCost = (quantity: number): Cost => ({ quantity, ...SPRING });

/** Springs as a line of what is bought; none where there are none. */
export const springParts = (quantity: number, note: string): readonly Part[] =>
  quantity === 0
    ? []
    : [
        {
          id: 'springs',
          name: 'Springs that take the play out',
          ...springsCost(quantity),
          made: 'bought',
          material: 'spring wire',
          note,
          curves: [],
        },
      ];

/** How many springs stand round a split wheel, evenly, so that they turn its halves and do not push them aside. */
export const ROUND_A_WHEEL = 3;

/** How many springs a pair has whose play they take out. */
export const springsOn = (way: TakenOut): number => (way === 'split' ? ROUND_A_WHEEL : way === 'spring' ? 2 : 0);

/** How a split wheel comes into mesh. */
export const windStep = (wheel: string) => ({
  do: `Turn the halves of the ${wheel} apart against their springs until their teeth stand in line, pin them, bring them into mesh, and draw the pin.`,
  caution: 'The springs are loaded: keep fingers out of the mesh.',
});
