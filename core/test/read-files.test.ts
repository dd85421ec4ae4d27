import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  TEST_KINDS,
  formatQuantity,
  importFile,
  LineReader,
  QUANTITIES,
  readLong,
  readTable,
  readWav,
  testKind,
  writeWav,
  type TestKind,
} from '../src/index.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const kinds = TEST_KINDS.filter((k) => k.columns.length > 0 && k.id !== 'positioning');

/** A value of a column that a person could have read, in its usual unit. */
const valueFor = (quantity: string, u: number): number => {
  const unit = QUANTITIES[quantity as keyof typeof QUANTITIES].units.find(
    (x) => x.symbol === QUANTITIES[quantity as keyof typeof QUANTITIES].shown,
  )!;
  return (1 + 98 * u) * unit.factor + (unit.offset ?? 0);
};

describe('long tables', () => {
  const wanted = [
    { id: 'input', label: 'input angle', quantity: 'angle' as const, words: ['in'] },
    { id: 'output', label: 'output angle', quantity: 'angle' as const, words: ['out'] },
  ];
  const row = (i: number) => (i % 97 === 5 ? 'lost,2' : `${(i / 7).toFixed(4)},${(i / 91).toFixed(5)}`);
  const body = Array.from({ length: 1000 }, (_, i) => row(i)).join('\n');
  it('read part by part what is read at once, headings, notes and rows left out among it', () => {
    for (const head of ['', 'in (deg),out (deg)\n', '# lever: 180 mm\n\nout (rad),in (rad)\n', '# made by hand\n']) {
      const whole = readTable(head + body, wanted);
      if (!whole.ok) throw new Error(whole.problem.what);
      for (const atOnce of [7, 100, 999, 5000]) {
        const long = readLong(head + body, wanted, atOnce);
        if (!long.ok) throw new Error(`${long.problem.what} ${long.problem.why}`);
        expect(long.value.rows).toBe(whole.value.rows);
        expect(long.value.malformed).toBe(11);
        expect(long.value.head).toEqual(whole.value.head);
        for (const id of ['input', 'output'])
          expect(Array.from(long.value.columns[id]!)).toEqual(whole.value.columns[id]);
        expect(long.value.notes.at(-1)).toMatch(/^11 rows could not be read and were left out \(row \d+: /);
      }
    }
  });
  it('say the same of what cannot be read', () => {
    for (const text of ['', '# only a note', 'in (deg)\n1\n2\n']) {
      const [a, b] = [readLong(text, wanted), readTable(text, wanted)];
      expect(a.ok || b.ok).toBe(false);
    }
  });
});

describe('tables of every kind of test', () => {
  it('take a lone column of decimal commas as it stands, heading or none', () => {
    const pluck = kinds.find((k) => k.id === 'pluck')!;
    for (const text of ['48,5\n61,3532\n33,6', 'frequency (Hz)\n48,5\n61,3532\n33,6', '48,5 Hz\n61,3532 Hz\n33,6 Hz']) {
      const read = importFile(pluck, bytes(text));
      if (!read.ok) throw new Error(read.problem.what);
      expect(
        read.value.readings.map((r) => r.values['frequency']),
        text,
      ).toEqual([48.5, 61.3532, 33.6]);
    }
  });

  it('come back as they were written: any separator, order of columns, heading and decimal sign', () => {
    const style = fc.record({
      kind: fc.constantFrom(...kinds),
      separator: fc.constantFrom(',', ';', '\t'),
      commas: fc.boolean(),
      heading: fc.constantFrom('brackets', 'slash', 'none'),
      turned: fc.boolean(),
      shares: fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 12, maxLength: 12 }),
      choice: fc.nat(3),
    });
    fc.assert(
      fc.property(style, ({ kind, separator, commas, heading, turned, shares, choice }) => {
        const decimal = commas && separator !== ',';
        const order = kind.columns.map((_, i) => i);
        if (turned && heading !== 'none') order.reverse();
        const unitOf = (i: number) =>
          kind.columns[i]!.as === 'quantity'
            ? QUANTITIES[(kind.columns[i] as { quantity: keyof typeof QUANTITIES }).quantity].shown
            : '';
        const rows = [0, 1, 2].map((r) =>
          kind.columns.map((c, i) =>
            c.as === 'choice'
              ? c.options[choice % c.options.length]!.value
              : valueFor(c.quantity, shares[(3 * i + r) % 12]!),
          ),
        );
        const cell = (r: number, i: number): string => {
          const c = kind.columns[i]!;
          if (c.as === 'choice') return String(rows[r]![i]);
          const unit = QUANTITIES[c.quantity].units.find((x) => x.symbol === unitOf(i))!;
          const text = (((rows[r]![i] as number) - (unit.offset ?? 0)) / unit.factor).toFixed(4);
          return decimal ? text.replace('.', ',') : text;
        };
        const name = (i: number) =>
          heading === 'slash' && unitOf(i)
            ? `${kind.columns[i]!.words[0]} / ${unitOf(i)}`
            : unitOf(i)
              ? `${kind.columns[i]!.words[0]} (${unitOf(i)})`
              : kind.columns[i]!.words[0]!;
        const head = heading === 'none' ? [] : [order.map(name).join(separator)];
        const text = [...head, ...rows.map((_, r) => order.map((i) => cell(r, i)).join(separator))].join('\n');
        const read = importFile(kind, bytes(text));
        if (!read.ok) throw new Error(`${kind.id} ${read.problem.what} ${read.problem.why}\n${text}`);
        expect(read.value.readings).toHaveLength(3);
        read.value.readings.forEach((reading, r) =>
          kind.columns.forEach((c, i) => {
            const want = rows[r]![i]!;
            if (typeof want === 'string') expect(reading.values[c.id]).toBe(want);
            else
              expect(Math.abs((reading.values[c.id] as number) - want), `${kind.id} ${c.id}\n${text}`).toBeLessThan(
                1e-3 * Math.abs(want) + 1e-9,
              );
          }),
        );
      }),
      { numRuns: 250 },
    );
  });

  it('cells may carry units of their own', () => {
    for (const kind of kinds) {
      const row = kind.columns.map((c) =>
        c.as === 'choice' ? c.options[0]!.label : formatQuantity(valueFor(c.quantity, 0.3), c.quantity, {}, 8),
      );
      const read = importFile(
        kind,
        bytes(`${kind.columns.map((c) => c.words[0]).join('\t')}\n${row.join('\t')}\n${row.join('\t')}`),
      );
      if (!read.ok) throw new Error(`${kind.id} ${read.problem.what} ${read.problem.why}`);
      kind.columns.forEach(
        (c) =>
          c.as === 'quantity' &&
          expect(read.value.readings[0]!.values[c.id] as number, `${kind.id} ${c.id}`).toBeCloseTo(
            valueFor(c.quantity, 0.3),
            5,
          ),
      );
    }
  });

  it('any bytes are read or refused in words, never thrown at', () => {
    fc.assert(
      fc.property(fc.constantFrom(...TEST_KINDS), fc.uint8Array({ maxLength: 400 }), (kind, any) => {
        const r = importFile(kind, any);
        if (!r.ok) expect(r.problem.mend.length).toBeGreaterThan(5);
        else
          for (const x of r.value.readings)
            for (const v of Object.values(x.values)) expect(typeof v === 'string' || Number.isFinite(v)).toBe(true);
      }),
      { numRuns: 400 },
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...TEST_KINDS),
        fc.string({ unit: fc.constantFrom(...'0123456789,.;\t\n -+eE"#:abcxyz(){}[]°′%/'), maxLength: 200 }),
        (kind, text) => {
          const r = importFile(kind, bytes(text));
          if (!r.ok) expect(r.problem.what.length).toBeGreaterThan(5);
        },
      ),
      { numRuns: 600 },
    );
    fc.assert(
      fc.property(fc.constantFrom(...TEST_KINDS), fc.json(), (kind, text) => {
        const r = importFile(kind, bytes(text));
        if (!r.ok) expect(r.problem.what.length).toBeGreaterThan(5);
      }),
      { numRuns: 300 },
    );
  });

  it('a unit in a heading that is none of the quantity is refused, with the mend of a typed field', () => {
    const read = (heading: string, row = '1,2') =>
      readTable(`${heading}\n${row}\n${row}`, [
        { id: 'torque', label: 'torque', quantity: 'torque', words: ['torque'] },
        { id: 'angle', label: 'angle', quantity: 'smallAngle', words: ['angle'] },
      ]);
    const problem = (heading: string) => {
      const r = read(heading);
      return r.ok ? undefined : `${r.problem.what} ${r.problem.mend}`;
    };
    expect(problem('torque (kg·cm),angle (′)')).toMatch(/kg·cm\D+mass.*kgf·cm/);
    expect(problem('torque_kgcm,angle_arcmin')).toContain('kgf·cm');
    expect(problem('torque (furlong),angle (′)')).toContain('furlong');
    expect(problem('torque (N·m),angle (mm)')).toContain('unit of length');
    expect(problem('torque (N·m),angle_mm')).toContain('unit of length');
    expect(problem('torque (N·m),angle (\uFFFD)')).toBeDefined();
    // What is known stays so, and cells that bear their own units need no heading.
    for (const heading of ['torque (N·m),angle (′)', 'torque / Nm,angle_arcmin', 'torque,angle', 'torque_a,angle_s'])
      expect(problem(heading), heading).toBeUndefined();
    expect(read('torque (raw),angle (raw)', '1 N·m,2′')).toMatchObject({ ok: true });
  });

  it('counts take any heading, a cell’s force too; JSON keys under the unit of something else are none', () => {
    const cell = testKind('torque-cell')!;
    for (const heading of ['counts (raw)', 'force (N)', 'load_counts'])
      expect(importFile(cell, bytes(`time (s),${heading}\n0,1\n1,2\n`)), heading).toMatchObject({ ok: true });
    const json = (key: string) =>
      importFile(testKind('hysteresis')!, bytes(JSON.stringify({ torque: [1, 2], [key]: [1, 2] })));
    const read = json('angle_arcmin');
    expect(read.ok && read.value.readings[1]!.values['angle']).toBeCloseTo((2 * Math.PI) / 10800, 12);
    const wrong = json('angle_mm');
    expect(wrong.ok ? wrong.value.readings.map((r) => r.values['angle']) : 'refused').toEqual([undefined, undefined]);
  });

  it('a long table keeps what its first rows say of commas', () => {
    const wanted = [{ id: 'd', label: 'difference', quantity: 'length' as const, words: ['difference'] }];
    const text = `difference (mm)\n${['0,125', '0,250', '1,500', '1,250', '2,125', '3,000'].join('\n')}\n`;
    const long = readLong(text, wanted, 3);
    if (!long.ok) throw new Error(long.problem.what);
    expect(Array.from(long.value.columns['d']!, (v) => Number((1e3 * v).toPrecision(9)))).toEqual([
      0.125, 0.25, 1.5, 1.25, 2.125, 3,
    ]);
  });

  it('signs of Windows-1252 are read where a file is not UTF-8', () => {
    const kind = testKind('hysteresis')!;
    const text = 'torque (N·m);angle (°)\n1;0.5\n2;1\n';
    const old = Uint8Array.from(text, (c) => c.charCodeAt(0));
    const r = importFile(kind, old);
    if (!r.ok) throw new Error(r.problem.what);
    expect(r.value.readings[0]!.values['angle']).toBeCloseTo((0.5 * Math.PI) / 180, 12);
    expect(r.value.notes.join()).toContain('Windows-1252');
    expect(importFile(kind, bytes(text))).toMatchObject({ ok: true, value: { readings: r.value.readings } });
  });

  it('asks where °C look like kelvin', () => {
    const kind = testKind('temperature')!;
    const read = (heading: string, t: string[]) =>
      importFile(kind, bytes(`time (min),temperature${heading}\n${t.map((x, i) => `${i},${x}`).join('\n')}\n`));
    const warm = ['294.1', '301.5', '308', '311.9'];
    for (const heading of ['', ' (°C)']) {
      const r = read(heading, warm);
      expect(r.ok ? '' : `${r.problem.what} ${r.problem.mend}`, heading).toMatch(/°C.*\(K\)/);
    }
    const kelvin = read(' (K)', warm);
    expect(kelvin.ok && kelvin.value.readings[0]!.values['temperature']).toBeCloseTo(294.1, 9);
    const celsius = read('', ['21.1', '28.5', '35']);
    expect(celsius.ok && celsius.value.readings[0]!.values['temperature']).toBeCloseTo(294.25, 9);
    // The column may stand anywhere, first above all.
    const first = importFile(kind, bytes(`temperature,time (min)\n${warm.map((x, i) => `${x},${i}`).join('\n')}\n`));
    expect(first.ok ? '' : first.problem.mend).toContain('(K)');
    const hot = read(
      '',
      warm.map((x) => `${x} °C`),
    );
    expect(hot.ok && hot.value.readings[0]!.values['temperature']).toBeCloseTo(567.25, 9);
  });

  it('commas before three digits are decimals after a nought, else asked about or as preferred', () => {
    const wanted = [{ id: 'd', label: 'difference', quantity: 'length' as const, words: ['difference'] }];
    const of = (cells: string[], comma?: 'decimals' | 'thousands') => {
      const r = readTable(`difference (mm)\n${cells.join('\n')}`, wanted, comma);
      return r.ok ? (r.value.columns['d'] as number[]).map((x) => Number((x * 1e3).toPrecision(9))) : r.problem.mend;
    };
    expect(of(['0,125', '0,250'])).toEqual([0.125, 0.25]);
    expect(of(['1,25', '1,250'])).toEqual([1.25, 1.25]);
    expect(of(['1,250', '2,500'])).toContain('under Units');
    expect(of(['1,250', '2,500'], 'decimals')).toEqual([1.25, 2.5]);
    expect(of(['1,250', '2,500'], 'thousands')).toEqual([1250, 2500]);
  });

  it('a million rows are a recording, read in the channels’ units', () => {
    const kind = testKind('transmission')!;
    const text = `t,in (°),out (°)\n${Array.from({ length: 20_000 }, (_, i) => `${i * 0.001},${i},${i / 20}`).join('\n')}`;
    const r = importFile(kind, bytes(text));
    if (!r.ok) throw new Error(r.problem.what);
    expect(r.value.readings).toHaveLength(0);
    expect(r.value.recording!.channels.map((c) => c.id)).toEqual(['input', 'output', 'time']);
    expect(r.value.recording!.data[0]![180]).toBeCloseTo(Math.PI, 9);
  });
});

describe('sound', () => {
  const wave = Float64Array.from({ length: 500 }, (_, i) => 0.8 * Math.sin(i / 9));
  /** A WAV file of any format, written by hand. */
  function wav(tag: number, bits: number, channels: number, extra = 0): Uint8Array {
    const width = bits / 8;
    const out = new Uint8Array(44 + extra + wave.length * width * channels);
    const v = new DataView(out.buffer);
    const put = (at: number, text: string) => [...text].forEach((c, i) => v.setUint8(at + i, c.charCodeAt(0)));
    put(0, 'RIFF');
    v.setUint32(4, out.length - 8, true);
    put(8, 'WAVEfmt ');
    v.setUint32(16, 16, true);
    v.setUint16(20, tag, true);
    v.setUint16(22, channels, true);
    v.setUint32(24, 8000, true);
    v.setUint16(34, bits, true);
    let at = 36;
    if (extra) {
      put(at, 'LIST');
      v.setUint32(at + 4, extra - 8, true);
      at += extra;
    }
    put(at, 'data');
    v.setUint32(at + 4, wave.length * width * channels, true);
    at += 8;
    for (const s of wave)
      for (let c = 0; c < channels; c++, at += width) {
        const x = c === 0 ? s : -0.5 * s;
        if (tag === 3) v.setFloat32(at, x, true);
        else if (bits === 8) v.setUint8(at, Math.round(x * 127) + 128);
        else if (bits === 16) v.setInt16(at, Math.round(x * 32767), true);
        else if (bits === 24) {
          const q = Math.round(x * 8388607);
          v.setUint8(at, q & 255);
          v.setUint8(at + 1, (q >> 8) & 255);
          v.setUint8(at + 2, (q >> 16) & 255);
        } else v.setInt32(at, Math.round(x * 2147483647), true);
      }
    return out;
  }

  it.each([
    [1, 8, 1],
    [1, 16, 1],
    [1, 24, 1],
    [1, 32, 1],
    [3, 32, 1],
    [1, 16, 2],
    [1, 24, 2],
  ])('of format %d, %d bit, %d channels is read', (tag, bits, channels) => {
    for (const extra of [0, 20]) {
      const r = readWav(wav(tag, bits, channels, extra));
      if (!r.ok) throw new Error(r.problem.why);
      expect(r.value.rate).toBe(8000);
      expect(r.value.data[0]).toHaveLength(500);
      const scale = channels === 2 ? 0.25 : 1;
      for (let i = 0; i < 500; i += 7) expect(r.value.data[0]![i]).toBeCloseTo(wave[i]! * scale, bits === 8 ? 1 : 3);
    }
  });

  it('written here comes back; a cut one is read as far as it goes; another kind is refused', () => {
    const file = writeWav(wave, 8000);
    const back = readWav(file);
    expect(back.ok && Math.max(...back.value.data[0]!.map((v, i) => Math.abs(v - wave[i]!)))).toBeLessThan(1e-4);
    const cut = readWav(file.subarray(0, 544));
    expect(cut.ok && [cut.value.data[0]!.length, cut.value.notes.join()]).toEqual([
      250,
      'The file is cut short; what is there was read.',
    ]);
    for (const bad of [
      wav(6, 8, 1),
      file.subarray(0, 30),
      file.subarray(0, 44),
      Uint8Array.from([82, 73, 70, 70]),
      new Uint8Array(0),
    ])
      expect(readWav(bad).ok).toBe(false);
  });

  it('damaged anywhere is read or refused, never thrown at', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(60), fc.nat(255)), { minLength: 1, maxLength: 12 }),
        fc.nat(1100),
        (hits, length) => {
          const file = writeWav(wave, 8000).slice(0, length);
          for (const [at, value] of hits) if (at < file.length) file[at] = value;
          const r = readWav(file);
          if (r.ok) expect(r.value.data[0]!.every(Number.isFinite)).toBe(true);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('lines of a rig in a file', () => {
  it('are read as a recording of the kind’s channels', () => {
    const lines = [
      '{"channels":[{"name":"t"},{"name":"torque"},{"name":"angle","unit":"′"}]}',
      ...Array.from({ length: 30 }, (_, i) => `{"t":${i * 0.1},"torque":${i % 7},"angle":${i % 5}}`),
      'lost',
    ];
    const r = importFile(testKind('hysteresis') as TestKind, bytes(lines.join('\n')));
    if (!r.ok) throw new Error(r.problem.what);
    expect(r.value.recording!.channels.map((c) => c.id)).toEqual(['time', 'torque', 'angle']);
    expect(r.value.recording!.malformed).toBe(1);
    expect(r.value.recording!.data[2]![4]).toBeCloseTo((4 * Math.PI) / 10800, 12);
  });

  it('without a header their names are taken from the first sample; rows of values need one', () => {
    const r = new LineReader();
    expect(r.line('1,2,3')).toBe(false);
    expect(r.line('{"t":0,"out":1.5}')).toBe(true);
    expect(r.line('0.1,1.6')).toBe(true);
    expect([r.samples, r.malformed, r.channels.map((c) => c.id).join()]).toEqual([2, 1, 'time,output']);
    const heading = new LineReader();
    heading.line('t,load');
    heading.line('0;5');
    expect(heading.samples).toBe(1);
  });
});
