import { afterEach, describe, expect, it } from 'vitest';
import {
  CURRENCIES,
  currencyOf,
  formatQuantity,
  moneyUnits,
  parseQuantity,
  QUANTITIES,
  sayUncertain,
  setDecimalSign,
} from '../src/index.ts';

describe('money', () => {
  it.each([
    ['en-GB', '£'],
    ['de-DE', '€'],
    ['de-CH', 'CHF'],
    ['en', '$'],
    ['pt-BR', 'R$'],
    ['pl', 'zł'],
    ['zh-Hant-TW', 'NT$'],
    ['nn-NO', 'kr'],
    ['en-AQ', '€'],
    ['', '€'],
    ['no tag', '€'],
  ])('is written as where %s is spoken: %s', (locale, sign) => expect(currencyOf(locale)).toBe(sign));

  it('is never written with a sign that is no currency’s, and its sign changes no number', () => {
    for (const sign of CURRENCIES) {
      expect(formatQuantity(12.5, 'money', moneyUnits(sign))).toBe(`12.5 ${sign}`);
      expect(formatQuantity(14, 'pricePerMass', moneyUnits(sign))).toBe(`14 ${sign}/kg`);
      // Its sign may stand before the number or after it.
      for (const typed of [`${sign}12.50`, `${sign} 12.50`, `12.50${sign}`, `12.50 ${sign}`])
        expect(parseQuantity(typed, 'money'), typed).toMatchObject({ ok: true, value: { si: 12.5 } });
    }
    expect(CURRENCIES).not.toContain('¤');
    expect(formatQuantity(3, 'money')).toBe('3 €');
    expect(new Set(CURRENCIES).size).toBe(CURRENCIES.length);
    for (const id of ['money', 'pricePerMass'] as const)
      expect(QUANTITIES[id].units.map((u) => u.factor)).toEqual(CURRENCIES.map(() => 1));
  });

  it('is read from files of earlier versions', () => {
    expect(parseQuantity('70 ¤', 'money')).toMatchObject({ ok: true, value: { si: 70 } });
    expect(parseQuantity('14 ¤/kg', 'pricePerMass')).toMatchObject({ ok: true, value: { si: 14 } });
  });

  it('refuses what is none', () => {
    for (const bad of ['$', 'free', '$$$$12', '12 kg', '-']) expect(parseQuantity(bad, 'money').ok, bad).toBe(false);
  });
});

describe('the decimal sign', () => {
  afterEach(() => setDecimalSign('.'));

  it('is the reader’s in whatever is written, and what is written is read as it was meant', () => {
    setDecimalSign(',');
    expect(formatQuantity(0.0125, 'length')).toBe('12,5 mm');
    expect(formatQuantity(-1234.5, 'count')).toBe('−1234,5');
    expect(formatQuantity(12345.25, 'count', {}, 7)).toBe('12 345,25');
    expect(sayUncertain(0.01234, 0.0002, 'length')).toBe('12,34 ± 0,20 mm');
    for (const x of [0.5, 1.125, 12.5, 1234.5, 98765.25])
      expect(parseQuantity(formatQuantity(x, 'mass', { mass: 'kg' }, 9), 'mass', 'kg', 'decimals')).toMatchObject({
        ok: true,
        value: { si: x },
      });
  });
});
