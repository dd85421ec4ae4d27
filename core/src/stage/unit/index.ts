import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import * as v from 'valibot';
import { check, type FigureMaker, term, type Check, type Figure, worked } from '../../figure/index.ts';
import { ok } from '../../result.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { circle } from '../../shape/outline.ts';
import { prism } from '../../shape/solid.ts';
import type { Duty, Ports, StageKind, StageNumbers } from '../contract.ts';
import { described } from '../param.ts';
import { stated } from '../../units/stated.ts';
import { opener, type StageSteps } from '../open.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import { nearestUnit, unitCandidates } from './candidates.ts';
import { drawUnit, housing } from './drawing.ts';
import { unitNumbers } from './model.ts';
import { unitParams, type UnitParams } from './params.ts';

function checks(p: UnitParams, at: Duty): Check[] {
  const up = (x: number) => Math.ceil(x * 10) / 10;
  return [
    check({
      id: 'peak',
      name: 'Short-time torque carries the peak',
      figure: at.torque,
      limit: p.peakTorque,
      sense: 'max',
      quantity: 'torque',
      why: 'Beyond it teeth or bearings are damaged at once.',
      mend: { path: 'peakTorque', value: up(at.torque), label: `A unit with ${stated(up(at.torque), 'torque')}` },
      advice: 'Take the next size.',
    }),
    check({
      id: 'rated',
      name: 'Rated torque carries the RMS',
      figure: at.torqueRms,
      limit: p.ratedTorque,
      sense: 'max',
      quantity: 'torque',
      severity: 'warn',
      why: 'Above its rated torque the unit’s life falls steeply.',
      mend:
        p.peakTorque >= up(at.torqueRms)
          ? {
              path: 'ratedTorque',
              value: up(at.torqueRms),
              label: `A unit rated ${stated(up(at.torqueRms), 'torque')}`,
            }
          : undefined,
      advice: 'Take the next size.',
    }),
    check({
      id: 'speed',
      name: 'Input speed',
      figure: at.speed * Math.abs(p.ratio),
      limit: p.maxSpeed,
      sense: 'max',
      quantity: 'speed',
      severity: 'warn',
      why: 'Faster, it heats and its grease is thrown out.',
      advice: 'Take less ratio, or put a stage before it.',
    }),
  ];
}

/** A bought unit has nothing but its numbers. */
interface UnitModel {
  readonly numbers: StageNumbers;
}

/** In line or beside, power goes in at one face and comes out at the other; at a right angle, at half the length. */
function unitPorts(p: UnitParams): Ports {
  const output = { at: [0, 0, p.length], along: 'z', shaft: p.bore } as const;
  return p.form === 'angle'
    ? { input: { at: [-p.outside / 2, 0, p.length / 2], along: 'x', shaft: 0 }, output }
    : { input: { at: [p.form === 'beside' ? p.centre : 0, 0, 0], along: 'z', shaft: 0 }, output };
}

/** Where the bands come from. */
const bandOf = (p: UnitParams): string =>
  p.bandBy === 'given'
    ? 'least and most as given for the unit'
    : 'the shop’s spread of bought units about their data sheets';

function figures(p: UnitParams, at: Duty, _shelf: Shelf, m: UnitModel, make: FigureMaker<UnitModel>): Figure[] {
  const sheet = 'the data sheet as entered';
  return [
    make.figure(
      'ratio',
      'Ratio',
      'ratio',
      ({ numbers: n }) => n.ratio,
      () => ({
        formula: 'i',
        terms: [term('i', 'ratio', p.ratio, 'ratio', 'field', 'ratio')],
        source: sheet,
      }),
    ),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      ({ numbers: n }) => n.etaForward,
      () => ({
        formula: p.bandBy === 'given' ? 'as given' : 'η·spread',
        terms: [term('η', 'data sheet', p.efficiency, 'efficiency', 'field', 'efficiency')],
        source: bandOf(p),
      }),
    ),
    make.figure(
      'drag',
      'No-load torque',
      'torque',
      ({ numbers: n }) => n.drag,
      () => ({
        formula: 'd·spread',
        terms: [term('d', 'data sheet', p.drag, 'torque', 'field', 'drag')],
        source: bandOf(p),
      }),
    ),
    worked(
      {
        id: 'play',
        name: 'Play',
        quantity: 'smallAngle' as const,
        value: p.play,
        low: m.numbers.play[1],
        high: p.playMost,
      },
      () => ({
        formula: 'as stated',
        terms: [
          ...(p.bandBy === 'given' ? [term('least', 'at least', p.playLeast, 'smallAngle', 'field', 'playLeast')] : []),
          term('b', 'likely', p.play, 'smallAngle', 'field', 'play'),
          term('most', 'promised', p.playMost, 'smallAngle', 'field', 'playMost'),
        ],
        source: sheet,
      }),
    ),
    ...partLoadFigures(make, m, at),
    ...springFigures(make, m, bandOf(p)),
    make.figure(
      'mass',
      'Mass',
      'mass',
      ({ numbers: n }) => n.mass,
      () => ({
        formula: 'm',
        terms: [term('m', 'data sheet', p.mass, 'mass', 'field', 'mass')],
        source: sheet,
      }),
    ),
    make.figure(
      'money',
      'Money',
      'money',
      ({ numbers: n }) => n.money,
      () => ({
        formula: 'price',
        terms: [term('C', 'price', p.price, 'money', 'field', 'price')],
        source: 'as entered',
      }),
    ),
    ...(Number.isFinite(m.numbers.life)
      ? [
          make.figure(
            'life',
            'Life',
            'life',
            ({ numbers: n }) => n.life,
            () => ({
              formula: 'L·(T_r/T_eq)^(10/3)·(n_r/n)',
              terms: [
                term('L', 'rated life', p.ratedLife, 'life', 'field', 'ratedLife'),
                term('T_r', 'rated torque', p.ratedTorque, 'torque', 'field', 'ratedTorque'),
                term('T_eq', 'equivalent torque', at.equivalent ?? at.torqueRms, 'torque', 'computed'),
                term('n_r', 'rated input speed', p.ratedSpeed, 'speed', 'field', 'ratedSpeed'),
                term('n', 'mean input speed', (at.meanSpeed ?? at.speed) * Math.abs(p.ratio), 'speed', 'computed'),
              ],
              source: 'ISO 281 exponent for line contact, as makers of gearheads and strain-wave units state it',
            }),
          ),
        ]
      : []),
  ];
}

const steps: StageSteps<UnitParams, undefined, UnitModel, undefined> = {
  bought: true,
  build: () => ok(undefined),
  kinematics: (p) => ({
    ratio: p.ratio,
    members: [
      { name: 'input', role: 'input' },
      { name: 'output', role: 'output' },
      { name: 'housing', role: 'fixed' },
    ],
    orders: [
      { name: 'input', perTurn: Math.abs(p.ratio) },
      { name: 'output', perTurn: 1 },
    ],
  }),
  model: (p, _g, at, shelf) => ({ numbers: unitNumbers(p, at, shelf) }),
  figures,
  checks: (p, at) => checks(p, at),
  shapes: () => undefined,
  draw: (p, _g, _s, crank, options) => drawUnit(p, crank, options),
  parts: (p) =>
    ok([
      {
        id: 'unit',
        name: p.designation || 'Bought unit',
        quantity: 1,
        made: 'bought',
        material: 'as supplied',
        mass: p.mass,
        money: p.price,
        note: `ratio ${p.ratio}`,
        curves: [],
        turns: 'fixed',
        places: () => [{ at: [0, 0, 0], turn: 0, apart: [0, 0, 0] }],
        seen: () => ({ prisms: [prism(housing(p), 0, p.length, p.bore > 0 ? [circle(0, 0, p.bore / 2)] : [])] }),
      },
    ]),
  ports: unitPorts,
  assembly: (p) => [
    {
      do: `Fit ${p.designation || 'the unit'} by its flange; clamp its input on the shaft before it with the faces flush.`,
      caution: 'Keep fingers clear of the input while anything turns it.',
    },
  ],
};

/** Whether a band that counts is in order. */
const inOrder = (p: UnitParams, least: number, likely: number, most: number): boolean =>
  p.bandBy !== 'given' || (least <= likely && (most === 0 || likely <= most));

/** A gearhead or other unit that is bought and known by its data sheet. */
export const unit: StageKind<UnitParams> = {
  id: 'unit',
  name: 'Bought unit',
  summary: 'A gearhead known by its data sheet: ratio, efficiency, play, stiffness, what it carries.',
  bought: true,
  ...described(
    unitParams,
    v.check((p) => Math.abs(p.ratio) >= 0.01, 'must have a ratio of at least 0.01, with its sign'),
    v.check((p) => p.playMost >= p.play, 'must have most play no less than the likely one'),
    v.check((p) => inOrder(p, p.playLeast, p.play, p.playMost), 'must have least play no more than the likely one'),
    v.check(
      (p) => inOrder(p, p.stiffnessLeast, p.stiffness, p.stiffnessMost),
      'must have its likely stiffness between least and most',
    ),
    v.check(
      (p) => inOrder(p, p.efficiencyLeast, p.efficiency, p.efficiencyMost),
      'must have its likely efficiency between least and most',
    ),
    v.check((p) => p.peakTorque >= p.ratedTorque, 'must have a short-time torque no less than the rated one'),
  ),
  defaults: (want) => firstThatCarries(unit, want) ?? nearestUnit(want),
  takes: {
    play: ({ value, low, high }) => ({
      bandBy: 'given',
      play: value,
      playLeast: Math.max(0, low),
      playMost: high,
    }),
    stiffness: ({ value, low, high }) => ({
      bandBy: 'given',
      stiffness: value,
      stiffnessLeast: low,
      stiffnessMost: high,
    }),
  },
  open: opener(steps, unitParams),
  candidates: unitCandidates,
};

export type { UnitParams } from './params.ts';
