import type { BenchTest, Joint, LimitId, Variant } from '../schema/joint.ts';
import type { LineReport } from '../line/analyse.ts';
import type { Instrument } from '../shop/instrument.ts';
import { formatQuantity } from '../units/format.ts';
import type { TestKind } from './contract.ts';
import { ALL_TEST_KINDS } from './kinds/index.ts';

/** One line of a test plan. */
export interface PlannedTest {
  readonly kind: TestKind['id'];
  readonly name: string;
  readonly row: LimitId;
  /** How far the expected figure is from its limit, in the row's own unit. */
  readonly margin: number;
  /** What to rig so that the uncertainty stays below a third of that. */
  readonly rig: string;
  readonly values: Readonly<Record<string, number | string>>;
  readonly enough: boolean;
  /** No load first, then loaded, what can hurt the specimen last. */
  readonly order: 1 | 2 | 3;
  readonly done: boolean;
}

/** Which kinds answer a row best, in order. */
const ANSWERS: Readonly<Partial<Record<LimitId, readonly TestKind['id'][]>>> = {
  play: ['play-lever', 'transmission'],
  stiffness: ['hysteresis'],
  torque: ['torque-ladder', 'torque-cell'],
  turnBack: ['turn-back'],
  repeatability: ['positioning'],
};

const finest = (list: readonly Instrument[], measures: Instrument['measures'] | undefined): Instrument | undefined =>
  list
    .filter((i) => i.measures === measures)
    .sort((a, b) => Math.hypot(a.resolution, a.error) - Math.hypot(b.resolution, b.error))[0];

/**
 * Tests that answer the limits of a brief with the instruments at hand, in a safe order.
 *
 * The lever is chosen so that the expanded uncertainty stays below a third of the margin between what is expected and
 * the limit.
 */
export function testPlan(
  joint: Joint,
  variant: Variant,
  line: LineReport,
  instruments: readonly Instrument[],
  tests: readonly BenchTest[] = joint.tests,
): PlannedTest[] {
  const builds = new Set(joint.builds.filter((b) => b.variantId === variant.id).map((b) => b.id));
  const done = (kind: string) =>
    tests.some(
      (t) => t.kind === kind && builds.has(t.buildId) && (t.readings.length > 0 || ('recording' in t && t.recording)),
    );
  const list: PlannedTest[] = [];
  for (const v of line.verdicts) {
    for (const id of ANSWERS[v.id] ?? []) {
      const kind = ALL_TEST_KINDS.find((k) => k.id === id);
      const figure = v.figure;
      if (!kind || !figure) continue;
      const margin = Number.isFinite(v.asked) ? Math.abs(v.asked - figure.value) : figure.value;
      const wanted = Math.max(margin, 0.05 * Math.abs(figure.value)) / 3;
      const instrument = finest(instruments, kind.measures);
      let [rig, enough]: [string, boolean] = ['as its sheet says', true];
      const values: Record<string, number | string> = {};
      if (kind.measures === 'length' && v.id === 'play' && instrument) {
        // 2·U of a difference of two readings at radius L: 1.96·√(r²/6 + e²/3)/L.
        const u =
          1.96 * Math.hypot((Math.SQRT2 * instrument.resolution) / Math.sqrt(12), instrument.error / Math.sqrt(3));
        const lever = Math.ceil((u / wanted) * 100) / 100;
        values['lever'] = Math.min(0.6, Math.max(0.12, lever));
        values['instrument'] = instrument.id;
        enough = lever <= 0.6;
        rig =
          `${instrument.name} at a lever of ` +
          `${formatQuantity(values['lever'] as number, 'length')}${enough ? '' : '; longer than is handy: a spot of light on a wall tells more'}`;
      } else if (kind.measures === 'mass' && instrument) {
        const most = Math.max(figure.value, Number.isFinite(v.asked) ? v.asked : 0);
        const lever = Math.min(0.5, Math.max(0.1, Math.ceil((most / 9.81 / 6) * 20) / 20));
        values['lever'] = lever;
        values['instrument'] = instrument.id;
        const u =
          1.96 * 9.81 * lever * Math.hypot(instrument.resolution / Math.sqrt(12), instrument.error / Math.sqrt(3));
        enough = u < wanted;
        rig =
          `lever of ${formatQuantity(lever, 'length')}, masses up to ` +
          `${formatQuantity(most / 9.81 / lever, 'mass', {}, 2)} by ${instrument.name}, steps of ` +
          `${formatQuantity(Math.max(0.02, wanted / 9.81 / lever), 'mass', {}, 1)} near the end`;
      } else if (id === 'hysteresis') {
        values['rated'] = Math.max(
          1e-3,
          Math.min(figure.value, line.figures.find((f) => f.id === 'torque')?.value ?? 1),
        );
        rig =
          'torque up to ' +
          `${formatQuantity(0.6 * (line.figures.find((f) => f.id === 'torque')?.value ?? 1), 'torque', {}, 2)} ` +
          'in eight steps each way, or the rig';
      } else if (id === 'positioning') rig = 'five targets, five runs each way, with the finest reading at hand';
      else if (id === 'transmission') rig = 'a sensor at input and output, two turns each way';
      else if (id === 'torque-cell') rig = 'a load cell at a lever, calibrated with a known mass';
      list.push({
        kind: id,
        name: kind.name,
        row: v.id,
        margin,
        rig,
        values,
        enough,
        order: kind.destructive ? 3 : kind.loaded ? 2 : 1,
        done: done(id),
      });
      // One answer is enough, the second stands by where the first is not fine enough.
      if (enough) break;
    }
  }
  return list.sort((a, b) => a.order - b.order);
}
