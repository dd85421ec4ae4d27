import { check, type Check, type Mend } from '../figure/index.ts';
import type { Material } from '../schema/joint.ts';
import { SCREWS, type Screw } from '../shop/fasteners.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';
import { isTapped, slideOf } from './idle-pins.ts';
import { slotsOf, type StandingPin } from './standing-pins.ts';
import type { Working } from './link-loads.ts';
import type { Reducer, ReducerVariant } from './reducer.ts';
import { faceHolds } from './sides.ts';
import { creeps, keptOf, standsForGood } from './for-good.ts';
import { clampForce, insertHolds, screwMend, threadHolds, YIELD } from './strength.ts';

/** Diameters of ground pins that are to be had, m. */
const PINS = [3e-3, 4e-3, 5e-3, 6e-3, 8e-3, 10e-3] as const;

/** A pin that stands out of what it is pressed into. */
export interface Stub {
  /** m */
  readonly diameter: number;
  /** How deep it sits, m. */
  readonly deep: number;
  /** How far beyond its seat it is pulled, m. */
  readonly lever: number;
}

/**
 * Force across a pin at which it bends for good, N: σ·π·d³/(32·l).
 *
 * Source: a round bar held at one end.
 * @example pinBends({ diameter: 0.004, deep: 0.01, lever: 0.02 }).toFixed(1) // '141.4'
 */
export const pinBends = ({ diameter, lever }: Stub): number => (YIELD * Math.PI * diameter ** 3) / (32 * lever);

/**
 * Force across a pin at which the hole it is pressed into gives way at its mouth, N: p·d·s²/(6·l + 4·s).
 *
 * Source: a rigid pin in a hole under a force beyond it: the force itself and its moment about the middle of the seat press
 * with F/(d·s)·(1 + 3 + 6·l/s) at the mouth.
 * @param stands pressure that the hole bears, Pa
 * @example pinCrushes({ diameter: 0.004, deep: 0.01, lever: 0.02 }, 20e6) // 50
 */
export const pinCrushes = ({ diameter, deep, lever }: Stub, stands: number): number =>
  (stands * diameter * deep * deep) / (6 * lever + 4 * deep);

/** What a pin of an idler is as a stub, of another diameter where that is asked for. */
function stubOf({ housing }: Reducer, p: StandingPin, variant: ReducerVariant, diameter: number): Stub {
  const plate = housing!.plates[p.plate]!;
  const middle = (p.from + p.to) / 2;
  if (!p.slides) return { diameter, deep: plate.to - plate.from, lever: Math.abs(middle - plate.to) };
  const pin = { ...p, pin: { ...p.pin, diameter } };
  return {
    diameter,
    deep: slideOf(pin, plate, SCREWS[variant.housing!.screw], variant.housing!.material).thick,
    lever: plate.to - middle,
  };
}

/**
 * Whether the pins of idlers stand what runs over them, and whether the shafts of every belt and chain, or its idler, can be
 * moved to tension it.
 *
 * @param working of every stage of the line; without it only whether they can be moved
 */
export function idleChecks(
  reducer: Reducer,
  variant: ReducerVariant,
  shelf: Shelf,
  working: readonly Working[] = [],
): Check[] {
  const { housing, plan, run } = reducer;
  if (!housing || !plan) return [];
  const list: Check[] = [];
  for (let index = plan.first; index <= plan.last; index++) {
    const { ports } = run.stages[index]!;
    const { takeUp } = ports;
    // A motor that is screwed on through slots is moved itself, as far as they are long.
    const slots = slotsOf(plan, index - plan.first, ports);
    if (!takeUp || slots >= takeUp.needs) continue;
    const reached = index === plan.last;
    const mend = (): Mend | undefined => {
      const found = reached ? takeUp.mend() : undefined;
      return found && onStage(found, index);
    };
    list.push(
      check({
        id: `tension-${index + 1}`,
        name: `Stage ${index + 1} can be tensioned`,
        figure: Math.max(slots, reached ? takeUp.gives : 0),
        limit: takeUp.needs,
        sense: 'min',
        quantity: 'length',
        near: 0,
        severity: 'warn',
        why:
          slots > 0
            ? 'The motor’s slots are as long as it takes to lay it on; what it grows longer by in its life, told as a way of the shafts, is for an idler on the cover.'
            : 'Its shafts run in bearings that sit fast in their plates, and cannot be moved by as much as it takes; an idler on the cover can, which stands for a way of theirs.',
        mend,
        advice: reached
          ? 'Give it an idler, whose pin is moved on a slide.'
          : 'Let it be the last stage, with an idler; a belt may be the first, whose motor is moved.',
      }),
    );
  }
  for (const p of housing.pins) {
    const index = plan.first + p.k;
    const pull = working[index]?.numbers.idlerPull ?? 0;
    if (!(pull > 0)) continue;
    list.push(pinCheck(reducer, variant, p, index, pull));
    if (p.slides) list.push(slideCheck(reducer, variant, shelf, p, index, pull));
  }
  return list;
}

/** A mend of a stage as a mend of the line. */
const onStage = ({ path, also, ...rest }: Mend, index: number): Mend => ({
  ...rest,
  path: `stages.${index}.${path}`,
  ...(also && { also: Object.fromEntries(Object.entries(also).map(([k, v]) => [`stages.${index}.${k}`, v])) }),
});

function pinCheck(reducer: Reducer, variant: ReducerVariant, p: StandingPin, index: number, pull: number): Check {
  // The motor's plate is of the mount's material.
  const ofMount = !p.slides && p.plate === 0 && reducer.plan!.direct;
  const material = ((ofMount && variant.mount) || variant.housing!.material) as Material;
  const stands = standsForGood(material);
  const by = (diameter: number) => {
    const stub = stubOf(reducer, p, variant, diameter);
    return { bends: pinBends(stub), crushes: pinCrushes(stub, stands) };
  };
  const { bends, crushes } = by(p.pin.diameter);
  const thicker = PINS.find((d) => d > p.pin.diameter && Math.min(...Object.values(by(d))) >= pull);
  return check({
    id: `idler-pin-${index + 1}${p.pin.id === 'idler' ? '' : '-2'}`,
    name: `Pin of the idler of stage ${index + 1} stands the pull`,
    figure: pull,
    limit: Math.min(bends, crushes),
    sense: 'max',
    quantity: 'force',
    severity: 'warn',
    why:
      bends < crushes
        ? 'It stands out of its seat on one side, and bends.'
        : `It stands out of its seat on one side, and levers at the mouth of its hole; ${material.name.replace(/, printed$/, '')} ${creeps(material) ? 'creeps there under more than half of its strength' : 'yields there'}.`,
    ...(thicker && {
      mend: {
        path: `stages.${index}.idlerBore`,
        value: thicker,
        label: `Pin of ${stated(thicker, 'length', 3)}`,
      },
    }),
    advice: 'Take a thicker pin, a narrower belt or less push.',
  });
}

function slideCheck(
  { housing }: Reducer,
  variant: ReducerVariant,
  shelf: Shelf,
  p: StandingPin,
  index: number,
  pull: number,
): Check {
  const { material, screw } = variant.housing!;
  const friction = factor(shelf, 'clamp.friction');
  const by = (thread: Screw): number => {
    const s = slideOf(p, housing!.plates[p.plate]!, thread, material);
    const stays = s.tapped ? threadHolds(thread, s.deep, material) : insertHolds(s.hole, s.deep, material);
    const each = Math.min(clampForce(thread, 1, variant, shelf), keptOf(material, shelf) * stays);
    // Two screws press it on the cover; a force needs no lever.
    return faceHolds([1, 1], each, friction);
  };
  return check({
    id: `idler-slide-${index + 1}`,
    name: `Tensioner of stage ${index + 1} stays where it is set`,
    figure: pull,
    limit: by(SCREWS[screw]),
    sense: 'max',
    quantity: 'force',
    severity: 'warn',
    why:
      `Two screws in ${isTapped(material) ? 'threads' : 'inserts'} press its slide on the cover, ` +
      `${creeps(material) ? 'creep leaves less of that, ' : ''}and friction holds against the pull.`,
    mend: () => screwMend(screw, (x) => by(x) >= pull),
    advice: 'Take thicker screws for the housing, or press the idler in less.',
  });
}
