import { faceOf } from '../shop/motor-face.ts';
import type { StageNumbers } from '../stage/contract.ts';

/** A motor as the room goes that it takes up: across its shaft, along it, and how far its shaft stands out, m. */
export interface MotorRoom {
  readonly frame: number;
  readonly length: number;
  readonly reach: number;
}

/**
 * Room that the stages of a line take up one before the other, from the output to the motor, where no housing tells it: what
 * comes before a stage beside its output stands half of itself beyond that stage, and what comes before one that turns power
 * aside lies across the output's axis.
 *
 * @example
 * const room = new Extent();
 * room.put({ outside: 0.06, length: 0.02, before: { beside: 0.05 } }, new Extent());
 * room.size({ frame: 0.042, length: 0.05, reach: 0.02 }) // 0.071
 */
export class Extent {
  /** The widest of the stages across their outputs' axes, and how far they reach along the line's output, m. */
  private outside = 0;
  private long = 0;
  /** From the axis of what comes in to the far side of the stage that it stands beside, m, and the widest about it since. */
  private beside = 0;
  private about = 0;
  /** The same of what stands between two that stand beside each other, m. */
  private between = 0;
  /** How far from where it begins what lies across the output's axis has to go to the far side, m; below 0 where nothing does. */
  private far = -1;
  /** How long that is, how wide, how high its axis is, m, and the cosine by which it goes up. */
  private lying = 0;
  private wide = 0;
  private high = 0;
  private lean = 0;
  /** How far off a coupling keeps what comes before, m. */
  private off = 0;

  /** Adds one more stage before those of another, which may be itself. */
  put(n: Pick<StageNumbers, 'outside' | 'length' | 'before'>, after: Extent): void {
    const { before } = n;
    const lies = after.far >= 0;
    this.outside = Math.max(after.outside, n.outside);
    this.long = after.long + (lies ? 0 : n.length);
    this.lying = after.lying + (lies ? after.off + n.length : 0);
    this.wide = lies ? Math.max(after.wide, n.outside) : 0;
    [this.far, this.high, this.lean] = [after.far, after.high, after.lean];
    if (!lies) this.long += after.off;
    this.off = before?.off ?? 0;
    const beside = before?.beside ?? 0;
    // What stood about the axis of the stage after is all there: this one stands beside it.
    this.between =
      beside > 0 && after.about > 0 ? Math.max(after.between, after.beside + after.about / 2) : after.between;
    this.about = beside > 0 ? 0 : Math.max(after.about, n.outside);
    this.beside = beside > 0 ? beside : after.beside;
    const { across } = before ?? {};
    if (across && !lies) [this.far, this.high, this.lean] = [across.far, across.high, across.lean];
  }

  /** Whether what comes before some stage lies across the output's axis. */
  get crosses(): boolean {
    return this.far >= 0;
  }

  /** How far the stages reach from the axis of what comes before, or from where that begins, m; 0 where all is on one axis. */
  get reaches(): number {
    return Math.max(this.beside, this.far, 0);
  }

  /** Across the output's axis with a motor, m. */
  size(motor: MotorRoom): number {
    return Math.max(this.outside, motor.frame, this.widthBeside(motor), this.widthAcross(motor));
  }

  /** From the far side of a stage to the outside of what stands beside it, m; 0 where nothing does. */
  widthBeside({ frame }: MotorRoom): number {
    return Math.max(this.between, this.beside > 0 ? this.beside + Math.max(this.about, frame) / 2 : 0);
  }

  /** From the far side of a stage to the end of what lies across its output, m; 0 where nothing does. */
  widthAcross({ frame, length, reach }: MotorRoom): number {
    if (!this.crosses) return 0;
    const lying = this.lying + length + this.standsOff(reach);
    const up = Math.abs(this.lean);
    const thick = Number.isNaN(this.high) ? 0 : Math.max(this.wide, frame) / 2;
    return this.far + lying * Math.sqrt(1 - up * up) + thick * up;
  }

  /** Along the output's axis with a motor, m. */
  length({ frame, length, reach }: MotorRoom): number {
    const before = length + this.standsOff(reach);
    if (!this.crosses) return this.long + before;
    // Of what is told no height of, no more is known than that neither is higher than both.
    if (Number.isNaN(this.high)) return this.long;
    const up = (this.lying + before) * this.lean;
    const half = (Math.max(this.wide, frame) / 2) * Math.sqrt(1 - this.lean * this.lean);
    return Math.max(this.long, this.high + Math.max(0, up) + half) - Math.min(0, this.high + Math.min(0, up) - half);
  }

  /** How far a motor stands off what it is coupled to: as far as its shaft reaches, and no nearer than the coupling lets it. */
  private standsOff = (reach: number): number => (this.off > 0 ? Math.max(reach, this.off) : 0);
}

/** Room that the stages of a line take up, from the output to the motor. */
export function roomOf(stages: readonly Pick<StageNumbers, 'outside' | 'length' | 'before'>[]): Extent {
  const room = new Extent();
  for (let j = stages.length - 1; j >= 0; j--) room.put(stages[j]!, room);
  return room;
}

/** The room that a motor takes up. */
export const motorRoom = (motor: {
  readonly type: string;
  readonly frame: number;
  readonly length: number;
}): MotorRoom => ({
  frame: motor.frame,
  length: motor.length,
  reach: faceOf(motor).reach,
});
