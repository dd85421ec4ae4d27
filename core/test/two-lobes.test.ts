import { describe, expect, it } from 'vitest';
import { flatten, place } from '../src/index.ts';
import { ringContacts, ringDisc, ringPlay } from '../src/lobed/difference.ts';
import { distanceTo } from './helpers.ts';

// A ring of twenty pins with a disc of eighteen lobes: what the contacts say is measured on the outline as it is drawn.

const c = { pins: 10, circle: 0.04, throw: 1.2e-3, pin: 3e-3 };
const pair = { profile: c, circle: c.circle, pin: c.pin - 5e-5 };
const outline = ringDisc(c, 2, 2e-8);

/** Distance of a pin from the disc, m, with the disc turned a little from where the crank holds it. */
function gapOnOutline(pin: number, crank: number, turned = 0): number {
  const o = flatten(
    place(outline, {
      x: c.throw * Math.cos(crank),
      y: c.throw * Math.sin(crank),
      turn: -crank / (c.pins - 1) + turned,
    }),
    2e-8,
  );
  const a = (2 * Math.PI * pin) / (2 * c.pins);
  const [x, y] = [c.circle * Math.cos(a), c.circle * Math.sin(a)];
  return distanceTo(o, x, y) - pair.pin;
}

describe('a disc of two lobes fewer than there are pins', () => {
  it('stands off each pin that it touches by what the pins are thinner, and further off the others', () => {
    for (const crank of [0, 0.37, 2.1, 5.2]) {
      const set = ringContacts(pair, 2, crank);
      const touching = Array.from(set.gaps, (g, i) => [g, i] as const).filter(([g]) => Number.isFinite(g));
      expect(touching.length).toBeGreaterThan(4);
      for (let i = 0; i < 20; i++) {
        const there = gapOnOutline(i, crank);
        if (Number.isFinite(set.gaps[i]!)) expect(there, `pin ${i} at ${crank}`).toBeCloseTo(set.gaps[i]!, 6);
        else expect(there, `pin ${i} at ${crank}`).toBeGreaterThan(4.9e-5);
      }
    }
  });

  it('comes nearer to a pin by its lever for each angle that it turns', () => {
    const crank = 0.37;
    const set = ringContacts(pair, 2, crank);
    const by = 2e-5;
    for (let i = 0; i < 20; i++) {
      if (!Number.isFinite(set.gaps[i]!)) continue;
      const slope = (gapOnOutline(i, crank, by) - gapOnOutline(i, crank, -by)) / (2 * by);
      expect(-slope, `pin ${i}`).toBeCloseTo(set.arms[i]!, 4);
      // The normal is a unit vector from the pin to the disc.
      expect(Math.hypot(set.nx[i]!, set.ny[i]!)).toBeCloseTo(1, 9);
    }
  });

  it('can be turned until the first pin holds it either way', () => {
    const crank = 2.1;
    const set = ringContacts(pair, 2, crank);
    const [back, on] = ringPlay(pair, 2, crank, set);
    expect(back).toBeLessThan(0);
    expect(on).toBeGreaterThan(0);
    for (const end of [back, on]) {
      const gaps = Array.from({ length: 20 }, (_, i) => gapOnOutline(i, crank, end));
      expect(Math.min(...gaps)).toBeCloseTo(0, 6);
    }
  });
});

describe('a disc of one lobe fewer', () => {
  it('is the disc of every cycloidal gear', () => {
    expect(ringDisc(c, 1).points.length).toBeGreaterThan(0);
    const reach = (o: Float64Array) => {
      let most = 0;
      for (let i = 0; i < o.length; i += 3) most = Math.max(most, Math.hypot(o[i]!, o[i + 1]!));
      return most;
    };
    // Nine lobes whole reach further out than eighteen that are cut off.
    expect(reach(ringDisc(c, 1).points as Float64Array)).toBeCloseTo(c.circle + c.throw - c.pin, 7);
    expect(reach(outline.points as Float64Array)).toBeLessThan(c.circle + c.throw - c.pin - 1e-5);
  });
});
