import { describe, expect, it } from 'vitest';
import { amplitudes, leftOfWave } from '../src/bench/spectrum.ts';
import { normalQuantile } from '../src/figure/draws.ts';
import { offPath, type Cycloid } from '../src/lobed/cycloid.ts';
import { cutSlices, cut, prism, solidVolume } from '../src/shape/solid.ts';
import { circle } from '../src/shape/outline.ts';
import { readParams, stageKind, type Body } from '../src/index.ts';
import { alongOf } from '../src/reducer/reach.ts';
import { intoHole, SCREWS } from '../src/shop/fasteners.ts';
import { outPinStress, type OutPushes } from '../src/stage/cycloidal/output-pins.ts';
import type { CycloidalParams } from '../src/stage/cycloidal/params.ts';
import { cold, dice } from './helpers.ts';
import { body, keyedLine, made } from './reducer-bench.ts';
import { strainWaveRollers } from './anchors/strain-wave-rollers.ts';
import { strainWave } from './anchors/strain-wave.ts';
import { ANCHORED } from './worked-stages.ts';

// Values of single formulas where the way around them would hide a small error: by tables, brute force and sums written out.

describe('the normal distribution’s quantiles', () => {
  it.each([
    [0.999, 3.090232306168],
    [1e-6, -4.753424308823],
    [1 - 1e-6, 4.753424308823],
    [0.97, 1.880793608151],
    [0.98, 2.053748910632],
    [0.02, -2.053748910632],
    [0.3, -0.524400512708],
  ])('are those of a table: %f', (p, z) => {
    expect(normalQuantile(p) / z).toBeCloseTo(1, 8);
  });
});

describe('the distance from a cycloid’s path', () => {
  const c = { circle: 0.04, throw: 0.0012, pins: 20, pin: 0.003 } as Cycloid;
  /** The foot by halving the derivative of the distance, sines and all at every step. */
  function slow(x: number, y: number, near: number): number {
    const at = (t: number) => [
      c.circle * Math.cos(t) - c.throw * Math.cos(c.pins * t),
      c.circle * Math.sin(t) - c.throw * Math.sin(c.pins * t),
    ];
    const way = (t: number) => [
      -c.circle * Math.sin(t) + c.throw * c.pins * Math.sin(c.pins * t),
      c.circle * Math.cos(t) - c.throw * c.pins * Math.cos(c.pins * t),
    ];
    const slope = (t: number) => {
      const [p, v] = [at(t), way(t)];
      return (p[0]! - x) * v[0]! + (p[1]! - y) * v[1]!;
    };
    let [low, high] = [near - 0.02, near + 0.02];
    expect(slope(low) * slope(high)).toBeLessThan(0);
    for (let i = 0; i < 200; i++) {
      const middle = (low + high) / 2;
      if (slope(low) * slope(middle) <= 0) high = middle;
      else low = middle;
    }
    const [p, v] = [at(low), way(low)];
    const speed = Math.hypot(v[0]!, v[1]!);
    return ((p[1]! - y) * v[0]! - (p[0]! - x) * v[1]!) / speed;
  }

  it('is that of its foot, wherever the search begins, to a hundredth of an ångström', () => {
    const roll = dice(4);
    for (let i = 0; i < 60; i++) {
      const t = (roll(1e6) / 1e6) * 2 * Math.PI;
      const off = (roll(1000) / 1000 - 0.5) * 4e-4;
      // A point beside the path, and a start a little before or behind its foot.
      const [px, py] = [
        c.circle * Math.cos(t) - c.throw * Math.cos(c.pins * t),
        c.circle * Math.sin(t) - c.throw * Math.sin(c.pins * t),
      ];
      const [vx, vy] = [
        -c.circle * Math.sin(t) + c.throw * c.pins * Math.sin(c.pins * t),
        c.circle * Math.cos(t) - c.throw * c.pins * Math.cos(c.pins * t),
      ];
      const speed = Math.hypot(vx, vy);
      const [x, y] = [px + (vy / speed) * off, py - (vx / speed) * off];
      for (const start of [-0.012, -0.0024, 0.0024, 0.009])
        expect(Math.abs(offPath(c, x, y, t + start) - slow(x, y, t))).toBeLessThan(1e-12);
    }
  });
});

describe('an output pin between two plates', () => {
  const p = { ...(stageKind('cycloidal')!.starts as object), carriedBy: 'both' } as CycloidalParams;
  const d = p.outPin;
  const worst = (seat: number) =>
    outPinStress(p, { most: 1, bent: 0 } as OutPushes, { diameter: d, modulus: 210e9, seat, depth: 4e-3 }).bending;
  const moment = (bending: number) => (bending * Math.PI * d ** 3) / 32;
  /** Length between the plates' middles, by a pin whose ends lean freely: F·L/4 in its middle. */
  const L = 4 * moment(worst(0));

  it('is bent in its middle where its ends lean, half as much and at its ends as well where they cannot', () => {
    expect(L).toBeGreaterThan(p.discs * p.width);
    expect(moment(worst(1e30))).toBeCloseTo(L / 8, 9);
  });

  it('and between those by what its ends turn, found by halving', () => {
    for (const seat of [1e8, 3e9, 4e10]) {
      // Ends turn by F·L²/16EI less M·L/2EI, and by M over the seat's stiffness against leaning.
      const EI = (210e9 * Math.PI * d ** 4) / 64;
      const leans = (seat * 4e-3 ** 3) / 12;
      let [low, high] = [0, L / 8];
      for (let i = 0; i < 100; i++) {
        const M = (low + high) / 2;
        if (L ** 2 / 16 / EI - (M * L) / 2 / EI > M / leans) low = M;
        else high = M;
      }
      expect(moment(worst(seat))).toBeCloseTo(Math.max(low, L / 4 - low), 9);
    }
  });
});

describe('a spectrum', () => {
  it('is the sums of a signal with sines and cosines, twice for all but its mean', () => {
    const n = 64;
    const signal = Float64Array.from({ length: n }, (_, i) => 0.7 + Math.sin(i * 0.9) + 0.3 * Math.cos(i * i * 0.05));
    const a = amplitudes(signal);
    for (const k of [0, 1, 5, 17, 31]) {
      let [re, im] = [0, 0];
      signal.forEach((v, i) => {
        re += v * Math.cos((2 * Math.PI * k * i) / n);
        im += v * Math.sin((2 * Math.PI * k * i) / n);
      });
      expect(a[k]!).toBeCloseTo(((k === 0 ? 1 : 2) * Math.hypot(re, im)) / n, 12);
    }
  });

  it('loses of a wave what its mean over cells does, summed', () => {
    for (const perCell of [0.05, 0.21, 0.48]) {
      let mean = 0;
      for (let i = 0; i < 20000; i++) mean += Math.cos(2 * Math.PI * perCell * ((i + 0.5) / 20000 - 0.5)) / 20000;
      expect(leftOfWave(perCell)).toBeCloseTo(mean, 8);
    }
  });
});

describe('slices of a body that something is cut from', () => {
  it('come to its volume, each with its share of a twist', () => {
    const body = {
      prisms: [
        prism(circle(0, 0, 5), 1, 7, [circle(0, 0, 1)], 0.6),
        cut(circle(2.5, 0, 0.5), 2, 4),
        cut(circle(-2.5, 0, 1), 3, 9),
      ],
    };
    const list = cutSlices(body);
    expect(list.map(({ p, cuts }) => [p.from, p.to, cuts.length])).toEqual([
      [1, 2, 0],
      [2, 3, 1],
      [3, 4, 2],
      [4, 7, 1],
    ]);
    list.forEach(({ p }) => {
      expect(p.twist).toBeCloseTo(0.1 * (p.to - p.from), 12);
      expect(p.turn).toBeCloseTo(0.1 * (p.from - 1), 12);
    });
    const volume = list.reduce(
      (sum, { p, cuts }) =>
        sum + (p.to - p.from) * Math.PI * (24 - cuts.reduce((s, c) => s + (c.from === 2 ? 0.25 : 1), 0)),
      0,
    );
    expect(volume).toBeCloseTo(
      solidVolume({ prisms: [body.prisms[0]!, body.prisms[1]!, { ...body.prisms[2]!, to: 7 }] }),
      9,
    );
  });

  it('is one where nothing is', () => {
    const alone = prism(circle(0, 0, 5), 1, 7);
    expect(cutSlices({ prisms: [alone, cut(circle(0, 0, 1), 7, 9)] })).toEqual([{ p: alone, cuts: [] }]);
  });
});

describe('a screw into a tapped hole', () => {
  it('may end at its bottom, and must have eight tenths of its diameter in it', () => {
    // M3: lengths of 6, 8, 10 and 12 mm.
    expect(intoHole(SCREWS.M3, 5.5e-3, 4.5e-3)).toBeCloseTo(0.01, 12);
    expect(intoHole(SCREWS.M3, 5.5e-3, 4.4e-3)).toBeCloseTo(0.008, 12);
    expect(intoHole(SCREWS.M3, 5.6e-3, 2.4e-3)).toBeCloseTo(0.008, 12);
    expect(intoHole(SCREWS.M3, 5.7e-3, 2.4e-3)).toBeUndefined();
  });
});

describe('a key', () => {
  it('lies in the middle of its wheel', () => {
    const r = made(keyedLine());
    const keys = r.bodies.filter((b) => b.id.startsWith('case/key'));
    expect(keys.length).toBeGreaterThan(1);
    const middle = (b: Body): number => {
      const [low, high] = alongOf(b.solid());
      return b.places(0)[0]!.at[2] + (low + high) / 2;
    };
    for (const key of keys) {
      const wheel = body(r, key.lies!.under!);
      expect(middle(key)).toBeCloseTo(middle(wheel), 9);
    }
  });
});

describe('a spur pair’s centre distance', () => {
  it('is refused where shifts would be beyond two, either way', () => {
    const { params } = ANCHORED.find((a) => a.kind === 'spur' && !a.further)!;
    const { module } = params as { module: number };
    // Many teeth: few meet their base circles before their shifts are large.
    const [z1, z2] = [40, 160];
    const says = (off: number): string => {
      const read = readParams('spur', {
        ...params,
        z1,
        z2,
        setBy: 'centre',
        centre: (module * (z1 + z2)) / 2 + off * module,
      });
      if (!read.ok) throw new Error(read.problem.what);
      const opened = stageKind('spur')!.open(read.value, cold);
      return opened.ok ? '' : opened.problem.what;
    };
    for (const off of [2.6, -4]) expect(says(off)).toBe('That centre distance needs more shift than teeth can take.');
    for (const off of [0.5, -0.5]) expect(says(off)).toBe('');
  });
});

describe('clearance of a strain wave’s tooth', () => {
  it.each([strainWave, strainWaveRollers])(
    'is told alike by its course and by the map of all teeth, $params.shape',
    (a) => {
      const kind = stageKind('strain-wave')!;
      const opened = kind.open({ ...(kind.starts as object), ...a.params } as never, cold);
      if (!opened.ok) throw new Error(opened.problem.what);
      const clear = opened.value.courses!(a.duty).find((c) => c.id === 'clearance')!.values;
      const map = opened.value.map!(a.duty);
      let inside = 0;
      for (let k = 0; k < map.columns; k++) {
        if (!Number.isFinite(map.values[k])) continue;
        expect(Math.abs(clear[k]! - map.values[k]!)).toBeLessThan(1e-10);
        inside++;
      }
      expect(inside).toBeGreaterThan(40);
      expect(inside).toBeLessThan(140);
    },
  );
});

it('a ring of a spur stage turns as a tube from its pitch circle to behind its roots', () => {
  const { params, duty } = ANCHORED.find((a) => a.kind === 'spur' && !a.further)!;
  const opened = stageKind('spur')!.open({ ...params, form: 'ring', rim: 4e-3 } as never, cold);
  if (!opened.ok) throw new Error(opened.problem.what);
  const parts = opened.value.parts();
  if (!parts.ok) throw new Error(parts.problem.what);
  const ring = parts.value.find((x) => /ring/i.test(x.name))!;
  // Module 1, 60 teeth: roots 1.25 mm beyond 30 mm, and 4 mm of rim.
  const [inner, outer] = [30e-3, 35.25e-3];
  expect(opened.value.load(duty).inertiaOut / ((ring.mass * (inner ** 2 + outer ** 2)) / 2)).toBeCloseTo(1, 6);
});
