import { toothSide, type Gear, type TakenOut } from '../gear/index.ts';
import type { Part } from './contract.ts';
import type { Cost } from './costs.ts';

/**
 * A wheel of some width as a part: what of it depends on which of two halves it is. Nothing fastens a half that springs turn;
 * nuts go into the last.
 */
type WheelOf = (
  width: number,
  teeth: Gear,
  double: boolean,
  half: { readonly sprung: boolean; readonly last: boolean },
) => Pick<Part, 'curves' | 'solid'> & {
  readonly note: string;
};

/** Why a wheel is made in two halves: springs turn one against the other, or what meshes with it could not go in. */
export type Halved = 'no' | 'sprung' | 'halves';

/**
 * A wheel as one piece, or as two halves side by side.
 *
 * The first half is held as the whole wheel is. One that springs turn turns beside it, so that nothing fastens it: its maker
 * leaves out keys, screws and nut traps where `sprung` is told. Of a double helix each half has one hand, as the mate has it
 * there.
 *
 * @param cost of each piece, and how many pieces of both halves together
 * @param about what does not depend on the width
 */
export function wheelParts(
  halved: Halved,
  about: Omit<Part, 'curves' | 'solid' | 'note' | keyof Cost> & { readonly teeth: Gear },
  width: number,
  double: boolean,
  cost: Cost,
  of: WheelOf,
): readonly Part[] {
  const { teeth, places } = about;
  if (halved === 'no') return [{ ...about, ...cost, ...of(width, teeth, double, { sprung: false, last: true }) }];
  const each = { ...cost, quantity: cost.quantity / 2 };
  const sprung = halved === 'sprung';
  // A double helix runs back to its middle, and on from there.
  const lower = double ? { ...teeth, helix: -teeth.helix } : teeth;
  const [first, second] = [
    of(width / 2, lower, false, { sprung: false, last: sprung }),
    of(width / 2, teeth, false, { sprung, last: true }),
  ];
  const on = ((width / 2) * Math.tan(lower.helix)) / toothSide(teeth).size.r;
  return [
    {
      ...about,
      ...each,
      ...first,
      teeth: lower,
      name: sprung ? `${about.name}, held half` : `${about.name}, first half`,
      note: `${first.note}; half of a ${sprung ? 'split wheel' : 'double helix'}`,
    },
    {
      ...about,
      ...each,
      ...second,
      id: sprung ? `${about.id}-sprung` : `${about.id}-half`,
      name: sprung ? `${about.name}, sprung half` : `${about.name}, second half`,
      note: `${second.note}; ${
        sprung
          ? 'turned against the other half by springs, in slots as they ask'
          : 'the other half, its teeth on from the first’s; glued or pinned to it'
      }`,
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
