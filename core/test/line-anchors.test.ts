import { describe, expect, it } from 'vitest';
import { analyseLine } from '../src/index.ts';
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
  acceleration: [(reach - hold) / (load + 100 * own), 'what the torque leaves over the hold, on load, rotor and unit'],
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
