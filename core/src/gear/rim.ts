/** Stations round a rim. */
const STATIONS = 72;

/**
 * A rim whose wall varies round it, bent in its own plane: how much energy forces on it store.
 *
 * Cut open at the angle nought, it is bent by the forces behind each station; what closes it again, a moment and two forces
 * there, follows from the cut's not gaping (three equations of the force method).
 *
 * Forces have to balance. Source: Castigliano, curved beam of bending stiffness E·b·t³/12 that neither stretches nor shears.
 */
export class Rim {
  private readonly soft = new Float64Array(STATIONS);
  private readonly x = new Float64Array(STATIONS);
  private readonly y = new Float64Array(STATIONS);
  private readonly bend = new Float64Array(STATIONS);
  private readonly flexibility = new Float64Array(6);

  /**
   * @param radius of the wall's middle, m
   * @param wall at an angle, m
   */
  constructor(
    private readonly radius: number,
    wall: (angle: number) => number,
  ) {
    const step = (2 * Math.PI) / STATIONS;
    for (let i = 0; i < STATIONS; i++) {
      const a = (i + 0.5) * step;
      this.soft[i] = (radius * step) / wall(a) ** 3;
      this.x[i] = radius * Math.cos(a);
      this.y[i] = radius * Math.sin(a);
    }
    // ∫1, ∫y, ∫x, ∫y², ∫xy, ∫x² over the wall's softness: what a moment and two forces at the cut bend it by.
    const f = this.flexibility;
    for (let i = 0; i < STATIONS; i++) {
      const [s, x, y] = [this.soft[i]!, this.x[i]!, this.y[i]!];
      f[0]! += s;
      f[1]! += s * y;
      f[2]! += s * x;
      f[3]! += s * y * y;
      f[4]! += s * x * y;
      f[5]! += s * x * x;
    }
    this.bend.fill(0);
  }

  /** Forgets all forces. */
  clear(): void {
    this.bend.fill(0);
  }

  /**
   * A force that comes to the rim at an angle.
   *
   * @param angle rad
   * @param fx N
   * @param fy N
   * @param about its moment about the rim's middle, N·m, the way angles grow: it may act off the wall
   */
  add(angle: number, fx: number, fy: number, about: number): void {
    const turn = angle < 0 ? angle + 2 * Math.PI : angle;
    const from = Math.max(0, Math.ceil((turn / (2 * Math.PI)) * STATIONS - 0.5));
    for (let i = from; i < STATIONS; i++) this.bend[i]! += about - (this.x[i]! * fy - this.y[i]! * fx);
  }

  /** Energy of bending times E·b/12, N²·m⁻¹. */
  get energy(): number {
    const [f00, f01, f02, f11, f12, f22] = this.flexibility as unknown as [
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    let [d0, d1, d2] = [0, 0, 0];
    for (let i = 0; i < STATIONS; i++) {
      const m = this.soft[i]! * this.bend[i]!;
      d0 -= m;
      d1 -= m * this.y[i]!;
      d2 -= m * this.x[i]!;
    }
    // Cramer's rule on the three conditions.
    const [a, b, c] = [f11 * f22 - f12 * f12, f02 * f12 - f01 * f22, f01 * f12 - f02 * f11];
    const det = f00 * a + f01 * b + f02 * c;
    const [u, v, w] = [f00 * f22 - f02 * f02, f01 * f02 - f00 * f12, f00 * f11 - f01 * f01];
    const [p, q, r] = [
      (a * d0 + b * d1 + c * d2) / det,
      (b * d0 + u * d1 + v * d2) / det,
      (c * d0 + v * d1 + w * d2) / det,
    ];
    let sum = 0;
    for (let i = 0; i < STATIONS; i++) {
      const m = this.bend[i]! + p + q * this.y[i]! + r * this.x[i]!;
      sum += this.soft[i]! * m * m;
    }
    return sum / 2;
  }
}
