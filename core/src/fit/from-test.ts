import type { BenchTest } from '../schema/joint.ts';
import type { FitEntry, FitReading } from '../schema/process-schema.ts';

/**
 * Readings of a bench test of made sizes as an entry of a process's history: outsides, holes, and spans as outsides (each
 * jaw lies on one flank). Struck ones stay struck.
 *
 * @param spread standard uncertainty of its instrument, m; of a caliper where left out
 */
export function entryFromTest(test: Pick<BenchTest, 'id' | 'date' | 'readings' | 'notes'>, spread?: number): FitEntry {
  const readings = test.readings.flatMap((r): FitReading[] => {
    const { feature, axis, drawn, measured } = r.values;
    if (typeof drawn !== 'number' || typeof measured !== 'number' || !(drawn > 0) || !(measured > 0)) return [];
    return [
      {
        id: r.id,
        feature: feature === 'hole' ? 'hole' : 'outside',
        axis: feature === 'span' ? 'round' : axis === 'y' ? 'y' : 'x',
        drawn,
        made: measured,
        ...(spread !== undefined && { spread }),
        ...(r.struck !== undefined && { struck: r.struck || 'struck out' }),
      },
    ];
  });
  return {
    id: `test-${test.id}`.slice(0, 64),
    day: test.date.slice(0, 10),
    from: 'bench',
    note: (test.notes || 'made against drawn').slice(0, 400),
    readings,
  };
}
