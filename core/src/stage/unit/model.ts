import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import { spring } from '../springs.ts';
import type { UnitParams } from './params.ts';

/** Life exponent of rolling bearings and strain-wave bearings in bought units. */
const EXPONENT = 10 / 3;

/** Numbers of a bought unit: its data sheet, with the spread of what sheets state. */
export function unitNumbers(p: UnitParams, at: Duty, shelf: Shelf): StageNumbers {
  const eta = Math.min(1, p.efficiency * factor(shelf, 'unit.efficiency'));
  const stiffness = p.stiffness * factor(shelf, 'unit.stiffness');
  const torque = at.equivalent ?? at.torqueRms;
  const speed = (at.meanSpeed ?? at.speed) * Math.abs(p.ratio);
  // L = L_rated·(T_rated/T_eq)^(10/3)·(n_rated/n): what makers of precision gearheads and strain-wave units state.
  const life =
    p.ratedLife > 0 && torque > 0 && speed > 0
      ? p.ratedLife * (p.ratedTorque / torque) ** EXPONENT * (p.ratedSpeed / speed)
      : Infinity;
  return {
    ratio: p.ratio,
    etaForward: eta,
    etaBackward: p.backEfficiency,
    drag: p.drag * factor(shelf, 'unit.drag'),
    play: [p.play, p.play === p.playMost ? p.play : 0, p.playMost],
    stiffness,
    springs: [spring('the unit, by its data sheet', stiffness)],
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: p.inertia,
    inertiaOut: 0,
    limits: [{ mode: 'short-time torque', time: 'static', torque: p.peakTorque, life: Infinity }],
    mass: p.mass,
    money: p.price,
    outside: p.form === 'beside' ? p.outside + p.centre : p.outside,
    length: p.length,
    maxSpeed: p.maxSpeed,
    bore: p.bore,
    beside: p.form !== 'inline',
    life,
  };
}
