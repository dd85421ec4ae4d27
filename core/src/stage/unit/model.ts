import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import { spring } from '../springs.ts';
import type { UnitParams } from './params.ts';

/** Life exponent of rolling bearings and strain-wave bearings in bought units. */
const EXPONENT = 10 / 3;

/**
 * A figure with a band of its own, where the shop's factor stands between its least (−1), likely (0) and most (1).
 * @param spread factor whose range stands for an end that is not given
 */
function within(spread: string, [least, likely, most]: readonly [number, number, number], shelf: Shelf): number {
  const at = factor(shelf, 'unit.given');
  if (at === 0) return likely;
  // Read through the shelf, so that it is known to count.
  factor(shelf, spread);
  const usual = shelf.factors[spread]!;
  const [low, high] = [least || likely * usual.low, most || likely * usual.high];
  return at < 0 ? likely + at * (likely - low) : likely + at * (high - likely);
}

/** Numbers of a bought unit: its data sheet, with the spread of what sheets state. */
export function unitNumbers(p: UnitParams, at: Duty, shelf: Shelf): StageNumbers {
  const given = p.bandBy === 'given';
  const eta = given
    ? Math.min(1, within('unit.efficiency', [p.efficiencyLeast, p.efficiency, p.efficiencyMost], shelf))
    : Math.min(1, p.efficiency * factor(shelf, 'unit.efficiency'));
  const stiffness = given
    ? within('unit.stiffness', [p.stiffnessLeast, p.stiffness, p.stiffnessMost], shelf)
    : p.stiffness * factor(shelf, 'unit.stiffness');
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
    play: [p.play, given ? p.playLeast : p.play === p.playMost ? p.play : 0, p.playMost],
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
