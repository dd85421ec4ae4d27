/**
 * A plane curve of straight lines and circular arcs, held as triples x, y, bulge in one typed array, metres. The bulge
 * of a
 * vertex bends the piece to the next one: tan(θ/4) of the arc's angle, positive counter-clockwise, 0 for a line.
 */
export interface Outline {
  readonly points: Float64Array;
  readonly closed: boolean;
}

export interface Pose {
  readonly x: number;
  readonly y: number;
  /** Rotation about the outline's own origin, rad, before moving. */
  readonly turn: number;
}

export const ORIGIN: Pose = { x: 0, y: 0, turn: 0 };

/** Collects vertices of an outline. */
export class OutlinePen {
  private readonly data: number[] = [];

  /** Adds a vertex; `bulge` bends the piece that starts here. */
  to(x: number, y: number, bulge = 0): this {
    this.data.push(x, y, bulge);
    return this;
  }

  /**
   * Adds the start of an arc about (cx, cy) from angle `a` through `sweep` (|sweep| < 2π); its end is the next vertex.
   */
  arc(cx: number, cy: number, r: number, a: number, sweep: number): this {
    return this.to(cx + r * Math.cos(a), cy + r * Math.sin(a), Math.tan(sweep / 4));
  }

  /** Bends the piece that starts at the vertex added last. */
  bendLast(bulge: number): this {
    this.data[this.data.length - 1] = bulge;
    return this;
  }

  close(): Outline {
    return { points: new Float64Array(this.data), closed: true };
  }

  open(): Outline {
    return { points: new Float64Array(this.data), closed: false };
  }
}

/** A full circle as two half-turn arcs. */
export const circle = (cx: number, cy: number, r: number): Outline =>
  new OutlinePen()
    .to(cx + r, cy, 1)
    .to(cx - r, cy, 1)
    .close();

/** A rectangle between two corners, counter-clockwise where the second lies above and to the right. */
export const rectangle = (x0: number, y0: number, x1: number, y1: number): Outline => ({
  points: Float64Array.of(x0, y0, 0, x1, y0, 0, x1, y1, 0, x0, y1, 0),
  closed: true,
});

export const segment = (x1: number, y1: number, x2: number, y2: number): Outline =>
  new OutlinePen().to(x1, y1).to(x2, y2).open();

/** The outline turned and moved. */
export function place(o: Outline, at: Pose): Outline {
  const c = Math.cos(at.turn);
  const s = Math.sin(at.turn);
  const points = new Float64Array(o.points.length);
  for (let i = 0; i < points.length; i += 3) {
    const x = o.points[i]!;
    const y = o.points[i + 1]!;
    points[i] = at.x + c * x - s * y;
    points[i + 1] = at.y + s * x + c * y;
    points[i + 2] = o.points[i + 2]!;
  }
  return { points, closed: o.closed };
}

/** An outline so many times as large about the origin; what bulges does so as much. */
export const scaled = (o: Outline, by: number): Outline => ({
  ...o,
  points: o.points.map((x, i) => (i % 3 === 2 ? x : by * x)),
});

/** Number of pieces (lines and arcs). */
export const pieces = (o: Outline): number => (o.closed ? o.points.length / 3 : o.points.length / 3 - 1);

/** Signed area enclosed, positive counter-clockwise, m²: the shoelace sum plus the circular segments of the arcs. */
export function area(o: Outline): number {
  const p = o.points;
  const n = p.length / 3;
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const [x1, y1, b] = [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!];
    const [x2, y2] = [p[3 * j]!, p[3 * j + 1]!];
    sum += (x1 * y2 - x2 * y1) / 2;
    if (b !== 0) {
      const t = 4 * Math.atan(b);
      const chord = Math.hypot(x2 - x1, y2 - y1);
      const r = chord / (2 * Math.sin(Math.abs(t) / 2));
      sum += (Math.sign(b) * r * r * (Math.abs(t) - Math.sin(Math.abs(t)))) / 2;
    }
  }
  return sum;
}
