import { term, type Figure } from '../figure/index.ts';
import type { StraightCase } from '../schema/joint.ts';
import { sumCycle } from './cycle.ts';
import { planMove, stretchesOf } from './move.ts';
import { cycleFigures, moveFields, SHOCK_HELP, STRAIGHT } from './move-fields.ts';
import { rmsPoint, sure, type CaseLoads, type LoadPattern } from './pattern.ts';

const deg = Math.PI / 180;

/** Travel per radian: the pitch radius of pinion or pulley, or lead/2π of a screw, m. */
export const travelPerRadian = (c: StraightCase): number => (c.drive === 'screw' ? c.lead / (2 * Math.PI) : c.radius);

/** Force against the move that does not depend on acceleration: weight down the slope, friction, process, N. */
export function steadyForce(c: StraightCase, g: number): { weight: number; friction: number; total: number } {
  const weight = c.mass * g * Math.sin(c.slope);
  // Straight up, what is left of a right angle in binary presses on no guide.
  const pressed = Math.abs(Math.cos(c.slope)) < 1e-7 ? 0 : Math.cos(c.slope);
  const friction = c.friction * c.mass * g * pressed;
  return { weight, friction, total: weight + friction + c.force };
}

/**
 * A carriage on a straight guide, there and back: F = m·a + m·g·sin β ± µ·m·g·cos β + F_process, T = F·r (or
 * F·lead/2π), ω = v/r.
 * The process force acts against the way out only.
 *
 * @param g local gravity, m/s²
 */
export function straightLoads(c: StraightCase, g: number): CaseLoads {
  const r = travelPerRadian(c);
  const steady = steadyForce(c, g);
  // Efficiency costs torque where the drive pushes; where the load pushes it is on the drive's side, and left out to be
  // safe.
  const torque = (force: number) => (force >= 0 ? (force * r) / c.driveEfficiency : force * r);
  const move = planMove(c.stroke, c);
  // The way back is a move of its own from the far end: it runs forwards in time, with its coordinate turned round.
  const pass = (back: boolean) =>
    stretchesOf(move, false, (p) => {
      const force = back
        ? c.mass * p.acceleration - steady.weight + steady.friction
        : c.mass * p.acceleration + steady.total;
      return {
        position: (back ? c.stroke - p.position : p.position) / r,
        speed: ((back ? -1 : 1) * p.speed) / r,
        torque: (back ? -1 : 1) * torque(force),
        acceleration: ((back ? -1 : 1) * p.acceleration) / r,
      };
    });
  const holding = steady.weight * r;
  const rest = (x: number) => ({
    duration: c.rest,
    steady: true,
    at: () => ({ position: x / r, speed: 0, torque: holding }),
  });
  const sums = sumCycle([...pass(false), rest(c.stroke), ...pass(true), rest(0)]);
  const push = Math.max(torque(c.mass * move.peakAcceleration + steady.total), sums.most);
  const peak = Math.max(push, 0) * c.dynamicFactor;
  const speed = (move.top || c.speed) / r;
  const hold = Math.abs(holding);
  const rms = sums.cycle > 0 ? sums.rms : hold;
  return {
    ...sums,
    rms,
    peak,
    hold,
    speed,
    moveTime: move.duration,
    inertia: c.mass * r * r,
    friction: steady.friction * r,
    arm: r,
    swing: c.stroke / r,
    points: [
      { name: 'peak', torque: peak, speed, time: 'peak', acceleration: move.peakAcceleration / r },
      rmsPoint(sums, rms),
      ...(hold > 0 ? [{ name: 'hold', torque: hold, speed: 0, time: 'continuous' } as const] : []),
    ],
    values: {
      travelPerRadian: r,
      weight: steady.weight,
      friction: steady.friction,
      steadyForce: steady.total,
      peakForce: c.mass * move.peakAcceleration + steady.total,
      acceleration: move.peakAcceleration,
      linearSpeed: move.top || c.speed,
    },
  };
}

function figures(c: StraightCase, g: number): Figure[] {
  const l = straightLoads(c, g);
  const v = l.values;
  const r = term(
    'r',
    c.drive === 'screw' ? 'lead/2π' : 'pitch radius',
    v['travelPerRadian']!,
    'length',
    c.drive === 'screw' ? 'computed' : 'brief',
  );
  const forces = [
    term('m', 'moving mass', c.mass, 'mass', 'brief'),
    term('a', 'acceleration reached', v['acceleration']!, 'linearAcceleration', 'computed'),
    term('g', 'gravity', g, 'gravity', 'shop', 'gravity'),
    term('β', 'slope', c.slope, 'angle', 'brief'),
    term('µ', 'guide friction', c.friction, 'count', 'brief'),
    term('F_p', 'process force', c.force, 'force', 'brief'),
  ];
  const eta =
    c.driveEfficiency < 1 ? [term('η', 'efficiency of the drive', c.driveEfficiency, 'efficiency', 'brief')] : [];
  return [
    sure('force', 'Force', 'force', v['peakForce']!, () => ({
      formula: 'm·a + m·g·sin β + µ·m·g·cos β + F_p',
      terms: forces,
      source: 'Newton along the guide',
    })),
    sure('peak', 'Peak', 'torque', l.peak, () => ({
      formula: `F·r${eta.length ? '/η' : ''}·shock`,
      terms: [
        term('F', 'largest force', v['peakForce']!, 'force', 'computed'),
        r,
        ...eta,
        term('shock', 'shock factor', c.dynamicFactor, 'ratio', 'brief'),
      ],
      source: 'work: force × travel = torque × angle',
    })),
    sure('rms', 'RMS', 'torque', l.rms, () => ({
      formula: '√(Σ T²·t / Σ t) over out, rest, back, rest',
      terms: [...forces, r],
      source:
        'exact for stretches of constant force; the process force acts on the way out; the shock factor is not in it',
    })),
    sure('hold', 'Hold', 'torque', l.hold, () => ({
      formula: 'm·g·sin β·r',
      terms: [...forces.slice(0, 1), ...forces.slice(2, 4), r],
      source: 'friction is not counted on to hold',
    })),
    sure('speed', 'Speed', 'speed', l.speed, () => ({
      formula: 'v/r',
      terms: [term('v', 'speed reached', v['linearSpeed']!, 'linearSpeed', 'computed'), r],
      source: 'rolling without slip',
    })),
    sure('move', 'One move', 'time', l.moveTime, () => ({
      formula: 'ramps + the way left at the top speed',
      terms: [term('s', 'stroke', c.stroke, 'length', 'brief')],
      source:
        c.profile === 's-curve'
          ? 'seven stretches of constant jerk'
          : 'trapezoid, or triangle where the speed is not reached',
    })),
    ...cycleFigures(l),
  ];
}

/** A carriage moved by rack, belt or screw. */
export const straightPattern: LoadPattern<StraightCase> = {
  id: 'straight',
  name: 'Straight axis',
  summary: 'A carriage on a guide, by pinion, pulley or screw.',
  fields: [
    {
      as: 'quantity',
      path: 'mass',
      label: 'Moving mass',
      group: 'Load',
      quantity: 'mass',
      step: 0.1,
      min: 0,
      max: 1e5,
      help: 'Carriage and what it carries; motor and pinion as well where they ride on it.',
    },
    {
      as: 'quantity',
      path: 'friction',
      label: 'Guide friction',
      group: 'Load',
      quantity: 'count',
      step: 0.01,
      min: 0,
      max: 5,
      help: 'Coefficient: 0.005 ball guides, 0.1–0.2 plain ones.',
    },
    {
      as: 'quantity',
      path: 'slope',
      label: 'Slope',
      group: 'Load',
      quantity: 'angle',
      step: deg,
      min: -Math.PI / 2,
      max: Math.PI / 2,
      help: 'Against the way out; 90° is straight up.',
    },
    {
      as: 'quantity',
      path: 'force',
      label: 'Process force',
      group: 'Load',
      quantity: 'force',
      step: 1,
      min: -1e7,
      max: 1e7,
      help: 'Against the way out.',
    },
    {
      as: 'choice',
      path: 'drive',
      label: 'Driven by',
      group: 'Load',
      help: 'What turns rotation into travel.',
      options: [
        { value: 'pinion', label: 'pinion on a rack' },
        { value: 'pulley', label: 'pulley and belt' },
        { value: 'screw', label: 'screw' },
      ],
    },
    {
      as: 'quantity',
      path: 'radius',
      label: 'Pitch radius',
      group: 'Load',
      quantity: 'length',
      step: 5e-4,
      min: 1e-4,
      max: 10,
      help: 'Of pinion or pulley.',
      when: (c) => c.drive !== 'screw',
    },
    {
      as: 'quantity',
      path: 'lead',
      label: 'Lead',
      group: 'Load',
      quantity: 'length',
      step: 5e-4,
      min: 1e-5,
      max: 1,
      help: 'Travel of one turn.',
      when: (c) => c.drive === 'screw',
    },
    {
      as: 'quantity',
      path: 'driveEfficiency',
      label: 'Its efficiency',
      group: 'Load',
      quantity: 'efficiency',
      step: 0.05,
      min: 0.01,
      max: 1,
      help: '100 % where the stage that drives it accounts for it; ball screw 90 %, plain screw 30 %.',
    },
    {
      as: 'quantity',
      path: 'dynamicFactor',
      label: 'Shock factor',
      group: 'Load',
      quantity: 'ratio',
      step: 0.05,
      min: 1,
      max: 20,
      help: SHOCK_HELP,
    },
    {
      as: 'quantity',
      path: 'stroke',
      label: 'Stroke',
      group: 'Move',
      quantity: 'length',
      step: 0.01,
      min: 0,
      max: 1e3,
      help: 'There and back.',
    },
    ...moveFields<StraightCase>(STRAIGHT),
    {
      as: 'quantity',
      path: 'rest',
      label: 'Rest at each end',
      group: 'Move',
      quantity: 'time',
      step: 0.5,
      min: 0,
      max: 1e6,
      help: 'On a slope the weight is held.',
    },
  ],
  blank: (id) => ({
    id,
    name: 'Straight axis',
    pattern: 'straight',
    mass: 2,
    friction: 0.01,
    slope: 0,
    force: 0,
    drive: 'pinion',
    radius: 0.012,
    lead: 0.005,
    driveEfficiency: 1,
    stroke: 0.3,
    given: 'limits',
    profile: 'trapezoid',
    speed: 0.3,
    acceleration: 2,
    jerk: 20,
    moveTime: 1,
    rampShare: 1 / 3,
    rest: 1,
    dynamicFactor: 1.2,
  }),
  wrong: () => undefined,
  loads: straightLoads,
  figures,
};
