import { describe, expect, it } from 'vitest';
import { reducerChecks, type Variant } from '../src/index.ts';
import { sweptBy } from '../src/reducer/body.ts';
import { pointIn, undone } from '../src/reducer/frame.ts';
import { bodyIn } from '../src/reducer/layout.ts';
import { inTheWay } from '../src/reducer/in-the-way.ts';
import { bendingOf } from '../src/reducer/link-loads.ts';
import { linkSprings, shaftTwist } from '../src/reducer/link-springs.ts';
import { shaftCarries, strengthChecks } from '../src/reducer/strength.ts';
import { circle } from '../src/shape/outline.ts';
import { prism, type Prism } from '../src/shape/solid.ts';
import { spanPastWheel } from '../src/stage/worm/geometry.ts';
import { shelf } from './helpers.ts';
import { active, body, fitted, joint, made, ofKind, twoOf } from './reducer-bench.ts';

const mm = 1e-3;

describe('one stage behind another', () => {
  it('is driven by a shaft that ends before what does not turn with it', () => {
    const r = made(twoOf('planetary', 'planetary'));
    const [shaft, sun, plate] = ['case/hub-1', 'stage2/sun', 'stage2/plate-out'].map((id) => sweptBy(body(r, id)));
    expect(shaft!.to).toBeGreaterThanOrEqual(sun!.to);
    // Half of the housing's gap is left.
    expect(plate!.from - shaft!.to).toBeCloseTo(0.5 * mm, 9);
  });

  it.each([
    ['cycloidal', 'strain-wave', 'case/hub-1'],
    ['ring-plate', 'roller-wave', 'case/shaft-1'],
  ])('is driven, %s before %s, by a shaft that ends before the output’s own', (a, b, id) => {
    const r = made({ ...twoOf(a, b), output: active(joint('wing-root')).output });
    const [shaft, own] = [id, 'case/output-shaft'].map((x) => sweptBy(body(r, x)));
    expect(own!.from - shaft!.to).toBeGreaterThan(0.5e-3 - 1e-9);
    expect(shaft!.to).toBeGreaterThan(r.layout.stages[1]!.from + 5e-3);
  });

  it('is driven, before a third, by a shaft that ends before the hub on its flange', () => {
    const [a, b] = [twoOf('spur', 'roller-wave'), twoOf('roller-wave', 'belt')];
    const r = made({ ...b, stages: [{ ...a.stages[0]!, id: 'w' }, ...b.stages] });
    const [shaft, hub] = ['case/shaft-1', 'case/hub-2'].map((x) => sweptBy(body(r, x)));
    expect(hub!.from - shaft!.to).toBeCloseTo(0.5e-3, 9);
  });

  it('has a ring on its output’s shaft only where the hub on its flange leaves room for one', () => {
    const v = { ...ofKind('compound-planetary'), output: active(joint('wing-root')).output };
    const at = (gap: number) => made({ ...v, housing: { ...v.housing!, gap } });
    const room = (r: ReturnType<typeof made>) => r.housing!.keepers.find((x) => x.output && x.side === 'lower')!.room;
    for (const gap of [0.5e-3, 1e-3, 2e-3]) {
      const r = at(gap);
      expect(room(r)).toBeCloseTo(sweptBy(body(r, 'case/cover')).from - sweptBy(body(r, 'case/hub-1')).to, 9);
      expect(room(r)).toBeCloseTo(gap, 9);
    }
    expect(at(0.5e-3).bodies.some((b) => b.id === 'case/keeper-end-lower')).toBe(false);
    expect(at(2e-3).bodies.some((b) => b.id === 'case/keeper-end-lower')).toBe(true);
  });

  it('is driven by a shaft with a step where its bore is another one', () => {
    const v = twoOf('spur', 'spur');
    const bored = (bore1: number): Variant => ({
      ...v,
      stages: v.stages.map((s, i) => ({
        ...s,
        params: { ...(s.params as object), [i ? 'bore1' : 'bore2']: i ? bore1 : 8e-3 },
      })),
    });
    const [same, stepped] = [8e-3, 5e-3].map((bore) => made(bored(bore)));
    const shaft = body(stepped!, 'case/shaft-1');
    const [thick, thin] = shaft.solid().prisms;
    expect([...thick!.outer.points]).toEqual([...circle(0, 0, 4e-3).points]);
    expect([...thin!.outer.points]).toEqual([...circle(0, 0, 2.5e-3).points]);
    // The step lies at the face of the stage that it drives.
    const driver = sweptBy(body(stepped!, 'stage2/driver'));
    expect(shaft.places(0)[0]!.at[2] + thin!.from).toBeCloseTo(driver.from, 9);
    expect(shaft.part.material).toContain('C45');
    expect(body(same!, 'case/shaft-1').part.material).toContain('ground rod');
    // Two bars one behind the other: each twists by its own.
    const [x, y] = stepped!.layout.stages;
    const a = shaftTwist(8e-3, driver.from - (x!.from + x!.to) / 2);
    const b = shaftTwist(5e-3, (y!.from + y!.to) / 2 - driver.from);
    expect(linkSprings(stepped!)[0]).toBeCloseTo((a * b) / (a + b), 6);
    expect(linkSprings(stepped!)[0]!).toBeLessThan(linkSprings(same!)[0]!);
    // It carries what its thinnest place does, and says that it costs a step.
    const carries = v.stages.map(() => ({ output: 1, held: 1 }));
    expect(strengthChecks(stepped!, v, carries, shelf).find((c) => c.id === 'shaft-1')!.limit).toBe(shaftCarries(5e-3));
    const says = reducerChecks(stepped!, v).find((c) => c.id === 'bores-1')!;
    expect(says.severity).toBe('note');
    expect(says.figure).toBeCloseTo(3e-3, 12);
    // Thicker than its bearings it could not be put through them.
    const wider = made(bored(10e-3));
    expect(body(wider, 'case/shaft-1').solid().prisms).toHaveLength(1);
    expect(reducerChecks(wider, v).find((c) => c.id === 'bores-1')).toMatchObject({
      severity: 'warn',
      advice: expect.stringContaining('sleeve') as string,
    });
  });

  it.each(['unit', 'rack', 'worm'])(
    'is driven from a flange behind the housing by a shaft in its cover: %s',
    (second) => {
      const v = twoOf('planetary', second);
      const r = made(v);
      const [hub, cover] = ['case/hub-1', 'case/cover'].map((id) => sweptBy(bodyIn(undone(r.stands!), body(r, id))));
      const [stage, next] = r.run.stages;
      expect(hub!.from).toBeCloseTo(pointIn(stage!.frame, stage!.ports.output.at)[2], 9);
      expect(hub!.to).toBeGreaterThan(cover!.to);
      // Into the bore, or up to the end of the shaft that it is coupled to.
      const face = pointIn(next!.frame, next!.ports.input.at)[2];
      if (next!.ports.input.shaft > 0 || next!.bought) expect(hub!.to).toBeGreaterThan(face + 5e-3);
      else expect(hub!.to).toBeCloseTo(face, 9);
      expect(r.bodies.some((b) => b.id.startsWith('case/bearing'))).toBe(true);
      expect(reducerChecks(r, v).find((c) => c.id === 'bearing-1')).toMatchObject({
        name: 'A bearing for the shaft after stage 1',
        state: 'holds',
      });
      expect(
        strengthChecks(
          r,
          v,
          [
            { output: 1, held: 1 },
            { output: 1, held: 1 },
          ],
          shelf,
        ).map((c) => c.name),
      ).toContain('Shaft after stage 1 carries the peak');
    },
  );

  it('bends its shaft by its own wheels, whatever bought stands before', () => {
    const push = { across: 90, along: 0, moment: 0 };
    const works = (pull: number) => ({ numbers: { pushes: { peak: push, lasting: push }, pullPeak: pull } }) as never;
    const v = twoOf('spur', 'spur');
    const unit = twoOf('unit', 'spur').stages[0]!;
    const bare = bendingOf(made(v), 0, [works(0), works(30)]);
    const behind = made({ ...v, stages: [{ ...unit, id: 'u' }, ...v.stages] });
    expect(bendingOf(behind, 0, [works(0), works(0), works(30)])).toBeCloseTo(bare, 9);
    expect(bare).toBeGreaterThan(0);
    // What stands behind the housing pulls on the shaft that drives it, too.
    const rack = made(twoOf('spur', 'rack'));
    expect(linkSprings(rack)[0]).toBeLessThan(shaftTwist(8 * mm, 0.01));
    expect(linkSprings(rack)[1]).toBe(Infinity);
    expect(bendingOf(rack, 0, [works(0), works(300)])).toBeGreaterThan(bendingOf(rack, 0, [works(0), works(0)]));
  });

  it('stands clear of heads on the cover, and a bought one between them', () => {
    const heads = (r: ReturnType<typeof made>) => sweptBy(body(r, 'case/tie')).to;
    const rack = made(twoOf('planetary', 'rack'));
    expect(sweptBy(body(rack, 'stage2/pinion')).from).toBeGreaterThan(heads(rack));
    const unit = made(twoOf('planetary', 'unit'));
    expect(sweptBy(body(unit, 'stage2/unit')).from).toBeCloseTo(sweptBy(body(unit, 'case/cover')).to, 9);
    expect(sweptBy(body(unit, 'stage2/unit')).from).toBeLessThan(heads(unit));
  });

  it('leaves the bearing beside a motor’s pilot whole', () => {
    const v = fitted(twoOf('spur', 'cable'));
    const r = made(v);
    const bearing = sweptBy(body(r, 'case/bearing-688')).from;
    const face = r.face;
    expect(bearing - sweptBy(body(r, 'case/plate-motor')).from).toBeGreaterThan(face.pilotHeight);
  });

  it('stands beyond a worm’s bearings, and beyond its motor where it is as wide', () => {
    const free = (a: string, b: string) => {
      const { housing: _, ...v } = twoOf(a, b);
      return made(v);
    };
    const small = free('worm', 'spur');
    const bearing = small.bodies.find((b) => b.id === 'stage1/bearing')!;
    // A ring lies across: half of its diameter beyond the worm's axis, which is in the middle of the wheel.
    const [wheel, outside] = [sweptBy(body(small, 'stage1/wheel')), 19 * mm];
    expect(bearing.part.name).toBe('Bearing 626');
    const ringTop = (wheel.from + wheel.to) / 2 + outside / 2;
    expect(sweptBy(body(small, 'stage2/driver')).from).toBeGreaterThan(ringTop);
    const wide = free('bevel', 'ring-plate');
    const low = Math.min(...wide.bodies.filter((b) => b.stage === 1).map((b) => sweptBy(b).from));
    expect(low - sweptBy(body(wide, 'motor/body')).to).toBeCloseTo(1 * mm, 9);
    // A slim one goes past a motor that stands farther out.
    const slim = free('worm', 'screw');
    expect(Math.min(...slim.bodies.filter((b) => b.stage === 1).map((b) => sweptBy(b).from))).toBeLessThan(
      sweptBy(body(slim, 'motor/body')).to,
    );
  });
});

describe('what is in the way of a shaft', () => {
  const thing = (prisms: Prism[], x = 0) => ({
    ...body(made(ofKind('spur')), 'case/cover'),
    id: 'stage1/thing',
    solid: () => ({ prisms }),
    places: () => [{ at: [x, 0, 0] as const, x: [1, 0, 0] as const, y: [0, 1, 0] as const, z: [0, 0, 1] as const }],
  });
  const shaft = { x: 0, y: 0, r: 2 * mm };

  it('is the lowest thing that leaves no passage', () => {
    const ring = (hole: number, from: number) =>
      prism(circle(0, 0, 9 * mm), from * mm, (from + 1) * mm, [circle(0, 0, hole * mm)]);
    expect(inTheWay([thing([ring(2.1, 1)])], shaft)).toBe(Infinity);
    expect(inTheWay([thing([ring(1.9, 3), ring(2.1, 1)]), thing([ring(1, 5)])], shaft)).toBeCloseTo(3 * mm, 12);
    expect(inTheWay([thing([ring(1.9, 3)]), thing([ring(1, 5)])], shaft, 4 * mm)).toBeCloseTo(5 * mm, 12);
  });

  it('is what turns beside it, once that comes within its radius', () => {
    const disc = [prism(circle(0, 0, 9 * mm), 0, mm)];
    expect(inTheWay([thing(disc, 11.1 * mm)], shaft)).toBe(Infinity);
    expect(inTheWay([thing(disc, 10.9 * mm)], shaft)).toBe(0);
  });
});

describe('bearings of a worm', () => {
  it('stand apart so far that the wheel’s tips pass between them', () => {
    // A wheel of 50 mm over its tips, rings down to 40 mm above its axis: 30 mm to either side, and half of each ring.
    expect(spanPastWheel(0.05, 0.045, { outside: 0.01, width: 0.004 })).toBeCloseTo(0.064, 9);
    expect(spanPastWheel(0.05, 0.0551, { outside: 0.01, width: 0.004 })).toBe(0);
    // Where a ring reaches below the wheel's axis it passes the whole wheel.
    expect(spanPastWheel(0.05, 0.004, { outside: 0.01, width: 0.004 })).toBeCloseTo(0.104, 12);
  });
});
