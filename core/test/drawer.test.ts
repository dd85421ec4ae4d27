import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  activeVariant,
  beltKey,
  beyond,
  briefBounds,
  cannotFind,
  demandOf,
  findLines,
  fromDrawer,
  inMaterials,
  makeShelf,
  makingOf,
  mergeEdits,
  openStage,
  processesOf,
  readJointFile,
  readShopEdits,
  readShopFile,
  salvageShop,
  stageKind,
  stageKinds,
  usualMaterials,
  writeShopFile,
  type FindAsk,
  type FindResult,
  type Part,
  type ShopEdits,
} from '../src/index.ts';

const shelf = makeShelf();
const read = readJointFile(readFileSync(new URL('../../demo/body-yaw.json', import.meta.url), 'utf8'));
if (!read.ok) throw new Error(read.problem.what);
const joint = read.value;
const variant = activeVariant(joint);

function found(edits: ShopEdits, more: Partial<FindAsk> = {}): FindResult {
  const ask: FindAsk = { joint, variant, shelf: makeShelf(edits), kinds: ['belt', 'spur'], stages: 2, first: true };
  const search = findLines({ ...ask, ...more });
  let step = search.next();
  while (!step.done) step = search.next();
  return step.value;
}

describe('what lies in the drawer', () => {
  const bearing = (
    quantity: number,
    money: number,
    id = '6001',
  ): Pick<Part, 'name' | 'quantity' | 'money' | 'stocked'> => ({
    name: `Bearing ${id}`,
    quantity,
    money,
    stocked: { shelf: 'bearings', id },
  });

  it('saves what is there and no more, over all stages together', () => {
    const parts = [bearing(3, 2), bearing(2, 2), bearing(4, 5, '608'), { name: 'Pin', quantity: 9, money: 1 }];
    expect(fromDrawer(parts, { bearings: { 6001: 4 } })).toEqual([
      { name: 'Bearing 6001', needed: 5, there: 4, saves: 8 },
    ]);
    expect(fromDrawer(parts, { bearings: { 6001: 99, 608: 0 } })).toMatchObject([{ there: 5, saves: 10 }]);
    expect(fromDrawer(parts, { motors: { 6001: 9 } })).toEqual([]);
    expect(fromDrawer(parts, {})).toEqual([]);
  });

  it('names a closed belt by what it is bought by, and a stage says so of its own', () => {
    expect(beltKey('R3', 120, 9e-3)).toBe('R3 120 9');
    const line = joint.variants.find((v) => v.stages[0]!.kind === 'belt')!.stages[0]!;
    const opened = openStage({ ...line, params: { ...line.params, closure: 'closed' } }, shelf);
    const parts = opened.ok ? opened.value.parts() : opened;
    const belt = parts.ok ? parts.value.find((p) => p.id === 'belt')! : undefined;
    const { section, width } = line.params as { section: string; width: number };
    expect(belt!.stocked).toEqual({
      shelf: 'belts',
      id: expect.stringMatching(new RegExp(`^${section} \\d+ ${width * 1e3}$`)),
    });
    expect(belt!.note).toContain(`${belt!.stocked!.id.split(' ')[1]} teeth`);
  });

  it('is bought by designation in every kind that has bearings: as many are told as its parts have', () => {
    const seen = new Set<string>();
    for (const kind of stageKinds()) {
      const opened = kind.open(kind.starts, shelf);
      const parts = opened.ok ? opened.value.parts() : opened;
      for (const p of parts.ok ? parts.value : [])
        if (/^Bearing |bearing /.test(p.name) && p.made === 'bought') {
          seen.add(kind.id);
          expect(p.stocked, `${kind.id}: ${p.name}`).toMatchObject({ shelf: 'bearings' });
          expect(shelf.bearings.find((b) => b.id === p.stocked!.id)!.price).toBe(p.money);
        }
    }
    expect(seen.size).toBeGreaterThanOrEqual(3);
  });

  it('makes lines with an owned motor cheaper by its price, and the search prefers them', () => {
    const withIt = (x: FindResult, id: string) => x.lines.filter((l) => l.motor.id === id);
    const plain = found({});
    const dear = [...plain.lines].sort((a, b) => b.motor.price - a.motor.price)[0]!.motor;
    expect(dear.price).toBeGreaterThan(10);
    const r = found({ drawer: { motors: { [dear.id]: 1 } } });
    const cheapest = (x: FindResult) => Math.min(...withIt(x, dear.id).map((l) => l.aims.money));
    expect(cheapest(r)).toBeLessThanOrEqual(cheapest(plain) - dear.price + 1e-9);
    // One that no line is driven by, for its price or mass, comes in where it is there.
    const other = shelf.motors.filter((m) => withIt(plain, m.id).length === 0);
    const owned = Object.fromEntries(other.map((m) => [m.id, 1]));
    expect(found({ drawer: { motors: owned } }).lines.filter((l) => owned[l.motor.id]).length).toBeGreaterThan(0);
    for (const l of withIt(r, dear.id)) {
      expect(l.there).toEqual([{ name: dear.name, needed: 1, there: 1, saves: dear.price }]);
      // The motor itself keeps its price: a joint that is made of the line knows what it costs.
      expect(l.motor.price).toBe(dear.price);
      expect(l.aims.money).toBeGreaterThan(0);
    }
    for (const l of r.lines) if (l.motor.id !== dear.id) expect(l.there).toBeUndefined();
  });

  it('is kept, merged and carried in files; what is damaged is refused by its place', () => {
    const edits = { drawer: { motors: { a: 1 }, belts: { 'R2 100 6': 3 }, materials: ['pla'] } };
    expect(readShopFile(writeShopFile(edits))).toEqual({ ok: true, value: edits });
    expect(mergeEdits(edits, { drawer: { motors: { a: 2, b: 1 } } }).drawer).toEqual({
      motors: { a: 2, b: 1 },
      belts: { 'R2 100 6': 3 },
      materials: ['pla'],
    });
    expect(mergeEdits({}, edits)).toEqual(edits);
    for (const [drawer, place] of [
      [{ motors: { a: -1 } }, 'drawer.motors.a'],
      [{ bearings: { 608: 1.5 } }, 'drawer.bearings.608'],
      [{ belts: { x: '3' } }, 'drawer.belts.x'],
      [{ materials: [7] }, 'drawer.materials.0'],
    ] as const) {
      const r = readShopEdits({ drawer });
      expect(!r.ok && r.problem.what, place).toContain(place);
    }
    expect(salvageShop({ drawer: { motors: { a: -1 } }, materials: [] }).edits).toEqual({ materials: [] });
  });
});

describe('materials of a search', () => {
  const usual = stageKind('spur')!.starts as { material1: string; material2: string };

  it('are what a kind is usually made of where nobody says', () => {
    expect(inMaterials(stageKind('spur')!, usual, makingOf(shelf.materials, undefined), shelf)).toEqual([usual]);
    expect([usual.material1, usual.material2]).toEqual(['c45', 'pa-cf']);
    expect(usualMaterials(stageKinds(), shelf.materials)).toEqual(['pa-cf', 'pom', 'en-aw-6082', 'c45']);
  });

  it.each([
    // Steel is allowed: the pinion stays; each printed material gives a pair of its own.
    [
      ['c45', 'pla', 'petg'],
      [
        ['c45', 'pla'],
        ['c45', 'petg'],
      ],
    ],
    // Nothing is milled: the pinion is printed too.
    [['pla'], [['pla', 'pla']]],
    // Another metal in place of the usual one: the stronger of those allowed.
    [['en-aw-6082', 'en-aw-7075', 'pla'], [['en-aw-7075', 'pla']]],
    // Nothing is printed: both are milled, the wheel of each that is allowed.
    [
      ['c45', 'pom'],
      [
        ['c45', 'pom'],
        ['c45', 'c45'],
      ],
    ],
    [['silver-steel'], []],
  ])('of %j give pairs of %j', (allowed, pairs) => {
    const sets = inMaterials(stageKind('spur')!, usual, makingOf(shelf.materials, allowed), shelf);
    expect(new Set(sets.map((p) => `${p.material1} ${p.material2}`))).toEqual(new Set(pairs.map((p) => p.join(' '))));
  });

  it('are all that found lines are made of, and none is refused in words', () => {
    const plain = { ...joint, brief: { ...joint.brief, limits: [] } };
    const r = found(
      { drawer: { materials: ['petg', 'c45'] } },
      { joint: plain, kinds: ['spur', 'planetary'], first: false, stages: 1, motors: [shelf.motors[3]!.id] },
    );
    expect(r.lines.length).toBeGreaterThan(0);
    for (const l of r.lines)
      for (const s of l.stages)
        for (const f of stageKind(s.kind)!.fields)
          if (f.as === 'choice' && f.of === 'material')
            expect(['petg', 'c45', 'silver-steel'], f.path).toContain(s.params[f.path]);
    const none = cannotFind({ joint, variant, shelf: makeShelf({ drawer: { materials: [] } }) });
    expect(none!.what).toContain('No material is allowed');
  });
});

describe('bounds on found lines', () => {
  it('are what the brief asks, musts and wishes, and say what is beyond', () => {
    const demand = demandOf(joint.brief, shelf);
    const limit = (id: string, sense: string, value: number, need = 'wish') => ({ id, sense, value, need }) as never;
    expect(
      briefBounds(
        [
          limit('money', 'max', 100),
          limit('money', 'max', 80, 'must'),
          limit('stiffness', 'min', 800),
          limit('life', 'min', 1e6),
        ],
        demand,
      ),
    ).toEqual({ money: 80, stiffness: 800 });
    const aims = { money: 90, mass: 1, play: 0, stiffness: 700, size: 0.1, efficiency: 0.8 };
    expect(beyond({ aims }, { money: 80, stiffness: 800, mass: 1 })).toEqual(['money', 'stiffness']);
    expect(beyond({ aims }, {})).toEqual([]);
  });

  it('tell printed lines from those with something milled', () => {
    const stage = (of: object) => [{ id: 's', kind: 'spur', params: { ...stageKind('spur')!.starts, ...of } }];
    expect([...processesOf(stage({}), shelf.materials)].sort()).toEqual(['milled', 'printed']);
    expect([...processesOf(stage({ material1: 'pla' }), shelf.materials)]).toEqual(['printed']);
    expect([...processesOf([{ id: 'u', kind: 'unit', params: stageKind('unit')!.starts }], shelf.materials)]).toEqual(
      [],
    );
  });
});
