import type { BenchTest } from '../../schema/joint.ts';
import type { TestKind } from '../contract.ts';
import { efficiency } from './efficiency.ts';
import { endurance } from './endurance.ts';
import { fit } from './fit.ts';
import { hysteresis } from './hysteresis.ts';
import { legPress } from './leg-press.ts';
import { noLoad } from './no-load.ts';
import { playLever } from './play-lever.ts';
import { playSpot } from './play-spot.ts';
import { positioning } from './positioning.ts';
import { runout } from './runout.ts';
import { noise, pluck } from './sound.ts';
import { step } from './step.ts';
import { temperature } from './temperature.ts';
import { torqueCell } from './torque-cell.ts';
import { torqueLadder } from './torque-ladder.ts';
import { transmission } from './transmission.ts';
import { turnBack } from './turn-back.ts';

/**
 * Every kind of measurement, in the order they are offered. A new one is a file, a line here and its id in the schema.
 */
export const TEST_KINDS: readonly TestKind[] = [
  playLever,
  torqueLadder,
  playSpot,
  hysteresis,
  torqueCell,
  efficiency,
  turnBack,
  noLoad,
  runout,
  transmission,
  positioning,
  step,
  legPress,
  pluck,
  noise,
  temperature,
  endurance,
  fit,
];

export const testKind = (id: string): TestKind | undefined => TEST_KINDS.find((k) => k.id === id);

/** A test of a kind with the rig it starts with. */
export function blankTest(
  kind: TestKind,
  stamp: { id: string; buildId: string; date: string },
  instrument = '',
): BenchTest {
  return {
    ...stamp,
    notes: '',
    kind: kind.id as BenchTest['kind'],
    rig: { ...Object.fromEntries(kind.rig.map((f) => [f.id, f.start])), ...(kind.measures && { instrument }) },
    readings: [],
  };
}
