import { ALL_TEST_KINDS, blankTest, type BenchTest, type Shelf, type TestKind } from '@gristmill/core';
import { format } from 'date-fns';
import { newId } from '../../state/identifier.ts';

/** A new test of a build, with a rig to begin with and, where a plan says so, what it proposes. */
export function newTest(
  kind: BenchTest['kind'],
  buildId: string,
  shelf: Shelf,
  values: Readonly<Record<string, number | string>> = {},
): BenchTest {
  const common = { id: newId(), buildId, date: format(new Date(), 'yyyy-MM-dd'), notes: '' };
  if (kind === 'play-lever')
    return {
      ...common,
      kind,
      rig: { lever: 0.18, leverError: 5e-4, instrument: 'dial', push: 0, correctWindUp: false, ...values },
      readings: [],
    };
  if (kind === 'torque-ladder')
    return {
      ...common,
      kind,
      rig: {
        lever: 0.15,
        leverError: 5e-4,
        leverMass: 0.15,
        leverCentre: 0.075,
        basket: 0.1,
        angle: 0,
        angleError: (2 * Math.PI) / 180,
        instrument: 'kitchen',
        ...values,
      },
      readings: [],
    };
  const k = kindOf(kind)!;
  const blank = blankTest(k, common, shelf.instruments.find((i) => i.measures === k.measures)?.id ?? '');
  return { ...blank, rig: { ...blank.rig, ...values } };
}

export const kindOf = (id: string): TestKind | undefined => ALL_TEST_KINDS.find((k) => k.id === id);

export const TEST_NAMES = Object.fromEntries(ALL_TEST_KINDS.map((k) => [k.id, k.name])) as Readonly<
  Record<BenchTest['kind'], string>
>;
