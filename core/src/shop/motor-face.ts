import type { ScrewId } from '../schema/housing-schema.ts';

/** The face of a motor that it is screwed on by; m. */
export interface MotorFace {
  /** Whether the body is square or round seen along its shaft. */
  readonly form: 'square' | 'round';
  /** Diameter and height of the pilot that centres it; 0 for none. */
  readonly pilot: number;
  readonly pilotHeight: number;
  /** How many tapped holes, on which circle, how deep, and of which thread. */
  readonly screws: number;
  readonly circle: number;
  readonly deep: number;
  readonly thread: ScrewId;
  /** Diameter of the shaft and how far it stands out of the face. */
  readonly shaft: number;
  readonly reach: number;
  /** Where it comes from: a standard's frame, or usual proportions where there is none. */
  readonly source: string;
}

const mm = 1e-3;
const STANDARD = 'NEMA ICS 16 frame';

/** Square frames by their side in mm: pilot, spacing of the holes' square, depth, thread, shaft and its length. */
const SQUARE: Readonly<Record<number, readonly [number, number, number, ScrewId, number, number]>> = {
  28: [22, 23, 2.5, 'M2.5', 5, 20],
  35: [22, 26, 4, 'M3', 5, 22],
  42: [22, 31, 4.5, 'M3', 5, 24],
  57: [38.1, 47.14, 5, 'M5', 6.35, 21],
  60: [38.1, 47.14, 5, 'M4', 8, 24],
  86: [73.02, 69.6, 10, 'M6', 14, 37],
};

/** Round motors have no standard: proportions that are usual, to be replaced by the drawing's. */
function round(frame: number): MotorFace {
  const thread: ScrewId = frame < 0.03 ? 'M2.5' : frame < 0.055 ? 'M3' : 'M4';
  const upright = (x: number, step: number) => Math.round(x / (step * mm)) * step * mm;
  return {
    form: 'round',
    pilot: 0,
    pilotHeight: 0,
    screws: 4,
    circle: upright(0.5 * frame, 1),
    deep: 4 * mm,
    thread,
    shaft: frame < 0.03 ? 3 * mm : frame < 0.045 ? 5 * mm : 8 * mm,
    reach: upright(Math.max(0.012, 0.45 * frame), 1),
    source: 'usual for a round frame of this size; your motor’s drawing decides',
  };
}

/**
 * The face that a motor of a frame has: steppers by their standard square frames, others round.
 *
 * @param motor its type, and side or diameter of its frame, m
 * @example faceOf({ type: 'stepper', frame: 0.042 }).circle // 0.04384062
 */
export function faceOf(motor: { readonly type: string; readonly frame: number }): MotorFace {
  const square = motor.type === 'stepper' || motor.type === 'servo' ? SQUARE[Math.round(motor.frame / mm)] : undefined;
  if (!square) return { ...round(motor.frame), form: motor.type === 'stepper' ? 'square' : 'round' };
  const [pilot, spacing, deep, thread, shaft, reach] = square;
  return {
    form: 'square',
    pilot: pilot * mm,
    pilotHeight: 2 * mm,
    screws: 4,
    circle: spacing * Math.SQRT2 * mm,
    deep: deep * mm,
    thread,
    shaft: shaft * mm,
    reach: reach * mm,
    source: STANDARD,
  };
}
