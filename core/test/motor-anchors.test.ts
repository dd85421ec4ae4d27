import { describe, expect, it } from 'vitest';
import { constantFigures, type Driver, type Motor } from '../src/index.ts';
import { motorSchema } from '../src/schema/motor-schema.ts';
import type { Anchor } from './anchors/anchor.ts';
import { shelf } from './helpers.ts';

// Every figure that follows from a motor's data has a worked value, for each type of motor; a figure without one fails.

const body = {
  id: 'm',
  name: 'M',
  frame: 0.04,
  length: 0.05,
  detentTorque: 0,
  rotorInertia: 1e-6,
  mass: 0.2,
  price: 9,
};
const driver: Driver = { supplyVoltage: 24, currentLimit: 8, supplyCurrent: 20, microsteps: 16 };
/** 100 rpm/V, as rad/s per volt. */
const speedConstant = (100 * 2 * Math.PI) / 60;
const magnets = {
  ...body,
  speedConstant,
  resistance: 0.4,
  idleCurrent: 0.3,
  peakCurrent: 12,
  thermalResistance: 4,
  allowedRise: 80,
};
/** Copper at 0.393 % a kelvin (IEC 60028): 80 K more make 0.4 Ω to 0.52576. */
const carried = Math.sqrt(80 / (0.4 * (1 + 0.00393 * 80) * 4));
const kt = 60 / (2 * Math.PI * 100);

const ofMagnets: Readonly<Record<string, Anchor>> = {
  kt: [kt, '60/(2π·100 rpm/V)'],
  km: [kt / Math.sqrt(0.4), 'over the root of the resistance'],
  idle: [(24 - 0.3 * 0.4) * speedConstant, 'what the idle current leaves of 24 V'],
  stall: [kt * (8 - 0.3), 'the driver’s 8 A less the idle current: winding, voltage and supply would give more'],
  ever: [kt * (carried - 0.3), 'the current carried, less the idle current'],
  current: [carried, '80 K over 4 K/W in the hot winding'],
};

/** Sine currents of an amplitude turn as hard as √3/2 of it between two terminals. */
const sine = Math.sqrt(3) / 2;
const hold = 0.55 / Math.SQRT2;

const WORKED: readonly {
  readonly motor: Motor;
  readonly sets?: Driver['sets'];
  readonly figures: Readonly<Record<string, Anchor>>;
}[] = [
  {
    motor: {
      ...body,
      type: 'stepper',
      holdTorque: 0.55,
      ratedCurrent: 1.7,
      resistance: 1.6,
      inductance: 3.2e-3,
      stepsPerTurn: 200,
    },
    figures: {
      kt: [0.55 / (Math.SQRT2 * 1.7), 'two phases on'],
      km: [0.55 / (Math.SQRT2 * 1.7) / Math.sqrt(1.6), 'over the root of the resistance'],
      hold: [hold, 'sine currents of 1.7 A amplitude: 1/√2 of what both phases hold at 1.7 A'],
      stall: [0.9 * hold, 'nine tenths of it before steps are lost'],
      ever: [0.9 * hold, 'its current is continuous'],
      current: [1.7, 'the sheet’s'],
      microstep: [hold * Math.sin(Math.PI / 32), 'a sixteenth of a quarter of its magnetic turn'],
      rest: [hold * 50, 'slope of T·sin(50·θ)'],
    },
  },
  { motor: { ...magnets, type: 'brushless', sensored: true }, sets: 'line', figures: ofMagnets },
  {
    motor: { ...magnets, type: 'brushless', sensored: true },
    figures: {
      ...ofMagnets,
      kt: [sine * kt, '√3/2 of the line current’s'],
      stall: [kt * (sine * 8 - 0.3), '8 A of amplitude less the idle current'],
      current: [carried / sine, 'the amplitude that heats as much'],
    },
  },
  { motor: { ...magnets, type: 'brushed' }, figures: ofMagnets },
  {
    motor: {
      ...body,
      type: 'servo',
      ratedTorque: 0.64,
      ratedSpeed: 314,
      peakTorque: 1.9,
      maxSpeed: 628,
      ratedCurrent: 1.6,
      efficiency: 0.8,
      allowedRise: 80,
    },
    figures: {
      kt: [0.4, '0.64 N·m for 1.6 A'],
      stall: [1.9, 'the sheet’s peak, since 8 A would give 3.2'],
      ever: [0.64, 'the sheet’s'],
      current: [1.6, 'the sheet’s'],
    },
  },
];

describe('worked values of a motor', () => {
  it('are there for every type', () => {
    expect([...new Set(WORKED.map((w) => w.motor.type))].sort()).toEqual(
      motorSchema.options.map((o) => o.entries.type.literal).sort(),
    );
  });

  for (const { motor, sets, figures } of WORKED) {
    const name = `${motor.type}${sets ? `, ${sets}` : ''}`;
    const found = new Map(
      constantFigures(motor, { ...driver, sets }, shelf).map((f) => [f.id.replace('motor-', ''), f.value]),
    );

    it(`${name}: every figure has one`, () => {
      expect(Object.keys(figures).sort()).toEqual([...found.keys()].sort());
    });

    for (const [id, [value, how]] of Object.entries(figures))
      it(`${name}, ${id}: ${how}`, () => {
        expect(Math.abs(found.get(id)! / value - 1)).toBeLessThan(1e-9);
      });
  }
});
