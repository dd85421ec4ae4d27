import { describe, expect, it } from 'vitest';
import {
  inUnits,
  area,
  makeShelf,
  readShopEdits,
  sectionFactors,
  stageKind,
  uncertain,
  withFactor,
  factor,
  SECTIONS,
  type StageKind,
} from '../src/index.ts';
import type { BeltParams } from '../src/stage/belt/index.ts';
import { pulleyOutline } from '../src/stage/belt/pulley.ts';
import { demo, shelf } from './helpers.ts';
import { assemblyOf, drawingOf, kinematicsOf, partsOf, screenOf } from './stage-bench.ts';

const belt = stageKind('belt') as StageKind<BeltParams>;
const params = (index = 0): BeltParams => ({ ...(demo().variants[0]!.stages[index]!.params as unknown as BeltParams) });
const parts = (p: BeltParams) => {
  const made = partsOf(belt, p, shelf);
  if (!made.ok) throw new Error(made.problem.what);
  return made.value;
};

describe('belt parts', () => {
  it('weigh and cost what the stage says, with a pair of bearings', () => {
    for (const index of [0, 1]) {
      const p = params(index);
      const stage = screenOf(belt, p, { torque: 0, torqueRms: 0, speed: 0 }, shelf);
      if (!stage.ok) throw new Error(stage.problem.what);
      const sum = (key: 'mass' | 'money') => parts(p).reduce((t, x) => t + x[key], 0);
      expect(sum('mass')).toBeCloseTo(stage.value.mass, 12);
      expect(sum('money')).toBeCloseTo(stage.value.money, 12);
      expect(parts(p).find((x) => x.id === 'bearings')!.money).toBe(factor(shelf, 'price.bearing'));
    }
  });

  it('have closed outlines with the bore inside the profile', () => {
    for (const part of parts(params()).filter((x) => x.curves.length > 0)) {
      expect(part.curves.every((c) => c.outline.closed)).toBe(true);
      const [profile, bore] = part.curves;
      if (bore) expect(area(bore.outline)).toBeLessThan(area(profile!.outline));
    }
  });

  it('give printed pulleys the allowance and flanges, bought ones neither', () => {
    const printed = parts({ ...params(), made1: 'printed', made2: 'printed' });
    const bought = parts({ ...params(), made1: 'bought', made2: 'bought' });
    const size = (list: ReturnType<typeof parts>, id: string) =>
      area(list.find((x) => x.id === id)!.curves[0]!.outline);
    expect(size(printed, 'driver')).toBeLessThan(size(bought, 'driver'));
    expect(printed.filter((x) => x.id.endsWith('-flange'))).toHaveLength(2);
    expect(bought.filter((x) => x.id.endsWith('-flange'))).toHaveLength(0);
    expect(inUnits(printed.find((x) => x.id === 'driver')!.note)).toContain('moved in by 0.05 mm');
    expect(bought.find((x) => x.id === 'driver')!.note).not.toContain('moved in');
  });

  it('name the belt by what is bought, and the idler where there is one', () => {
    const belt = parts(params()).find((x) => x.id === 'belt')!;
    expect([belt.name, inUnits(belt.note)]).toEqual(['Belt, closed', 'R3, 84 teeth (252 mm), 6 mm wide']);
    expect(parts({ ...params(), closure: 'open', centre: 0.07 }).find((x) => x.id === 'belt')!.name).toBe(
      'Belt, open-ended',
    );
    expect(inUnits(parts({ ...params(), idler: 'outside' }).find((x) => x.id === 'idler')!.note)).toContain('22 mm');
    expect(parts(params()).some((x) => x.id === 'idler')).toBe(false);
  });

  it('refuse what cannot be drawn', () => {
    expect(partsOf(belt, { ...params(), beltTeeth: 20 }, shelf).ok).toBe(false);
    expect(
      drawingOf(belt, { ...params(), z1: 6, bore1: 1e-3 }, 0, { shelf, duty: { torque: 0, torqueRms: 0, speed: 0 } })
        .ok,
    ).toBe(partsOf(belt, { ...params(), z1: 6, bore1: 1e-3 }, shelf).ok);
  });

  it('go together with a caution where a hand is at risk', () => {
    const steps = assemblyOf(belt, params());
    expect(steps.find((s) => /bearings/.test(s.do))!.caution).toMatch(/do not hammer/);
    expect(assemblyOf(belt, { ...params(), hold2: 'glue' }).some((s) => /Gloves/.test(s.caution ?? ''))).toBe(true);
    expect(assemblyOf(belt, { ...params(), closure: 'open' }).some((s) => /Clamp one end/.test(s.do))).toBe(true);
  });
});

describe('belt tables', () => {
  it('offer the stocked belts round the present one, each of which can be taken', () => {
    const p = params();
    const stock = belt.tables!(p, shelf).find((t) => t.id === 'stock')!;
    const teeth = stock.rows.map((r) => r.cells[0] as number);
    expect([...teeth].sort((a, b) => a - b)).toEqual(teeth);
    expect(stock.rows.filter((r) => r.current).map((r) => r.cells[0])).toEqual([84]);
    for (const row of stock.rows) {
      const made = screenOf(
        belt,
        { ...p, [row.take!.path]: row.take!.value },
        { torque: 1, torqueRms: 1, speed: 1 },
        shelf,
      );
      expect(made.ok, String(row.cells[0])).toBe(true);
    }
  });

  it('lay out every section with its figures from the shop', () => {
    const doubled = withFactor(shelf, 'belt.R3.tension', 2 * factor(shelf, 'belt.R3.tension'));
    const cell = (s: typeof shelf) =>
      belt.tables!(params(), s)
        .find((t) => t.id === 'sections')!
        .rows.find((r) => r.cells[0] === 'R3')!.cells[2] as number;
    expect(cell(doubled)).toBe(2 * cell(shelf));
    expect(belt.tables!(params(), shelf).find((t) => t.id === 'sections')!.rows).toHaveLength(SECTIONS.length);
  });
});

describe('belt candidates', () => {
  it('are whole parameters that the schema takes and that can be laid', () => {
    let count = 0;
    for (const p of belt.candidates({ ratio: 3.2, torque: 2, size: 0.2, shelf })) {
      const made = screenOf(belt, p, { torque: 2, torqueRms: 2, speed: 1 }, shelf);
      if (made.ok) expect(made.value.outside).toBeLessThan(0.23);
      if (++count > 120) break;
    }
    expect(count).toBeGreaterThan(30);
  });

  it('are none where nothing fits the size', () => {
    expect([...belt.candidates({ ratio: 5, torque: 2, size: 0.01, shelf })]).toEqual([]);
  });
});

describe('belt kinematics', () => {
  it('count events per turn of the output', () => {
    const k = kinematicsOf(belt, params());
    expect(k.ratio).toBe(3.5);
    const order = (name: string) => k.orders.find((o) => o.name === name)!.perTurn;
    expect(order('belt teeth')).toBe(56);
    expect(order('driving pulley')).toBe(3.5);
    expect(order('belt')).toBeCloseTo(56 / 84, 12);
  });
});

describe('the shop', () => {
  it('has sections whose smallest pulley can be cut, with ratings and stock in order', () => {
    for (const s of SECTIONS) {
      expect(pulleyOutline(s, s.minTeeth).ok, s.id).toBe(true);
      for (const list of [s.stock, s.widths]) expect([...list].sort((a, b) => a - b)).toEqual([...list]);
      expect(new Set(s.stock).size).toBe(s.stock.length);
      for (const f of sectionFactors(s)) {
        expect(f.low).toBeLessThan(f.value);
        expect(f.high).toBeGreaterThan(f.value);
        expect(f.source.length).toBeGreaterThan(5);
      }
      // The tooth has to go into its space, at the pitch line and below.
      expect(s.space.depth).toBeGreaterThanOrEqual(s.toothHeight);
      expect(s.offset).toBeLessThan(s.height - s.toothHeight);
    }
  });

  it('has factors in order, each with a source', () => {
    for (const f of Object.values(shelf.factors)) {
      expect(f.low <= f.value && f.value <= f.high, f.id).toBe(true);
      expect(f.source.length, f.id).toBeGreaterThan(5);
    }
  });

  it('lays edits over what ships, and shipped things stay where nothing was edited', () => {
    const own = { ...shelf.motors[0]!, id: 'mine', name: 'Mine' };
    const changed = { ...shelf.motors[1]!, price: 99 };
    const s = makeShelf({ factors: { 'belt.tooth': { value: 5e7, low: 4e7, high: 6e7 } }, motors: [own, changed] });
    expect(factor(s, 'belt.tooth')).toBe(5e7);
    expect(s.factors['belt.tooth']!.source).toBe('set in the shop');
    expect(s.motors.filter((m) => m.id === changed.id).map((m) => m.price)).toEqual([99]);
    expect(s.motors).toHaveLength(shelf.motors.length + 1);
    expect(factor(s, 'belt.jump')).toBe(factor(shelf, 'belt.jump'));
  });

  it('sets one factor aside for a trial, and knows which are uncertain', () => {
    expect(factor(withFactor(shelf, 'gravity', 1), 'gravity')).toBe(1);
    expect(factor(withFactor(shelf, 'gravity', 1), 'belt.tooth')).toBe(factor(shelf, 'belt.tooth'));
    expect(uncertain(shelf, ['gravity', 'belt.tooth', 'belt.tooth', 'none']).map((f) => f.id)).toEqual(['belt.tooth']);
    expect(() => factor(shelf, 'no.such')).toThrow();
  });
});

describe('changes to the shop, read back', () => {
  it('are taken when whole, refused with the place when not', () => {
    expect(readShopEdits(undefined)).toEqual({ ok: true, value: {} });
    const edits = {
      factors: { gravity: { value: 9.79, low: 9.79, high: 9.79 } },
      motors: [shelf.motors[0]!],
      instruments: [shelf.instruments[0]!],
    };
    const read = readShopEdits(JSON.parse(JSON.stringify(edits)));
    expect(read.ok && factor(makeShelf(read.value), 'gravity')).toBe(9.79);
    const bad = (raw: unknown) => {
      const r = readShopEdits(raw);
      return r.ok ? 'taken' : (r.problem.place ?? 'refused');
    };
    expect(bad({ factors: { gravity: { value: 9, low: 10, high: 11 } } })).toBe('factors.gravity');
    expect(bad({ factors: { gravity: { value: '9', low: 9, high: 9 } } })).toBe('factors.gravity.value');
    expect(bad({ motors: [{ type: 'steam' }] })).toBe('motors.0.type');
    expect(bad({ instruments: [{ id: 'x' }] })).toMatch(/^instruments\.0/);
    expect(bad([])).not.toBe('taken');
    expect(bad('junk')).not.toBe('taken');
  });
});

describe('seats, holds and idlers', () => {
  it('draws each hold and cuts the bearing seat, and refuses one that does not fit', () => {
    const p = { ...params(), seat2: 0.016 };
    expect(
      parts(p)
        .find((x) => x.id === 'driven')!
        .curves.map((c) => c.layer),
    ).toContain('bearing-seat');
    const keys = (q: BeltParams) => {
      const d = drawingOf(belt, q, 0, { shelf, duty: { torque: 1, torqueRms: 1, speed: 1 } });
      return d.ok ? d.value.find((l) => l.id === 'hubs')!.items.map((i) => i.key) : [];
    };
    expect(keys(p)).toEqual(
      expect.arrayContaining(['h1-screw1', 'h1-screw2', 'h2-bolt3', 'h2-seat', 'h1-flange', 'h2-flange']),
    );
    expect(keys({ ...p, hold1: 'key' })).toContain('h1-key');
    for (const seat2 of [0.005, 0.05]) expect(partsOf(belt, { ...params(), seat2 }, shelf).ok).toBe(false);
  });

  it('weighs and pays for an idler', () => {
    const sum = (idler: BeltParams['idler']) =>
      parts({ ...params(), idler }).reduce((t, x) => ({ mass: t.mass + x.mass, money: t.money + x.money }), {
        mass: 0,
        money: 0,
      });
    const stage = screenOf(belt, { ...params(), idler: 'outside' }, { torque: 0, torqueRms: 0, speed: 0 }, shelf);
    expect(sum('outside').mass).toBeGreaterThan(sum('none').mass);
    expect(stage.ok && stage.value.mass).toBeCloseTo(sum('outside').mass, 12);
    expect(stage.ok && stage.value.money).toBeCloseTo(sum('outside').money, 12);
  });
});
