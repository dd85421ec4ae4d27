import { check, type Check } from '../../figure/index.ts';

import { steppedUp } from '../../math/steps.ts';
import type { Duty } from '../contract.ts';
import { BOLT_WALL, boltRoom } from '../bolt-room.ts';
import { limitChecks } from '../limits.ts';
import { ringWallCheck } from '../ring-wall.ts';
import { stated } from '../../units/stated.ts';
import type { RollerWaveModel } from './model.ts';
import type { RollerWaveParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 4);

/** Whether screws through the ring leave it a wall. */
function boltChecks(p: RollerWaveParams, m: RollerWaveModel): Check[] {
  if (!(p.boltsR > 0)) return [];
  const inner = m.reach[1];
  const room = (rim: number) =>
    boltRoom({ bolts: p.boltsR, circle: 2 * inner + rim, hole: p.boltHole }, inner, inner + rim);
  const rim = steppedUp(p.boltHole + 2 * BOLT_WALL, 5e-4);
  return [
    check({
      id: 'bolts',
      name: 'Screws fit the ring’s wall',
      figure: room(p.rim),
      limit: BOLT_WALL,
      sense: 'min',
      quantity: 'length',
      near: 0,
      why: 'The holes need a millimetre of wall on either side, and heads stand beside one another.',
      ...(room(rim) >= BOLT_WALL - 1e-9 && { mend: { path: 'rim', value: rim, label: `Wall ${mm(rim)}` } }),
      advice: 'Take fewer or smaller screws.',
    }),
  ];
}

/** What decides whether a roller wave works, each with its mend. */
export function rollerWaveChecks(p: RollerWaveParams, at: Duty, m: RollerWaveModel): Check[] {
  const printed = m.materials[1].material.made === 'printed';
  const least = printed ? 8e-4 : 4e-4;
  const gap = steppedUp(m.off, 1e-5);
  const list = limitChecks(
    m.limits,
    at,
    'Take wider rows, two of them, a larger stage or stronger materials.',
    (limit, times) => {
      const wide = steppedUp(p.width * times, 5e-4);
      if (limit.id === 'walls' && p.carriedBy === 'plate')
        return { path: 'carriedBy', value: 'both', label: 'Hold the walls at both ends' };
      if (limit.id === 'skip' || limit.id === 'dent')
        return p.rows === 1 ? { path: 'rows', value: 2, label: 'Two rows' } : undefined;
      // A longer wall bends more: width helps the lobes only.
      return limit.id !== 'walls' && wide < 0.1 && wide <= 4 * p.width
        ? { path: 'width', value: wide, label: `Row width ${mm(wide)}` }
        : p.rows === 1
          ? { path: 'rows', value: 2, label: 'Two rows' }
          : undefined;
    },
  );
  list.push(
    check({
      id: 'undercut',
      of: 'hollow',
      name: 'Crests of the ring stay whole',
      figure: m.hollow,
      limit: m.wave.roller + p.gap,
      sense: 'min',
      quantity: 'length',
      near: 0.2,
      why: 'Cut further out than the rollers’ path bends, the crests come out pointed and rollers lose their hold there.',
      mend: { path: 'throw', value: Math.max(5e-5, Math.floor(p.throw * 0.9 * 2e4) / 2e4), label: 'Less eccentricity' },
      advice: 'Take less eccentricity, thinner rollers or fewer of them.',
    }),
    ...boltChecks(p, m),
    ringWallCheck({
      of: 'rim',
      name: 'Ring’s wall',
      stress: m.rimStress(),
      wall: p.rim,
      material: m.materials[0].material,
      path: 'rim',
      value: p.rim,
      held: p.held === 'ring',
      why: 'The rollers of a row press its ring out on one side, and bend its wall as they go round.',
    }),
    check({
      id: 'wall',
      of: 'wall',
      name: 'Wall between slots',
      figure: m.wall,
      limit: least,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      why: printed
        ? 'Two lines of a printer are the least that a wall is made of.'
        : 'Thinner walls bend away from the cutter.',
      mend: {
        path: 'sleeve',
        value: Math.ceil((p.sleeve + ((1.15 * least - m.wall) * p.rollers) / (2 * Math.PI)) * 2e3) / 2e3,
        label: 'A larger eccentric',
      },
      advice: 'Take fewer or thinner rollers, or a larger sleeve.',
    }),
    check({
      id: 'cage',
      name: 'Cage is deep enough to hold the rollers',
      figure: m.cage[1] - m.cage[0],
      limit: 0.35 * p.roller,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      why: 'Between eccentric and crests it guides each roller by its sides; a shallow one lets it tip out.',
      mend: { path: 'throw', value: Math.max(5e-5, Math.floor(p.throw * 0.8 * 2e4) / 2e4), label: 'Less eccentricity' },
      advice: 'Take thicker rollers or less eccentricity.',
    }),
    check({
      id: 'bind',
      of: 'play',
      name: 'Does not bind',
      figure: p.gap,
      limit: m.off,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      near: 0,
      why: 'The ring’s profile and the slots’ places come out that far off: with less gap some roller bites at every turn.',
      mend: gap <= 1e-3 ? { path: 'gap', value: gap, label: `Gap ${mm(gap)}` } : undefined,
      advice: 'Give it more gap, or fit it by hand.',
    }),
  );
  if (p.rows === 1)
    list.push(
      check({
        id: 'shakes',
        of: 'shaking',
        name: 'Shakes little',
        figure: m.shaking,
        limit: 5,
        sense: 'max',
        quantity: 'force',
        severity: 'note',
        near: 0,
        why: 'One row throws its bearing and rollers about; two at half a turn cancel the force.',
        mend: { path: 'rows', value: 2, label: 'Two rows' },
        advice: 'Take two rows, or balance the eccentric.',
      }),
    );
  return list;
}
