import Kernel, { type ManifoldToplevel } from 'manifold-3d';
import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { goingTogether, type GoingTogether } from '../src/assembly/going-together.ts';
import {
  inUnits,
  openLine,
  readJointFile,
  reducerOf,
  stageKinds,
  usualHousing,
  type Body,
  type Variant,
} from '../src/index.ts';
import { HOME } from '../src/reducer/frame.ts';
import { orderOf, type Order } from '../src/reducer/order.ts';
import { circle } from '../src/shape/outline.ts';
import { prism, type Prism } from '../src/shape/solid.ts';
import { shelf } from './helpers.ts';
import { fitted, keyedLine, ofKind, twoOf } from './reducer-bench.ts';

let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await Kernel();
  kernel.setup();
});

const variants = ['body-yaw', 'neck-lift', 'wing-root', 'tide-dial'].flatMap((name) => {
  const r = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value.variants.map((v) => ({ name: `${r.value.name} ${v.name}`, variant: v }));
});
const named = (name: string): Variant => variants.find((v) => v.name === name)!.variant;

function run<T>(steps: Generator<{ share: number }, T>): T {
  let last = 0;
  let step = steps.next();
  for (; !step.done; step = steps.next()) {
    expect(step.value.share).toBeGreaterThanOrEqual(last);
    last = step.value.share;
  }
  return step.value;
}

const together = (v: Variant): GoingTogether => {
  const made = run(goingTogether(kernel, v, shelf));
  if (!made.ok) throw new Error(made.problem.what);
  return made.value;
};

/** A round thing on the axis, from one height to another, mm, with a hole. */
function thing(id: string, outer: number, inner: number, from: number, to: number, more: Prism[] = []): Body {
  const mm = 1e-3;
  const holes = inner > 0 ? [circle(0, 0, (inner / 2) * mm)] : [];
  return {
    id,
    of: 'case',
    stage: -1,
    part: { name: id, material: '', made: 'bought', mass: 0, money: 0, note: '', quantity: 1 },
    turns: 'fixed',
    speed: 0,
    flexes: false,
    solid: () => ({ prisms: [prism(circle(0, 0, (outer / 2) * mm), from * mm, to * mm, holes), ...more] }),
    places: () => [HOME],
    apart: [[0, 0, 0]],
  };
}
const order = (bodies: Body[]): Order => run(orderOf(kernel, bodies, 'base'));
const ways = (o: Order) => o.moves.map((m) => `${m.unit.id} ${m.way}`);

describe('an order found by taking apart', () => {
  it('puts a nut on a bolt through a plate last, and the bolt through before it', () => {
    const bolt = thing('x/screw', 6, 0, -12, 10, [prism(circle(0, 0, 5e-3), 10e-3, 14e-3)]);
    const found = order([
      thing('base', 40, 6.4, 0, 5),
      bolt,
      thing('lid', 40, 6.4, 5, 10),
      thing('x/nut', 11, 6, -6, 0),
    ]);
    expect(found.held).toEqual([]);
    expect(ways(found)).toEqual(['base down', 'lid down', 'x/screw down', 'x/nut up']);
  });

  it('puts what lies inside in before what closes it', () => {
    const found = order([
      thing('base', 40, 0, -2, 0),
      thing('lid', 40, 0, 10, 12),
      thing('wheel', 30, 0, 2, 8),
      thing('wall', 40, 34, 0, 10),
    ]);
    expect(found.held).toEqual([]);
    const at = (id: string) => ways(found).indexOf(`${id} down`);
    expect(at('lid')).toBe(3);
    expect(at('base')).toBe(0);
  });

  it('says of a wheel between two smaller holes what is in its way on either side', () => {
    // A box of one piece: floor and lid with holes that the wheel does not pass.
    const mm = 1e-3;
    const box = thing('base', 40, 20, 0, 2, [
      prism(circle(0, 0, 20 * mm), 2 * mm, 8 * mm, [circle(0, 0, 16 * mm)]),
      prism(circle(0, 0, 20 * mm), 8 * mm, 10 * mm, [circle(0, 0, 10 * mm)]),
    ]);
    const found = order([box, thing('wheel', 30, 0, 3, 7)]);
    expect(found.held).toEqual([{ unit: expect.objectContaining({ id: 'wheel' }), up: ['base'], down: ['base'] }]);
    expect(order([box, thing('wheel', 19, 0, 3, 7)]).held).toEqual([]);
  });

  it('presses a bearing into its plate first, but not where what is under the plate would be in its way', () => {
    const stack = (more: Body[]) =>
      ways(
        order([
          thing('base', 40, 0, 0, 2),
          // A plate with a seat of 20 mm that opens downwards, and a lip behind it.
          thing('case/plate-2', 40, 20, 10, 15, [prism(circle(0, 0, 20e-3), 15e-3, 17e-3, [circle(0, 0, 8e-3)])]),
          thing('case/bearing', 20, 8, 10, 15),
          thing('wheel', 30, 8, 3, 6),
          ...more,
        ]),
      );
    const pressed = stack([thing('post', 38, 36, 2, 10)]);
    expect(pressed.slice(-2)).toEqual(['case/bearing down', 'case/plate-2 down']);
    // A clip above the bearing, within the lip's hole: the bearing has to be there before it.
    const clipped = stack([thing('post', 38, 36, 2, 10), thing('clip', 12, 8, 15.2, 16)]);
    expect(clipped.slice(-3)).toEqual(['case/bearing down', 'clip down', 'case/plate-2 down']);
  });

  it('takes what fits as what slides, and a press of a tenth as what does not', () => {
    const round = (outer: number) => order([thing('base', 40, 20, 0, 10), thing('bush', outer, 0, -4, 14)]).held;
    expect(round(20)).toEqual([]);
    expect(round(20.1)).toHaveLength(1);
  });

  it('never puts a part through what stands there already: every demo line that is housed', () => {
    for (const { name, variant } of variants) {
      const v = { ...variant, housing: variant.housing ?? usualHousing(shelf) };
      const all = openLine(v.stages, shelf).all;
      if (!all.ok) continue;
      const made = reducerOf(v, all.value, shelf);
      if (!made.ok || !made.value.housing) continue;
      const found = run(orderOf(kernel, made.value.bodies, 'case/plate-motor'));
      const ids = new Set([...found.moves.map((m) => m.unit.body), ...found.held.map((h) => h.unit.body)]);
      for (const b of made.value.bodies)
        if (b.id !== 'motor/shaft') expect(ids.has(b.id), `${name} ${b.id}`).toBe(true);
      // Nothing that closes is there before what it closes.
      const at = (id: string) => found.moves.findIndex((m) => m.unit.body === id);
      if (found.held.length === 0) {
        expect(at('case/plate-motor')).toBe(0);
        const inside = found.moves.findLastIndex((m) => m.unit.body.startsWith('stage') && m.way === 'down');
        expect(at('case/cover'), name).toBeGreaterThan(inside);
      }
    }
  });
});

describe('going together', () => {
  it('is found whole for every active variant of the demo that is housed', () => {
    for (const name of ['Body yaw A', 'Neck lift A', 'Wing root B']) {
      const { steps, stuck } = together(named(name));
      expect(stuck, name).toEqual([]);
      expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
      for (const s of steps) expect(inUnits(s.do), s.id).not.toMatch(/undefined|NaN|\|/);
    }
  });

  it('screws the motor on before the stage that hides its screws, and tightens the stack last', () => {
    const { steps } = together(named('Wing root B'));
    const at = (body: string) => steps.findIndex((s) => s.body === body);
    expect(at('motor/body')).toBeLessThan(at('case/screw-motor'));
    expect(at('case/screw-motor')).toBeLessThan(at('stage1/plate-in'));
    expect(steps.at(-1)!.body).toBe('case/nut');
    expect(inUnits(steps.at(-1)!.tool!)).toMatch(/^spanner 5.5 mm, tighten to 0\.\d+ N·m$/);
    expect(inUnits(steps[at('case/screw-motor')]!.tool!)).toMatch(/key 2\.5 mm/);
  });

  it('presses every bearing into a plate that stands, or just before that goes on, and screws the motor on at once', () => {
    for (const name of ['Body yaw A', 'Neck lift A', 'Wing root B']) {
      const { steps } = together(named(name));
      const ids = steps.map((s) => s.body);
      expect(ids[ids.indexOf('motor/body') + 1], name).toBe('case/screw-motor');
      steps.forEach((s, i) => {
        if (!s.body.startsWith('case/bearing')) return;
        const said = inUnits(s.do);
        const plate = ids.findIndex((id, k) => k > i && !/^case\/(bearing|insert)/.test(id));
        if (/before that goes on/.test(said)) expect(ids[plate], `${name} ${s.id}`).toMatch(/^case\/(plate-\d|cover)$/);
        else expect(said, `${name} ${s.id}`).toMatch(/ in the (motor plate|plate \d|cover)/);
      });
    }
  });

  it('snaps a shaft’s lower ring on before its wheel goes down it, the upper one before the plate, and warns where none fit', () => {
    const { steps } = together(named('Body yaw A'));
    const at = (body: string) => steps.findIndex((s) => s.body === body);
    const [lower, upper] = ['lower', 'upper'].map((side) => at(`case/keeper-1-${side}`));
    expect(lower).toBe(at('case/shaft-1') + 1);
    expect(lower).toBeLessThan(at('stage1/driven'));
    expect(upper).toBeGreaterThan(at('stage1/driven'));
    expect(upper).toBeLessThan(at('case/plate-2'));
    expect(steps[lower!]!.caution).toContain('Eye protection');
    expect(steps[at('case/shaft-1')]!.caution).toBeUndefined();
    const v = named('Body yaw A');
    const close = together({ ...v, housing: { ...v.housing!, gap: 5e-4 } }).steps;
    expect(close.find((s) => s.body === 'case/shaft-1')!.caution).toContain('Nothing keeps it along its axis');
  });

  it('melts inserts into the cover and presses the idler’s pin into its slide before either goes on, and tensions last', () => {
    for (const name of ['Body yaw A', 'Wing root B']) {
      const { steps } = together(named(name));
      const at = (body: string) => steps.findIndex((s) => s.body === body);
      const said = (body: string) => inUnits(steps[at(body)]!.do);
      expect(at('case/insert-idler-2'), name).toBeLessThan(at('case/cover'));
      expect(said('case/insert-idler-2')).toBe(
        'Melt 2 × threaded insert M3 into the cover, flush, before that goes on.',
      );
      expect(at('case/idler-pin-2')).toBe(at('case/slide-idler-2') - 1);
      expect(said('case/idler-pin-2')).toContain('into the tensioner’s slide, before that goes on');
      expect(at('case/screw-idler-2')).toBeGreaterThan(at('case/washer-idler-2'));
      expect(said('case/screw-idler-2')).toContain('tighten once the tension is set');
      expect(
        steps
          .find((s) => s.stage === 1)!
          .minds!.map((m) => m.do)
          .join(' '),
      ).toContain('Move the idler back');
    }
  });

  it('turns the tensioner’s screws into threads where the cover is of metal', () => {
    const v = named('Body yaw A');
    const material = shelf.materials.find((m) => m.id === 'en-aw-6082')!;
    const { steps, stuck } = together({ ...v, housing: { ...v.housing!, material: { ...material } } });
    expect(stuck).toEqual([]);
    const screws = steps.findIndex((s) => s.body === 'case/screw-idler-2');
    expect(screws).toBeGreaterThan(steps.findIndex((s) => s.body === 'case/slide-idler-2'));
    // 0.2 · 0.7 · 580 MPa · 5.03 mm² · 3 mm.
    expect(inUnits(steps[screws]!.caution!)).toMatch(/^Into threads of the cover: tighten to 1\.2 N·m, no more\./);
  });

  it('screws a hub on snugly where its flange is of plastic alone', () => {
    const v = named('Wing root B');
    const [planets, ...behind] = v.stages;
    const said = [{}, { materialR: 'en-aw-6082' }].map((change) => {
      const { steps } = together({
        ...v,
        stages: [{ ...planets!, params: { ...planets!.params, ...change } }, ...behind],
      });
      return steps.find((s) => s.body.startsWith('case/screw-hub'))!.caution;
    });
    expect(said).toEqual([
      'Into inserts or plastic: snug, no more; a drop of medium thread locker.',
      'A drop of medium thread locker.',
    ]);
  });

  it('lays each key into its shaft before its wheel goes on, and says how', () => {
    const g = together(keyedLine());
    const at = (id: RegExp) => g.steps.findIndex((s) => id.test(s.body));
    for (const [key, shaft, wheel] of [
      [/key-1-out/, /shaft-1/, /stage1\/driven/],
      [/key-1-in/, /shaft-1/, /stage2\/driver/],
      [/key-2-out/, /shaft-2/, /stage2\/driven/],
    ] as const) {
      expect(at(shaft), String(key)).toBeGreaterThan(-1);
      expect(at(key)).toBeGreaterThan(at(shaft));
      expect(at(wheel)).toBeGreaterThan(at(key));
      expect(g.steps[at(key)]!.do).toMatch(
        /^Lay the key DIN 6885 2×2×8 into the slot of the (output )?shaft( 1)?, where the (driven|driving) wheel comes\.$/,
      );
    }
    expect(g.stuck).toEqual([]);
  });

  it('tells what to mind with a stage once, before its first part', () => {
    const { steps } = together(named('Wing root B'));
    const minds = steps.filter((s) => s.minds);
    expect(minds.map((s) => s.stage)).toEqual([0, 1]);
    expect(minds[0]!.minds!.length).toBeGreaterThan(2);
  });

  it('puts eccentrics of three plates on their rod one after another, each with its plate', () => {
    const v = { ...named('Neck lift D'), housing: usualHousing(shelf) };
    const { stuck, steps } = together(v);
    expect(stuck).toEqual([]);
    const order = steps.map((s) => s.body).filter((b) => /^stage1\/(eccentric|plate|crank-rod)/.test(b));
    expect(order.filter((b) => b === 'stage1/eccentric').length).toBeGreaterThan(2);
    // Between the first eccentric and the last there are plates.
    const [first, last] = [order.indexOf('stage1/eccentric'), order.lastIndexOf('stage1/eccentric')];
    expect(order.slice(first, last).some((b) => b.startsWith('stage1/plate'))).toBe(true);
  });

  it.each([{}, { shaft: 0 }, { plates: 2, layout: 'both' }, { plates: 2, shaft: 0 }])(
    'puts cranks of a ring plate into their bearings with %o',
    (more) => {
      const v = ofKind('ring-plate', 20);
      const params = { ...(v.stages[0]!.params as object), ...more };
      const { stuck, steps } = together(fitted({ ...v, stages: [{ ...v.stages[0]!, params }] }));
      expect(stuck).toEqual([]);
      expect(steps.filter((s) => s.body === 'case/bearing-685').length).toBeGreaterThan(1);
    },
  );

  it('puts three eccentrics of a cycloidal on their rod, or on the motor’s shaft, each with its disc', () => {
    const v = ofKind('cycloidal', 20);
    for (const shaft of [0, 3e-3]) {
      const params = { ...(v.stages[0]!.params as object), discs: 3, shaft };
      const { stuck, steps } = together(fitted({ ...v, stages: [{ ...v.stages[0]!, params }] }));
      expect(stuck).toEqual([]);
      const order = steps.map((s) => s.body).filter((b) => /eccentric|disc-/.test(b));
      expect(order).toEqual([1, 2, 3].flatMap((n) => ['stage1/eccentric', `stage1/disc-${n}`]));
      expect(steps.some((s) => s.body === 'stage1/crank-rod')).toBe(shaft === 0);
    }
  });

  it('brings wheels of two hands into mesh first, between two halves of a ring', () => {
    const of = (kind: string, ratio: number, more: object = {}) => {
      const v = ofKind(kind, ratio);
      const params = { ...(v.stages[0]!.params as object), helix: 0.3, double: 'yes', ...more };
      return together(fitted({ ...v, stages: [{ ...v.stages[0]!, params }] }));
    };
    const planets = of('planetary', 5);
    expect(planets.stuck).toEqual([]);
    const at = (body: string) => planets.steps.findIndex((s) => s.body === `stage1/${body}`);
    expect([at('ring'), at('sun'), at('planet'), at('ring-half')]).toEqual([0, 1, 2, 3].map((n) => at('ring') + n));
    expect(inUnits(planets.steps[at('sun')]!.do)).toBe(
      'Bring the sun and 3 × planet into mesh and put them in together.',
    );
    expect(inUnits(planets.steps[at('planet')]!.do)).toBe('3 × planet go in with that, in mesh.');
    const pair = of('spur', 5);
    expect(pair.stuck).toEqual([]);
    expect(pair.steps.filter((s) => s.do.startsWith('Bring')).map((s) => s.body)).toEqual(['stage1/driver']);
    // Planets come into both rings from the middle; with a sun there they cannot.
    expect(of('compound-planetary', 20, { drive: 'carrier' }).stuck).toEqual([]);
    expect(of('compound-planetary', 20).stuck.join()).toContain('Sun of stage 1 cannot be put in');
  });

  it('screws a helical tube over the planets of a further set', () => {
    const v = ofKind('planetary', 25);
    const params = { ...(v.stages[0]!.params as object), sets: 2, helix: 0.3 };
    expect(together(fitted({ ...v, stages: [{ ...v.stages[0]!, params }] })).stuck).toEqual([]);
  });

  const across = new Set(['unit']);
  it.each(stageKinds().filter((k) => !across.has(k.id)))('is found whole for a stage as it starts, $id', (kind) => {
    for (const params of [kind.starts, kind.defaults({ ratio: 12, torque: 3, size: Infinity, shelf })])
      expect(
        together(fitted({ ...ofKind('spur'), stages: [{ id: 's', kind: kind.id, params }] } as Variant)).stuck,
      ).toEqual([]);
  });

  it('of a housed stage before one that goes across is as it is alone, and the other comes after by its own list', () => {
    const v = ofKind('planetary');
    const alone = together(v);
    const both = together({ ...v, stages: [...v.stages, { ...ofKind('bevel').stages[0]!, id: 't' }] } as Variant);
    expect(both.stuck).toEqual([]);
    const first = both.steps.filter((s) => s.stage < 1);
    // What goes on from its flange is a shaft in a bearing of the cover.
    const onward = first.map((s) => s.body).filter((b) => /^case\/(hub-1|bearing)/.test(b));
    expect(onward).toHaveLength(2);
    const rest = first.map((s) => s.body).filter((b) => !onward.includes(b));
    expect(rest).toEqual(alone.steps.map((s) => s.body));
    const after = both.steps.slice(first.length);
    expect(after.every((s) => s.stage === 1 && s.do.endsWith('as the list of stage 2 says.'))).toBe(true);
    expect(after.filter((s) => s.minds)).toHaveLength(1);
  });

  it('puts the driving side together by itself where power comes in across, and lowers it in one', () => {
    const { steps, stuck } = together(fitted(ofKind('worm', 30)));
    expect(stuck).toEqual([]);
    const at = (id: string) => {
      const found = steps.findIndex((s) => s.id === id);
      expect(found, id).toBeGreaterThanOrEqual(0);
      return found;
    };
    // Along the worm's axis: from the motor's block on, bearings on either side of the worm, the far block last.
    const side = ['case/block-motor', 'motor/body', 'case/screw-motor', 'stage1/coupling', 'case/block-near'];
    const worm = ['stage1/bearing@1', 'stage1/worm', 'stage1/bearing@2', 'case/block-far', 'case/plate-motor'];
    const order = [...side, ...worm].map(at);
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(order[0]).toBe(0);
    // The wheel is on its shaft by then, and the cover comes after.
    expect(at('case/carriage')).toBeGreaterThan(at('stage1/wheel'));
    expect(at('case/carriage')).toBeLessThan(at('case/cover'));
    const lowered = steps[at('case/carriage')]!;
    expect(lowered.do).toMatch(/grooves of the plate, and turn the wheel by hand/);
    expect(lowered.caution).toMatch(/Fingers clear/);
    // It is shown by the worm, which the section cuts.
    expect(lowered).toMatchObject({ body: 'stage1/worm', stage: -1 });
    expect(steps.map((s) => s.id)).toHaveLength(new Set(steps.map((s) => s.id)).size);
    // A bevel wheel comes down on its pinion.
    const bevel = together(fitted(ofKind('bevel', 2)));
    expect(bevel.stuck).toEqual([]);
    const ids = bevel.steps.map((s) => s.id);
    expect(ids.indexOf('case/carriage')).toBeLessThan(ids.indexOf('stage1/wheel'));
    expect(bevel.steps[ids.indexOf('case/carriage')]!.do).not.toContain('turn the');
  });

  it.each([
    ['worm', 'planetary'],
    ['bevel', 'cycloidal'],
    ['worm', 'bevel'],
  ])('goes on from a %s to a %s', (a, b) => {
    const { steps, stuck } = together(twoOf(a, b));
    expect(stuck).toEqual([]);
    expect(steps.some((s) => s.stage === 1)).toBe(true);
  });

  it('refuses crossed axes, an empty line and a stage that cannot be, in words', () => {
    const worm = stageKinds().find((k) => k.id === 'worm')!;
    const params = worm.defaults({ ratio: 20, torque: 1, size: Infinity, shelf }) as Record<string, unknown>;
    const { housing: _, ...base } = named('Body yaw A');
    const says = (stages: Variant['stages']) => {
      const r = run(goingTogether(kernel, { ...base, stages }, shelf));
      return r.ok ? '' : r.problem.what;
    };
    expect(says([{ id: 'w', kind: 'worm', params }])).toMatch(/order of the whole line is not worked out/);
    expect(says([])).toBe('There is nothing to put together.');
    expect(says([{ id: 'x', kind: 'clockwork', params: {} }])).toMatch(/no stage of kind/);
  });
});
