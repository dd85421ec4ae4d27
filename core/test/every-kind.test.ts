import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  flatten,
  inUnits,
  QUANTITIES,
  readParams,
  sayBanded,
  stageKinds,
  withFactor,
  type AnyStageKind,
  type Check,
  type Duty,
  type Layer,
  type Mend,
  type Outline,
  type StageReport,
  type StageWish,
  workingOf,
} from '../src/index.ts';
import { anyStages } from './any-stage.ts';
import { examples, expectBand, cold, shelf } from './helpers.ts';
import { analyseOf, assemblyOf, drawingOf, kinematicsOf, partsOf, screenOf, stageOf } from './stage-bench.ts';

// What the contract of a stage promises, held against every kind that is registered: a new kind is tried here without a
// line of test.

const duty: Duty = { torque: 2.4, torqueRms: 1.1, speed: 3, equivalent: 1.3, meanSpeed: 1.2 };
const wish = (over: Partial<StageWish> = {}): StageWish => ({ ratio: 20, torque: 2.4, size: 0.14, shelf, ...over });
const each = (name: string, hold: (kind: AnyStageKind) => void): void => {
  for (const kind of stageKinds()) it(`${kind.id} ${name}`, () => hold(kind));
};
const report = (kind: AnyStageKind, params: unknown, at: Duty = duty, on = shelf): StageReport => {
  const r = analyseOf(kind, params, at, on);
  if (!r.ok) throw new Error(`${kind.id}: ${r.problem.what}`);
  return r.value;
};
const taken = (params: object, mend: Mend): object => ({ ...params, ...mend.also, [mend.path]: mend.value });

describe('the start of every kind', () => {
  each('is what its own schema takes, and the form can show all of it', (kind) => {
    const params = kind.defaults(wish()) as Record<string, unknown>;
    expect(readParams(kind.id, params)).toMatchObject({ ok: true });
    for (const f of kind.fields) {
      if (!(f.when?.(params) ?? true)) continue;
      const v = params[f.path];
      expect(f.help.length, f.path).toBeGreaterThan(3);
      if (f.as === 'choice')
        expect(
          f.options(params, shelf).map((o) => o.value),
          `${f.path} ${String(v)}`,
        ).toContain(v);
      if (f.as === 'count') {
        expect(v, f.path).toBeGreaterThanOrEqual(f.min);
        expect(v, f.path).toBeLessThanOrEqual(f.max);
      }
      if (f.as === 'quantity') expect(f.step, f.path).toBeGreaterThan(0);
    }
  });

  each('has a plain stage: the start of each parameter is within its bounds, and together they open', (kind) => {
    expect(readParams(kind.id, kind.starts)).toMatchObject({ ok: true });
    expect(Object.keys(kind.starts).sort()).toEqual(kind.fields.map((f) => f.path).sort());
    expect(kind.open(kind.starts, shelf).ok).toBe(true);
  });

  each('comes near the ratio it was asked for, where it can make it', (kind) => {
    // Kinds that cannot make a ratio of 20 come as near as they do.
    // What runs straight is told by radians for a metre.
    const wanted = kind.straight ? [60, 120, 500, 1500] : [3, 8, 20, 60];
    const given = wanted.map((r) => [r, kinematicsOf(kind, kind.defaults(wish({ ratio: r }))).ratio] as const);
    expect(Math.min(...given.map(([r, ratio]) => Math.abs(Math.abs(ratio) / r - 1)))).toBeLessThan(0.06);
    for (const [r, ratio] of given) expect(Number.isFinite(ratio) && ratio !== 0, `${r}`).toBe(true);
  });

  each('is the first of its candidates that does all that is wished, where one does', (kind) => {
    const at = { torque: 1.5, torqueRms: 0.7, speed: kind.straight ? 0.03 : 3 };
    let found = 0;
    for (const over of [
      {},
      { bore: 0.014 },
      { mass: 0.4, money: 40, length: 0.05 },
      { play: 2e-3, stiffness: 200 },
      { torque: 1e4 },
    ])
      for (const ratio of kind.straight ? [120, 2000] : [4, 40]) {
        const want = wish({ ratio, size: 0.2, torque: 1.5, duty: at, ...over });
        const does = (params: unknown): boolean => {
          const opened = kind.open(params, shelf);
          if (!opened.ok) return false;
          const n = opened.value.load({ ...at, torque: want.torque });
          const most = Math.min(
            ...n.limits.map((l) =>
              l.time === 'life' ? Infinity : l.time === 'static' ? l.torque : l.torque * (15 / 7),
            ),
          );
          return (
            most >= 1.2 * want.torque &&
            n.bore >= (want.bore ?? 0) &&
            n.mass <= (want.mass ?? Infinity) &&
            n.money <= (want.money ?? Infinity) &&
            n.length <= (want.length ?? Infinity) &&
            n.play[0] <= (want.play ?? Infinity) &&
            n.stiffness >= (want.stiffness ?? 0) &&
            opened.value.stands({ ...at, torque: want.torque })
          );
        };
        const chosen = kind.defaults(want) as object;
        if (does(chosen)) {
          found++;
          continue;
        }
        // What it starts with falls short of something: so does every candidate, bored as wide as is asked or not.
        let looked = 0;
        for (const c of kind.candidates(want) as Iterable<object>) {
          if (++looked > 20) break;
          const wide = kind.passage && want.bore ? { ...c, [kind.passage]: want.bore } : c;
          expect(does(c) || does(wide), `${ratio} ${JSON.stringify(over)} ${JSON.stringify(c)}`).toBe(false);
        }
      }
    expect(found).toBeGreaterThan(1);
  });
});

describe('the report of every kind', () => {
  each('has figures inside their bands, each with formula, source and terms that are numbers', (kind) => {
    const r = report(kind, kind.defaults(wish()));
    expect(new Set(r.figures.map((f) => f.id)).size).toBe(r.figures.length);
    for (const f of r.figures) {
      expect(Number.isFinite(f.value), `${f.id} ${f.value}`).toBe(true);
      expectBand(f);
      expect(workingOf(f)!.formula.length, f.id).toBeGreaterThan(0);
      expect(workingOf(f)!.source.length, f.id).toBeGreaterThan(2);
      for (const t of workingOf(f)!.terms) expect(Number.isFinite(t.value), `${f.id}: ${t.name}`).toBe(true);
    }
    expect(kinematicsOf(kind, kind.defaults(wish())).ratio).toBeCloseTo(r.numbers.ratio, 9);
  });

  each('has checks that say why, whose state is what figure and limit say', (kind) => {
    for (const torque of [0.1, 2.4, 60]) {
      const r = report(kind, kind.defaults(wish()), { ...duty, torque, torqueRms: torque / 2 });
      expect(new Set(r.checks.map((c) => c.id)).size).toBe(r.checks.length);
      for (const c of r.checks) {
        const passes = c.sense === 'max' ? c.figure <= c.limit : c.figure >= c.limit;
        expect(c.state === 'fails', `${c.id} ${c.figure} ${c.sense} ${c.limit}`).toBe(!passes);
        expect(c.why.length, c.id).toBeGreaterThan(8);
        if (c.of)
          expect(
            r.figures.map((f) => f.id),
            c.id,
          ).toContain(c.of);
        if (c.state === 'fails' && c.severity !== 'note')
          expect(c.mend?.label ?? c.advice, `${c.id} fails without a way out`).toBeTruthy();
      }
    }
  });

  each('offers mends that its schema takes and that do what they say', (kind) => {
    for (const [want, factor] of [
      [wish(), 1],
      [wish(), 5],
      [wish(), 25],
      [wish({ ratio: 6, torque: 20, size: 0.2 }), 1.8],
      [wish({ ratio: 60, torque: 0.3, size: 0.08 }), 1.8],
    ] as const) {
      const torque = want.torque * factor;
      const at = { ...duty, torque, torqueRms: torque / 2, equivalent: torque / 2 };
      const params = kind.defaults(want);
      for (const c of report(kind, params, at).checks) {
        if (!c.mend) continue;
        const said = `${c.id} at ${torque} N·m: ${c.mend.label}`;
        const next = taken(params, c.mend);
        expect(readParams(kind.id, next), said).toMatchObject({ ok: true });
        const after = analyseOf(kind, next, at, shelf);
        expect(after.ok, said).toBe(true);
        const now = after.ok ? after.value.checks.find((x) => x.id === c.id) : undefined;
        // Nearer to its limit, or gone with what it was about; figure and limit may both move.
        const short = (x: Check) => (x.sense === 'max' ? x.figure - x.limit : x.limit - x.figure);
        if (now) expect(short(now), said).toBeLessThan(short(c));
      }
    }
  });

  const METRIC = /\d ?(mm|µm|rpm|°C|N·cm)\b/;

  each('says every size in the reader’s units, in whatever sentence it stands', (kind) => {
    const inches = Object.fromEntries(
      Object.values(QUANTITIES).map((q) => [q.id, q.id === 'length' ? 'in' : q.units[0]!.symbol]),
    );
    const written = (all: unknown): string[] =>
      typeof all === 'string'
        ? [inUnits(all, inches)]
        : all && typeof all === 'object'
          ? Object.entries(all).flatMap(([k, x]) => (k === 'name' || k === 'curves' ? [] : written(x)))
          : [];
    for (const { params } of anyStages(kind, examples(9), 88)) {
      const opened = kind.open(params, shelf);
      if (!opened.ok) {
        expect(written(opened.problem).filter((t) => METRIC.test(t))).toEqual([]);
        continue;
      }
      const stage = opened.value;
      const made = stage.parts();
      const reports = [stage.report(duty), stage.report({ ...duty, torque: 400 })];
      const texts = written([
        reports,
        reports.flatMap((r) => r.figures.map(workingOf)),
        stage.tables(),
        stage.assembly(),
        made.ok ? made.value.map((x) => x.note) : [],
      ]);
      expect(texts.length).toBeGreaterThan(10);
      expect(texts.filter((t) => METRIC.test(t) || /[\uE000\uE001]|NaN|undefined/.test(t))).toEqual([]);
    }
  });

  each('weighs and costs what its list of parts does', (kind) => {
    const rest: Duty = { torque: 0, torqueRms: 0, speed: 0 };
    let seen = 0;
    for (const { params } of anyStages(kind, examples(40), 41)) {
      const opened = kind.open(params, shelf);
      const parts = opened.ok ? opened.value.parts() : opened;
      if (!opened.ok || !parts.ok) continue;
      const n = opened.value.load(rest);
      const sum = (of: 'mass' | 'money') => parts.value.reduce((s, x) => s + x.quantity * x[of], 0);
      expect(sum('mass') / n.mass, JSON.stringify(params)).toBeCloseTo(1, 9);
      expect(sum('money') / n.money, JSON.stringify(params)).toBeCloseTo(1, 9);
      for (const x of parts.value) {
        expect(x.mass >= 0 && x.money >= 0, x.id).toBe(true);
        expect(Number.isInteger(x.quantity) && x.quantity > 0, x.id).toBe(true);
      }
      seen++;
    }
    expect(seen).toBeGreaterThanOrEqual(examples(40) / 2);
  });

  each('has bands that a person can believe, whatever its parameters', (kind) => {
    for (const any of anyStages(kind, examples(60), 5)) {
      const r = analyseOf(kind, any.params, any.duty, shelf);
      if (!r.ok) continue;
      for (const f of r.value.figures) {
        expect(Number.isFinite(f.value), f.id).toBe(true);
        expectBand(f);
        expect(sayBanded(f, f.quantity), f.id).not.toMatch(/\de[-+−]?\d|NaN|Infinity/);
      }
    }
  });

  each('carries less margin the more is asked, and the same numbers whatever is asked', (kind) => {
    const params = kind.defaults(wish());
    const [light, heavy] = [
      report(kind, params, { ...duty, torque: 0.5, torqueRms: 0.2, equivalent: 0.3 }),
      report(kind, params, { ...duty, torque: 5, torqueRms: 2, equivalent: 3 }),
    ];
    expect(heavy.numbers.ratio).toBe(light.numbers.ratio);
    expect(heavy.numbers.mass).toBeCloseTo(light.numbers.mass, 9);
    expect(heavy.numbers.life).toBeLessThanOrEqual(light.numbers.life);
    for (const l of light.numbers.limits) {
      // What bending alone uses up has no torque left that lasts as long as is asked.
      if (l.time === 'life') expect(l.torque, l.mode).toBeGreaterThanOrEqual(0);
      else expect(l.torque, l.mode).toBeGreaterThan(0);
      expect(heavy.numbers.limits.find((x) => x.mode === l.mode)!.life, l.mode).toBeLessThanOrEqual(l.life);
    }
  });

  each('screens to the numbers it reports', (kind) => {
    for (const p of [kind.defaults(wish()), kind.defaults(wish({ ratio: 6, torque: 8 }))]) {
      const [full, quick] = [report(kind, p).numbers, screenOf(kind, p, duty, shelf)];
      if (!quick.ok) throw new Error(quick.problem.what);
      for (const key of [
        'ratio',
        'etaForward',
        'stiffness',
        'mass',
        'outside',
        'length',
        'bore',
        'inertiaIn',
        'drag',
      ] as const)
        expect(quick.value[key], key).toBeCloseTo(full[key], 9);
      expect(quick.value.play).toEqual(full.play);
      expect(quick.value.limits).toEqual(full.limits);
    }
  });

  each('stands where its report has no check that stops it, asked quickly or in full', (kind) => {
    for (const { params, duty: at } of anyStages(kind, examples(60), 17)) {
      const [quick, full] = [kind.open(params, shelf), kind.open(params, shelf)];
      if (!quick.ok || !full.ok) continue;
      const stops = full.value.report(at).checks.filter((c) => c.state === 'fails' && c.severity === 'stop');
      expect(quick.value.stands(at), `${kind.id}: ${stops.map((c) => c.id).join()}`).toBe(stops.length === 0);
    }
  });

  each('records every factor of the shop that moves it', (kind) => {
    for (const { params, duty: at } of anyStages(kind, examples(9), kind.id.length)) {
      const opened = kind.open(params, shelf);
      if (!opened.ok) continue;
      const stage = opened.value;
      const plain = JSON.stringify(stage.load(at));
      const read = stage.reads(at).factors;
      for (const id of read) expect(shelf.factors[id], `${kind.id} reads ${id}`).toBeDefined();
      // All the others at once; only where something moves is it asked which of them it was.
      const others = Object.values(shelf.factors).filter((f) => !read.has(f.id));
      const moved = (list: typeof others) => {
        const other = kind.open(
          params,
          list.reduce((s, f) => withFactor(s, f.id, f.value * 1.7 + 1), shelf),
        );
        return !other.ok || JSON.stringify(other.value.load(at)) !== plain;
      };
      expect(others.length).toBeGreaterThan(20);
      const unseen = moved(others) ? others.filter((f) => moved([f])).map((f) => f.id) : [];
      expect(unseen, `what moves ${kind.id} unseen`).toEqual([]);
      expect(moved(others), `what moves ${kind.id} together`).toBe(false);
    }
  });

  each('computes with one factor moved what it computes when it is opened so', (kind) => {
    for (const { params, duty: at } of anyStages(kind, 3, 3 * kind.id.length)) {
      const opened = kind.open(params, cold);
      if (!opened.ok) continue;
      opened.value.load(at);
      for (const id of opened.value.reads(at).factors) {
        const { low, high } = cold.factors[id]!;
        for (const value of low < high ? [low, high] : []) {
          const anew = kind.open(params, withFactor(cold, id, value));
          const moved = opened.value.moved(id, value);
          expect(moved && JSON.stringify(moved.load(at)), `${id} ${value}`).toBe(
            anew.ok ? JSON.stringify(anew.value.load(at)) : undefined,
          );
        }
      }
    }
  });

  each('records the materials and bearings that it is made of', (kind) => {
    const params = kind.defaults(wish()) as Record<string, unknown>;
    const { reads } = report(kind, params);
    const named = Object.values(params);
    expect([...reads.materials].every((id) => named.includes(id))).toBe(true);
    for (const m of shelf.materials.filter((x) => named.includes(x.id))) {
      const other = {
        ...shelf,
        materials: shelf.materials.map((x) => (x.id === m.id ? { ...x, density: 2 * x.density } : x)),
      };
      const mass = report(kind, params, duty, other).numbers.mass;
      if (mass !== report(kind, params).numbers.mass) expect(reads.materials, m.id).toContain(m.id);
    }
    for (const b of shelf.bearings.filter((x) => named.includes(x.id))) {
      const other = {
        ...shelf,
        bearings: shelf.bearings.map((x) => (x.id === b.id ? { ...x, static: x.static / 2 } : x)),
      };
      const now = JSON.stringify(report(kind, params, duty, other).numbers);
      if (now !== JSON.stringify(report(kind, params).numbers)) expect(reads.bearings, b.id).toContain(b.id);
    }
  });

  each('keeps numbers apart from what it was given: the same again, and the parameters untouched', (kind) => {
    const params = kind.defaults(wish());
    const before = JSON.stringify(params);
    const first = JSON.stringify(report(kind, params).numbers);
    expect(JSON.stringify(report(kind, params).numbers)).toBe(first);
    expect(JSON.stringify(params)).toBe(before);
  });
});

function lengthOf(o: Outline): number {
  const p = flatten(o, 1e-5);
  let sum = 0;
  for (let i = 2; i + 1 < p.length; i += 2) sum += Math.hypot(p[i]! - p[i - 2]!, p[i + 1]! - p[i - 1]!);
  return sum;
}
const shapes = (layers: readonly Layer[]) =>
  layers.flatMap((l) => l.items.flatMap((i) => (i.kind === 'curve' ? [i] : [])));

describe('what every kind draws', () => {
  each(
    'has layers and keys of their own, poses that are numbers, and outlines that do not change with the crank',
    (kind) => {
      const params = kind.defaults(wish());
      const stage = stageOf(kind, params);
      const drawn = [0, 0.7].map((crank) => stage.drawing(crank, { duty }));
      for (const layers of drawn) {
        expect(new Set(layers.map((l) => l.id)).size).toBe(layers.length);
        for (const l of layers) expect(new Set(l.items.map((i) => i.key)).size, l.id).toBe(l.items.length);
        for (const c of shapes(layers))
          for (const v of [c.at.x, c.at.y, c.at.turn]) expect(Number.isFinite(v), c.key).toBe(true);
      }
      // The same object means the same shape: what turns must not be made anew for every frame.
      const [a, b] = drawn.map((layers) => new Map(shapes(layers).map((c) => [c.key, c.outline])));
      const points = (keys: readonly string[]) => keys.reduce((n, k) => n + a!.get(k)!.points.length / 3, 0);
      const all = [...a!.keys()];
      const flowing = new Set(drawn.flatMap(shapes).flatMap((c) => (c.flows ? [c.key] : [])));
      const still = all.filter((k) => !flowing.has(k));
      if (points(still) > 400)
        expect(points(still.filter((k) => b!.get(k) === a!.get(k))) / points(still)).toBeGreaterThan(0.7);
    },
  );

  each('turns its input with the crank and its output by the ratio', (kind) => {
    // Of several sets alike one is drawn: a ratio that one gives.
    const stage = stageOf(kind, kind.defaults(wish({ ratio: 5 })));
    const step = 1e-3;
    const drawn = [0.3, 0.3 + step].map(
      (crank) => new Map(shapes(stage.drawing(crank, { duty })).map((c) => [c.key, c])),
    );
    // How fast a shape turns about itself, and how fast its middle goes round the axis.
    const rates = [...drawn[0]!].flatMap(([key, a]) => {
      const b = drawn[1]!.get(key);
      if (!b) return [];
      const round = (p: typeof a) => Math.atan2(p.at.y, p.at.x);
      const far = Math.hypot(a.at.x, a.at.y) > 1e-6;
      const flexes = a.flows || (a.outline !== b.outline && a.outline.points.length > 600);
      return [(b.at.turn - a.at.turn) / step, far ? (round(b) - round(a)) / step : 0, ...(flexes ? [NaN] : [])];
    });
    const { ratio } = stage.load(duty);
    const runs = [...drawn[0]!].flatMap(([key, a]) => {
      const b = drawn[1]!.get(key);
      return b ? [Math.hypot(b.at.x - a.at.x, b.at.y - a.at.y) / step] : [];
    });
    const all = kind.straight ? runs : rates;
    const goes = (rate: number) => all.some((r) => Math.abs(r - rate) < 1e-6 * (1 + Math.abs(rate)));
    expect(
      rates.some((r) => Number.isFinite(r) && Math.abs(r) > 1e-9),
      'something turns',
    ).toBe(true);
    expect(
      goes(kind.straight ? Math.abs(1 / ratio) : 1 / ratio) || (!kind.straight && rates.some(Number.isNaN)),
      `the output turns at 1/${ratio}`,
    ).toBe(true);
  });

  each('is there as a glyph too, with no more in it', (kind) => {
    const params = kind.defaults(wish());
    const [full, glyph] = [
      drawingOf(kind, params, 0, { shelf, duty }),
      drawingOf(kind, params, 0, { shelf, duty, glyph: true }),
    ];
    expect(full.ok && glyph.ok && shapes(glyph.value).length).toBeGreaterThan(0);
    expect(full.ok && glyph.ok && shapes(glyph.value).length <= shapes(full.value).length).toBe(true);
  });

  each('has parts with mass and money, whose outlines have a length, and steps to put them together', (kind) => {
    const params = kind.defaults(wish());
    const made = partsOf(kind, params, shelf);
    if (!made.ok) throw new Error(made.problem.what);
    expect(new Set(made.value.map((p) => p.id)).size).toBe(made.value.length);
    let mass = 0;
    for (const p of made.value) {
      expect(p.quantity, p.id).toBeGreaterThan(0);
      expect(Number.isInteger(p.quantity), p.id).toBe(true);
      expect(p.mass, p.id).toBeGreaterThanOrEqual(0);
      expect(p.money, p.id).toBeGreaterThanOrEqual(0);
      if (kind.bought) expect(p.made, p.id).toBe('bought');
      for (const c of p.curves) expect(lengthOf(c.outline), `${p.id} ${c.layer}`).toBeGreaterThan(0);
      mass += p.quantity * p.mass;
    }
    // Housings and fasteners are in the stage's mass and not among its parts.
    expect(mass).toBeGreaterThan(0);
    expect(assemblyOf(kind, params).length).toBeGreaterThan(made.value.length > 1 ? 1 : 0);
  });

  each('gives every body that can be seen a place for each of its pieces, in finite numbers', (kind) => {
    const made = partsOf(kind, kind.defaults(wish()), shelf);
    if (!made.ok) throw new Error(made.problem.what);
    for (const p of made.value) {
      if (!p.solid && !p.seen) continue;
      const places = p.places?.(1.3);
      expect(places?.length, `${p.id}: a place for each of ${p.quantity}`).toBe(p.quantity);
      for (const q of places!)
        for (const x of [...q.at, q.turn, ...q.apart]) expect(Number.isFinite(x), p.id).toBe(true);
    }
  });

  each(
    'turns what goes with its input as the crank, what goes with its output by its ratio, what is fixed not',
    (kind) => {
      const stage = stageOf(kind, kind.defaults(wish()));
      const parts = stage.parts();
      if (!parts.ok) throw new Error(parts.problem.what);
      const { ratio } = stage.kinematics;
      const crank = 0.7;
      const found = new Set<string>();
      for (const p of parts.value) {
        if (!p.places) continue;
        if (p.runs) {
          // What runs straight goes its way along the output.
          const way = stage.ports().output.straight!;
          p.places(crank).forEach((q, i) => {
            const was = p.places!(0)[i]!;
            for (const k of [0, 1, 2] as const)
              expect(q.at[k] - was.at[k], p.id).toBeCloseTo((way[k] * crank) / ratio, 9);
          });
          found.add('output');
        }
        if (p.turns === 'free') continue;
        const by = p.turns === 'input' ? crank : p.turns === 'output' ? crank / ratio : 0;
        p.places(crank).forEach((q, i) => {
          const was = p.places!(0)[i]!;
          // It turns on an axis of the stage's own: one that goes round is carried there too.
          const carried = Math.hypot(q.at[0] - was.at[0], q.at[1] - was.at[1]) > 1e-9;
          const from = Math.atan2(was.at[1], was.at[0]);
          const to = Math.atan2(q.at[1], q.at[0]);
          const turned = carried ? to - from : q.turn - was.turn;
          expect(Math.cos(turned - by), `${p.id} turned by ${turned}, not ${by}`).toBeCloseTo(1, 9);
          expect(Math.hypot(q.at[0], q.at[1]), p.id).toBeCloseTo(Math.hypot(was.at[0], was.at[1]), 9);
          if (!carried && by !== 0) found.add(p.turns!);
        });
      }
      if (!kind.bought) expect([...found].sort()).toEqual(['input', 'output']);
    },
  );

  each('takes power in and gives it out at finite places, from a port to another', (kind) => {
    const { input, output } = stageOf(kind, kind.defaults(wish())).ports();
    for (const port of [input, output]) {
      for (const x of [...port.at, port.shaft]) expect(Number.isFinite(x)).toBe(true);
      expect(port.shaft).toBeGreaterThanOrEqual(0);
    }
    expect(output.along).toBe('z');
    expect(output.at[2]).toBeGreaterThan(input.at[2]);
  });

  each('says which parameter bores what a shaft goes into, and is bored by it', (kind) => {
    const params = kind.defaults(wish()) as Record<string, unknown>;
    for (const port of ['input', 'output'] as const) {
      const { boredBy } = stageOf(kind, params).ports()[port];
      if (boredBy === undefined) continue;
      const wide = 0.9 * ((params[boredBy] as number) || 5e-3);
      expect(stageOf(kind, { ...params, [boredBy]: wide }).ports()[port].shaft, boredBy).toBe(wide);
    }
  });

  each('has an efficiency that follows from something: a factor of the shop moves it', (kind) => {
    const stage = stageOf(kind, kind.defaults(wish()));
    const { etaForward, etaBackward } = stage.load(duty);
    expect(etaForward).toBeGreaterThan(0);
    expect(etaForward).toBeLessThan(1);
    expect(etaBackward).toBeLessThan(1);
    const moved = [...stage.reads(duty).factors].filter((id) => {
      const { value, low, high } = shelf.factors[id]!;
      const other = stage.moved(id, value === high ? low : high);
      return other !== undefined && other.load(duty).etaForward !== etaForward;
    });
    expect(moved.length, 'factors that move it').toBeGreaterThan(0);
  });

  each('courses run once round and come back to where they began', (kind) => {
    const opened = kind.open(kind.defaults(wish()), shelf);
    if (!opened.ok) throw new Error(opened.problem.what);
    for (const c of opened.value.courses?.(duty) ?? []) {
      const [least, most] = [Math.min(...c.values), Math.max(...c.values)];
      expect(Number.isFinite(least) && Number.isFinite(most), c.id).toBe(true);
      expect(Math.abs(c.values.at(-1)! - c.values[0]!), c.id).toBeLessThanOrEqual(
        0.05 * (most - least) + 1e-9 * Math.abs(most),
      );
    }
  });
});

describe('searching any kind', () => {
  each('leaves as wide a passage as its length for one says, or says that it cannot be', (kind) => {
    if (!kind.passage) return expect(kind.bought || kind.straight).toBe(true);
    let wide = 0;
    const wishes = [4, 20, 60].map((ratio) => wish({ ratio, size: 0.3, bore: 0.014 }));
    for (const p of wishes.flatMap((w) => [...kind.candidates(w)])) {
      const params = { ...p, [kind.passage]: 0.014 };
      const opened = kind.open(params, shelf);
      if (opened.ok && opened.value.stands(duty)) {
        expect(opened.value.load(duty).bore).toBeCloseTo(0.014, 12);
        wide++;
      } else if (!opened.ok) expect(opened.problem.mend.length).toBeGreaterThan(5);
      if (wide > 3) break;
    }
    // Of candidates for a passage some leave it.
    expect(wide).toBeGreaterThan(0);
  });

  each('has candidates its schema takes, whatever is wished, and not without end', (kind) => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.5, max: 120, noNaN: true }),
        fc.double({ min: 0.01, max: 80, noNaN: true }),
        fc.constantFrom(0.03, 0.09, 0.3, Infinity),
        (ratio, torque, size) => {
          let n = 0;
          for (const p of kind.candidates(wish({ ratio, torque, size }))) {
            if (n < 3) expect(readParams(kind.id, p), JSON.stringify(p)).toMatchObject({ ok: true });
            if (++n > 20_000) break;
          }
          expect(n).toBeLessThan(20_000);
        },
      ),
      { numRuns: 6 },
    );
  });

  each('starts with something its schema takes, whatever is wished', (kind) => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.01, max: 400, noNaN: true }),
        fc.double({ min: 1e-3, max: 500, noNaN: true }),
        fc.constantFrom(0.01, 0.05, 0.2, Infinity),
        (ratio, torque, size) => {
          const params = kind.defaults(wish({ ratio, torque, size }));
          expect(readParams(kind.id, params), JSON.stringify(params)).toMatchObject({ ok: true });
          const r = analyseOf(kind, params, { ...duty, torque }, shelf);
          if (!r.ok) expect(r.problem.mend.length).toBeGreaterThan(5);
        },
      ),
      { numRuns: 6 },
    );
  });
});
