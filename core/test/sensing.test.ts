import { describe, expect, it } from 'vitest';
import { billOf, makeShelf, type Variant } from '../src/index.ts';
import { sensing, sensorPieces } from '../src/line/sensing.ts';
import { demo, shelf } from './helpers.ts';

const variant = demo().variants[0]!;
const at = (place: Variant['sensor']['place'], motor = variant.motor): Variant => ({
  ...variant,
  motor,
  sensor: { ...variant.sensor, place, counts: 4096, outputCounts: 16384 },
});
const boards = (v: Variant) => sensorPieces(v, shelf).filter((p) => /^Angle sensor/.test(p.name));

describe('sensors as pieces', () => {
  it('are as many as shafts are read, each with its magnet; a servo motor brings its own', () => {
    expect(sensorPieces(at('none'), shelf)).toEqual([]);
    expect(boards(at('motor')).map((p) => p.note)).toEqual(['4096 counts a turn, on the motor’s shaft']);
    expect(boards(at('output')).map((p) => p.note)).toEqual(['4096 counts a turn, on the output']);
    expect(boards(at('both')).map((p) => p.note)).toEqual([
      '4096 counts a turn, on the motor’s shaft',
      '16384 counts a turn, on the output',
    ]);
    expect(sensorPieces(at('both'), shelf).find((p) => /^Magnet/.test(p.name))!.quantity).toBe(2);
    const servo = shelf.motors.find((m) => m.type === 'servo') as Variant['motor'];
    expect(sensorPieces(at('motor', servo), shelf)).toEqual([]);
    expect(boards(at('both', servo))).toHaveLength(1);
  });
  it('weigh and cost by hand, and as the shop says', () => {
    expect(sensing(at('both'), shelf).mass).toBeCloseTo(2 * (4e-3 + 0.530144e-3), 7);
    expect(sensing(at('both'), shelf).money).toBeCloseTo(2 * 7.8, 12);
    const dear = makeShelf({ factors: { 'price.sensor': { value: 30, low: 30, high: 30 } } });
    expect(sensing(at('output'), dear).money).toBeCloseTo(30.8, 12);
  });
  it('stand in the bill', () => {
    const bill = billOf(at('both'), 2, shelf);
    if (!bill.ok) throw new Error(bill.problem.what);
    const rows = bill.value.rows.filter((r) => r.at.includes('sensor'));
    expect(rows.map((r) => [r.how, r.needed])).toEqual([
      ['bought', 2],
      ['bought', 2],
      ['bought', 4],
    ]);
  });
});
