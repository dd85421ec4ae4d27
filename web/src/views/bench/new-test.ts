import type { BenchTest } from '@gristmill/core';
import { format } from 'date-fns';
import { newId } from '../../state/identifier.ts';

/** A new test of a build, with a rig to begin with. */
export function newTest(kind: BenchTest['kind'], buildId: string): BenchTest {
  const common = { id: newId(), buildId, date: format(new Date(), 'yyyy-MM-dd'), notes: '' };
  return kind === 'play-lever'
    ? { ...common, kind, rig: { lever: 0.18, leverError: 5e-4, instrument: 'dial', push: 0, correctWindUp: false }, readings: [] }
    : { ...common, kind, rig: { lever: 0.15, leverError: 5e-4, leverMass: 0.15, leverCentre: 0.075, basket: 0.1, angle: 0, angleError: (2 * Math.PI) / 180, instrument: 'kitchen' }, readings: [] };
}

export const TEST_NAMES: Readonly<Record<BenchTest['kind'], string>> = { 'play-lever': 'Play at a lever', 'torque-ladder': 'Torque ladder' };
