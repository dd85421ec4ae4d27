import { ringBending } from '../../gear/index.ts';
import { carry, linePressure, type ContactSet } from '../../lobed/index.ts';
import { Stack, type StackLoad } from '../stack-load.ts';
import { phaseOf, STEPS, type CycloidalGeometry } from './geometry.ts';
import { outShare } from './output-pins.ts';
import { branchPins, type CycloidalParams } from './params.ts';

/** How a load spreads, worst and mean over a pitch of the crank, whatever friction there is. */
export interface CycloidalSpread {
  readonly pinForce: number;
  readonly pressure: number;
  readonly outForce: number;
  readonly bearing: number;
  /** Cubic mean of the bearing's load, N. */
  readonly bearingMean: number;
  /** What all of them together do to their shaft. */
  readonly shaft: StackLoad;
  /** Squares of all bearings' loads together for a newton metre, mean over a pitch, (N/(N·m))². */
  readonly bearingSquares: number;
  readonly carrying: number;
  readonly stiffness: number;
  /** Force times way of sliding for a radian of the output, over the moment: loss for a friction of one, by place. */
  readonly pinSlide: number;
  readonly outSlide: number;
  readonly journalSlide: number;
  readonly windUp: number;
}

/**
 * Largest moment in the housing's wall, N·m: each disc's pins press it out over their share of its width.
 *
 * @param moment on all discs together, N·m
 * @param radius of the wall's middle line, m
 */
export function rimMoment(sets: CycloidalGeometry['sets'], contact: number, moment: number, radius: number): number {
  let most = 0;
  for (const discs of sets) {
    const { forces } = carry(discs, contact, moment);
    discs.forEach(({ nx, ny }, d) => {
      const Z = nx.length;
      const [outward, round] = [new Float64Array(Z), new Float64Array(Z)];
      for (let j = 0; j < Z; j++) {
        const f = forces[d * Z + j]!;
        const a = (2 * Math.PI * j) / Z;
        const [c, s] = [Math.cos(a), Math.sin(a)];
        // Normals are the pin's push on the disc: the disc pushes back.
        outward[j] = -f * (nx[j]! * c + ny[j]! * s);
        round[j] = -f * (ny[j]! * c - nx[j]! * s);
      }
      most = Math.max(most, ringBending(outward, round, radius));
    });
  }
  return most;
}

/** Spreads a load over pins, output pins and bearings: `moment` on all discs together, N·m. */
export function spreadOf(
  p: CycloidalParams,
  g: CycloidalGeometry,
  contact: number,
  modulus: number,
  moment: number,
  journal: number,
): CycloidalSpread {
  const Z = p.pins;
  const n = branchPins(p);
  let [pinForce, pressure, outForce, bearing, cubes, squares, carrying, stiffness] = [0, 0, 0, 0, 0, 0, 0, 0];
  const shaft = new Stack(p.discs);
  let [pinSlide, outSlide, journalSlide, windUp] = [0, 0, 0, 0];
  g.sets.forEach((sets: readonly ContactSet[], k) => {
    const crank = (2 * Math.PI * k) / Z / STEPS;
    const c = carry(sets, contact, moment);
    carrying += c.carrying / STEPS;
    stiffness += c.stiffness / STEPS;
    windUp += c.turn / STEPS;
    sets.forEach((s, d) => {
      let [fx, fy, share] = [0, 0, 0];
      for (let j = 0; j < Z; j++) {
        const f = c.forces[d * Z + j]!;
        if (f === 0) continue;
        fx += f * s.nx[j]!;
        fy += f * s.ny[j]!;
        share += f * s.arms[j]!;
        pinForce = Math.max(pinForce, f);
        pressure = Math.max(pressure, linePressure(f, p.width, modulus, 2 / p.pin + s.curves[j]!));
        pinSlide += (f * s.slides[j]!) / moment / STEPS;
      }
      const at = crank + phaseOf(p, d);
      const out = outShare(p, at);
      outForce = Math.max(outForce, out.most * share);
      outSlide += (out.sum * share * p.throw * n) / moment / STEPS;
      const [bx, by] = [fx - out.sum * share * Math.cos(at), fy - out.sum * share * Math.sin(at)];
      const b = Math.hypot(bx, by);
      shaft.put(d, bx, by);
      bearing = Math.max(bearing, b);
      cubes += b ** 3 / (STEPS * p.discs);
      squares += (b / moment) ** 2 / STEPS;
      journalSlide += (b * (journal / 2) * n) / moment / STEPS;
    });
    shaft.close();
  });
  return {
    pinForce,
    pressure,
    outForce,
    bearing,
    bearingMean: Math.cbrt(cubes),
    shaft: shaft.load,
    bearingSquares: squares,
    carrying,
    stiffness,
    pinSlide,
    outSlide,
    journalSlide,
    windUp,
  };
}
