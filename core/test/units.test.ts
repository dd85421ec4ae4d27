import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  decimalsFor,
  findUnit,
  formatBanded,
  formatQuantity,
  fromSi,
  inUnits,
  parseQuantity,
  plainNumber,
  QUANTITIES,
  sayBanded,
  sayProblem,
  sayUncertain,
  stated,
  toSi,
  unitGap,
  type QuantityId,
} from '../src/index.ts';

const si = (text: string, id: QuantityId) => {
  const r = parseQuantity(text, id);
  if (!r.ok) throw new Error(`${text}: ${r.problem.what}`);
  return r.value.si;
};
const refusal = (text: string, id: QuantityId) => {
  const r = parseQuantity(text, id);
  expect(r.ok).toBe(false);
  return r.ok ? '' : inUnits(`${r.problem.what} ${r.problem.why} ${r.problem.mend}`, {});
};

describe('typed quantities', () => {
  it.each([
    ['62 ozf·in', 'torque', 0.437816212],
    ['62 ozf*in', 'torque', 0.437816212],
    ['62 ozf in', 'torque', 0.437816212],
    ['2 Nm', 'torque', 2],
    ['250mN·m', 'torque', 0.25],
    ['1/8 in', 'length', 0.003175],
    ['1 1/8 in', 'length', 0.028575],
    ['1"', 'length', 0.0254],
    ['12 000 µm', 'length', 0.012],
    ['2,5 mm', 'length', 0.0025],
    ['.5 m', 'length', 0.5],
    ['90°', 'angle', Math.PI / 2],
    ["6'", 'smallAngle', (6 * Math.PI) / 10800],
    ['30 arcsec', 'angle', (30 * Math.PI) / 648000],
    ['0.4 mm @ 180 mm', 'angle', 2 * Math.asin(0.4 / 360)],
    ['1 450 rpm', 'speed', (1450 * Math.PI) / 30],
    ['-40 °', 'angle', (-40 * Math.PI) / 180],
    ['−3', 'angle', (-3 * Math.PI) / 180],
    ['3 kgf', 'force', 29.41995],
    ['2 lb', 'mass', 0.90718474],
    ['80 %', 'efficiency', 0.8],
    ['1e3 g', 'mass', 1],
    ['20 °C', 'temperature', 293.15],
    ['54 g·cm²', 'inertia', 54e-7],
  ] as const)('reads %s', (text, id, value) => expect(si(text, id)).toBeCloseTo(value, 9));

  it('refuses with what, why and what to do', () => {
    expect(refusal('3 kg', 'torque')).toMatch(/mass.*torque.*3 kgf·cm/s);
    expect(refusal('33 kg·cm', 'torque')).toMatch(/mass in it.*kgf·cm/s);
    expect(refusal('5 kg', 'force')).toMatch(/mass.*kgf/s);
    expect(refusal('5 mm', 'torque')).toMatch(/unit of length.*torque/s);
    expect(refusal('', 'length')).toMatch(/Nothing is typed/);
    expect(refusal('abc', 'length')).toMatch(/not a number/);
    expect(refusal('1/0 in', 'length')).toMatch(/not a finite number/);
    expect(refusal('1,500', 'length')).toMatch(/two ways/);
    expect(refusal('5 furlongs', 'length')).toMatch(/not a unit of length/);
    expect(refusal('1e400', 'length')).toMatch(/finite/);
    expect(refusal('9 mm @ 2 mm', 'angle')).toMatch(/longer than the lever.*moves at most 4 mm/);
    expect(refusal('1 mm @ 0 mm', 'angle')).toMatch(/no length/);
    expect(refusal('x'.repeat(300), 'length')).toMatch(/too long/);
  });

  it('never throws and never gives a number that is not finite', () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.string(), fc.stringMatching(/^[-+ 0-9.,eE/@'"°′″µa-zA-Z·*²]{0,24}$/)),
        fc.constantFrom(...(Object.keys(QUANTITIES) as QuantityId[])),
        (text, id) => {
          const r = parseQuantity(text, id);
          if (r.ok) expect(Number.isFinite(r.value.si)).toBe(true);
          else expect(r.problem.what.length * r.problem.why.length * r.problem.mend.length).toBeGreaterThan(0);
        },
      ),
      { numRuns: 3000 },
    );
  });

  it('reads back every unit it writes', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.values(QUANTITIES)),
        fc.nat(),
        fc.double({ min: 1e-3, max: 1e4, noNaN: true }),
        (q, pick, x) => {
          const unit = q.units[pick % q.units.length]!;
          if (q.id === 'money') return;
          const text = formatQuantity(toSi(x, unit), q.id, { [q.id]: unit.symbol }, 9);
          const back = parseQuantity(text, q.id, unit.symbol);
          expect(back.ok, text).toBe(true);
          if (back.ok) expect(Math.abs(fromSi(back.value.si, unit) / x - 1)).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 2000 },
    );
  });

  it('keeps cases apart where they differ by a million', () => {
    expect(findUnit(QUANTITIES.resistance, 'mΩ')?.factor).toBe(1e-3);
    expect(findUnit(QUANTITIES.torque, 'mN·m')?.factor).toBe(1e-3);
  });
});

describe('written quantities', () => {
  it('writes the digits the band warrants', () => {
    expect(formatBanded({ value: 0.00119, low: 0.00093, high: 0.00163 }, 'smallAngle')).toEqual({
      value: '4.1',
      band: '(3.2–5.6)',
      unit: '′',
    });
    expect(formatBanded({ value: 359.66, low: 300, high: 420 }, 'stiffness', { stiffness: 'N·m/rad' }).value).toBe(
      '360',
    );
    expect(formatBanded({ value: 359.66, low: 250, high: 460 }, 'stiffness', { stiffness: 'N·m/rad' })).toEqual({
      value: '360',
      band: '(250–460)',
      unit: 'N·m/rad',
    });
    expect(sayUncertain(14.6123, 0.48, 'torque')).toBe('14.6 ± 0.5 N·m');
    expect(sayUncertain(0.014873, 0.00012, 'torque', { torque: 'mN·m' })).toBe('14.87 ± 0.12 mN·m');
    expect(decimalsFor(0.12)).toBe(2);
    expect(decimalsFor(0)).toBe(0);
  });

  it('says “beyond” where a figure says no more: a life of an age is no life, and a limit typed stays as typed', () => {
    expect(formatBanded({ value: 2.1e14, low: 1e14, high: 4e14 }, 'life')).toEqual({
      value: '> 1 000 000',
      band: '',
      unit: 'h',
    });
    expect(sayBanded({ value: 3.7e9 }, 'life')).toBe('> 1 000 000 h');
    // Part of the band is within what can be told: the band is shown.
    expect(formatBanded({ value: 3.7e9, low: 3.4e9, high: 4e9 }, 'life').band).not.toBe('');
    expect(sayBanded({ value: 3.6e7 }, 'life')).toBe('10 000 h');
    // Known within powers of ten only: no end is written as nought.
    const h = 3600;
    expect(sayBanded({ value: 42.12 * h, low: 0.1282 * h, high: 3249 * h }, 'life')).toBe('42 h (0.13–3200)');
    expect(sayBanded({ value: 42 * h, low: 12 * h, high: 5e6 * h }, 'life')).toBe('42 h (12 to > 1 000 000)');
    expect(sayBanded({ value: 3e8 * h, low: 96_439 * h, high: 1e10 * h }, 'life')).toBe(
      '> 1 000 000 h (at least 96 000)',
    );
    expect(formatQuantity(3.7e13, 'life')).not.toContain('>');
    // A thousandfold of the value is where a band has no end: a mesh locks, a motor does not start.
    expect(sayBanded({ value: 10.8, low: 0.967, high: 10_800 }, 'torque')).toBe('11 N·m (at least 0.97)');
    expect(sayBanded({ value: 0.552, low: 3.5e-6, high: 2.986 }, 'torque')).toBe('0.55 N·m (at most 3)');
    expect(sayBanded({ value: 1, low: 1e-3, high: 1000 }, 'torque')).toBe('1 N·m (0.001–1000)');
  });

  it('puts nothing between a number and a sign of angle, a space before any other unit', () => {
    expect([
      sayUncertain(Math.PI / 180, 1e-4, 'angle'),
      sayUncertain(0.004, 0.0006, 'wear'),
      formatQuantity(293.15, 'temperature'),
      formatQuantity(1, 'speed', { speed: '°/s' }, 3),
    ]).toEqual(['1.000 ± 0.006°', '13.8 ± 2.1′ a million cycles', '20 °C', '57.3 °/s']);
    for (const q of Object.values(QUANTITIES)) for (const u of q.units) expect(unitGap(u.symbol).trim()).toBe(u.symbol);
  });

  it('writes what a sentence states in the reader’s unit, and all else as it is', () => {
    const text = `A pin of ${stated(0.0254, 'length')} turns ${stated(-Math.PI / 2, 'angle', 3)} at ${stated(1e-9, 'torque')}: 5 mm.`;
    expect(inUnits(text)).toBe(
      'A pin of 25.4 mm turns −90° at 0.000000001 N·m: 5 mm.'.replace('0.000000001', plainNumber(1e-9)),
    );
    expect(inUnits(text, { length: 'in', angle: 'rad' })).toContain('A pin of 1 in turns −1.57 rad at ');
    expect(inUnits(`${stated(NaN, 'length')}, ${stated(Infinity, 'force')}`)).toBe('— mm, — N');
    expect(inUnits('no value here')).toBe('no value here');
    expect(inUnits(stated(293.15, 'temperature', 3))).toBe('20 °C');
    const damaged = '\uE0001|bananas|3\uE001';
    expect(inUnits(damaged)).toBe(damaged);
    // It goes through a file or to a worker and back.
    expect(inUnits(JSON.parse(JSON.stringify(text)) as string)).toBe(inUnits(text));
  });

  it('says a refusal in one line as it is read', () => {
    const p = {
      what: 'It is thin.',
      why: `It needs ${stated(2e-3, 'length')}.`,
      mend: 'Thicken it.',
      place: 'params.wall',
    };
    expect(sayProblem(p)).toBe('params.wall: It is thin. It needs 2 mm. Thicken it.');
    expect(sayProblem({ ...p, place: undefined } as never, { length: 'µm' })).toContain('needs 2000 µm');
  });

  it('has no NaN, no minus nought and groups thousands', () => {
    expect(formatQuantity(NaN, 'torque')).toBe('— N·m');
    expect(formatBanded({ value: -1e-9, low: -0.4, high: 0.4 }, 'torque').value).toBe('0.0');
    expect(formatQuantity(16384, 'count')).toBe('16 384');
    expect(formatQuantity(-0.698132, 'angle', {}, 4)).toBe('−40°');
  });
});
