import {
  TEST_KINDS,
  blankTest,
  designOf,
  type BenchTest,
  type Build,
  type Shelf,
  type TestKind,
  type Variant,
} from '@gristmill/core';
import { format } from 'date-fns';
import { newId } from './identifier.ts';

export const today = (): string => format(new Date(), 'yyyy-MM-dd');

/** What a kind is read with at first: its usual instrument where the shop has it, or any that measures the same. */
const usual = (kind: TestKind, { instruments }: Shelf): string =>
  (instruments.find((i) => i.id === kind.readWith) ?? instruments.find((i) => i.measures === kind.measures))?.id ?? '';

/** A build of a variant as it is now, made today. */
export const newBuild = (variant: Variant, name: string, process = ''): Build => ({
  id: newId(),
  variantId: variant.id,
  name,
  date: today(),
  process,
  notes: '',
  design: designOf(variant),
  ...(variant.making && { making: structuredClone(variant.making) }),
});

/** A new test of a build, with a rig to begin with and, where a plan says so, what it proposes. */
export function newTest(
  kind: BenchTest['kind'],
  buildId: string,
  shelf: Shelf,
  values: Readonly<Record<string, number | string>> = {},
): BenchTest {
  const common = { id: newId(), buildId, date: today(), notes: '' };
  const k = kindOf(kind)!;
  const blank = blankTest(k, common, usual(k, shelf));
  return { ...blank, rig: { ...blank.rig, ...values } };
}

export const kindOf = (id: string): TestKind | undefined => TEST_KINDS.find((k) => k.id === id);

export const TEST_NAMES = Object.fromEntries(TEST_KINDS.map((k) => [k.id, k.name])) as Readonly<
  Record<BenchTest['kind'], string>
>;
