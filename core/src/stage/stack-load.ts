/** What eccentrics on one shaft do to it together over a turn, for the load that their forces are for. */
export interface StackLoad {
  /** Push across it, worst and cubic mean, N. */
  readonly across: number;
  readonly acrossMean: number;
  /** Moment about the middle of the stack that tilts it, worst and cubic mean, with the pitch of its layers for a length: N. */
  readonly tilt: number;
  readonly tiltMean: number;
}

/**
 * Gathers the forces of layers that stand one on the other, angle by angle: those that point against each other cancel as a
 * push, and tilt the shaft by what lies between them.
 *
 * Source: statics; forces and moments of a rigid shaft.
 * @example const stack = new Stack(2);
 * stack.put(0, 30, 0);
 * stack.put(1, -30, 0);
 * stack.close();
 * stack.load.tilt // 30
 */
export class Stack {
  private x = 0;
  private y = 0;
  private mx = 0;
  private my = 0;
  private all = 0;
  private angles = 0;
  private across = 0;
  private acrossCubes = 0;
  private tilt = 0;
  private tiltCubes = 0;

  /** @param layers how many there are */
  constructor(private readonly layers: number) {}

  /** Takes the force of one layer, N. */
  put(layer: number, x: number, y: number): void {
    const lever = layer - (this.layers - 1) / 2;
    this.x += x;
    this.y += y;
    this.mx += x * lever;
    this.my += y * lever;
    this.all += Math.abs(x) + Math.abs(y);
  }

  /** The forces of one angle are all there. */
  close(): void {
    const across = this.left(this.x, this.y);
    const tilt = this.left(this.mx, this.my);
    this.angles++;
    this.across = Math.max(this.across, across);
    this.acrossCubes += across ** 3;
    this.tilt = Math.max(this.tilt, tilt);
    this.tiltCubes += tilt ** 3;
    this.x = this.y = this.mx = this.my = this.all = 0;
  }

  /** The length of a sum; nothing where only rounding is left of it. */
  private left(x: number, y: number): number {
    const length = Math.sqrt(x * x + y * y);
    return length > 1e-9 * this.all ? length : 0;
  }

  /** Of all angles that were closed. */
  get load(): StackLoad {
    const mean = (cubes: number) => (this.angles > 0 ? Math.cbrt(cubes / this.angles) : 0);
    return {
      across: this.across,
      acrossMean: mean(this.acrossCubes),
      tilt: this.tilt,
      tiltMean: mean(this.tiltCubes),
    };
  }
}
