import { boundsOf } from '../shape/bounds.ts';
import { ORIGIN } from '../shape/outline.ts';
import { recorded, type Reads } from '../shop/reads.ts';
import { withFactor, type Shelf } from '../shop/shelf.ts';
import type { Stage } from '../stage/contract.ts';
import { reducerOf, type Reducer, type ReducerVariant } from './reducer.ts';
import { pointIn } from './frame.ts';
import { linkInertias } from './balance.ts';
import { blockSpring } from './block-checks.ts';
import { linkSprings } from './link-springs.ts';
import { filledShare } from './weight.ts';

/** What a housing adds to a line, and what the whole takes up. */
export interface Around {
  readonly reducer: Reducer;
  /** Of plates, walls, shafts, bearings and screws, kg and money. */
  readonly mass: number;
  readonly money: number;
  /** Longest side across the output's axis, and length along it from the motor's end to the cover, m. */
  readonly size: number;
  readonly length: number;
  /**
   * Stiffness of the shaft behind each stage of the line, and of blocks that bear what comes into the first one across, at that
   * stage's output, N·m/rad; Infinity where the housing has none there.
   */
  readonly springs: readonly number[];
  /** Inertia of these shafts and of hubs, kg·m². */
  readonly inertias: readonly number[];
  /** What of the shop it came from. */
  readonly reads: Reads;
}

/** What stands round the stages of a line; undefined where nothing is made here. */
export function aroundOf(variant: ReducerVariant, stages: readonly Stage[], shelf: Shelf): Around | undefined {
  if (variant.housing?.by !== 'here') return undefined;
  const { value: made, reads } = recorded(shelf, (read) => reducerOf(variant, stages, read));
  if (!made.ok || !made.value.housing) return undefined;
  const reducer = made.value;
  const { from, to, across } = envelopeOf(reducer)!;
  return {
    reducer,
    ...weighed(reducer, shelf),
    size: Math.max(...across),
    length: to - from,
    springs: springsOf(reducer, variant.housing.material.modulus),
    inertias: linkInertias(reducer),
    reads,
  };
}

/** What of a housing gives under the line's torque, at the output of each stage, N·m/rad. */
function springsOf(reducer: Reducer, modulus: number): readonly number[] {
  const shafts = linkSprings(reducer);
  const aside = reducer.plan?.aside;
  return aside ? shafts.map((k, i) => (i === 0 ? 1 / (1 / k + 1 / blockSpring(aside, modulus)) : k)) : shafts;
}

/** What a housing's parts weigh and cost together, kg and money. */
function weighed({ housing }: Reducer, shelf: Shelf): { readonly mass: number; readonly money: number } {
  let [mass, money] = [0, 0];
  for (const { part, printed } of housing!.bodies) {
    const one = printed ? printed.whole * filledShare(printed.thick, shelf) : part.mass;
    mass += one * part.quantity;
    money += (printed ? one * printed.price : part.money) * part.quantity;
  }
  return { mass, money };
}

/** The same with one factor of the shop at another value: how full prints are moves weights alone. */
export const aroundWith = (around: Around, shelf: Shelf, id: string, value: number): Around =>
  around.reads.factors.has(id) ? { ...around, ...weighed(around.reducer, withFactor(shelf, id, value)) } : around;

/** Room that a reducer takes up: along the output's axis, and across it, m. */
export interface Envelope {
  readonly from: number;
  readonly to: number;
  readonly across: readonly [number, number];
}

/** What motor, plates and walls take up; undefined where there is no housing. Screws and the output's shaft stand out. */
export function envelopeOf({ bodies, housing }: Reducer): Envelope | undefined {
  if (!housing) return undefined;
  let [from, to, x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity, Infinity, -Infinity];
  for (const b of bodies) {
    if (b.id !== 'motor/body' && !/^case\/(plate|cover|wall)/.test(b.id) && !(b.of === 'stage' && b.turns === 'fixed'))
      continue;
    for (const f of b.places(0))
      for (const p of b.solid().prisms) {
        if (p.cut) continue;
        if (Math.abs(f.z[2]) < 1 - 1e-9) {
          // What lies across is told by the box it is as wide and as long as.
          const o = boundsOf([{ outline: p.outer, at: ORIGIN }])!;
          for (const [x, y] of [
            [o.x0, o.y0],
            [o.x0, o.y1],
            [o.x1, o.y0],
            [o.x1, o.y1],
          ] as const)
            for (const end of [p.from, p.to]) {
              const at = pointIn(f, [x, y, end]);
              [x0, x1, y0, y1] = [Math.min(x0, at[0]), Math.max(x1, at[0]), Math.min(y0, at[1]), Math.max(y1, at[1])];
              [from, to] = [Math.min(from, at[2]), Math.max(to, at[2])];
            }
          continue;
        }
        // Seen along the line's axis.
        const turn = Math.atan2(f.x[1], f.x[0]);
        const b = boundsOf([{ outline: p.outer, at: { x: f.at[0], y: f.at[1], turn } }])!;
        [x0, x1] = [Math.min(x0, b.x0), Math.max(x1, b.x1)];
        [y0, y1] = [Math.min(y0, b.y0), Math.max(y1, b.y1)];
        from = Math.min(from, f.at[2] + f.z[2] * p.from, f.at[2] + f.z[2] * p.to);
        to = Math.max(to, f.at[2] + f.z[2] * p.from, f.at[2] + f.z[2] * p.to);
      }
  }
  return { from, to, across: [x1 - x0, y1 - y0] };
}
