import { findingsOf, makeShelf, readJointFile } from '@gristmill/core';
import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { fileName } from '../src/app/download.ts';
import { testCsv } from '../src/views/bench/csv.ts';

const read = readJointFile(readFileSync(new URL('../../demo/body-yaw.json', import.meta.url), 'utf8'));
if (!read.ok) throw new Error(read.problem.what);
const joint = read.value;
const findings = findingsOf(joint, makeShelf());
const testOf = (id: string) => joint.tests.find((t) => t.id === id)!;
const found = (id: string) => findings.find((f) => f.testId === id)!;

describe('readings and results as CSV', () => {
  it('keep every reading, the struck one with its reason, and the result with its budget', () => {
    const rows = Papa.parse<string[]>(testCsv(testOf('test-play'), found('test-play'), 'A-1')).data;
    const from = rows.findIndex((r) => r[0] === 'output angle (deg)');
    expect(rows.slice(from + 1, from + 8).map((r) => r[1])).toEqual([
      '0.77',
      '0.8',
      '0.86',
      '0.83',
      '0.78',
      '0.81',
      '1.43',
    ]);
    expect(rows[from]).toEqual([
      'output angle (deg)',
      'difference (mm)',
      'play (arcmin)',
      'as entered',
      'struck out because',
    ]);
    expect(rows[from + 7]![4]).toMatch(/slipped/);
    // 2·asin(0.77/360) is 14.706′ by hand, less what the push wound up.
    const windUp = found('test-play').result!.figures.find((f) => f.id === 'windUp')!.value;
    expect(Number(rows[from + 1]![2]) + (windUp * 10800) / Math.PI).toBeCloseTo(14.706, 2);
    const line = rows.find((r) => r[0] === 'found (arcmin)')!;
    expect(Number(line[1])).toBeCloseTo((found('test-play').found!.value * 10800) / Math.PI, 9);
    expect(rows.filter((r) => r[0]?.startsWith('standard uncertainty')).length).toBe(
      found('test-play').found!.budget.length,
    );
  });

  it('give the torque of each rung', () => {
    const rows = Papa.parse<string[]>(testCsv(testOf('test-torque'), found('test-torque'), 'A-1')).data;
    expect(rows.filter((r) => /^(lifted|lost steps)$/.test(r[1] ?? '') && Number(r[2]) > 0)).toHaveLength(6);
    expect(rows.find((r) => r[0] === 'found (N m)')).toBeDefined();
  });

  it('of any other kind give its columns and figures in SI', () => {
    const rows = Papa.parse<string[]>(testCsv(testOf('d-pluck'), found('d-pluck'), 'A-1')).data;
    expect(rows.filter((r) => /^\d+ Hz$/.test(r[1] ?? '')).map((r) => r[0])).toEqual(['158', '161', '160']);
    expect(Number(rows.find((r) => r[0] === 'Tone (SI)')![1])).toBeCloseTo(159.67, 2);
  });

  it('make no formula of a text that looks like one', () => {
    const test = structuredClone(testOf('test-play'));
    test.readings[0]!.struck = '=HYPERLINK("x")';
    expect(testCsv(test, undefined, '@build')).toContain(`'=HYPERLINK`);
    expect(testCsv(test, undefined, '@build')).toContain(`'@build`);
  });

  it('get names that any file system takes', () => {
    expect(fileName('Tide dial / A', '../../x', 'ｆ', '')).toBe('Tide-dial-A_x_ｆ');
    expect(fileName('***')).toBe('joint');
    expect(fileName('<svg onload=alert(1)>')).toBe('svg-onload-alert-1');
  });
});
