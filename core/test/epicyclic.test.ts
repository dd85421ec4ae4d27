import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  carrier,
  central,
  gcd,
  expectedRange,
  memberSpeed,
  spacesEvenly,
  steppedPlaces,
  trainRatio,
  trainShares,
  trainSpeeds,
  trainTorques,
  type Train,
} from '../src/index.ts';

/** The six plain planetary trains of a sun, a ring and the planets between them. */
const trains = (sun: number, ring: number, etaS = 1, etaR = 1): Record<string, Train> => {
  const planet = (ring - sun) / 2;
  const [s, r] = [central(sun, planet, false, etaS), central(ring, planet, true, etaR)];
  return {
    'sun to carrier': { input: s, output: carrier, held: r },
    'carrier to sun': { input: carrier, output: s, held: r },
    'sun to ring': { input: s, output: r, held: carrier },
    'ring to sun': { input: r, output: s, held: carrier },
    'ring to carrier': { input: r, output: carrier, held: s },
    'carrier to ring': { input: carrier, output: r, held: s },
  };
};
const counts = fc.record({
  sun: fc.integer({ min: 8, max: 60 }),
  planet: fc.integer({ min: 8, max: 60 }),
  etaS: fc.double({ min: 0.9, max: 0.999, noNaN: true }),
  etaR: fc.double({ min: 0.9, max: 0.999, noNaN: true }),
});

describe('speeds of a train', () => {
  it('are those of the textbook for all six arrangements', () => {
    const ratios = Object.fromEntries(Object.entries(trains(20, 70)).map(([k, t]) => [k, trainRatio(t)]));
    expect(ratios['sun to carrier']).toBeCloseTo(1 + 70 / 20, 12);
    expect(ratios['carrier to sun']).toBeCloseTo(1 / 4.5, 12);
    expect(ratios['sun to ring']).toBeCloseTo(-70 / 20, 12);
    expect(ratios['ring to sun']).toBeCloseTo(-20 / 70, 12);
    expect(ratios['ring to carrier']).toBeCloseTo(1 + 20 / 70, 12);
    expect(ratios['carrier to ring']).toBeCloseTo(1 / (1 + 20 / 70), 12);
  });

  it('leave the held member still, turn the output once, and roll without slip at both meshes', () => {
    fc.assert(
      fc.property(counts, ({ sun, planet }) => {
        const ring = sun + 2 * planet;
        for (const [name, t] of Object.entries(trains(sun, ring))) {
          expect(memberSpeed(t, t.held), name).toBeCloseTo(0, 9);
          expect(memberSpeed(t, t.output), name).toBeCloseTo(1, 9);
          expect(memberSpeed(t, t.input), name).toBeCloseTo(trainRatio(t), 9);
          // Pitch-line speeds against the carrier: the sun's is minus the planet's, the ring's is the planet's.
          const { carrier: c, planet: p } = trainSpeeds(t);
          const speeds = {
            sun: memberSpeed(t, central(sun, planet, false)) - c,
            ring: memberSpeed(t, central(ring, planet, true)) - c,
          };
          expect(speeds.sun * sun, name).toBeCloseTo(-p * planet, 8);
          expect(speeds.ring * ring, name).toBeCloseTo(p * planet, 8);
        }
      }),
      { numRuns: 40 },
    );
  });
});

describe('torques of a train', () => {
  it('balance, and without loss pass all the power', () => {
    fc.assert(
      fc.property(counts, ({ sun, planet }) => {
        for (const [name, t] of Object.entries(trains(sun, sun + 2 * planet))) {
          for (const from of ['input', 'output'] as const) {
            const q = trainTorques(t, from);
            expect(q.input + q.output + q.held, name).toBeCloseTo(0, 9);
            expect(q.efficiency, `${name} ${from}`).toBeCloseTo(1, 9);
          }
        }
      }),
      { numRuns: 25 },
    );
  });

  it('lose what the textbook says: η₀ with a held carrier, the rolling share less with a held ring or sun', () => {
    fc.assert(
      fc.property(counts, ({ sun, planet, etaS, etaR }) => {
        const ring = sun + 2 * planet;
        const t = trains(sun, ring, etaS, etaR);
        const eta0 = etaS * etaR;
        const R = ring / sun;
        expect(trainTorques(t['sun to ring']!, 'input').efficiency).toBeCloseTo(eta0, 9);
        expect(trainTorques(t['ring to sun']!, 'input').efficiency).toBeCloseTo(eta0, 9);
        expect(trainTorques(t['sun to carrier']!, 'input').efficiency).toBeCloseTo((1 + R * eta0) / (1 + R), 9);
        expect(trainTorques(t['sun to carrier']!, 'output').efficiency).toBeCloseTo((1 + R) / (1 + R / eta0), 9);
        expect(trainTorques(t['ring to carrier']!, 'input').efficiency).toBeCloseTo((1 + eta0 / R) / (1 + 1 / R), 9);
      }),
      { numRuns: 40 },
    );
  });

  it('a train of two nearly equal rings holds itself before its teeth are bad', () => {
    // Planets with two steps: one ring held, one driving out, the sun driving in.
    const train = (eta: number): Train => ({
      input: central(12, 30, false, eta),
      output: { k: 29 / 71, eta },
      held: central(72, 30, true, eta),
    });
    const forward = [0.999, 0.99, 0.97].map((eta) => trainTorques(train(eta), 'input').efficiency);
    const backward = [0.999, 0.99, 0.97].map((eta) => trainTorques(train(eta), 'output').efficiency);
    for (let i = 1; i < 3; i++) {
      expect(forward[i]!).toBeLessThan(forward[i - 1]!);
      expect(backward[i]!).toBeLessThan(backward[i - 1]!);
    }
    expect(Math.min(...forward)).toBeGreaterThan(0);
    expect(backward[0]!).toBeGreaterThan(0);
    expect(backward[2]!).toBeLessThan(0);
  });
});

describe('what is lost at each mesh', () => {
  it('shows at the output as moving one member alone would', () => {
    fc.assert(
      fc.property(counts, ({ sun, planet }) => {
        for (const t of Object.values(trains(sun, sun + 2 * planet))) {
          const s = trainShares(t);
          // The output's own angle counts whole; the input's over the ratio; the held one's as its turning would turn
          // the output with the input still.
          expect(s.output).toBe(1);
          expect(s.input).toBeCloseTo(1 / Math.abs(trainRatio(t)), 12);
          expect(s.held).toBeCloseTo(Math.abs(1 / trainRatio({ input: t.held, output: t.output, held: t.input })), 9);
        }
      }),
      { numRuns: 25 },
    );
  });
});

describe('places of planets', () => {
  it('assemble: each a whole number of teeth of sun and ring together, no further from even than half of one', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 8, max: 40 }),
        fc.integer({ min: 40, max: 120 }),
        fc.integer({ min: 2, max: 7 }),
        (sun, ring, planets) => {
          const places = steppedPlaces(sun, ring, planets);
          const pitch = (2 * Math.PI) / (sun + ring);
          places.forEach((a, i) => {
            expect(Math.abs(a / pitch - Math.round(a / pitch))).toBeLessThan(1e-9);
            expect(Math.abs(a - (2 * Math.PI * i) / planets)).toBeLessThanOrEqual(pitch / 2 + 1e-12);
          });
          const even = places.every((a, i) => Math.abs(a - (2 * Math.PI * i) / planets) < 1e-9);
          expect(even).toBe(spacesEvenly(sun, ring, planets));
        },
      ),
    );
  });

  it('the greatest common divisor divides both, and nothing larger does', () => {
    fc.assert(
      fc.property(fc.integer({ min: -300, max: 300 }), fc.integer({ min: 1, max: 300 }), (a, b) => {
        const d = gcd(a, b);
        expect(a % d === 0 && b % d === 0).toBe(true);
        for (let k = d + 1; k <= b; k++) expect(a % k === 0 && b % k === 0).toBe(false);
      }),
      { numRuns: 40 },
    );
  });

  it('the range of n draws is what the control chart’s constant says', () => {
    let s = 7;
    const uniform = () => ((s = (Math.imul(s, 1664525) + 1013904223) >>> 0) + 0.5) / 4294967296;
    const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
    for (const n of [2, 3, 4, 6]) {
      let sum = 0;
      for (let k = 0; k < 20_000; k++) {
        const draws = Array.from({ length: n }, normal);
        sum += Math.max(...draws) - Math.min(...draws);
      }
      expect(sum / 20_000 / expectedRange(n)).toBeCloseTo(1, 1.7);
    }
    expect(expectedRange(1)).toBe(0);
  });
});
