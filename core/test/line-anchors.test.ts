import { describe, expect, it } from 'vitest';
import { analyseLine, findMaterial, type Variant } from '../src/index.ts';
import type { Anchor, AnchoredCheck } from './anchors/anchor.ts';
import { unit } from './anchors/unit.ts';
import { demo, shelf } from './helpers.ts';

// Every figure of a line has a worked value as those of a kind have: the demo's beam on a stepper of 0.55 N·m and a bought
// unit of 10 : 1 (514.4512620174207 N·m/rad, 10.556 mN·m of drag, 4 and 8 N·m).

const G = 9.80665;
const k = 514.4512620174207;
const drag = 0.010556063286183155;
const most = 0.0034906585039886587;
const level = G * (1.1 * 0.32 + 0.45 * 0.14);
const load = 1.1 * 0.32 ** 2 + 0.45 * 0.14 ** 2;
/** Speeding up at 6 rad/s² to 108°/s takes v²/2a from −40°; the beam is heaviest for the motor where that ends. */
const peak = 1.25 * (level * Math.cos(-0.698131700798 + 1.88495559215 ** 2 / 12) + load * 6);
/** It rests at its upper end, 35° over level. */
const hold = level * Math.cos(0.610865238198);
const turn = 2 * Math.PI;
const needed = peak / 9.4 + drag;

/** Rotor and unit, at the motor. */
const own = 7.2e-6 + 6.333637971709892e-6;
/** What a stepper of 0.55 N·m brings while it turns slowly, less the drag: to speed up its own, and not. */
const reach = (0.9 * 0.55 - 10 * 6 * own - drag) * 9.4;
const likely = 0.0023271056693257726;
/** A twentieth of a step of 1.8°, and a microstep of 32 000 a turn. */
const [twentieth, microstep] = [(0.05 * turn) / 2000, turn / 32000];
// Integrated over up, 2 s, down, 2 s: T = 4.0698 N·m·cos θ + 0.12146 kg·m²·α, adaptive quadrature to 1e-12.
const cycle = { rms: 3.3897003563628276, alpha: 2.741944697490967, both: 0.7962454365111468 };
const life = { equivalent: 3.8527637216378423, speed: 0.4350845326455869 };
const loaded = cycle.rms / 9.4 + drag;
const motorRms = Math.sqrt(
  loaded ** 2 + (10 * own * cycle.alpha) ** 2 + (2 * 10 * own * cycle.both * loaded) / cycle.rms,
);

const WORKED: Readonly<Record<string, Anchor>> = {
  ratio: [10, 'of the unit'],
  playWorst: [most, 'what the sheet promises at most'],
  efficiency: [peak / (10 * needed), 'what goes out over ten times what the motor gives'],
  motorNeeded: [needed + 10 * 6 * own, 'peak over 10·0.94, the drag, and rotor and unit sped up by ten times 6 rad/s²'],
  accelerates: [
    ((0.9 * 0.55 - drag) * 9.4 - (peak - load * 6)) / (load + 9.4 * 10 * own),
    'what nine tenths of 0.55 N·m bring to the output less the peak without its acceleration, on load, rotor and unit',
  ],
  turnBack: [((0.02 + drag) * 10) / 0.9361702127659575, 'detent and drag, by ten over the efficiency backwards'],
  inertia: [100 * (7.2e-6 + 6.333637971709892e-6), 'rotor and unit by the square of ten'],
  inertiaMatch: [load / 7.2e-4, 'load over a hundred rotors'],
  size: [0.06397163576691878, 'the unit is wider than a frame of 42 mm'],
  length: [0.048 + 0.05437589040188096, 'motor and unit'],
  // The sensor's board of 4 g, and a magnet of π/4·6²·2.5 mm³ at 7.5 g/cm³.
  mass: [0.36 + 0.02 + 0.004 + 5.3014376e-4 + 0.35112698372208084, 'motor, driver, sensor and unit'],
  money: [106.8, '16 + 57, driver 8 and supply 18, sensor 7 and its magnet 0.8'],
  driverTemperature: [
    293.15 + 14 * (0.3 + 2 * 1.7 ** 2 * 0.34),
    'two phases of 1.7 A root mean square through 0.34 Ω each and 0.3 W of its own, 14 K/W from 20 °C',
  ],
  copperLoss: [
    2 * 1.7 ** 3 * (1 + 0.00393 * 65),
    '1.7 A root mean square in both phases of 1.7 Ω, 65 K warmer than when it was measured',
  ],
  startStop: [0, 'nine tenths of 0.55 N·m are less than the peak takes: nothing is left to speed up with'],
  bore: [0, 'the unit has none'],
  stiffness: [k, 'of the unit'],
  windUp: [hold / k, 'torque at rest over stiffness'],
  windUpPeak: [peak / k, 'peak torque over stiffness'],
  tipWindUp: [(hold / k) * 0.32, 'at 320 mm'],
  natural: [Math.sqrt(k / load) / turn, 'of the load on the line'],
  capacity: [8, 'what the unit carries for a short time'],
  commanded: [turn / 32000, '200·16 microsteps, ten to one'],
  moved: [turn / 32000, 'a microstep’s torque beats the drag'],
  sensedOutput: [turn / 16384, 'counts of the sensor'],
  keptOutput: [turn / 16384, 'coarser than a microstep; no friction winds it up'],
  resolution: [turn / 16384, 'the loop closes at the output'],
  resolutionTip: [(turn / 16384) * 0.32, 'at 320 mm'],
  repeatability: [turn / 16384, 'one count, no friction'],
  reach: [reach, 'nine tenths of 0.55 N·m less what speeds up rotor and unit and the drag, by ten at 0.94'],
  torque: [reach, 'the motor’s: the unit carries 8 N·m'],
  continuous: [(0.9 * 0.55 - drag) * 9.4, 'the same with nothing sped up: a stepper’s current is continuous'],
  speed: [0, 'the peak is not reached at any'],
  play: [likely, 'the likely one of the sheet'],
  tipPlay: [likely * 0.32, 'at 320 mm'],
  tip: [(likely + hold / k) * 0.32, 'play and wind-up at rest, at 320 mm'],
  motorRms: [motorRms, 'of load and drag, of rotor and unit sped up, and twice what both do together'],
  acceleration: [
    ((0.9 * 0.55 - drag) * 9.4 - hold) / (load + 9.4 * 10 * own),
    'what nine tenths of 0.55 N·m bring to the output leave over the hold, on load, rotor and unit',
  ],
  winding: [293.15 + 65, '65 K at two phases’ rated current, which sine currents of √2 of it heat alike'],
  mount: [293.15 + 0.6 * 65, 'six tenths of the winding’s rise'],
  keptMotor: [microstep + twentieth + likely, 'a microstep, a twentieth of a step and the play; nothing sticks'],
  life: [
    ((3.6e7 * (4 / life.equivalent) ** (10 / 3)) / (10 * life.speed)) * 314.1592653589793,
    '10⁴ h at 4 N·m and 3000 1/min, by the 10/3rd power of what wears and the mean speed, both integrated',
  ],
};

/** Both sides of every check. */
const CHECKS: Readonly<Record<string, AnchoredCheck>> = {
  ever: [(0.9 * 0.55) / motorRms, 1, 'what it gives for ever over what the cycle takes'],
  accelerates: [WORKED['accelerates']![0], 6, 'as worked; asked'],
  mount: [293.15 + 0.6 * 65, 335.15, 'as worked; ten kelvin below where the mount softens'],
  'driver-current': [1.7, 2, 'set; what it carries'],
  'driver-voltage': [24, 29, 'of the supply; what it stands'],
  'driver-heat': [WORKED['driverTemperature']![0], 398.15, 'as worked; 125 °C'],
  supply: [4, 4, 'asked of the supply; what it gives'],
};

describe('worked values of a line', () => {
  const joint = demo();
  const variant = joint.variants[0]!;
  variant.stages = [{ id: 'u', kind: 'unit', params: structuredClone(unit.params) as Record<string, never> }];
  const report = analyseLine(joint, variant, shelf);
  const figures = new Map(report.figures.map((f) => [f.id, f.value]));

  it('are there for every figure, and for both sides of every check', () => {
    expect(Object.keys(WORKED).sort()).toEqual([...figures.keys()].sort());
    expect(Object.keys(CHECKS).sort()).toEqual(report.checks.map((c) => c.id).sort());
  });

  for (const [id, [figure, limit, how]] of Object.entries(CHECKS))
    it(`check ${id}: ${how}`, () => {
      const check = report.checks.find((c) => c.id === id)!;
      expect(check.figure).toBeCloseTo(figure, 9);
      expect(check.limit).toBeCloseTo(limit, 9);
    });

  for (const [id, [value, how]] of Object.entries(WORKED))
    it(`${id}: ${how}`, () => {
      expect(Math.abs(figures.get(id)! - value)).toBeLessThanOrEqual(2e-9 * Math.abs(value));
    });

  it('bands of the tip are those of the angle at 320 mm', () => {
    const [angle, tip] = ['windUp', 'tipWindUp'].map((id) => report.figures.find((f) => f.id === id)!);
    expect(angle!.high).toBeGreaterThan(angle!.value);
    expect(tip!.low).toBeCloseTo(angle!.low * 0.32, 12);
    expect(tip!.high).toBeCloseTo(angle!.high * 0.32, 12);
  });

  it('drag weighs less the more is carried: t over ten times t/9.4 and the drag, up to a quarter above the peak', () => {
    const { torque, efficiency } = report.load!;
    expect(torque.at(-1)).toBeCloseTo(1.25 * peak, 9);
    torque.forEach((t, i) => expect(efficiency[i]).toBeCloseTo(t / (10 * (t / 9.4 + drag)), 9));
  });

  it('the rotor as the output feels it: a hundred times its own inertia', () => {
    expect(report.beside!.rotorInertia).toBeCloseTo(7.2e-4, 12);
  });
});

// A second line: magnets of 100 1/min a volt and 0.4 Ω on the same unit, sensors on both shafts, and a bored shaft on two
// ball bearings that the load hangs beside.

/** N·m an ampere, and rad/s a volt. */
const [kt, kv] = [60 / (turn * 100), (100 * turn) / 60];
const magnets = {
  type: 'brushless',
  id: 'm',
  name: 'M',
  sensored: true,
  frame: 0.04,
  length: 0.05,
  detentTorque: 0.01,
  rotorInertia: 1e-5,
  mass: 0.2,
  price: 30,
  speedConstant: kv,
  resistance: 0.4,
  idleCurrent: 0.3,
  peakCurrent: 12,
  thermalResistance: 4,
  allowedRise: 80,
} as const;
const turning = 1e-5 + 6.333637971709892e-6;
/** 11 A less the idle current, and what 80 K of rise let through for ever. */
const [gives, ever] = [kt * 10.7, kt * (Math.sqrt(80 / (0.4 * (1 + 0.00393 * 80) * 4)) - 0.3)];
const takes = peak / 9.4 + drag + 60 * turning;
const meanTakes = Math.sqrt(
  loaded ** 2 + (10 * turning * cycle.alpha) ** 2 + (2 * 10 * turning * cycle.both * loaded) / cycle.rms,
);
/** Amperes for a torque, and the winding's rise at the mean one: I²·R·R_th, more as it grows warm. */
const amps = (torque: number) => torque / kt + 0.3;
const cold = amps(meanTakes) ** 2 * 0.4 * 4;
const rise = cold / (1 - 0.00393 * cold);
const shaft = ((210e9 / 2.6) * (Math.PI / 32) * (0.012 ** 4 - 0.004 ** 4)) / 0.03;
const k2 = 1 / (1 / k + 1 / shaft);
const shaftMass = (Math.PI / 4) * (0.012 ** 2 - 0.004 ** 2) * 0.06 * 7850;
const board = 0.004 + 5.3014376e-4;
/** Two rows 30 mm apart under 30 N at 50 mm and 0.4 N·m; each 50 N/µm in a seat of 10 N/µm. */
const [near, far] = [(30 * 0.08 + 0.4) / 0.03, (30 * 0.05 + 0.4) / 0.03];
const row = 1 / (1 / 5e7 + 1 / 1e7);
const tilt = (near + far) / row / 0.03;
const sag = near / row + tilt * 0.05;
/** What the load drives the motor with going down at 18.85 rad/s, less its own friction. */
const driven = (hold * 0.9361702127659575) / 10 - drag - 0.3 * kt;
const [count, outCount] = [turn / 40960, turn / 8192];
/** The unit carries 8 N·m, which speed up what lies behind it: the load. The motor would bring more. */
const left = (8 - hold) / load;

const SECOND: Readonly<Record<string, Anchor>> = {
  ratio: WORKED['ratio']!,
  torque: [8, 'what the unit carries'],
  reach: [(gives - 60 * turning - drag) * 9.4, '10.7 A less what speeds up rotor and unit and the drag'],
  continuous: [(ever - drag) * 9.4, 'the current that warms the winding by 80 K'],
  speed: [((24 * 0.95 - amps(takes) * 0.4) * kv) / 10, 'what 95 % of 24 V leave over the peak’s current'],
  play: WORKED['play']!,
  playWorst: WORKED['playWorst']!,
  efficiency: [peak / (10 * (peak / 9.4 + drag)), 'what goes out over ten times what the motor gives'],
  motorRms: [meanTakes, 'load and drag, rotor and unit sped up, and twice both together'],
  motorNeeded: [takes, 'peak, drag, and rotor and unit sped up'],
  accelerates: [
    ((gives - drag) * 9.4 - (peak - load * 6)) / (load + 9.4 * 10 * turning),
    'what is left over the peak without its acceleration, on load, rotor and unit',
  ],
  turnBack: [((0.01 + drag) * 10) / 0.9361702127659575, 'detent and drag, by ten over the efficiency backwards'],
  inertia: [100 * turning, 'rotor and unit by the square of ten'],
  inertiaMatch: [load / 1e-3, 'load over a hundred rotors'],
  acceleration: [left, 'what 8 N·m of the unit leave over the hold, on the load alone'],
  moveTime: [
    2 * Math.sqrt((0.698131700798 + 0.610865238198) / left),
    'half the way up, half down: the speed is not reached',
  ],
  size: [0.06397163576691878, 'the unit'],
  length: [0.05 + 0.05437589040188096, 'motor and unit'],
  mass: [0.2 + 0.35112698372208084 + shaftMass + 2 * 0.022 + 2 * board, 'motor, unit, shaft, bearings and two sensors'],
  money: [30 + 57 + shaftMass * 6 + 2 * 1.2 + 2 * 7.8, 'the same'],
  copperLoss: [
    amps(takes) ** 2 * 0.4 * (1 + 0.00393 * rise),
    'the peak’s current in the winding as warm as the cycle keeps it',
  ],
  winding: [293.15 + rise, 'I²·R·4 K/W of the mean current, 0.393 % more a kelvin'],
  mount: [293.15 + 0.6 * rise, 'six tenths of it'],
  powerBack: [
    driven * 18.8495559215 - (driven / kt) ** 2 * 0.4,
    'what the load drives the shaft with, less the friction of the motor and what the winding warms by',
  ],
  bore: [0, 'the unit has none'],
  stiffness: [k2, 'unit and shaft, G·I_p over 30 mm, in series'],
  windUp: [hold / k2, 'torque at rest over stiffness'],
  windUpPeak: [peak / k2, 'peak torque over stiffness'],
  tip: [(likely + hold / k2) * 0.32 + sag, 'play and wind-up at 320 mm, and the sag'],
  tipPlay: [likely * 0.32, 'at 320 mm'],
  tipWindUp: [(hold / k2) * 0.32, 'at 320 mm'],
  sag: [sag, 'the nearer row, and the tilt at 50 mm'],
  tiltStiffness: [(row * 0.03 ** 2) / 2, 'two springs 15 mm from their middle'],
  tiltTip: [tilt * 0.32, 'both rows over 30 mm, at 320 mm'],
  natural: [Math.sqrt(k2 / load) / turn, 'of the load on the line'],
  capacity: [8, 'what the unit carries for a short time'],
  commanded: [count, 'counts of the motor’s sensor, ten to one'],
  sensedMotor: [count, 'the same'],
  sensedOutput: [outCount, 'counts of the output’s sensor'],
  keptMotor: [count + likely, 'a count and the play'],
  keptOutput: [outCount + 3e-4, 'a count, 200 µrad of error and 100 µrad of noise'],
  resolution: [outCount + 3e-4, 'the loop closes at the output'],
  resolutionTip: [(outCount + 3e-4) * 0.32, 'at 320 mm'],
  repeatability: [outCount + 1e-4, 'a count and the noise'],
  life: WORKED['life']!,
};

const SECOND_CHECKS: Readonly<Record<string, AnchoredCheck>> = {
  ever: [ever / meanTakes, 1, 'what it gives for ever over what the cycle takes'],
  accelerates: [SECOND['accelerates']![0], 6, 'as worked; asked'],
  winding: [293.15 + rise, 373.15, 'as worked; 80 K over 20 °C'],
  bearing: [2360 / near, 1, 'its static rating over the nearer row’s force; less than one dents'],
  driver: [11, 12, 'set; the motor’s most'],
};

describe('worked values of a line on magnets', () => {
  const joint = demo();
  const variant: Variant = {
    ...joint.variants[0]!,
    stages: [{ id: 'u', kind: 'unit', params: structuredClone(unit.params) as Record<string, never> }],
    motor: magnets,
    driver: { supplyVoltage: 24, currentLimit: 11, supplyCurrent: 20, microsteps: 16, sets: 'line' },
    sensor: { place: 'both', counts: 4096, outputCounts: 8192, error: 2e-4, noise: 1e-4 },
    output: {
      shaftDiameter: 0.012,
      shaftBore: 0.004,
      shaftLength: 0.03,
      shaftMaterial: findMaterial(shelf, 'c45')!,
      arrangement: 'pair',
      bearing: shelf.bearings.find((b) => b.id === '6001')!,
      span: 0.03,
      overhang: 0.05,
      moment: 0.4,
      axial: 20,
      load: 30,
    },
  };
  const { mount: _, ...line } = variant;
  const report = analyseLine(joint, line, shelf);

  it('are there for every figure and both sides of every check', () => {
    expect(Object.keys(SECOND).sort()).toEqual(report.figures.map((f) => f.id).sort());
    expect(Object.keys(SECOND_CHECKS).sort()).toEqual(report.checks.map((c) => c.id).sort());
  });

  for (const [id, [value, how]] of Object.entries(SECOND))
    it(`${id}: ${how}`, () => {
      const found = report.figures.find((f) => f.id === id)!.value;
      // The speed is found by halving.
      expect(Math.abs(found - value)).toBeLessThanOrEqual((id === 'speed' ? 1e-7 : 2e-9) * Math.abs(value));
    });
  for (const [id, [figure, limit, how]] of Object.entries(SECOND_CHECKS))
    it(`check ${id}: ${how}`, () => {
      const check = report.checks.find((c) => c.id === id)!;
      expect(check.figure).toBeCloseTo(figure, 7);
      expect(check.limit).toBeCloseTo(limit, 7);
    });

  it('without a sensor nothing is relied on below a tenth of the speed that 95 % of 24 V turn it', () => {
    const blind = analyseLine(joint, { ...line, motor: { ...magnets, sensored: false } }, shelf);
    const check = blind.checks.find((c) => c.id === 'sensorless')!;
    expect([check.figure, check.state]).toEqual([0, 'fails']);
    expect(check.limit).toBeCloseTo(0.1 * 24 * 0.95 * kv, 9);
  });
});
