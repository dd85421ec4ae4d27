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

  interface Read {
    type: string;
    layer: string;
    shape: boolean;
    vertices: { x: number; y: number; bulge?: number }[];
    center: { x: number; y: number };
    radius: number;
  }
  const readDxf = (...of: Parameters<typeof writeDxf>) => {
    const dxf = new DxfParser().parseSync(writeDxf(...of))!;
    return { header: dxf.header, entities: dxf.entities as unknown as Read[] };
  };

  it('DXF opens in a reader: millimetres, closed, layers by meaning, circles and arcs exactly', () => {
    const { header, entities } = readDxf(sheet, { reference: true });
    expect(header['$INSUNITS']).toBe(4);
    expect(header['$ACADVER']).toBe('AC1009');
    expect(entities.map((l) => [l.type, l.layer])).toEqual([
      ['POLYLINE', 'PROFILE'],
      ['CIRCLE', 'BORE'],
      ['CIRCLE', 'PITCH-CIRCLE'],
    ]);
    const [profile, bore, pitch] = entities as [Read, Read, Read];
    expect(profile.shape).toBe(true);
    // Green over chords, and the segment of each arc: r²(θ − sin θ)/2 with θ = 4·atan(bulge).
    const inside = profile.vertices.reduce((sum, v, i) => {
      const w = profile.vertices[(i + 1) % profile.vertices.length]!;
      const theta = 4 * Math.atan(v.bulge ?? 0);
      const r = theta === 0 ? 0 : Math.hypot(w.x - v.x, w.y - v.y) / (2 * Math.sin(Math.abs(theta) / 2));
      return sum + (v.x * w.y - w.x * v.y) / 2 + (r * r * (theta - Math.sin(theta))) / 2;
    }, 0);
    expect(inside / (area(part.curves[0]!.outline) * 1e6)).toBeCloseTo(1, 7);
    expect([bore.center.x, bore.center.y, bore.radius]).toEqual([0, 0, 2.5]);
    // Pitch circle of 16 teeth of 3 mm.
    expect(pitch.radius).toBeCloseTo(48 / Math.PI / 2, 5);
    // Measured over the tips of opposite teeth: the outside diameter.
    expect(2 * Math.max(...profile.vertices.map((v) => Math.hypot(v.x, v.y)))).toBeCloseTo(48 / Math.PI - 2 * 0.381, 3);
  });

  it('DXF holds what is cut; what is only looked at where it is asked for, or all there is', () => {
    expect(readDxf(sheet).entities.map((l) => l.layer)).toEqual(['PROFILE', 'BORE']);
    const room = { ...sheet, curves: [{ layer: 'clearance', outline: circle(0, 0, 0.02) }] };
    expect(readDxf(room).entities.map((l) => l.layer)).toEqual(['CLEARANCE']);
    // A circle that runs clockwise, off the middle, and an open line.
    const odd = {
      ...sheet,
      curves: [
        { layer: 'hole', outline: new OutlinePen().to(0.03, 0.01, -1).to(0.01, 0.01, -1).close() },
        { layer: 'line', outline: segment(0, 0, 0.01, 0.02) },
      ],
    };
    const [hole, line] = readDxf(odd).entities as [Read, Read];
    expect([hole.type, hole.center.x, hole.center.y, hole.radius]).toEqual(['CIRCLE', 20, 10, 10]);
    expect(line.shape).toBe(false);
    expect(line.vertices.map((v) => [v.x, v.y])).toEqual([
      [0, 0],
      [10, 20],
    ]);
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
    const dxf = writeDxf({ title: 'Arm\u0007\n999\nü', note: '\u0000', curves: [] } as never);
    expect(dxf.split('\n')[1]).toMatch(/^[\x20-\x7e]+$/);
  });
});
