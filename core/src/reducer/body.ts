import type { Round } from '../shape/hull.ts';
import type { Solid } from '../shape/solid.ts';
import type { Part, Turning } from '../stage/contract.ts';
import { pointIn, type Frame, type Vec } from './frame.ts';
import { alongOf, reachOf, sweptRounds } from './reach.ts';

/** What of the reducer a body belongs to. */
export type BodyOf = 'motor' | 'stage' | 'case' | 'output';

/** A thing of the reducer in space: a part with the places of its pieces in the frame of the line. */
export interface Body {
  readonly id: string;
  readonly of: BodyOf;
  /** Place of its stage in the line; −1 for what is of none. */
  readonly stage: number;
  readonly part: Pick<Part, 'name' | 'material' | 'made' | 'mass' | 'money' | 'note' | 'quantity'>;
  /** Of a printed part of the housing: what one would weigh if it were solid, kg, its price a kilogram, its walls, m. */
  readonly printed?: { readonly whole: number; readonly price: number; readonly thick: number };
  readonly turns: Turning;
  /** Turns of it for a turn of the motor; 0 for what is fixed, NaN for what rolls or wobbles between. */
  readonly speed: number;
  /** It bends or runs, and is shown as it was made. */
  readonly flexes: boolean;
  /** Angle of the motor after which its pieces stand in what carries them as before, rad; of what sways there. */
  readonly sways?: number;
  /** Where the middles of its pieces never leave, where they go round on no circle: about what, and how far, m. */
  readonly roams?: () => { readonly at: Vec; readonly r: number };
  /** Bodies that it is keyed into or that stand for what is not known: they may share room with it. */
  readonly joins?: readonly string[];
  /** Bodies between which it lies, as a key does: put in after the one, before the other where there is one. */
  readonly lies?: { readonly on: string; readonly under?: string };
  /** Bodies that have the same are in mesh before they are put in, together. */
  readonly together?: string;
  readonly solid: () => Solid;
  /** Where its pieces stand when the motor has turned, rad. */
  readonly places: (crank: number) => readonly Frame[];
  /** How far each piece moves when the line is drawn apart, m. */
  readonly apart: readonly Vec[];
}

/** Angles of the crank that no tooth count divides, at which a body's way round is read. */
const THREE = [0, 0.9, 1.7] as const;

/** Room that a body takes as it turns: circles seen along the line's axis, and where it lies along it, m. */
export interface Swept {
  readonly rounds: readonly Round[];
  readonly from: number;
  readonly to: number;
}

/**
 * Room that every piece of a body sweeps through a turn.
 *
 * What lies across the line's axis takes the rectangle that it is seen as.
 */
export function sweptBy(body: Pick<Body, 'solid' | 'places' | 'roams'>): Swept {
  const solid = body.solid();
  const [low, high] = alongOf(solid);
  const roams = body.roams?.();
  const at = THREE.map((crank) => body.places(crank));
  const rounds: Round[] = [];
  let [from, to] = [Infinity, -Infinity];
  at[0]!.forEach((frame, i) => {
    if (Math.abs(frame.z[2]) > 0.5) {
      if (roams) rounds.push({ x: roams.at[0], y: roams.at[1], r: roams.r + reachOf(solid) });
      else rounds.push(...sweptRounds(solid, [frame, at[1]![i]!, at[2]![i]!]));
      const [a, b] = [frame.at[2] + frame.z[2] * low, frame.at[2] + frame.z[2] * high];
      from = Math.min(from, a, b);
      to = Math.max(to, a, b);
      return;
    }
    const reach = reachOf(solid);
    // Beside its own axis and the line's, the way it is thick.
    const [sx, sy] = [-frame.z[1] * reach, frame.z[0] * reach];
    for (const end of [low, high]) {
      const [x, y] = pointIn(frame, [0, 0, end]);
      rounds.push({ x: x + sx, y: y + sy, r: 0 }, { x: x - sx, y: y - sy, r: 0 });
    }
    from = Math.min(from, frame.at[2] - reach);
    to = Math.max(to, frame.at[2] + reach);
  });
  return { rounds, from, to };
}

/** Farthest that circles reach from a point of the plane, m. */
export const farthestFrom = (rounds: readonly Round[], x: number, y: number): number =>
  rounds.reduce((most, c) => Math.max(most, Math.hypot(c.x - x, c.y - y) + c.r), 0);
