import { BOLT_WALL, boltRoom, circleMend } from '../bolt-room.ts';
import { check, type Check } from '../../figure/index.ts';
import { leastShift, MODULES } from '../../gear/index.ts';
import { steppedDown, steppedUp } from '../../math/steps.ts';
import { stated } from '../../units/stated.ts';
import type { Duty } from '../contract.ts';
import { boreChecks, isBoreLimit } from '../bore-holds.ts';
import { limitChecks } from '../limits.ts';
import { hubRadius, type BevelModel } from './model.ts';
import type { BevelParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 4);

/** What decides whether a bevel pair works, each with its mend. */
export function bevelChecks(p: BevelParams, at: Duty, m: BevelModel): Check[] {
  const g = m.geometry;
  const coarser = MODULES.find((x) => x > p.module * 1.001);
  const third = g.outer / 3;
  const teeth = m.limits.filter((l) => !isBoreLimit(l));
  const list = limitChecks(teeth, at, 'Take a larger module, more teeth or a stronger material.', (limit, times) => {
    const wide = steppedUp(p.width * times, 5e-4);
    return !limit.id.startsWith('skip') && wide <= third
      ? { path: 'width', value: wide, label: `Face width ${mm(wide)}` }
      : coarser
        ? { path: 'module', value: coarser, label: `Outer module ${mm(coarser)}` }
        : undefined;
  });
  list.push(...boreChecks(m.limits, m.bores, at));
  const least = leastShift(g.mesh.pair.g1);
  list.push(
    check({
      id: 'face',
      of: 'distance',
      name: 'Face is no wider than it carries',
      figure: p.width,
      limit: third,
      sense: 'max',
      quantity: 'length',
      severity: 'warn',
      near: 0.02,
      why: 'Beyond a third of the cone distance teeth become so fine that the inner end only breaks.',
      mend: { path: 'width', value: steppedDown(third, 5e-4), label: `Face width ${mm(steppedDown(third, 5e-4))}` },
      advice: 'Take a narrower face, or more teeth.',
    }),
    check({
      id: 'undercut',
      name: 'Undercut, pinion',
      figure: p.shift,
      limit: least,
      sense: 'min',
      quantity: 'count',
      severity: 'warn',
      near: 0,
      why: 'Below this shift the cutter eats into the flank of the virtual wheel: a weak root, and contact lost.',
      mend:
        least <= 0.8
          ? { path: 'shift', value: steppedUp(least, 0.05), label: `Shift ${steppedUp(least, 0.05)}` }
          : undefined,
      advice: 'Take more teeth, or more shift.',
    }),
    check({
      id: 'contact',
      of: 'contact-1',
      name: 'Teeth hand over',
      figure: g.mesh.pair.contact,
      limit: 1.1,
      sense: 'min',
      quantity: 'count',
      near: 0.05,
      why: 'Below one a tooth lets go before the next has taken over.',
      advice: 'Take more teeth or a smaller pressure angle.',
    }),
  );
  for (const [i, name, bore, shape] of [
    [0, 'pinion', p.bore1, 'shape1'],
    [1, 'wheel', p.bore2, 'shape2'],
  ] as const)
    list.push(
      check({
        id: `wall-${i + 1}`,
        name: `Wall over the bore, ${name}`,
        figure: m.walls[i],
        limit: 0.8 * p.module,
        sense: 'min',
        quantity: 'length',
        severity: 'warn',
        why: 'Between the bore and the roots at the inner end, where they come down lowest.',
        ...(p[shape] === 'keyway'
          ? { mend: { path: shape, value: 'flat', label: 'A flat instead' } }
          : bore - 2 * (0.85 * p.module - m.walls[i]) >= 1e-3
            ? {
                mend: {
                  path: i === 0 ? 'bore1' : 'bore2',
                  value: steppedDown(bore - 2 * (0.85 * p.module - m.walls[i]), 5e-4),
                  label: 'Smaller bore',
                },
              }
            : {}),
        advice: 'Take a smaller shaft, a narrower face or more teeth.',
      }),
    );
  if (p.bolts2 > 0) {
    const bolts = { bolts: p.bolts2, circle: p.boltCircle2, hole: p.boltHole };
    const between = [Math.min(hubRadius(p.bore2), p.bore2 / 2 + 1e-3), g.cones[1].outer * 0.8] as const;
    list.push(
      check({
        id: 'bolts',
        name: 'Screws fit the wheel',
        figure: boltRoom(bolts, ...between),
        limit: BOLT_WALL,
        sense: 'min',
        quantity: 'length',
        near: 0,
        why: 'Each hole needs a millimetre of wall to the teeth and the bore, and heads stand beside one another.',
        mend: () => circleMend(bolts, ...between),
        advice: 'Take fewer or smaller screws, or a larger wheel.',
      }),
    );
  }
  return list;
}
