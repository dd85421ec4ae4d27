import { describe, expect, it } from 'vitest';
import {
  amplitudes,
  betweenBins,
  cleanCurve,
  fitHysteresis,
  hangingTogether,
  hann,
  inseparable,
  misfitOf,
  noiseFloor,
  orderLines,
  slopeAmongWaves,
  stepOf,
} from '../src/index.ts';
import { bendOf } from '../src/bench/bend.ts';
import { fitWarming } from '../src/bench/warming-fit.ts';
import { descend } from '../src/math/descend.ts';
import { Chance, hanging } from './specimens/chance.ts';
import { loopSpecimen } from './specimens/hysteresis.ts';

const ARCMIN = Math.PI / 10800;
const white = (n: number, seed = 5): Float64Array => {
  const c = new Chance(seed);
  return Float64Array.from({ length: n }, () => c.normal());
};

describe('residuals', () => {
  it('that follow a first-order process hang together over (1 + ρ)/(1 − ρ) of them', () => {
    for (const length of [2, 5, 12]) {
      const rho = Math.exp(-1 / length);
      const found = hangingTogether(hanging(new Chance(length), 60_000, length));
      expect(found / ((1 + rho) / (1 - rho)), `length ${length}`).toBeGreaterThan(0.85);
      expect(found / ((1 + rho) / (1 - rho)), `length ${length}`).toBeLessThan(1.15);
    }
  });

  it('that are independent, few or nought hang together over one', () => {
    expect(hangingTogether(white(5000))).toBeLessThan(1.1);
    expect(hangingTogether(new Float64Array(50))).toBe(1);
    expect(hangingTogether(Float64Array.of(1, 1, 1, 1))).toBe(1);
  });

  it('lose what a fit took away: more is said of the same where more was fitted', () => {
    const a = hanging(new Chance(3), 400, 8);
    expect(hangingTogether(a, 6)).toBeGreaterThan(hangingTogether(a));
  });

  it('say what is wrong where they hang together, and by how much the band is wider', () => {
    expect(misfitOf(white(400), 2, 'a drift', 'Read on.')).toMatchObject({ says: [] });
    const drifting = Float64Array.from({ length: 100 }, (_, i) => Math.sin(i / 16));
    const { widen, says } = misfitOf(drifting, 2, 'a drift', 'Read on.');
    expect(says[0]).toContain(`${Math.sqrt(widen).toFixed(1)} times`);
    expect(says[0]).toMatch(/a drift.*Read on\./);
  });

  it('know the step in which readings come', () => {
    expect(stepOf([0.3, 0.1, 0.7, 0.5, 0.5])).toBeCloseTo(0.2, 12);
    // No two of them lie one step apart.
    expect(stepOf([0, 6, 15])).toBeCloseTo(3, 12);
    const count = (2 * Math.PI) / 2 ** 14;
    const far = Float32Array.from({ length: 900 }, (_, i) => (17 * i + ((i * i) % 5)) * count);
    expect(stepOf(far) / count).toBeCloseTo(1, 4);
    expect(stepOf(white(300))).toBe(0);
    expect(stepOf([2, 2, 2])).toBe(0);
  });
});

describe('the floor of a spectrum', () => {
  it('is σ·√(2/N) in either part for white noise, lines in it or not', () => {
    const n = 8192;
    const noise = white(n);
    const lined = noise.map((v, i) => v + 4 * Math.sin((2 * Math.PI * 500 * i) / n));
    for (const signal of [noise, lined]) {
      const floor = noiseFloor(amplitudes(signal));
      const mean = floor.slice(1).reduce((s, v) => s + v, 0) / (floor.length - 1);
      expect(mean / Math.sqrt(2 / n)).toBeCloseTo(1, 1);
    }
  });
});

describe('a curve with its noise taken out', () => {
  const n = 2048;
  const noise = white(n, 11);
  const curve = Float64Array.from(
    { length: n },
    (_, i) => 2 * Math.sin((2 * Math.PI * 3 * i) / n) + 0.5 * Math.sin((2 * Math.PI * 40 * i) / n + 1),
  );
  const span = (a: Float64Array) => Math.max(...a) - Math.min(...a);

  it('is as large as it was put in, where its noisy values span twice as much', () => {
    const noisy = curve.map((v, i) => v + 0.6 * noise[i]!);
    const clean = cleanCurve(noisy);
    expect(span(noisy)).toBeGreaterThan(1.4 * span(curve));
    expect(Math.abs(clean.peakToPeak.value - span(curve))).toBeLessThan(2 * clean.peakToPeak.u);
    // A line just under what is kept has 3.6·σ·√(2/N), 0.07; four of them and the noise of those that are kept.
    expect(clean.peakToPeak.u).toBeLessThan(0.25);
    // √(2²/2 + 0.5²/2).
    expect(Math.abs(clean.rms.value - Math.sqrt(2.125))).toBeLessThan(2 * clean.rms.u);
    expect(clean.rms.u).toBeLessThan(0.05);
  });

  it('strays as far as it does to either side, read straight or turned over', () => {
    // cos x + ½·cos 2x runs from −¾ (where cos x = −½) to 1½.
    const lop = Float64Array.from(
      { length: n },
      (_, i) => Math.cos((2 * Math.PI * i) / n) + 0.5 * Math.cos((4 * Math.PI * i) / n) + 0.02 * noise[i]!,
    );
    for (const sign of [1, -1]) {
      const clean = cleanCurve(lop.map((v) => sign * v));
      expect(clean.worst.value).toBeCloseTo(1.5, 1);
      expect(clean.peakToPeak.value).toBeCloseTo(2.25, 1);
      expect(clean.rms.value).toBeCloseTo(Math.sqrt(0.625), 2);
    }
  });

  it('of noise alone is next to nothing', () => {
    expect(cleanCurve(noise).peakToPeak.value).toBeLessThan(0.5);
  });
});

describe('friction of a loop', () => {
  it('is known no better for a reading that happens to lie where the play is crossed', () => {
    let held = 0;
    const u: number[] = [];
    for (let seed = 0; seed < 30; seed++) {
      const { torque, angle, truth } = loopSpecimen({ slopes: 1, play: true, by: 'streamed', hangs: 8 }, seed);
      const { friction, k } = fitHysteresis(torque, angle)!;
      if (Math.abs(friction.value - truth.friction) <= k * friction.u) held++;
      u.push(friction.u / truth.friction);
    }
    expect(held).toBeGreaterThanOrEqual(27);
    // Drawn alike, they are known about alike; a jump at one reading made it a fortieth of the others.
    u.sort((a, b) => a - b);
    expect(u[15]! / u[0]!).toBeLessThan(8);
  });
});

describe('orders by least squares', () => {
  const turns = 4;
  const n = 4096;
  const at = (i: number): number => (2 * Math.PI * turns * (i + 0.5)) / n;
  const noise = white(n, 21);
  const made = (second: number): Float64Array =>
    Float64Array.from(
      { length: n },
      (_, i) => 3 * Math.sin(16.2 * at(i) + 0.4) + 0.6 * Math.cos(second * at(i)) + 0.2 * noise[i]!,
    );

  it('two bins beside a larger one are both there, where and as large as put in', () => {
    const lines = orderLines(made(16.7), turns, []);
    expect(lines).toHaveLength(2);
    for (const [line, order, amplitude] of [
      [lines[0]!, 16.2, 3],
      [lines[1]!, 16.7, 0.6],
    ] as const) {
      expect(line.order).toBeCloseTo(order, 1);
      expect(Math.abs(line.amplitude - amplitude)).toBeLessThan(3 * line.u);
      // σ·√(2/N) in either part.
      expect(line.u / (0.2 * Math.sqrt(2 / n))).toBeGreaterThan(0.7);
      expect(line.u / (0.2 * Math.sqrt(2 / n))).toBeLessThan(1.4);
      expect(line.significance).toBeCloseTo(line.amplitude / line.u, 9);
    }
  });

  it('stand at an order that the line has, where one is within reach', () => {
    const lines = orderLines(made(16.7), turns, [16.2, 5]);
    expect(lines[0]).toMatchObject({ order: 16.2, known: true });
    expect(lines[1]!.known).toBe(false);
  });

  it('nearer than a bin are not told apart, and so many turns would do it', () => {
    expect(inseparable(16.1, [16, 16.1, 40], 4)).toEqual({ between: [16, 16.1], turns: 15 });
    expect(inseparable(16.1, [16, 16.1, 40], 20)).toBeUndefined();
    expect(inseparable(16, [16, 16], 1)).toBeUndefined();
  });

  it('are as large as they are, though means over cells tell less of them', () => {
    // The mean of a·sin over a cell, by the integral: a·(cos(from) − cos(to))/(to − from).
    const cells = 1024;
    const mean = (order: number, i: number): number => {
      const to = (2 * Math.PI * turns * order) / cells;
      return (Math.cos(to * i) - Math.cos(to * (i + 1))) / to;
    };
    const told = Float64Array.from({ length: cells }, (_, i) => 2 * mean(120, i) + 3 * mean(7, i) + 0.002 * noise[i]!);
    // 120·4/1024 of a wave in a cell: three quarters of it are left.
    expect(Math.max(...amplitudes(told).subarray(400))).toBeLessThan(1.4);
    const lines = orderLines(told, turns, []);
    expect(lines.map((l) => [Math.round(l.order), Number(l.amplitude.toFixed(2))])).toEqual([
      [7, 3],
      [120, 2],
    ]);
    // Both together: 3 + 2 somewhere over 113 beats, twice.
    expect(cleanCurve(told).peakToPeak.value).toBeCloseTo(10, 0);
  });

  it('noise alone has none', () => {
    expect(orderLines(noise, turns, [])).toEqual([]);
  });
});

describe('a tone between bins', () => {
  it('is found exactly, wherever it lies', () => {
    for (const off of [0, 0.13, 0.37, 0.5, -0.3]) {
      const x = Float64Array.from({ length: 4096 }, (_, i) => Math.sin((2 * Math.PI * (300 + off) * i) / 4096));
      const a = amplitudes(hann(x));
      const k = a.indexOf(Math.max(...a));
      expect(betweenBins(a, k)).toBeCloseTo(300 + off, 3);
    }
  });
});

describe('a slope among waves', () => {
  const slope = 1 / 25;
  const scatter = white(400, 8);
  const stretches = (turns: number, wave: number, phase: number, noise = 0) =>
    [1, -1].flatMap((way) =>
      Array.from({ length: 200 }, (_, i) => {
        const turned = (2 * Math.PI * turns * i) / 199;
        return {
          input: turned / slope,
          output: turned + wave * Math.sin(turned + phase) - way * 3 * ARCMIN + noise * scatter[i + 100 * (1 - way)]!,
          way,
          count: 20,
        };
      }),
    );

  it('is exact over whole turns, wave or not', () => {
    for (const wave of [0, 4 * ARCMIN]) {
      const found = slopeAmongWaves(stretches(2, wave, 0.7), 1.001 * slope)!;
      expect(found.value / slope - 1).toBeCloseTo(0, 6);
    }
  });

  it('over a third of a turn is known within what it says, whatever the wave’s phase', () => {
    for (let k = 0; k < 12; k++) {
      const found = slopeAmongWaves(stretches(1 / 3, 1.5 * ARCMIN, (k * Math.PI) / 6, 0.03 * ARCMIN), slope)!;
      expect(Math.abs(found.value - slope), `phase ${k}`).toBeLessThan(3 * found.u);
      // A wave of 1.5′ may tilt a third of a turn by no more than itself.
      expect((found.u / slope) * ((2 * Math.PI) / 3)).toBeLessThan(6 * ARCMIN);
    }
  });
});

describe('warming', () => {
  const course = (parts: readonly (readonly [number, number])[], n: number, end: number) => {
    const t = Array.from({ length: n }, (_, i) => (end * i) / (n - 1));
    return { t, y: t.map((x) => 330 - parts.reduce((s, [a, tau]) => s + a * Math.exp(-x / tau), 0)) };
  };

  it('of one body and of two is taken apart exactly', () => {
    const one = course([[30, 900]], 12, 3000);
    const alone = fitWarming(one.t, one.y)!;
    expect(alone.settles).toBeCloseTo(330, 6);
    expect(alone.times).toHaveLength(1);
    expect(alone.times[0]).toBeCloseTo(900, 3);
    const two = course(
      [
        [20, 1500],
        [10, 150],
      ],
      80,
      4500,
    );
    const both = fitWarming(two.t, two.y)!;
    expect(both.settles).toBeCloseTo(330, 3);
    expect(both.times[0]! / 1500).toBeCloseTo(1, 3);
    expect(both.times[1]! / 150).toBeCloseTo(1, 3);
    expect(both.at(600)).toBeCloseTo(330 - 20 * Math.exp(-0.4) - 10 * Math.exp(-4), 4);
  });
});

describe('a loop', () => {
  it('in steps or in noise gets no slope that is not there', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const s = loopSpecimen({ slopes: 1, play: false, by: 'streamed' }, seed);
      const f = fitHysteresis(s.torque, s.angle)!;
      expect(f.stiffness).toHaveLength(1);
      expect(f.stiffness[0]!.value / s.truth.slopes[0]!).toBeCloseTo(1, 2);
    }
  });

  it('names the reading that slipped, and knows how far zero wandered', () => {
    const s = loopSpecimen({ slopes: 1, play: true, by: 'typed' }, 4);
    const spread = Math.max(...s.angle) - Math.min(...s.angle);
    const slipped = s.angle.map((a, i) => (i === 20 ? a + 0.3 * spread : a));
    const f = fitHysteresis(s.torque, slipped)!;
    expect(f.off).toContain(20);
    expect(f.off.length).toBeLessThan(3);
    expect(f.stiffness[0]!.value).toBeCloseTo(fitHysteresis(s.torque, s.angle)!.stiffness[0]!.value, -2);
    const n = s.angle.length;
    const drifting = fitHysteresis(
      s.torque,
      s.angle.map((a, i) => a + (0.05 * spread * i) / (n - 1)),
    )!;
    expect(Math.abs(drifting.drift.value - 0.05 * spread)).toBeLessThan(3 * drifting.drift.u);
  });
});

describe('points along a line', () => {
  const x = Array.from({ length: 12 }, (_, i) => i);
  it('bend where a square is put in, and by chance five times in a hundred', () => {
    expect(
      bendOf(
        x,
        x.map((v) => 2 * v + 0.05 * v * v),
      ),
    ).toBeGreaterThan(100);
    expect(
      bendOf(
        x,
        x.map((v) => 2 * v - 0.05 * v * v),
      ),
    ).toBeLessThan(-100);
    let bent = 0;
    for (let seed = 1; seed <= 600; seed++) {
      const g = white(12, seed);
      if (
        Math.abs(
          bendOf(
            x,
            x.map((v, i) => 3 - v + g[i]!),
          ),
        ) > 1
      )
        bent++;
    }
    expect(bent / 600).toBeGreaterThan(0.03);
    expect(bent / 600).toBeLessThan(0.075);
    expect(bendOf([1, 2, 3], [1, 4, 9])).toBe(0);
    expect(bendOf([2, 2, 2, 2, 2], [1, 4, 9, 1, 2])).toBe(0);
  });
});

describe('a descent', () => {
  it('finds the bottom of a bent valley', () => {
    const { p, value } = descend(([x, y]) => (1 - x!) ** 2 + 100 * (y! - x! * x!) ** 2, [-1, 1], [0.5, 0.5], 600);
    expect(p[0]).toBeCloseTo(1, 3);
    expect(p[1]).toBeCloseTo(1, 3);
    expect(value).toBeLessThan(1e-6);
  });
});
