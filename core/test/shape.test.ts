import DxfParser from 'dxf-parser';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  area,
  boundsOf,
  circle,
  flatten,
  ORIGIN,
  OutlinePen,
  place,
  segment,
  svgPath,
  writeDxf,
  writeSvg,
  type ExportSheet,
} from '../src/index.ts';
import { belt } from '../src/stage/belt/index.ts';
import { xmlText } from '../src/shape/xml.ts';
import { demo, shelf } from './helpers.ts';
import { partsOf } from './stage-bench.ts';

const pulley = (index: number) => {
  const p = demo().variants[0]!.stages[index]!.params;
  const parts = partsOf(belt, p as never, shelf);
  if (!parts.ok) throw new Error(parts.problem.what);
  return parts.value.find((x) => x.id === 'driver')!;
};

describe('outlines', () => {
  it('know their area and bounds, arcs included', () => {
    expect(area(circle(1, 2, 3))).toBeCloseTo(9 * Math.PI, 9);
    const b = boundsOf([{ outline: circle(1, 2, 3), at: ORIGIN }])!;
    expect([b.x0, b.x1, b.y0, b.y1].map((x) => Number(x.toFixed(9)))).toEqual([-2, 4, -1, 5]);
    expect(boundsOf([])).toBeUndefined();
  });

  it('keep area and shape when placed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (turn, x) => {
          const o = new OutlinePen().to(0, 0, 0.3).to(2, 0).to(2, 1, -0.2).to(0, 1).close();
          expect(area(place(o, { x, y: 1, turn }))).toBeCloseTo(area(o), 9);
        },
      ),
    );
  });

  it('flatten within the chord error they state, tighter as it shrinks', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-3, max: 0.1, noNaN: true }),
        fc.double({ min: 1e-7, max: 1e-4, noNaN: true }),
        (r, e) => {
          const p = flatten(circle(0, 0, r), e);
          for (let i = 0; i < p.length; i += 2) {
            const j = (i + 2) % p.length;
            expect(Math.hypot(p[i]!, p[i + 1]!)).toBeCloseTo(r, 12);
            expect(r - Math.hypot((p[i]! + p[j]!) / 2, (p[i + 1]! + p[j + 1]!) / 2)).toBeLessThanOrEqual(
              e * (1 + 1e-9),
            );
          }
        },
      ),
    );
    expect(Array.from(flatten(segment(0, 0, 1, 1), 1e-6))).toEqual([0, 0, 1, 1]);
  });
});

describe('outline files', () => {
  const part = pulley(0);
  const sheet: ExportSheet = { title: 'Jib <b>1</b> & “pulley”', note: part.note, curves: part.curves };

  it('DXF opens in a reader: millimetres, closed, layers by meaning, true size', () => {
    const dxf = new DxfParser().parseSync(writeDxf(sheet, 2e-6))!;
    expect(dxf.header['$INSUNITS']).toBe(4);
    expect(dxf.header['$ACADVER']).toBe('AC1009');
    const lines = dxf.entities as unknown as {
      type: string;
      layer: string;
      shape: boolean;
      vertices: { x: number; y: number }[];
    }[];
    expect(lines.map((l) => [l.type, l.layer, l.shape])).toEqual([
      ['POLYLINE', 'PROFILE', true],
      ['POLYLINE', 'BORE', true],
      ['POLYLINE', 'PITCH-CIRCLE', true],
    ]);
    const shoelace = (v: { x: number; y: number }[]) =>
      v.reduce((s, a, i) => s + (a.x * v[(i + 1) % v.length]!.y - v[(i + 1) % v.length]!.x * a.y) / 2, 0);
    const exact = area(part.curves[0]!.outline) * 1e6;
    expect(Math.abs(shoelace(lines[0]!.vertices) / exact - 1)).toBeLessThan(1e-3);
    expect(shoelace(lines[1]!.vertices)).toBeCloseTo(Math.PI * 2.5 ** 2, 1);
    // Pitch circle of 16 teeth of 3 mm.
    expect(Math.hypot(lines[2]!.vertices[0]!.x, lines[2]!.vertices[0]!.y)).toBeCloseTo(48 / Math.PI / 2, 5);
    // Measured over the tips of opposite teeth: the outside diameter.
    expect(2 * Math.max(...lines[0]!.vertices.map((v) => Math.hypot(v.x, v.y)))).toBeCloseTo(
      48 / Math.PI - 2 * 0.381,
      3,
    );
  });

  it('DXF has a finer file for a finer chord error', () => {
    expect(writeDxf(sheet, 5e-7).length).toBeGreaterThan(writeDxf(sheet, 2e-5).length * 1.5);
  });

  it('SVG is in millimetres, with exact arcs and nothing unescaped', () => {
    const svg = writeSvg(sheet);
    expect(svg).toMatch(/width="[\d.]+mm" height="[\d.]+mm"/);
    expect(svg).toContain('&#60;b&#62;');
    expect(svg).not.toContain('<b>');
    const profile = /<g id="profile">\s*<path d="([^"]+)"/.exec(svg)![1]!;
    expect(profile.endsWith('Z')).toBe(true);
    expect((profile.match(/A/g) ?? []).length).toBeGreaterThanOrEqual(16 * 4);
    const width = Number(/width="([\d.]+)mm"/.exec(svg)![1]);
    expect(width).toBeGreaterThan(48 / Math.PI - 0.1);
    expect(width).toBeLessThan(48 / Math.PI + 3);
  });

  it('SVG paths negate y and mark large arcs', () => {
    expect(svgPath(circle(0, 0, 1), 1)).toBe('M1 0A1 1 0 0 0 -1 0A1 1 0 0 0 1 0Z');
    expect(
      svgPath(
        new OutlinePen()
          .to(0, 0, Math.tan((1.5 * Math.PI) / 4))
          .to(1, 0)
          .open(),
        1,
        3,
      ),
    ).toMatch(/A0\.707 0\.707 0 1 0 1 0$/);
    expect(svgPath(new OutlinePen().open())).toBe('');
  });

  it('parts an arc that is all but straight into one piece', () => {
    for (const bulge of [1e-12, 1e-17, 1e-300, -1e-17])
      expect(flatten(new OutlinePen().to(0, 0, bulge).to(1e-2, 0).open(), 1e-7)).toHaveLength(4);
  });
});

describe('names in files', () => {
  it('hold nothing that breaks the file: control characters and halves of characters become spaces', () => {
    expect(xmlText('a\u0000b\u001b<c>&"d"\ud800e\ufffe \ud83d\ude00\t')).toBe(
      'a b &#60;c&#62;&#38;&#34;d&#34; e  \ud83d\ude00\t',
    );
    const svg = writeSvg({ title: 'Arm\u0007\u0000 \ud800', note: 'x\u0008', curves: [] } as never);
    // eslint-disable-next-line no-control-regex
    expect(svg).not.toMatch(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]|[\ud800-\udfff]/);
    const dxf = writeDxf({ title: 'Arm\u0007\n999\nü', note: '\u0000', curves: [] } as never, 1e-5);
    expect(dxf.split('\n')[1]).toMatch(/^[\x20-\x7e]+$/);
  });
});
