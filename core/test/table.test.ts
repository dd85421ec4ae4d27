import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CURVE_COLUMNS, POINT_COLUMNS, readQuantityTable } from '../src/index.ts';

const why = (cells: string[][]): string => {
  const r = readQuantityTable(cells, POINT_COLUMNS);
  return r.ok ? '' : r.problem.what;
};

describe('a pasted table of quantities', () => {
  it('reads any order of columns by their headings, and any unit there or in the cell', () => {
    const r = readQuantityTable(
      [
        ['seconds', 'speed, rad/s', 'Torque / ozf·in'],
        ['2', '3', '141.61193'],
        ['1 min', '60 rpm', '1 N·m'],
      ],
      POINT_COLUMNS,
    );
    if (!r.ok) throw new Error(r.problem.what);
    expect(r.value['seconds']).toEqual([2, 60]);
    expect(r.value['speed']![0]).toBe(3);
    expect(r.value['speed']![1]).toBeCloseTo(2 * Math.PI, 12);
    expect(r.value['torque']![0]).toBeCloseTo(1, 6);
  });

  it('gives back what was written, whatever the numbers', () => {
    const number = fc
      .double({ min: -1e4, max: 1e4, noNaN: true, noDefaultInfinity: true })
      .map((x) => Number(x.toPrecision(6)));
    fc.assert(
      fc.property(fc.array(fc.tuple(number, number, number.map(Math.abs)), { minLength: 1, maxLength: 30 }), (rows) => {
        const r = readQuantityTable(
          [['torque (N·m)', 'speed (rad/s)', 'time (s)'], ...rows.map((x) => x.map(String))],
          POINT_COLUMNS,
        );
        if (!r.ok) throw new Error(r.problem.what);
        rows.forEach(([t, w, s], i) => {
          expect(r.value['torque']![i]).toBeCloseTo(t, 9);
          expect(r.value['speed']![i]).toBeCloseTo(w, 9);
          expect(r.value['seconds']![i]).toBeCloseTo(s, 9);
        });
      }),
    );
  });

  it('never throws, and names the row of what it refuses', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.string({ maxLength: 12 }), { maxLength: 5 }), { maxLength: 8 }), (cells) => {
        const r = readQuantityTable(cells, CURVE_COLUMNS);
        if (!r.ok) expect(r.problem.mend.length).toBeGreaterThan(0);
      }),
    );
    expect(
      why([
        ['1', '2', '3'],
        ['4', '', '6'],
      ]),
    ).toMatch(/Row 2 has no speed/);
    expect(why([['1', 'two', '3']])).toMatch(/Row 1, speed/);
    expect(why([['1', '2', '3 kg']])).toMatch(/Row 1, seconds/);
    expect(why(Array.from({ length: 5001 }, () => ['1', '2', '3']))).toMatch(/5001 rows/);
    // A heading shorter than the rows below it.
    expect(why([[':'], ['0', '!']])).toMatch(/Row 1/);
    expect(why([['', ''], ['  ']])).toMatch(/nothing to read/);
  });
});
