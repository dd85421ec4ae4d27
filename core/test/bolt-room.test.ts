import { describe, expect, it } from 'vitest';
import type { Check } from '../src/index.ts';
import { boltRoom, nearestCircle } from '../src/stage/bolt-room.ts';
import { insideOf } from '../src/reducer/cut-line.ts';
import { cold } from './helpers.ts';
import { body, made, ofKind } from './reducer-bench.ts';
import { checkOf, stageBench } from './stage-bench.ts';

const mm = 1e-3;

/** The check of screws in a kind as it starts, some of its parameters changed. */
function told(kind: string, id: string, change: Record<string, unknown>): Check {
  const { params } = ofKind(kind).stages[0]!;
  return checkOf(
    stageBench(kind, { ...(params as object) }, { torque: 1, torqueRms: 0.5, speed: 3 }, cold).report(change),
    id,
  );
}

describe('screws on a circle', () => {
  it('leave the least of three walls: outwards, inwards, and to one another with their heads', () => {
    const six = { bolts: 6, circle: 30 * mm, hole: 3.4 * mm };
    // (30 − 3.4)/2 − 4, and 20 − (30 + 3.4)/2.
    expect(boltRoom(six, 4 * mm, 30 * mm)).toBeCloseTo(9.3 * mm, 12);
    expect(boltRoom(six, 4 * mm, 20 * mm)).toBeCloseTo(3.3 * mm, 12);
    // On ⌀ 10 they stand 5 mm apart: heads of M3 are 5.5, and want 0.2 more; that is 0.7 short of the millimetre.
    expect(boltRoom({ ...six, circle: 10 * mm }, 0, 30 * mm)).toBeCloseTo(0.3 * mm, 12);
    // Holes that no listed head belongs to keep a millimetre between them.
    expect(boltRoom({ bolts: 2, circle: 10 * mm, hole: 1 * mm }, 0, 30 * mm)).toBeCloseTo(4.5 * mm, 12);
    expect(boltRoom({ ...six, bolts: 1, circle: 10 * mm }, 0, 30 * mm)).toBeCloseTo(3.3 * mm, 12);
  });

  it('are moved to the nearest circle that leaves a millimetre, in half millimetres', () => {
    expect(nearestCircle(20 * mm, 40 * mm, (c) => c - 23.2 * mm)).toBeCloseTo(24.5 * mm, 12);
    expect(nearestCircle(35 * mm, 40 * mm, (c) => 23.2 * mm - c)).toBeCloseTo(22 * mm, 12);
    expect(nearestCircle(90 * mm, 40 * mm, () => 1)).toBeCloseTo(40 * mm, 12);
    expect(nearestCircle(20 * mm, 40 * mm, () => 0)).toBeUndefined();
  });

  it.each(['spur', 'worm', 'bevel', 'cable', 'chain'])(
    'of a %s are told where they stand in teeth, bore or one another',
    (kind) => {
      for (const change of [{ boltCircle2: 0.4 }, { boltCircle2: 1 * mm }, { bolts2: 24, boltCircle2: 14 * mm }]) {
        const asked = { bolts2: 4, boltHole: 2.4 * mm, ...change };
        const check = told(kind, 'bolts', asked);
        expect([check.state, check.severity], `${kind} ${JSON.stringify(change)}`).toEqual(['fails', 'stop']);
        if (!check.mend) continue;
        expect(check.mend.path).toBe('boltCircle2');
        expect(told(kind, 'bolts', { ...asked, boltCircle2: check.mend.value }).state).toBe('holds');
      }
      expect(told(kind, 'bolts', { bolts2: 4, boltHole: 2.4 * mm, boltCircle2: 0.4 }).mend).toBeDefined();
    },
  );

  it('of a planetary carrier are told where they stand in the planets’ pins, and moved clear of them', () => {
    // Pins of 4 mm on 11.25 mm, screws of 3.2 on 10: the nearest two stand 15° apart.
    const apart = Math.sqrt(10 ** 2 + 11.25 ** 2 - 2 * 10 * 11.25 * Math.cos(Math.PI / 12));
    const check = told('planetary', 'flangeWall', { boltsC: 4, boltCircleC: 20 * mm });
    expect(check.state).toBe('fails');
    expect(check.figure).toBeCloseTo((apart - 3.6) * mm, 9);
    const mend = check.mend!;
    const clear = { boltsC: 4, boltCircleC: mend.value, ...mend.also };
    expect(told('planetary', 'flangeWall', clear).state).toBe('holds');
    // What is drawn keeps a millimetre round every hole.
    const v = ofKind('planetary');
    const r = made({ ...v, stages: [{ ...v.stages[0]!, params: { ...v.stages[0]!.params, ...clear } }] });
    const [plate] = body(r, 'stage1/plate-out').solid().prisms;
    const rounds = plate!.holes.map((h) => {
      const p = h.points;
      const [x, y] = [(p[0]! + p[3]!) / 2, (p[1]! + p[4]!) / 2];
      return { x, y, r: Math.hypot(p[0]! - x, p[1]! - y) };
    });
    expect(rounds).toHaveLength(3 + clear.boltsC);
    rounds.forEach((a, i) =>
      rounds
        .slice(i + 1)
        .forEach((b) => expect(Math.hypot(a.x - b.x, a.y - b.y) - a.r - b.r).toBeGreaterThan(1 * mm - 1e-9)),
    );
    for (const a of rounds) {
      const out = 1 + (a.r + 1 * mm) / Math.hypot(a.x, a.y);
      expect(insideOf(plate!.outer, a.x * out, a.y * out)).toBe(true);
    }
  });

  it('of a planetary carrier are fewer where so many find no circle', () => {
    const check = told('planetary', 'flangeWall', { boltsC: 24, boltCircleC: 20 * mm });
    expect(check.state).toBe('fails');
    expect(Number(check.mend!.also!['boltsC'])).toBeLessThan(24);
    expect(told('planetary', 'flangeWall', { boltCircleC: check.mend!.value, ...check.mend!.also }).state).toBe(
      'holds',
    );
  });

  it('of a planetary carrier stay as many as they are, where another circle holds them', () => {
    const wide = told('planetary', 'flangeWall', { boltsC: 13, boltCircleC: 29 * mm, boltHole: 1 * mm, pin: 2 * mm });
    expect([wide.state, wide.mend!.also]).toEqual(['fails', undefined]);
  });

  it('of a roller wave’s ring want a wall of their hole and a millimetre on either side', () => {
    // In the middle of a wall of 6 mm.
    expect(told('roller-wave', 'bolts', { boltsR: 4, boltHole: 3.2 * mm }).figure).toBeCloseTo(1.4 * mm, 9);
    const thin = told('roller-wave', 'bolts', { boltsR: 4, boltHole: 3.2 * mm, rim: 4 * mm });
    expect([thin.state, thin.mend!.path]).toEqual(['fails', 'rim']);
    expect(thin.mend!.value).toBeCloseTo(5.5 * mm, 12);
    expect(told('roller-wave', 'bolts', { boltsR: 4, boltHole: 3.2 * mm, rim: thin.mend!.value }).state).toBe('holds');
    // Heads that stand in one another are not parted by a thicker wall.
    const full = told('roller-wave', 'bolts', { boltsR: 24, boltHole: 9 * mm, rim: 12 * mm });
    expect([full.state, full.mend]).toEqual(['fails', undefined]);
    // Its holes lie outside of its hollows, by as much as is told.
    const v = ofKind('roller-wave');
    const r = made({
      ...v,
      stages: [{ ...v.stages[0]!, params: { ...v.stages[0]!.params, boltsR: 4, boltHole: 3.2 * mm } }],
    });
    const ring = r.bodies.find((b) => b.id.startsWith('stage1/ring'))!;
    const [profile, hole] = ring.solid().prisms[0]!.holes;
    const p = hole!.points;
    const middle = Math.hypot((p[0]! + p[3]!) / 2, (p[1]! + p[4]!) / 2);
    let far = 0;
    for (let i = 0; i < profile!.points.length; i += 3)
      far = Math.max(far, Math.hypot(profile!.points[i]!, profile!.points[i + 1]!));
    expect(middle - 1.6 * mm - far).toBeGreaterThan(1.4 * mm - 2e-6);
    expect(middle - 1.6 * mm - far).toBeLessThan(1.5 * mm);
  });
});
