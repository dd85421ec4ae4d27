import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  backward,
  blankVariant,
  driverFor,
  driverHeat,
  driverTemperature,
  driverUnitFor,
  fullCurrent,
  givenBack,
  mended,
  motorTorque,
  netBack,
  pathCurrent,
  readDriver,
  setDriver,
  supplyFor,
  swollen,
  turnBack,
  withSupply,
  withUnit,
  type Demand,
  type Driver,
  type Motor,
  type Variant,
} from '../src/index.ts';
import { demo, shelf } from './helpers.ts';

// A driver and a supply as things: what they set, how they warm, and where power goes that comes back.

const motor = (id: string): Motor => shelf.motors.find((m) => m.id === id)!;
const unit = (id: string) => shelf.drivers.find((u) => u.id === id)!;
const supply = (id: string) => shelf.supplies.find((s) => s.id === id)!;
const plain: Driver = { supplyVoltage: 24, currentLimit: 1.7, supplyCurrent: 4, microsteps: 16 };
const brushless = motor('bl50-170');

describe('a driver’s heat', () => {
  it('is I²·R of what each switch carries, summed over a turn of the field', () => {
    // Three legs of one switch (6 mΩ) each, sine currents a third of a turn apart, of 15 A for k_t·√3/2·15 N·m.
    const u = unit('dr-bl-field15');
    const d = withUnit({ ...plain, supplyVoltage: 24, currentLimit: 15 }, u, brushless);
    const torque = (Math.sqrt(3) / 2) * 15 * (60 / (2 * Math.PI * 170)) - 0.4 * (60 / (2 * Math.PI * 170));
    let heat = 0;
    for (let i = 0; i < 3600; i++)
      for (let leg = 0; leg < 3; leg++)
        heat += ((15 * Math.sin((2 * Math.PI * i) / 3600 + (2 * Math.PI * leg) / 3)) ** 2 * 0.006) / 3600;
    expect(driverHeat(u, pathCurrent(brushless, d, torque))).toBeCloseTo(1.5 + heat, 9);
    // 2.025 W and 1.5 W of its own through 8 K/W, from 20 °C.
    expect(driverTemperature(u, pathCurrent(brushless, d, torque), shelf)).toBeCloseTo(293.15 + 8 * 3.525, 9);
  });

  it('of a stepper is that of its set current, whatever the load', () => {
    const st = motor('st57-56');
    const d: Driver = { ...plain, currentLimit: 2, sets: 'rms' };
    // Two phases of 2 A root mean square each through 0.2 Ω.
    expect(driverHeat({ idle: 0, resistance: 0.2 }, pathCurrent(st, d, 0))).toBeCloseTo(2 * 4 * 0.2, 12);
    expect(pathCurrent(st, d, 0.7)).toBe(pathCurrent(st, d, 0));
  });

  it('of a servo is that of three phases at its root mean square', () => {
    const sv = motor('sv60-200');
    expect(driverHeat({ idle: 0, resistance: 0.3 }, pathCurrent(sv, plain, 0.64))).toBeCloseTo(3 * 1.7 ** 2 * 0.15, 12);
  });
});

describe('power that comes back', () => {
  it('is what is left of the shaft’s after friction, copper and driver', () => {
    const kt = 60 / (2 * Math.PI * 170);
    const d: Driver = { ...plain, unit: unit('dr-bl-field40') };
    // 10 A generated at 200 rad/s: 0.4 A more come in as friction; 19 W in the winding, 0.4 W in switches, 2.5 W own use.
    expect(netBack(brushless, d, 10.4 * kt, 200)).toBeCloseTo(10 * kt * 200 - 19 - 0.4 - 2.5, 9);
    expect(netBack(brushless, d, 10.4 * kt, 0)).toBeCloseTo(-21.9, 9);
  });

  it('never is more than comes in', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...shelf.motors),
        fc.double({ min: 0, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 600, noNaN: true }),
        (m, torque, speed) => {
          expect(netBack(m, plain, torque, speed)).toBeLessThanOrEqual(torque * speed + 1e-12);
        },
      ),
    );
  });

  it('arrives at the motor as the load that would just turn the line back leaves it', () => {
    const links = [
      { ratio: 4, etaForward: 0.9, etaBackward: 0.88, drag: 0.01, stiffness: 1 },
      { ratio: -12, etaForward: 0.8, etaBackward: 0.7, drag: 0.04, stiffness: 1 },
    ];
    expect(backward(links, turnBack(links, 0.02).torque)).toBeCloseTo(0.02, 12);
    expect(backward([{ ...links[0]!, etaBackward: -0.4 }], 50)).toBe(0);
  });

  it('adds up, over a lowering with its stop, to what small steps give', () => {
    const links = [{ ratio: 30, etaForward: 0.9, etaBackward: 0.85, drag: 0.01, stiffness: 1 }];
    const demand = {
      hold: 20,
      speed: 4,
      swing: 1.5,
      inertia: 0.8,
      points: [{ acceleration: 10 }, {}],
    } as unknown as Demand;
    const own = 0.09;
    const d: Driver = { ...plain, unit: unit('dr-bl-field40') };
    const at = (load: number, extra: number, w: number) =>
      Math.max(0, netBack(brushless, d, backward(links, load) + extra, w * 30));
    const STEPS = 20_000;
    let energy = at(20, 0, 4) * (1.5 / 4);
    for (let i = 0; i < STEPS; i++)
      energy += (at(20 + 0.8 * 10, (0.09 / 30) * 10, 4 * (1 - (i + 0.5) / STEPS)) * 0.4) / STEPS;
    const found = givenBack(brushless, d, links, demand, own, 30);
    expect(found.energy / energy).toBeCloseTo(1, 6);
    expect(found.power).toBeCloseTo(at(28, 0.03, 4), 9);
    expect(givenBack(brushless, d, [{ ...links[0]!, etaBackward: 0 }], { ...demand, points: [] }, own, 30)).toEqual({
      power: 0,
      energy: 0,
    });
  });

  it('lifts a supply as its capacitance has it: ½·C·(U² − V²)', () => {
    const u = swollen(supply('sp-24-4'), 1);
    expect(0.5 * 2e-3 * (u * u - 576)).toBeCloseTo(1, 12);
  });
});

describe('drivers and supplies of the shop', () => {
  it('read as those of a file do', () => {
    for (const u of shelf.drivers)
      for (const s of shelf.supplies)
        expect(readDriver({ ...plain, unit: u, supply: s })).toEqual({
          ok: true,
          value: { ...plain, unit: u, supply: s },
        });
    expect(readDriver({ ...plain, unit: { ...unit('dr-st-board'), most: -1 } })).toMatchObject({
      ok: false,
      problem: { place: 'unit.most' },
    });
  });

  it('are there for every motor, the cheapest that gives it all or the strongest', () => {
    for (const m of shelf.motors) {
      const u = driverUnitFor(m, m.type === 'servo' ? 310 : 24, shelf)!;
      expect(u.drives, m.name).toBe(m.type);
      const cheaper = shelf.drivers.filter(
        (x) => x.drives === m.type && x.price < u.price && x.least <= 24 && x.most >= 24,
      );
      for (const x of cheaper) expect(x.current, x.name).toBeLessThan(fullCurrent(m, { sets: x.sets }));
    }
    expect(driverUnitFor(brushless, 90, shelf)).toBeUndefined();
    expect(supplyFor(24, 5, undefined, shelf)?.id).toBe('sp-24-6');
    expect(supplyFor(24, 5, unit('dr-sv-400'), shelf)?.voltage).toBe(24);
    expect(supplyFor(24, 500, undefined, shelf)).toBeUndefined();
  });

  it('told in a driver’s own measure the motor’s torque stays', () => {
    const st = motor('st42-48');
    const d = withUnit({ ...plain, currentLimit: 1.5, sets: 'peak' }, unit('dr-st-board'), st);
    expect(d.currentLimit).toBeCloseTo(1.5 / Math.SQRT2, 12);
    expect(motorTorque(st, d, shelf, 0, 'peak').torque).toBeCloseTo(
      motorTorque(st, { ...plain, currentLimit: 1.5 }, shelf, 0, 'peak').torque,
      12,
    );
    const six = withUnit({ ...plain, supplyCurrent: 60, currentLimit: 12 }, unit('dr-bl-step'), brushless);
    expect(six.currentLimit).toBeCloseTo((12 * Math.sqrt(3)) / 2, 12);
    expect(six.sets).toBe('line');
  });

  it('come along with a motor that is picked, and stay where they do', () => {
    const st = motor('st42-48');
    const d = withSupply(withUnit(plain, unit('dr-st-module'), st), supply('sp-24-4'));
    for (const m of shelf.motors) {
      const on = driverFor(m, st, d, shelf);
      expect(on.unit?.drives, m.name).toBe(m.type);
      expect(on.currentLimit).toBeLessThanOrEqual(on.unit!.current + 1e-12);
      expect(on.supply!.current).toBe(on.supplyCurrent);
      if (m.type !== 'servo') {
        expect(on.supply!.voltage).toBeGreaterThanOrEqual(on.unit!.least);
        expect(on.supply!.voltage).toBeLessThanOrEqual(on.unit!.most);
      }
    }
    expect(driverFor(motor('st42-60'), st, d, shelf)).toMatchObject({ unit: d.unit, supply: d.supply });
  });

  it('are the cheapest that do, whatever their order on the shelf; a supply has a tenth in hand, in whole amperes', () => {
    const turned = { ...shelf, drivers: [...shelf.drivers].reverse() };
    expect(driverUnitFor(motor('br24-750'), 24, turned)?.id).toBe('dr-br-bridge');
    expect(driverUnitFor(motor('st42-48'), 24, turned)?.id).toBe('dr-st-board');
    // All that a motor of 2.8 A stands, and 1.1 of it, which is 3.08: four amperes; a setting just below is a choice, and stays.
    const st = motor('st57-56');
    const own = { ...plain, supplyCurrent: 1, currentLimit: 1.7 };
    expect(driverFor(st, motor('st42-48'), own, shelf)).toMatchObject({ currentLimit: 2.8, supplyCurrent: 4 });
    expect(driverFor(st, motor('st42-48'), { ...own, currentLimit: 1.69 }, shelf)).toMatchObject({
      currentLimit: 1.69,
    });
  });

  it('a voltage or current set by hand is no longer that supply', () => {
    const d = withSupply(plain, supply('sp-24-6'));
    expect(setDriver(d, 'currentLimit', 1).supply).toBe(d.supply);
    expect(setDriver(d, 'supplyCurrent', 6).supply).toBe(d.supply);
    expect(setDriver(d, 'supplyCurrent', 9).supply).toBeUndefined();
    expect(setDriver(d, 'supplyVoltage', 36)).toMatchObject({ supplyVoltage: 36, supplyCurrent: 6 });
  });
});

describe('a line with driver and supply chosen', () => {
  const joint = demo();
  const lined = (driver: Driver, m: Motor = brushless): Variant =>
    ({ ...joint.variants[0]!, motor: m, driver }) as Variant;
  const at = (v: Variant) => analyseLine(joint, v, shelf);
  const full = withSupply(
    withUnit({ ...plain, currentLimit: 12 }, unit('dr-bl-field15'), brushless),
    supply('sp-24-15'),
  );

  it('costs them too', () => {
    const money = (v: Variant) => at(v).figures.find((f) => f.id === 'money')!.value;
    const { unit: _u, supply: _s, ...bare } = full;
    expect(money(lined(full)) - money(lined(bare as Driver))).toBeCloseTo(38 + 38, 9);
  });

  it('says what a driver cannot give, take or stand, and each mend helps', () => {
    const hot = { ...unit('dr-bl-field15'), thermalResistance: 60, id: 'hot' };
    const cases: [string, Driver][] = [
      ['driver-current', { ...full, currentLimit: 20 }],
      ['driver-voltage', { ...full, supplyVoltage: 48 }],
      ['driver-heat', { ...full, unit: hot }],
    ];
    for (const [id, d] of cases) {
      const c = at(lined(d)).checks.find((x) => x.id === id)!;
      expect(c, id).toMatchObject({ state: 'fails', severity: 'stop' });
      const after = at(mended(lined(d), c.mend!, shelf));
      expect(after.checks.find((x) => x.id === id)!.state, `${id}: ${c.mend!.label}`).not.toBe('fails');
    }
  });

  it('warns where the load’s power has nowhere to go; a resistor or a battery takes it', () => {
    const small = { ...supply('sp-24-15'), capacitance: 1e-4 };
    const heavy = structuredClone(joint);
    Object.assign(heavy.brief.cases[0]!, { load: 3, speed: 3 });
    const v = lined({ ...full, supply: small });
    const report = analyseLine(heavy, v, shelf);
    const c = report.checks.find((x) => x.id === 'regeneration')!;
    const back = report.figures.find((f) => f.id === 'powerBack')!;
    expect(c).toMatchObject({ state: 'fails', severity: 'warn', quantity: 'voltage', limit: 30 });
    expect(c.mend).toMatchObject({ path: 'driver.brake', value: Math.ceil(back.value * 1.25) });
    expect(back.low).toBeGreaterThan(0);
    const braked = analyseLine(heavy, mended(v, c.mend!, shelf), shelf).checks.find((x) => x.id === 'regeneration')!;
    expect(braked).toMatchObject({ state: 'holds', quantity: 'power', figure: back.value });
    const weak = analyseLine(heavy, lined({ ...full, supply: small, brake: 1 }), shelf);
    expect(weak.checks.find((x) => x.id === 'regeneration')).toMatchObject({ state: 'fails', limit: 1 });
    const battery = analyseLine(heavy, lined(withSupply(full, supply('bt-22-40'))), shelf);
    expect(battery.checks.find((x) => x.id === 'regeneration')).toBeUndefined();
  });

  it('is what a blank joint begins with, and nothing of it fails', () => {
    const v = blankVariant('a', 'A');
    expect(v.driver.unit?.drives).toBe('stepper');
    expect(v.driver.supplyCurrent).toBe(v.driver.supply!.current);
    const ids = at({ ...v, stages: joint.variants[0]!.stages }).checks.filter((c) => c.state === 'fails');
    expect(ids.map((c) => c.id).filter((id) => id.startsWith('driver-') || id === 'regeneration')).toEqual([]);
  });
});
