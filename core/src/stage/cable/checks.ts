import { BOLT_WALL, boltRoom, circleMend } from '../bolt-room.ts';
import { check, type Check, type Mend } from '../../figure/index.ts';
import { steppedUp } from '../../math/steps.ts';
import { stated } from '../../units/stated.ts';
import type { Duty } from '../contract.ts';
import { boreChecks, isBoreLimit } from '../bore-holds.ts';
import { limitChecks } from '../limits.ts';
import type { CableModel } from './model.ts';
import type { CableParams } from './params.ts';

/** Usual diameters of thin cables, m. */
const DIAMETERS = [0.5, 0.6, 0.8, 1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10].map((x) => x * 1e-3);
/** How far a cable may lean sideways without climbing, rad. */
const LEAN = (1.5 * Math.PI) / 180;
/** Share of its breaking load that a cable is tensioned with at most. */
const TENSIONED = 0.3;

/** What decides whether a cable drive works, each with its mend. */
export function cableChecks(p: CableParams, at: Duty, m: CableModel): Check[] {
  const [r1] = m.radii;
  const tension = (value: number): Mend | undefined => {
    const f = steppedUp(value, value < 20 ? 1 : 5);
    return f <= TENSIONED * m.breaks
      ? { path: 'preload', value: f, label: `Preload ${stated(f, 'force', 4)}` }
      : undefined;
  };
  const thicker = (times: number): Mend | undefined => {
    const d = DIAMETERS.find((x) => x >= p.cable * times && x > p.cable * 1.001);
    return d ? { path: 'cable', value: d, label: `Cable ${stated(d, 'length', 3)}` } : undefined;
  };
  const worst = m.force * Math.max(...m.shares);
  const own = m.limits.filter((l) => !isBoreLimit(l));
  const list = limitChecks(own, at, 'Take a thicker cable, or larger drums.', (limit, times) => {
    if (limit.id === 'slips')
      return p.wraps < 8
        ? { path: 'wraps', value: p.wraps + 1, label: `${p.wraps + 1} turns` }
        : { path: 'hold', value: 'clamped', label: 'Clamp it' };
    return thicker(limit.id === 'tires' ? times ** 0.5 : Math.sqrt(times));
  });
  list.push(...boreChecks(m.limits, m.bores, at));
  list.push(
    check({
      id: 'taut',
      of: 'needs',
      name: 'Both runs stay taut at the peak',
      figure: p.preload,
      limit: worst,
      sense: 'min',
      quantity: 'force',
      severity: 'warn',
      why: 'Once one run hangs the stiffness halves, and the cable may leave its groove; told for the worse way of pulling.',
      mend: () => tension(1.15 * worst),
      advice: 'Take a thicker cable or a larger driven drum, then raise the preload.',
    }),
    check({
      id: 'tensioned',
      name: 'Preload leaves room for the load',
      figure: p.preload,
      limit: TENSIONED * m.breaks,
      sense: 'max',
      quantity: 'force',
      severity: 'warn',
      why: 'A cable that is tensioned with more than three tenths of its breaking load tires at rest, and loads the bearings.',
      mend: () => thicker(Math.sqrt(p.preload / (TENSIONED * m.breaks))),
      advice: 'Take a thicker cable.',
    }),
    check({
      id: 'bend',
      of: 'bend',
      name: 'Drum is large enough for the cable',
      figure: (2 * r1) / p.cable,
      limit: m.sort.bends,
      sense: 'min',
      quantity: 'ratio',
      severity: 'warn',
      near: 0.05,
      why: 'Bent over a smaller drum its wires break or its fibres wear early.',
      mend: {
        path: 'radius1',
        value: steppedUp(((m.sort.bends * 1.01 - 1) * p.cable) / 2, 5e-4),
        label: `Driving radius ${stated(steppedUp(((m.sort.bends * 1.01 - 1) * p.cable) / 2, 5e-4), 'length', 4)}`,
      },
      advice: 'Take a thinner cable, or one of fibres.',
    }),
    check({
      id: 'fleet',
      of: 'fleet',
      name: 'Leans sideways little enough',
      figure: m.fleet,
      limit: LEAN,
      sense: 'max',
      quantity: 'angle',
      severity: 'warn',
      why: 'Beyond a degree and a half the cable climbs out of its groove.',
      mend:
        p.runsBy === 'centre' && m.fleet > LEAN
          ? {
              path: 'centre',
              value: steppedUp(
                Math.hypot(
                  (1.05 * m.walks) / 2 / Math.tan(LEAN),
                  p.path === 'eight' ? m.radii[0] + m.radii[1] : m.radii[1] - m.radii[0],
                ),
                1e-3,
              ),
              label: 'Centres further apart',
            }
          : undefined,
      advice: 'Move the drums apart, take a thinner cable, or less range.',
    }),
    check({
      id: 'range',
      name: 'Turns as far as the load does',
      figure: at.swing ?? 0,
      limit: Math.min(p.range, m.stores),
      sense: 'max',
      quantity: 'angle',
      near: 0,
      why: 'Beyond its range the cable is unwound from a drum, or pulls at its clamp.',
      mend: () =>
        at.swing && at.swing > p.range
          ? {
              path: 'range',
              value: steppedUp(at.swing, Math.PI / 36),
              label: `Range ${stated(steppedUp(at.swing, Math.PI / 36), 'angle', 4)}`,
            }
          : at.swing
            ? {
                path: 'wraps',
                value: Math.ceil(2 * (1 + (at.swing * m.radii[1]) / (2 * Math.PI * m.radii[0]))) / 2,
                label: 'More turns',
              }
            : undefined,
      advice: 'Give it more turns, or let friction hold it.',
    }),
  );
  if (m.sort.creep > 0)
    list.push(
      check({
        id: 'creeps',
        name: 'Keeps its preload',
        figure: 1 - 1000 ** -m.sort.creep,
        limit: 0.2,
        sense: 'max',
        quantity: 'efficiency',
        severity: 'note',
        near: 0,
        why: 'What fibres give way in a thousand hours under load: they are tensioned again, or a spring takes it up.',
        mend: { path: 'sort', value: 'aramid', label: 'Aramid' },
        advice: 'Plan a way to tension it again.',
      }),
    );
  if (p.bolts2 > 0) {
    const bolts = { bolts: p.bolts2, circle: p.boltCircle2, hole: p.boltHole };
    const between = [p.bore2 / 2, p.radius2] as const;
    list.push(
      check({
        id: 'bolts',
        name: 'Screws fit the driven drum',
        figure: boltRoom(bolts, ...between),
        limit: BOLT_WALL,
        sense: 'min',
        quantity: 'length',
        near: 0,
        why: 'Each hole needs a millimetre of wall to the groove and the bore, and heads stand beside one another.',
        mend: () => circleMend(bolts, ...between),
        advice: 'Take fewer or smaller screws, or a larger drum.',
      }),
    );
  }
  return list;
}
