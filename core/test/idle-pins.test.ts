import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  inUnits,
  mended,
  openLine,
  workingOf,
  type Check,
  type Reducer,
  type Variant,
} from '../src/index.ts';
import { insideOf } from '../src/reducer/cut-line.ts';
import { idleChecks } from '../src/reducer/idle-loads.ts';
import { slideOf } from '../src/reducer/idle-pins.ts';
import { preload, SCREWS } from '../src/shop/fasteners.ts';
import { factor } from '../src/shop/shelf.ts';
import { area, place, type Outline } from '../src/shape/outline.ts';
import { shelf } from './helpers.ts';
import { active, body, DEMOS, made, ofKind } from './reducer-bench.ts';

const yaw = active(DEMOS[0]!);
const lift = active(DEMOS[1]!);
const wing = DEMOS[2]!.variants.find((v) => v.id === 'b')!;

/** A variant with parameters of one of its stages changed. */
const withStage = (v: Variant, at: number, change: Record<string, unknown>): Variant => ({
  ...v,
  stages: v.stages.map((s, i) => (i === at ? { ...s, params: { ...s.params, ...change } } : s)),
});

const bare = withStage(yaw, 1, { idler: 'none' });

/** What is told of the pins of a demo's variant, by id. */
function told(v: Variant, name = 'Body yaw'): Map<string, Check> {
  const joint = DEMOS.find((j) => j.name === name)!;
  return new Map(analyseLine(joint, v, shelf, { bands: false }).checks.map((c) => [c.id, c]));
}

/** Outlines of a body where its first piece stands, holes after the outer ones, at some height of its own. */
function cutAt(r: Reducer, id: string, z: number): { outer: Outline; holes: readonly Outline[] } {
  const b = body(r, id);
  const f = b.places(0)[0]!;
  const at = { x: f.at[0], y: f.at[1], turn: Math.atan2(f.x[1], f.x[0]) };
  const p = b.solid().prisms.find((x) => x.from <= z && x.to >= z)!;
  return { outer: place(p.outer, at), holes: p.holes.map((h) => place(h, at)) };
}

const round = (x: number, y: number, r: number): [number, number][] =>
  Array.from({ length: 24 }, (_, i) => [x + r * Math.cos((i * Math.PI) / 12), y + r * Math.sin((i * Math.PI) / 12)]);

describe('a tensioner', () => {
  const r = made(yaw);
  const pin = r.housing!.pins[0]!;
  const plate = r.housing!.plates[pin.plate]!;
  const slide = slideOf(pin, plate, SCREWS.M3, yaw.housing!.material);

  it('stands on the cover, its pin on the idler’s axis from the wheel’s lower face through the slide', () => {
    const idler = body(r, 'stage2/idler').places(0)[0]!;
    const f = body(r, 'case/idler-pin-2').places(0)[0]!;
    expect(f.at[0]).toBeCloseTo(idler.at[0], 12);
    expect(f.at[1]).toBeCloseTo(idler.at[1], 12);
    expect(f.at[2]).toBeCloseTo(idler.at[2], 12);
    const [p] = body(r, 'case/idler-pin-2').solid().prisms;
    expect(f.at[2] + p!.to).toBeCloseTo(plate.to + slide.thick, 12);
    // The demo's housing: M3 in six millimetres of slide, a washer and four of plate.
    expect([slide.thick, slide.long, slide.deep]).toEqual([0.006, 0.01, 0.004]);
  });

  it('moves as far as the belt asks: pin in the cover’s slot, screws in the slide’s, the slide on the cover', () => {
    const cover = cutAt(r, 'case/cover', 1e-4);
    const slot = cover.holes.find((h) => insideOf(h, pin.x, pin.y))!;
    const own = cutAt(r, 'case/slide-idler-2', 1e-4);
    const screws = body(r, 'case/screw-idler-2')
      .places(0)
      .map((f) => f.at);
    expect(pin.pin.on).toBeGreaterThan(1e-3);
    for (const by of [-pin.pin.back, 0, pin.pin.on / 2, pin.pin.on]) {
      const [dx, dy] = [by * Math.cos(pin.turn), by * Math.sin(pin.turn)];
      for (const [x, y] of round(pin.x + dx, pin.y + dy, pin.pin.diameter / 2)) expect(insideOf(slot, x, y)).toBe(true);
      for (const [sx, sy] of screws) {
        const through = own.holes.find((h) => insideOf(h, sx - dx, sy - dy))!;
        for (const [x, y] of round(sx - dx, sy - dy, SCREWS.M3.d / 2)) expect(insideOf(through, x, y)).toBe(true);
        // Their heads rest on it, and their inserts sit in the cover beside the slot.
        for (const [x, y] of round(sx - dx, sy - dy, SCREWS.M3.head / 2)) expect(insideOf(own.outer, x, y)).toBe(true);
        for (const [x, y] of round(sx, sy, slide.hole / 2)) expect(insideOf(slot, x, y)).toBe(false);
      }
      for (let i = 0; i < own.outer.points.length; i += 3)
        expect(insideOf(cover.outer, own.outer.points[i]! + dx, own.outer.points[i + 1]! + dy)).toBe(true);
    }
    // The slot's ends are where the pin's way ends, with half of the housing's gap round it.
    const gap = yaw.housing!.gap;
    const wide = pin.pin.diameter + gap;
    expect(Math.abs(area(slot))).toBeCloseTo(wide * (pin.pin.on + pin.pin.back) + (Math.PI * wide * wide) / 4, 9);
  });

  it('belongs to the parts: a slide, a pin, two inserts, two screws and their washers', () => {
    const ids = ['slide-idler-2', 'idler-pin-2', 'insert-idler-2', 'screw-idler-2', 'washer-idler-2'];
    expect(ids.map((id) => body(r, `case/${id}`).part.quantity)).toEqual([1, 1, 2, 2, 2]);
    const [with_, without] = [yaw, bare].map((v) => analyseLine(DEMOS[0]!, v, shelf, { bands: false }));
    const mass = (a: typeof with_) => a!.figures.find((f) => f.id === 'mass')!.value;
    // 19 g of idler, of slide, pin and screws some grams, the larger cover the rest.
    expect(mass(with_) - mass(without)).toBeGreaterThan(0.022);
    expect(mass(with_) - mass(without)).toBeLessThan(0.045);
  });

  describe('on a cover of aluminium', () => {
    const aluminium = shelf.materials.find((m) => m.id === 'en-aw-6082')!;
    const hard: Variant = { ...yaw, housing: { ...yaw.housing!, material: { ...aluminium } } };
    const own = made(hard);

    it('is screwed into threads cut there: no insert is melted in, the holes are drilled for the thread', () => {
      expect(own.bodies.some((b) => b.id.startsWith('case/insert'))).toBe(false);
      const cover = cutAt(own, 'case/cover', 1e-4);
      const screws = body(own, 'case/screw-idler-2');
      for (const { at } of screws.places(0)) {
        const hole = cover.holes.find((h) => insideOf(h, at[0], at[1]))!;
        // M3 by a pitch of 0.5: drilled 2.5.
        expect(Math.abs(area(hole))).toBeCloseTo((Math.PI / 4) * 2.5e-3 ** 2, 12);
      }
      expect(screws.part.note).toContain('in a thread of the cover');
      expect(screws.joins).toEqual(['case/cover']);
      expect(inUnits(body(own, 'case/cover').part.note)).toContain('2 threads M3, drilled 2.5 mm, for the tensioner');
    });

    it('is held by all that the screws are tightened to, less what settles', () => {
      const { limit, why } = told(hard).get('idler-slide-2')!;
      // 70 % of 580 MPa on 5.03 mm²: no creep takes of it, and 3.5 mm of thread in 250 MPa keep twice as much.
      expect(limit / (2 * factor(shelf, 'clamp.friction') * 0.9 * 0.7 * 580 * 5.03)).toBeCloseTo(1, 9);
      expect(inUnits(why)).not.toMatch(/insert|creep/);
      const foil = { ...aluminium, strength: 60e6 };
      const soft = told({ ...hard, housing: { ...hard.housing!, material: foil } }).get('idler-slide-2')!;
      // Of a softer one the threads strip first: 3 mm wide, 3.5 deep, seven eighths of it, sheared.
      const strips = ((7 / 8) * Math.PI * 3e-3 * 3.5e-3 * 60e6) / Math.sqrt(3);
      expect(soft.limit / (2 * factor(shelf, 'clamp.friction') * 0.9 * strips)).toBeCloseTo(1, 9);
    });
  });

  it('is wanted where shafts run in plates, and the mend gives it', () => {
    const check = told(bare).get('tension-2')!;
    expect([check.state, check.figure]).toEqual(['fails', 0]);
    // Half a hundredth of the centres.
    const centre = made(bare).layout.stages[1]!.ports.output.at[0];
    expect(check.limit).toBeCloseTo(0.005 * centre, 9);
    expect(check.mend!.path).toBe('stages.1.idler');
    const next = mended(bare, check.mend!, shelf);
    expect(next.stages[0]).toBe(bare.stages[0]);
    expect(told(next).get('tension-2')!.state).toBe('holds');
    expect(told(next).get('idler-pin-2')!.state).toBe('holds');
  });

  it('is not where the motor is moved: the idler’s pin is pressed into its plate', () => {
    const v = withStage(lift, 0, { idler: 'outside', idlerDiameter: 0.02, idlerPush: 3e-3 });
    const one = made(v);
    const [p] = one.housing!.pins;
    expect([p!.slides, p!.plate]).toEqual([false, 0]);
    expect(one.bodies.some((b) => b.id.startsWith('case/slide'))).toBe(false);
    const own = cutAt(one, 'case/plate-motor', 1e-4).holes.find((h) => insideOf(h, p!.x, p!.y))!;
    expect(Math.abs(area(own))).toBeCloseTo((Math.PI * p!.pin.diameter ** 2) / 4, 12);
    expect([...told(v, 'Neck lift').keys()].filter((id) => id.startsWith('tension'))).toEqual([]);
    expect(told(v, 'Neck lift').get('idler-slide-1')).toBeUndefined();
  });

  it('cannot be reached between two stages: the belt there belongs first or last', () => {
    const middle = { ...yaw, stages: [yaw.stages[0]!, { ...yaw.stages[1]!, id: 'm' }, yaw.stages[1]!] };
    const opened = openLine(middle.stages, shelf).all;
    if (!opened.ok) throw new Error(opened.problem.what);
    const checks = idleChecks(made(middle), middle, shelf);
    const second = checks.find((c) => c.id === 'tension-2')!;
    expect([second.state, second.figure, second.mend]).toEqual(['fails', 0, undefined]);
    expect(checks.find((c) => c.id === 'tension-3')!.state).toBe('holds');
    expect(made(middle).housing!.pins.map((p) => [p.k, p.plate, p.slides])).toEqual([
      [1, 1, false],
      [2, 3, true],
    ]);
  });
});

describe('a pin as thick as its idler', () => {
  it.each([
    ['belt', { idler: 'outside', idlerDiameter: 0.02, idlerBore: 0.02 }],
    ['chain', { idler: 'outside', idlerTeeth: 11, idlerBore: 0.03 }],
  ])('is refused for a %s, with the field that decides', (id, change) => {
    const stage = ofKind(id).stages[0]!;
    const opened = openLine(
      [{ ...stage, params: { ...stage.params, links: 80, setBy: id === 'chain' ? 'links' : 'length', ...change } }],
      shelf,
    ).all;
    expect(opened.ok).toBe(false);
    if (!opened.ok) expect(opened.problem.what).toMatch(/pin/);
  });
});

it('a pin that leaves just half a millimetre of its idler stands', () => {
  const stage = ofKind('belt').stages[0]!;
  const with_ = (idlerDiameter: number) => ({
    ...stage,
    params: { ...stage.params, idler: 'outside', idlerBore: 3e-3, idlerDiameter },
  });
  expect(openLine([with_(4e-3)], shelf).all.ok).toBe(true);
  expect(openLine([with_(3.9e-3)], shelf).all.ok).toBe(false);
});

describe('a chain behind the first stage', () => {
  const chain = ofKind('chain').stages[0]!;
  const behind = (change: Record<string, unknown>): Variant => ({
    ...yaw,
    stages: [
      yaw.stages[0]!,
      { ...chain, id: 'c', params: { ...chain.params, bore1: 0.008, links: 80, setBy: 'links', ...change } },
    ],
  });

  it('takes its elongation up by an idler, or by nothing where it is said to be never', () => {
    const bare = told(behind({ takeUp: 'centre' })).get('tension-2')!;
    expect([bare.state, bare.figure]).toEqual(['fails', 0]);
    expect(bare.mend!.also).toMatchObject({ 'stages.1.idlerTeeth': chain.params.z1 });
    expect(told(mended(behind({ takeUp: 'centre' }), bare.mend!, shelf)).get('tension-2')!.state).toBe('holds');
    expect(told(behind({ takeUp: 'never' })).get('tension-2')).toBeUndefined();
  });

  it('at the motor moves no further than its slots, which are for laying it on: its idler takes up the rest', () => {
    const { output: _, ...base } = yaw;
    const alone = (change: Record<string, unknown>): Variant => ({
      ...base,
      stages: [{ ...chain, params: { ...chain.params, takeUp: 'centre', links: 80, setBy: 'links', ...change } }],
    });
    const v = alone({});
    const port = made(v).layout.stages[0]!.ports;
    const check = told(v).get('tension-1')!;
    expect([check.state, check.figure, check.limit]).toEqual(['fails', port.input.slide, port.takeUp!.needs]);
    const next = mended(v, check.mend!, shelf);
    expect(told(next).get('tension-1')!.state).toBe('holds');
    expect(made(next).housing!.pins.map((p) => [p.plate, p.slides])).toEqual([[1, true]]);
  });

  it('moves its first idler; a second one runs on a pin in the plate below', () => {
    const two = {
      idler: 'outside',
      idlerAlong: 0.3,
      idler2: 'outside',
      idler2Teeth: 15,
      idler2Along: 0.7,
      idler2Push: 6e-3,
    };
    const r = made(behind({ ...two, links: 100, takeUp: 'centre' }));
    expect(r.housing!.pins.map((p) => [p.pin.id, p.plate, p.slides])).toEqual([
      ['idler', 2, true],
      ['idler2', 1, false],
    ]);
    for (const id of ['idler', 'idler2']) {
      const [wheel, pin] = [`stage2/${id}`, `case/${id}-pin-2`].map((x) => body(r, x).places(0)[0]!.at);
      expect(Math.hypot(wheel![0] - pin![0], wheel![1] - pin![1])).toBeLessThan(1e-12);
    }
  });
});

describe('what an idler pulls', () => {
  it('is borne by its pin and its slide, by hand', () => {
    const checks = told(wing, 'Wing root');
    const r = made(wing);
    const [p] = r.housing!.pins;
    const plate = r.housing!.plates[2]!;
    const pull = checks.get('idler-pin-2')!.figure;
    // Both sides of its wrap pull, so that it is less than the tight side by the angle.
    expect(pull / (2 * Math.sin(wrapOf(wing) / 2))).toBeGreaterThan(79);
    const lever = plate.to - (p!.from + p!.to) / 2;
    const stands = 0.5 * 70e6;
    // Three millimetres of pin, six of slide: the mouth of the hole gives way before the pin bends.
    const crush = (stands * 3e-3 * 6e-3 ** 2) / (6 * lever + 4 * 6e-3);
    expect(checks.get('idler-pin-2')!.limit / crush).toBeCloseTo(1, 9);
    expect((450e6 * Math.PI * 3e-3 ** 3) / (32 * lever)).toBeGreaterThan(crush);
    expect(checks.get('idler-slide-2')!.figure).toBe(pull);
    // Two M3, each pressing what half of 35 MPa under its washer lets it or what an insert of 4 by 4 mm keeps in, less creep.
    const each =
      Math.min(preload(SCREWS.M3, 0.5 * 35e6), (Math.PI * 4e-3 * 4e-3 * 0.5 * 35e6) / Math.sqrt(3)) *
      factor(shelf, 'clamp.kept');
    expect(checks.get('idler-slide-2')!.limit / (2 * factor(shelf, 'clamp.friction') * each)).toBeCloseTo(1, 9);
    // Of a metal, which does not creep, the hole bears all of its strength, and the pin bends first.
    const metal = shelf.materials.find((m) => m.made !== 'printed' && !m.creep && m.strength > 200e6)!;
    const hard = told({ ...wing, housing: { ...wing.housing!, material: { ...metal } } }, 'Wing root').get(
      'idler-pin-2',
    )!;
    expect(
      hard.limit / Math.min((450e6 * Math.PI * 3e-3 ** 3) / (32 * lever), (crush * metal.strength) / stands),
    ).toBeCloseTo(1, 9);
    expect(hard.why).not.toContain('creeps');
  });

  it('asks for a thicker pin where the belt pulls harder', () => {
    const taut = withStage(wing, 1, { idlerPush: 4e-3, tension: 120 });
    const check = told(taut, 'Wing root').get('idler-pin-2')!;
    expect(check.state).toBe('fails');
    expect(check.mend!.path).toBe('stages.1.idlerBore');
    expect(told(mended(taut, check.mend!, shelf), 'Wing root').get('idler-pin-2')!.state).not.toBe('fails');
  });
});

/** Wrap on the idler of a variant's second stage, as its working tells. */
function wrapOf(v: Variant): number {
  const opened = openLine(v.stages, shelf).all;
  if (!opened.ok) throw new Error(opened.problem.what);
  const { figures } = opened.value[1]!.report({ torque: 1, torqueRms: 1, speed: 1 });
  return workingOf(figures.find((f) => f.id === 'idlerPull')!)!.terms.find((t) => t.symbol === 'β')!.value as number;
}
