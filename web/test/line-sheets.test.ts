import { analyseLine, makeShelf, readRecord, type Joint } from '@gristmill/core';
import { beforeEach, describe, expect, it } from 'vitest';
import body from '../../demo/body-yaw.json' with { type: 'json' };
import wing from '../../demo/wing-root.json' with { type: 'json' };
import { readPoints } from '../src/views/brief/PointsTable.tsx';
import { readCurve } from '../src/views/line/curve.ts';
import { takeMotor } from '../src/views/line/MotorPanel.tsx';
import { sharesOf } from '../src/views/line/shares.ts';
import { thinned } from '../src/views/line/thinned.ts';
import { editVariant, useOpen } from '../src/state/open.ts';
import { shelfNow } from '../src/state/shelf.ts';
import { shelfOf, useShop } from '../src/state/shop.ts';
import { askedMark, verdictWord } from '../src/parts/words.ts';
import { putOn, takeOff } from '../src/storage/edit-shop.ts';
import { motorText } from '../src/views/shop/motor-text.ts';

const shelf = makeShelf();
const read = (raw: unknown): Joint => {
  const r = readRecord(structuredClone(raw));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};

describe('shares', () => {
  it('add up to the line’s own figures, motor and shaft included', () => {
    const j = read(wing);
    for (const v of j.variants) {
      const report = analyseLine(j, v, shelf);
      const sets = sharesOf(
        report,
        v.stages.map((s) => s.kind),
      );
      const total = (id: string) => sets.find((s) => s.id === id)!.parts.reduce((m, p) => m + p.value, 0);
      const figure = (id: string) => report.figures.find((f) => f.id === id)!.value;
      for (const id of ['windUp', 'inertia', 'mass', 'money']) expect(total(id) / figure(id), id).toBeCloseTo(1, 9);
      // Torque lost: what the motor gives times the ratio, less what arrives.
      expect(total('loss')).toBeCloseTo(figure('motorNeeded') * Math.abs(figure('ratio')) - report.demand.peak, 9);
      expect(sets.find((s) => s.id === 'windUp')!.parts.at(-1)!.name).toBe('Output shaft');
    }
    expect(
      sharesOf(analyseLine(j, { ...j.variants[0]!, stages: [{ id: 'x', kind: 'nothing', params: {} }] }, shelf), []),
    ).toEqual([]);
  });
});

describe('marks on a plot', () => {
  const mark = (name: string, margin: number) => ({ name, x: 1, y: 1, ok: margin >= 1, margin });
  it('are all named while few, and only the failing and the scarcest of many', () => {
    expect(thinned([mark('a', 2), mark('b', 3)]).map((m) => m.name)).toEqual(['a', 'b']);
    const many = thinned([mark('a', 2), mark('b', 0.5), mark('c', 3), mark('d', 0.4), mark('e', 9)]);
    expect(many.map((m) => m.name)).toEqual(['', 'b', '', 'd', '']);
    expect(many[0]!.title).toBe('a');
  });
});

describe('pasted tables', () => {
  it('take tabs, commas and semicolons, and quoted cells', () => {
    expect(readPoints('1\t2\t3\n4\t5\t6')).toMatchObject({ ok: true, value: { torque: [1, 4] } });
    expect(readPoints('"1 N·m";"2 rad/s";"3 s"')).toMatchObject({ ok: true, value: { speed: [2], seconds: [3] } });
    expect(readPoints('   ')).toMatchObject({ ok: false });
    expect(readCurve('rpm,torque\n0,1\n60,0.5')).toMatchObject({ ok: true, value: { torque: [1, 0.5] } });
    expect(readCurve('0,1')).toMatchObject({ ok: false });
    expect(readCurve('0,1\n100,-2')).toMatchObject({ ok: false });
  });
});

describe('taking a motor', () => {
  it('never leaves the driver above what it stands, and copies it', () => {
    const v = structuredClone(read(body).variants[0]!);
    const small = shelf.motors.find((m) => m.id === 'st35-28')!;
    takeMotor(v, small, shelf);
    expect(v.driver.currentLimit).toBe(0.8);
    expect(v.motor).toEqual(small);
    expect(v.motor).not.toBe(small);
    v.driver.currentLimit = 0.5;
    takeMotor(
      v,
      shelf.motors.find((m) => m.id === 'st57-76')!,
      shelf,
    );
    expect(v.driver.currentLimit).toBe(0.5);
    takeMotor(
      v,
      shelf.motors.find((m) => m.id === 'sv60-200')!,
      shelf,
    );
    expect(v.driver.currentLimit).toBeCloseTo((1.7 * 1.9) / 0.64, 9);
  });
});

describe('the shop as the open joint sees it', () => {
  beforeEach(() => useShop.getState().setEdits({}));

  it('keeps the factors of when the joint was opened, and takes new ones when a stage brings them in', () => {
    const computed = () => {
      const joint = useOpen.getState().joint!;
      useOpen.getState().keep(joint.id, analyseLine(joint, joint.variants[0]!, shelfNow()).reads);
    };
    useOpen.getState().load(read(body));
    computed();
    const kept = useOpen.getState().joint!.factors!;
    expect(kept['belt.efficiency']!.value).toBe(0.96);
    expect(kept['unit.drag']).toBeUndefined();
    useShop.getState().setEdits({
      factors: { 'belt.efficiency': { value: 0.9, low: 0.9, high: 0.9 }, 'unit.drag': { value: 2, low: 1, high: 3 } },
    });
    expect(shelfNow().factors['belt.efficiency']!.value).toBe(0.96);
    editVariant(
      'Add unit',
      (v) => void v.stages.push({ id: 'u', kind: 'unit', params: { ...read(wing).variants[0]!.stages[0]!.params } }),
    );
    computed();
    expect(useOpen.getState().joint!.factors!['unit.drag']!.value).toBe(2);
    expect(useOpen.getState().joint!.factors!['belt.efficiency']!.value).toBe(0.96);
    // What was kept while the unit was there goes on being kept: it may come back.
    useOpen.getState().undo();
    expect(useOpen.getState().joint!.factors!['unit.drag']!.value).toBe(2);
  });

  it('gives the same shelf for the same inputs', () => {
    const factors = { ambient: { value: 300, low: 290, high: 310 } };
    const edits = {};
    expect(shelfOf({ factors }, edits)).toEqual(shelfOf({ factors }, edits));
    expect(shelfOf({ factors }, edits).shelf).toBe(shelfOf({ factors }, edits).shelf);
    expect(shelfOf(undefined, edits).edits).toBe(edits);
  });
});

describe('the reader’s own things on the shop’s shelves', () => {
  beforeEach(() => useShop.getState().setEdits({}));

  it('stand in place of what was shipped, first, and give way to it when taken off', () => {
    const pla = shelf.materials.find((m) => m.id === 'pla')!;
    putOn('materials', { ...pla, softening: 330 });
    putOn('materials', { ...pla, softening: 331 });
    const own = useShop.getState();
    expect(own.edits.materials).toHaveLength(1);
    expect(own.shelf.materials[0]!.softening).toBe(331);
    expect(own.shelf.materials).toHaveLength(shelf.materials.length);
    putOn('bearings', { ...shelf.bearings[0]!, id: 'mine', name: 'Mine' });
    expect(useShop.getState().shelf.bearings).toHaveLength(shelf.bearings.length + 1);
    takeOff('materials', 'pla');
    expect(useShop.getState().shelf.materials.find((m) => m.id === 'pla')).toEqual(pla);
    expect(useShop.getState().edits.bearings).toHaveLength(1);
  });
});

describe('words for limits', () => {
  it('an either has no bracket and no verdict, and a missing number no bracket', () => {
    expect(askedMark(3, 'min')).toEqual({ value: 3, sense: 'min' });
    expect(askedMark(3, 'either')).toBeUndefined();
    expect(askedMark(NaN, 'max')).toBeUndefined();
    expect(verdictWord({ state: 'holds', sense: 'either' }).text).toBe('either');
    expect(verdictWord({ state: 'fails', sense: 'max' }).text).toBe('over');
  });

  it('motors tell themselves apart by the figure of their type', () => {
    const text = (id: string) =>
      motorText(
        shelf.motors.find((m) => m.id === id)!,
        {},
      );
    expect(text('st42-48')).toEqual({ size: '0.55 N·m', current: '1.7 A' });
    expect(text('bl42-340').size).toBe('340 rpm/V');
    expect(text('br37-420').size).toBe('420 rpm/V');
    expect(text('sv60-400')).toEqual({ size: '1.27 N·m', current: '2.8 A' });
  });
});
