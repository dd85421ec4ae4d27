import type { Rim } from '../../gear/rim.ts';
import { Stack, type StackLoad } from '../stack-load.ts';
import type { PlateContacts, RingPlateGeometry } from './geometry.ts';

/**
 * Pushes of the pins on a plate that a force of its cranks presses on them: all contacts alike, so that the plate gives
 * way to where its pins balance the force, and how stiff they are does not matter.
 *
 * Source: least energy of one-sided springs under a push, by Newton's steps in the plane; every contact normal passes
 * through the pitch point, so the moment follows.
 */
export function pressed(s: PlateContacts, fx: number, fy: number): Float64Array {
  const n = s.nx.length;
  const forces = new Float64Array(n);
  const size = Math.hypot(fx, fy);
  if (size === 0) return forces;
  let [dx, dy] = [fx / (n * 0.25), fy / (n * 0.25)];
  for (let k = 0; k < 60; k++) {
    // A pin's push on the plate runs along its normal, and grows as the plate moves against it.
    let [gx, gy, a, b, c] = [fx, fy, 0, 0, 0];
    for (let j = 0; j < n; j++) {
      const bite = -(dx * s.nx[j]! + dy * s.ny[j]!);
      const f = Math.max(0, bite);
      forces[j] = f;
      gx += f * s.nx[j]!;
      gy += f * s.ny[j]!;
      if (bite > 0) {
        a += s.nx[j]! ** 2;
        b += s.nx[j]! * s.ny[j]!;
        c += s.ny[j]! ** 2;
      }
    }
    if (Math.hypot(gx, gy) < 1e-10 * size) break;
    const det = a * c - b * b;
    if (!(det > 1e-9)) {
      dx *= 1.5;
      dy *= 1.5;
      continue;
    }
    dx += (c * gx - b * gy) / det;
    dy += (a * gy - b * gx) / det;
  }
  return forces;
}

/** How a newton metre on the wheel spreads over pins and cranks; worst and mean over a turn of the crank. */
export interface PlateSpread {
  /** Worst push on a pin and on a crank, N/(N·m). */
  readonly pinForce: number;
  readonly crankForce: number;
  /** Greatest product of a push and the curvatures where it acts, N/(N·m)/m: what presses most. */
  readonly pinPress: number;
  /** Mean cube of a crank's force, (N/(N·m))³. */
  readonly crankCubes: number;
  /** What all plates together do to the first crank, which is driven, and to the second, N/(N·m). */
  readonly cranks: readonly [StackLoad, StackLoad];
  /** Push times way of sliding for a radian of the crank, and sum of the cranks' forces, both a turn's mean. */
  readonly pinSlide: number;
  readonly crankSum: number;
  /** Sums of squares, for the energy in pins and cranks, (N/(N·m))². */
  readonly pinSquares: number;
  readonly crankSquares: number;
  /** Twice the energy that bends the plates' rims for a newton metre, times E·b/12, N²/m. */
  readonly flexSquares: number;
}

/**
 * Spreads a newton metre over the angles at which the plates pass a hundredth of their best; a check tells of the dead
 * point itself, where no force would do.
 * @param pin diameter of a pin, m
 * @param rim of a plate about the wheel
 */
export function spreadOf(g: RingPlateGeometry, pin: number, rim: Rim): PlateSpread {
  let [pinForce, pinPress, crankForce, crankCubes, pinSlide, crankSum, pinSquares, crankSquares, flexSquares] = [
    0, 0, 0, 0, 0, 0, 0, 0, 0,
  ];
  const passing = g.steps.filter((s) => s.torque > 0.01 * g.greatest);
  const cranks = g.drive.layout === 'one' ? 1 : 2;
  const [first, second] = [new Stack(g.drive.phases.length), new Stack(g.drive.phases.length)];
  for (const s of passing) {
    const force = 1 / s.torque;
    s.plates.forEach((f, k) => {
      first.put(k, f.first[0] * force, f.first[1] * force);
      second.put(k, f.second[0] * force, f.second[1] * force);
      const c = s.contacts[k]!;
      const pushes = pressed(c, (f.first[0] + f.second[0]) * force, (f.first[1] + f.second[1]) * force);
      for (let j = 0; j < pushes.length; j++) {
        const push = pushes[j]!;
        pinForce = Math.max(pinForce, push);
        pinPress = Math.max(pinPress, push * (2 / pin + c.curves[j]!));
        pinSlide += (push * c.slides[j]!) / passing.length;
        pinSquares += push ** 2 / passing.length;
        if (push > 0) rim.add(c.at[j]!, c.nx[j]! * push, c.ny[j]! * push, c.levers[j]! * push);
      }
      rim.add(0, f.first[0] * force, f.first[1] * force, g.drive.distance * f.first[1] * force);
      rim.add(Math.PI, f.second[0] * force, f.second[1] * force, -g.drive.distance * f.second[1] * force);
      flexSquares += (2 * rim.energy) / passing.length;
      rim.clear();
      for (const v of [f.first, f.second]) {
        const x = Math.hypot(...v) * force;
        crankForce = Math.max(crankForce, x);
        crankCubes += x ** 3 / (passing.length * s.plates.length * cranks);
        crankSum += x / passing.length;
        crankSquares += x ** 2 / passing.length;
      }
    });
    first.close();
    second.close();
  }
  return {
    ...{ pinForce, pinPress, crankForce, crankCubes },
    ...{ pinSlide, crankSum, pinSquares, crankSquares, flexSquares },
    cranks: [first.load, second.load],
  };
}
