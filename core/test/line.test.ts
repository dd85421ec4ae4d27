import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  bandFrom,
  demandOf,
  driverFor,
  findFigure,
  forward,
  makeShelf,
  movers,
  needed,
  openLine,
  samplePlay,
  sizeLine,
  sumLine,
  type Joint,
  type Variant,
  workingOf,
} from '../src/index.ts';
import { demo, shelf } from './helpers.ts';

const a = (j: Joint): Variant => j.variants[0]!;
const value = (j: Joint, v: Variant, id: string) => analyseLine(j, v, shelf).figures.find((f) => f.id === id)!.value;

describe('the whole line', () => {
  it('has figures that leave their working behind where they are sent away, and take it along as text', () => {
    const { figures } = analyseLine(demo(), a(demo()), shelf);
    const torque = figures.find((f) => f.id === 'torque')!;
    const sent = structuredClone(torque);
    expect(sent).toMatchObject({ id: 'torque', value: torque.value, low: torque.low, high: torque.high });
    expect(workingOf(sent)).toBeUndefined();
    expect(JSON.parse(JSON.stringify(torque)).working.formula).toBe(workingOf(torque)!.formula);
    // Its resolution is another figure under a name of its own, and tells the same.
    const best = figures.find((f) => f.id === 'resolution')!;
    expect(workingOf(best)!.source.length).toBeGreaterThan(4);
  });

  it('asks for no more current than a brushless motor stands for a short time, down to a tenth of an ampere', () => {
    const motor = shelf.motors.find((m) => m.type === 'brushless')!;
    const base = a(demo());
    const { unit: _, ...driver } = driverFor(motor, base.motor, base.driver, shelf);
    const v = { ...base, motor, driver: { ...driver, currentLimit: 900 } } as Variant;
    const check = analyseLine(demo(), v, shelf, { bands: false }).checks.find((c) => c.id === 'driver')!;
    expect(check.state).toBe('fails');
    expect(check.mend!.value).toBeCloseTo(Math.floor(check.limit * 10 + 1e-9) / 10, 9);
    expect(check.limit).toBeGreaterThan(1);
  });

  it('has finite figures inside their bands, each with a working', () => {
    const report = analyseLine(demo(), a(demo()), shelf);
    expect(report.problem).toBeUndefined();
    expect(report.figures.length).toBeGreaterThan(18);
    for (const f of report.figures) {
      expect([f.value, f.low, f.high].every(Number.isFinite), f.id).toBe(true);
      expect(f.low <= f.value && f.value <= f.high, f.id).toBe(true);
      expect(workingOf(f)!.formula.length).toBeGreaterThan(2);
      expect(workingOf(f)!.source.length).toBeGreaterThan(4);
      for (const t of workingOf(f)!.terms) expect(Number.isNaN(t.value), `${f.id} ${t.symbol}`).toBe(false);
    }
  });

  it('gives the same answer twice', () => {
    expect(analyseLine(demo(), a(demo()), shelf)).toEqual(analyseLine(demo(), a(demo()), shelf));
  });

  it('adds up: ratio, wind-up, mass and money of the stages and the motor', () => {
    const j = demo();
    const report = analyseLine(j, a(j), shelf);
    const sum = (key: 'windUp' | 'mass' | 'money' | 'inertia') => report.attribution.reduce((t, x) => t + x[key], 0);
    expect(report.attribution.reduce((t, x) => t * x.ratio, 1)).toBeCloseTo(value(j, a(j), 'ratio'), 12);
    const round = report.beside!;
    expect(round.linkWindUp).toBeGreaterThan(0);
    expect(sum('windUp') + round.linkWindUp).toBeCloseTo(value(j, a(j), 'windUp'), 12);
    expect(round.aroundMass).toBeGreaterThan(0);
    expect(round.driveMass).toBe(0.02);
    expect(sum('mass') + a(j).motor.mass + round.driveMass + round.sensorMass + round.aroundMass).toBeCloseTo(
      value(j, a(j), 'mass'),
      12,
    );
    const { unit, supply } = a(j).driver;
    expect(
      sum('money') + a(j).motor.price + unit!.price + supply!.price + round.sensorMoney + round.aroundMoney,
    ).toBeCloseTo(value(j, a(j), 'money'), 12);
    const rotor = a(j).motor.rotorInertia * value(j, a(j), 'ratio') ** 2;
    expect(sum('inertia') + rotor + round.linkInertia).toBeCloseTo(value(j, a(j), 'inertia'), 12);
  });

  it('loses what goes in less what comes out, stage by stage', () => {
    const j = demo();
    const report = analyseLine(j, a(j), shelf);
    // What comes in for a torque carried steadily: the peak over the share of it that arrives.
    const put = report.demand.peak / value(j, a(j), 'efficiency');
    expect(report.attribution.reduce((t, x) => t + x.loss, 0)).toBeCloseTo(put - report.demand.peak, 9);
  });

  it('keeps the torque of the last node at the motor’s reach', () => {
    const j = demo();
    const report = analyseLine(j, a(j), shelf);
    expect(report.nodes).toHaveLength(3);
    expect(report.nodes[2]!.torque).toBeCloseTo(value(j, a(j), 'reach'), 12);
    expect(report.nodes[2]!.speed).toBeCloseTo(report.demand.speed, 12);
  });

  it('speed is where the reach falls to the peak', () => {
    const j = demo();
    const asked = demandOf(j.brief, shelf);
    const opened = openLine(a(j).stages, shelf).all;
    if (!opened.ok) throw new Error();
    const line = { variant: a(j), stages: opened.value, demand: asked, shelf };
    const n = sumLine(line);
    if (!n.ok) throw new Error();
    const { speed } = n.value.numbers;
    const points = asked.points.map((p) => (p.time === 'peak' ? { ...p, speed } : p));
    const at = sumLine({ ...line, demand: { ...asked, speed, points } });
    if (!at.ok) throw new Error();
    expect(at.value.numbers.reach).toBeCloseTo(asked.peak, 5);
  });

  it('divides play before a last stage by its ratio', () => {
    const play = [0.01, 0.001] as const;
    const links = [{ ratio: 3 }, { ratio: -5 }];
    const band = samplePlay(links, [
      [play[0], play[0], play[0]],
      [play[1], play[1], play[1]],
    ]);
    expect(band.likely).toBeCloseTo(0.01 / 5 + 0.001, 12);
    const spread = samplePlay(
      links,
      [
        [0.01, 0, 0.02],
        [0.001, 0, 0.002],
      ],
      4000,
      7,
    );
    expect(spread.worst).toBeCloseTo(0.006, 12);
    expect(spread.likely).toBeGreaterThan(0.0027);
    expect(spread.likely).toBeLessThan(0.0033);
    expect(spread.high).toBeLessThan(spread.worst);
    expect(
      samplePlay(
        links,
        [
          [0.01, 0, 0.02],
          [0.001, 0, 0.002],
        ],
        4000,
        7,
      ),
    ).toEqual(spread);
  });

  it('forward and needed undo each other for any chain', () => {
    const link = fc.record({
      ratio: fc.double({ min: 0.5, max: 20, noNaN: true }),
      etaForward: fc.double({ min: 0.1, max: 1, noNaN: true }),
      etaBackward: fc.constant(0.9),
      drag: fc.double({ min: 0, max: 0.1, noNaN: true }),
      stiffness: fc.constant(100),
    });
    fc.assert(
      fc.property(fc.array(link, { maxLength: 5 }), fc.double({ min: 0.01, max: 50, noNaN: true }), (links, t) => {
        expect(forward(links, needed(links, t)) / t).toBeCloseTo(1, 9);
      }),
    );
  });

  it('says what stops it and keeps the other stages when one cannot be', () => {
    const j = demo();
    a(j).stages[0] = { ...a(j).stages[0]!, params: { ...a(j).stages[0]!.params, beltTeeth: 20 } };
    const report = analyseLine(j, a(j), shelf);
    expect(report.problem?.what).toMatch(/too short/);
    expect(report.stages[0]!.problem?.fix?.label).toMatch(/Belt with/);
    expect(report.stages[1]!.report).toBeDefined();
    expect(report.verdicts.every((v) => v.state === 'unknown')).toBe(true);
  });

  it('works without stages: the motor alone', () => {
    const j = demo();
    a(j).stages = [];
    const report = analyseLine(j, a(j), shelf);
    expect(report.problem).toBeUndefined();
    expect(report.figures.find((f) => f.id === 'ratio')!.value).toBe(1);
    expect(report.verdicts.find((v) => v.id === 'torque')!.state).toBe('fails');
  });

  it('stays finite for extreme but allowed briefs', () => {
    const extremes: Partial<Joint['brief']['cases'][0]>[] = [
      { load: 0, armMass: 0 },
      { load: 1e4 },
      { speed: 0 },
      { speed: 1e3 },
      { acceleration: 0 },
      { acceleration: 1e5 },
      { angleFrom: 0, angleTo: 0 },
      { rest: 0, speed: 0 },
    ];
    for (const change of extremes) {
      const j = demo();
      Object.assign(j.brief.cases[0]!, change);
      for (const f of analyseLine(j, a(j), shelf).figures)
        expect([f.value, f.low, f.high].every(Number.isFinite), `${JSON.stringify(change)} ${f.id}`).toBe(true);
    }
  });
});

describe('bands', () => {
  it('add as root sum of squares, ends apart, and forgive what cannot be computed', () => {
    expect(
      bandFrom(10, [
        [7, 10],
        [14, 10],
      ]),
    ).toEqual([7, 14]);
    expect(
      bandFrom(10, [
        [7, 10],
        [6, 10],
      ]),
    ).toEqual([5, 10]);
    expect(bandFrom(10, [[NaN, Infinity]])).toEqual([10, 10]);
    expect(bandFrom(10, [])).toEqual([10, 10]);
  });
});

describe('what moves a figure', () => {
  it('finds the belt’s width and pulley for stiffness, by derivative', () => {
    const j = demo();
    const list = movers(j, a(j), shelf, { stageId: undefined, figureId: 'stiffness' }, 8);
    expect(list.map((m) => m.label)).toContain('driven pulley');
    const width = list.find((m) => m.label === 'belt width' && m.group === 'stage 2')!;
    expect(width.change).toBeGreaterThan(0.005);
    expect(width.change).toBeLessThan(0.01);
    for (let i = 1; i < list.length; i++)
      expect(Math.abs(list[i]!.change)).toBeLessThanOrEqual(Math.abs(list[i - 1]!.change));
  });

  it('finds the load for the holding wind-up, and nothing for a figure that is not there', () => {
    const j = demo();
    expect(
      movers(j, a(j), shelf, { stageId: undefined, figureId: 'windUp' }, 12).some((m) => m.label === 'mass carried'),
    ).toBe(true);
    expect(movers(j, a(j), shelf, { stageId: undefined, figureId: 'nothing' })).toEqual([]);
  });

  it('tells progress and stops when told', () => {
    const j = demo();
    const seen: number[] = [];
    movers(j, a(j), shelf, { stageId: 's2', figureId: 'centre' }, 3, (p) => (seen.push(p), p < 0.5));
    expect(seen.at(-1)!).toBeGreaterThanOrEqual(0.5);
    expect(seen.at(-1)!).toBeLessThan(0.6);
  });
});

describe('sizing', () => {
  it('carries the brief with the motor over a wide range of loads', () => {
    for (const load of [0.2, 0.6, 1.1, 1.8]) {
      const j = demo();
      j.brief.cases[0]!.load = load;
      const v = { ...a(j), stages: sizeLine(j, a(j), shelf) };
      const report = analyseLine(j, v, shelf);
      expect(report.problem).toBeUndefined();
      expect(report.verdicts.find((x) => x.id === 'torque')!.state, `${load} kg`).not.toBe('fails');
      expect(v.stages.map((s) => s.id)).toEqual(a(j).stages.map((s) => s.id));
    }
  });

  it('reads gravity and factors from the shop', () => {
    const moon = makeShelf({ factors: { gravity: { value: 1.62, low: 1.62, high: 1.62 } } });
    expect(demandOf(demo().brief, moon).hold / demandOf(demo().brief, shelf).hold).toBeCloseTo(1.62 / 9.80665, 9);
    expect(
      findFigure(analyseLine(demo(), a(demo()), moon), { stageId: undefined, figureId: 'torque' })?.value,
    ).toBeGreaterThan(0);
  });
});
