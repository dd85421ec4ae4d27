/**
 * A circle that a belt or chain runs over; `sense` +1 where it goes round counter-clockwise, −1 clockwise (an idler on
 * its back).
 */
export interface Wheel {
  readonly x: number;
  readonly y: number;
  /** Pitch-line radius, m. */
  readonly r: number;
  readonly sense: 1 | -1;
}

export interface Run {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
  readonly length: number;
  readonly heading: number;
}

export interface LoopPath {
  readonly wheels: readonly Wheel[];
  /** `runs[i]` leaves wheel i for the next one. */
  readonly runs: readonly Run[];
  /** Wrap on each wheel, rad ≥ 0. */
  readonly wraps: readonly number[];
  readonly length: number;
}

const TAU = 2 * Math.PI;
const positive = (a: number): number => ((a % TAU) + TAU) % TAU;

/**
 * The closed path of a belt or chain round wheels in the order it meets them, by directed tangents.
 *
 * Between wheels i and j at distance D it leaves along the direction turned from the line of centres by
 * asin((s_i·r_i − s_j·r_j)/D);
 * a wheel's wrap is the turn from the run that arrives to the run that leaves.
 *
 * @returns undefined where two wheels overlap so that no tangent exists
 */
export function loopPath(wheels: readonly Wheel[]): LoopPath | undefined {
  const runs: Run[] = [];
  for (let i = 0; i < wheels.length; i++) {
    const a = wheels[i]!;
    const b = wheels[(i + 1) % wheels.length]!;
    const dx = b.x - a.x;
    const dy = b.y - a.y;
    const d = Math.hypot(dx, dy);
    const lean = (a.sense * a.r - b.sense * b.r) / d;
    if (!(Math.abs(lean) < 1)) return undefined;
    // Leaving a counter-clockwise wheel the loop has the wheel on its left: the normal to the right points at the
    // tangent point.
    const heading = Math.atan2(dy, dx) + Math.asin(lean);
    const nx = Math.sin(heading);
    const ny = -Math.cos(heading);
    const x1 = a.x + a.sense * a.r * nx;
    const y1 = a.y + a.sense * a.r * ny;
    const x2 = b.x + b.sense * b.r * nx;
    const y2 = b.y + b.sense * b.r * ny;
    runs.push({ x1, y1, x2, y2, length: d * Math.sqrt(1 - lean * lean), heading });
  }
  const wraps = wheels.map((w, i) => {
    const arriving = runs[(i + wheels.length - 1) % wheels.length]!;
    const turn = positive(w.sense * (runs[i]!.heading - arriving.heading));
    // A wheel that is only just touched may come out as a full turn less rounding.
    return turn > TAU - 1e-9 ? 0 : turn;
  });
  let length = 0;
  for (let i = 0; i < wheels.length; i++) length += runs[i]!.length + wheels[i]!.r * wraps[i]!;
  return { wheels, runs, wraps, length };
}

/** Point and heading at an arc length along the path, measured from where the belt leaves wheel 0. */
export function poseAt(path: LoopPath, s: number): { x: number; y: number; heading: number } {
  let rest = ((s % path.length) + path.length) % path.length;
  for (let i = 0; i < path.runs.length; i++) {
    const run = path.runs[i]!;
    if (rest <= run.length) {
      return {
        x: run.x1 + rest * Math.cos(run.heading),
        y: run.y1 + rest * Math.sin(run.heading),
        heading: run.heading,
      };
    }
    rest -= run.length;
    const j = (i + 1) % path.runs.length;
    const w = path.wheels[j]!;
    const arc = w.r * path.wraps[j]!;
    if (rest <= arc || i === path.runs.length - 1) {
      const heading = run.heading + (w.sense * rest) / w.r;
      return { x: w.x + w.sense * w.r * Math.sin(heading), y: w.y - w.sense * w.r * Math.cos(heading), heading };
    }
    rest -= arc;
  }
  return { x: path.runs[0]!.x1, y: path.runs[0]!.y1, heading: path.runs[0]!.heading };
}
