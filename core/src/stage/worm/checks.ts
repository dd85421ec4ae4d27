import { couplingChecks } from '../coupling.ts';
import { BOLT_WALL, boltRoom, circleMend } from '../bolt-room.ts';
import { crestWidth, leastShift, modeAgainst, modeName, MODULES, telling, thicknessAt } from '../../gear/index.ts';
import { check, type Check, type Mend } from '../../figure/index.ts';
import { stated } from '../../units/stated.ts';
import type { Duty } from '../contract.ts';
import { steppedUp } from '../../math/steps.ts';
import { boreChecks, isBoreLimit } from '../bore-holds.ts';
import { IN_HAND } from '../limits.ts';
import { spanPastWheel } from './geometry.ts';
import type { WormModel } from './model.ts';
import { LARGEST_QUOTIENT, STRONGEST_SPRING, type WormParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 5);

/** A shaft that bends so many times as little, where the worm has room for it; a coarser module would not help it. */
function thickerShaft(p: WormParams, m: WormModel, times: number): Mend | undefined {
  const bore = steppedUp(p.bore1 * Math.cbrt(times), 5e-4);
  return m.wall1 - (bore - p.bore1) / 2 > 0.8 * p.module
    ? { path: 'bore1', value: bore, label: `Shaft ⌀ ${mm(bore)}` }
    : undefined;
}

/** Spring that presses so many times as hard; undefined beyond what one gives. */
function strongerSpring(p: WormParams, times: number): Mend | undefined {
  const force = Math.ceil(p.springForce * times);
  return force <= STRONGEST_SPRING
    ? { path: 'springForce', value: force, label: `Spring ${stated(force, 'force')}` }
    : undefined;
}

/** What decides whether a worm stage works. */
export function wormChecks(p: WormParams, at: Duty, m: WormModel): Check[] {
  const g = m.geometry;
  const x = g.mesh;
  const c = Math.cos(g.lead);
  const list: Check[] = [];
  const least = leastShift(x.wheel) * c;
  const up = Math.ceil(least * 100) / 100;
  const clear1 = g.centre - x.s1.ra - x.sides[1].root;
  const clear2 = g.centre - x.s2.ra - x.sides[0].root;
  const past = steppedUp(spanPastWheel(x.s2.ra, g.centre, m.bearing), 1e-3);
  const thicker = Math.min(LARGEST_QUOTIENT, p.quotient + 2);
  const closest = Math.max(steppedUp(p.length + m.bearing.width, 1e-3), past);
  list.push(
    check({
      id: 'undercut',
      name: 'Undercut, wheel',
      figure: p.x2,
      limit: least,
      sense: 'min',
      quantity: 'count',
      severity: least - p.x2 > 0.15 ? 'stop' : 'warn',
      near: 0,
      why: 'Below this shift the cutter eats into the flank: a weak root, and contact lost.',
      mend: { path: 'x2', value: up, label: `Shift ${up}` },
      advice: 'Give it more teeth, or more shift.',
    }),
    check({
      id: 'tip-wheel',
      name: 'Tip width, wheel',
      figure: thicknessAt(x.s2, p.z2, x.s2.ra),
      limit: 0.2 * p.module,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      why: 'A thinner tip chips, or is lost in printing.',
      mend: {
        path: 'x2',
        value: Math.round((p.x2 - 0.1) * 100) / 100,
        label: `Shift ${Math.round((p.x2 - 0.1) * 100) / 100}`,
      },
      advice: 'Take less shift, or a lower addendum.',
    }),
    check({
      id: 'tip-worm',
      name: 'Tip width, worm',
      figure: crestWidth(x),
      limit: 0.2 * p.module,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      why: 'A thinner crest chips, or is lost in printing.',
      mend: {
        path: 'addendum',
        value: Math.max(0.5, Math.round((p.addendum - 0.1) * 100) / 100),
        label: 'Lower addendum',
      },
    }),
    check({
      id: 'contact',
      of: 'contact',
      name: 'Contact ratio',
      figure: x.contact,
      limit: 1.1,
      sense: 'min',
      quantity: 'count',
      severity: x.contact < 1 ? 'stop' : 'warn',
      near: 0.05,
      why: 'Below one a tooth lets go before the next takes over.',
      mend: {
        path: 'addendum',
        value: Math.round((p.addendum + 0.1) * 100) / 100,
        label: `Addendum ${Math.round((p.addendum + 0.1) * 100) / 100}`,
      },
      advice: 'Take more teeth, less shift or a higher addendum.',
    }),
    check({
      id: 'clear',
      name: 'Tip clearance',
      figure: Math.min(clear1, clear2),
      limit: 0.1 * p.module,
      sense: 'min',
      quantity: 'length',
      severity: Math.min(clear1, clear2) <= 0 ? 'stop' : 'warn',
      near: 0,
      why: 'Between a tip and the root it runs in there must be room for dirt, grease and what a process adds.',
      mend: {
        path: 'dedendum',
        value: Math.round((p.addendum + 0.25) * 100) / 100,
        label: `Dedendum ${Math.round((p.addendum + 0.25) * 100) / 100}`,
      },
    }),
    check({
      id: 'roots',
      name: 'Tips clear of roots',
      figure: Math.min(x.reach1 - x.sides[0].form, x.reach2 - x.sides[1].form),
      limit: 0,
      sense: 'min',
      quantity: 'length',
      near: 0,
      severity: 'warn',
      why: 'A tip that reaches past the end of the mating flank rides on its root.',
      mend: {
        path: 'addendum',
        value: Math.max(0.5, Math.round((p.addendum - 0.1) * 100) / 100),
        label: 'Lower addendum',
      },
      advice: 'Take more shift or a lower addendum.',
    }),
    check({
      id: 'width',
      name: 'Wheel wide enough for contact',
      figure: p.width,
      limit: x.wheelReach,
      sense: 'min',
      quantity: 'length',
      near: 0,
      severity: 'warn',
      why: 'Contact runs across the wheel as teeth pass; beyond its face they let go.',
      mend: {
        path: 'width',
        value: steppedUp(x.wheelReach, 5e-4),
        label: `Wheel width ${mm(steppedUp(x.wheelReach, 5e-4))}`,
      },
    }),
    check({
      id: 'length',
      name: 'Worm long enough for contact',
      figure: p.length,
      limit: x.wormReach + Math.PI * p.module,
      sense: 'min',
      quantity: 'length',
      near: 0,
      severity: 'warn',
      why: 'Contact and a thread at either end must lie within it.',
      mend: {
        path: 'length',
        value: steppedUp(x.wormReach + Math.PI * p.module, 1e-3),
        label: `Worm length ${mm(steppedUp(x.wormReach + Math.PI * p.module, 1e-3))}`,
      },
    }),
    check({
      id: 'span',
      name: 'Bearings clear of the thread',
      figure: p.span,
      limit: p.length + m.bearing.width,
      sense: 'min',
      quantity: 'length',
      near: 0,
      why: 'Each bearing sits with half its width towards the thread.',
      mend: {
        path: 'span',
        value: steppedUp(p.length + m.bearing.width, 1e-3),
        label: `Between bearings ${mm(steppedUp(p.length + m.bearing.width, 1e-3))}`,
      },
    }),
    check({
      id: 'bearing-clear',
      name: 'Worm’s bearings clear of the wheel',
      figure: Math.max(0, g.centre - m.bearing.outside / 2),
      limit:
        p.span / 2 - m.bearing.width / 2 > x.s2.ra
          ? 0
          : Math.sqrt(Math.max(0, x.s2.ra ** 2 - (p.span / 2 - m.bearing.width / 2) ** 2)),
      sense: 'min',
      quantity: 'length',
      near: 0,
      why: 'Their outer rings must pass the wheel’s tips.',
      mend: { path: 'span', value: past, label: `Between bearings ${mm(past)}` },
      advice: 'Move the bearings apart, or take smaller ones.',
    }),
  );
  if (p.playBy !== 'spring') {
    const more = -m.bind;
    const mend: Mend | undefined =
      p.playBy === 'centre'
        ? {
            path: 'centreExtra',
            value: Math.ceil((p.centreExtra + more / ((2 * Math.tan(p.pressure)) / c)) * 1e5) / 1e5,
            label: 'Move the centres apart',
          }
        : p.leadDifference > 0
          ? {
              path: 'wormShift',
              value: Math.floor((p.wormShift - more / p.leadDifference) * 1e4) / 1e4,
              label: 'Move the worm back',
            }
          : undefined;
    list.push(
      check({
        id: 'bind',
        name: 'Turns without binding',
        figure: m.bind,
        limit: 0,
        sense: 'min',
        quantity: 'length',
        near: 0,
        severity: g.normalPlay < 0 ? 'stop' : 'warn',
        why: 'Play left on the wheel’s circle when thickness and centres are as bad as the shop makes them.',
        mend,
        advice: 'Move the centres apart, or thin the teeth.',
      }),
    );
  }
  if (p.playBy === 'dual-lead') {
    const change = (p.leadDifference * p.length) / 2;
    list.push(
      check({
        id: 'dual',
        name: 'Thin end keeps its thread',
        figure: crestWidth(x) - change * c,
        limit: 0.1 * p.module,
        sense: 'min',
        quantity: 'length',
        severity: 'warn',
        why: 'The thread thins towards one end by half the lead difference times the length.',
        advice: 'Take a smaller difference of leads or a shorter worm.',
      }),
    );
  }
  if (m.backward <= 0) {
    const still = m.shaken > 0 ? Math.ceil((p.starts / Math.tan(m.shaken)) * 2) / 2 : Infinity;
    list.push(
      check({
        id: 'vibration',
        of: 'hold',
        name: 'Holds under vibration',
        figure: g.lead,
        limit: m.shaken,
        sense: 'max',
        quantity: 'angle',
        severity: 'warn',
        near: 0.05,
        why: 'It holds at rest, but vibration takes part of the friction away and can let it run back. Where somebody could be hurt, use a brake.',
        mend:
          still <= 40 && still > p.quotient
            ? { path: 'quotient', value: still, label: `Quotient ${still}` }
            : p.starts > 1
              ? { path: 'starts', value: 1, label: '1 start' }
              : undefined,
        advice: 'Take fewer starts, a larger quotient, or a brake.',
      }),
    );
  }
  const limitBend = 4e-3 * p.module;
  list.push(
    check({
      id: 'bend',
      of: 'bend',
      name: 'Worm stays straight',
      figure: m.bend,
      limit: limitBend * 2,
      sense: 'max',
      quantity: 'length',
      severity: 'warn',
      why: 'A bent worm loses contact and rubs; less than 0.008 of the module is usual.',
      mend:
        p.span > closest
          ? { path: 'span', value: closest, label: 'Bearings closer' }
          : { path: 'quotient', value: thicker, label: `Quotient ${thicker}` },
      advice: 'Bring the bearings closer, or take a larger quotient.',
    }),
  );
  list.push(
    check({
      id: 'fresh',
      of: 'fresh',
      name: 'Fresh flanks bear the point',
      figure: m.fresh,
      limit: m.freshPermissible,
      sense: 'max',
      quantity: 'stress',
      severity: 'note',
      why: 'A cylindrical wheel first touches in a point: beyond this pressure it wears until the contact has spread.',
      advice: 'Run it in greased at a third of the load, then clean and grease it again.',
    }),
  );
  const coarser = MODULES.find((v) => v > p.module * 1.001);
  list.push(...boreChecks(m.modes, m.bores, at));
  for (const mode of telling(m.modes.filter((x) => !isBoreLimit(x)))) {
    const mend: Mend | undefined =
      mode.id === 'lift'
        ? strongerSpring(p, at.torque / Math.max(1e-9, mode.torque))
        : mode.id === 'thrust'
          ? undefined
          : mode.id === 'shaft' && p.bore1 > 0
            ? thickerShaft(p, m, (IN_HAND * at.torque) / Math.max(1e-9, mode.torque))
            : coarser && mode.torque > 0
              ? { path: 'module', value: coarser, label: `Module ${mm(coarser)}` }
              : undefined;
    list.push(
      check({
        id: mode.id,
        of: mode.id,
        name: modeName(mode),
        ...modeAgainst(mode, at),
        ...(mode.id === 'lift' && { severity: 'warn' }),
        why: mode.why,
        mend,
        advice:
          mode.id === 'thrust'
            ? 'Take a larger bearing, or a thrust bearing beside it.'
            : mode.id === 'shaft' && p.bore1 > 0
              ? 'Take a thicker shaft, and a larger quotient where the worm has no room for it.'
              : 'Take a larger module or a stronger material.',
      }),
    );
  }
  const soft = m.materials.filter((y) => y.plastic);
  if (soft.length)
    list.push(
      check({
        id: 'warm',
        of: 'warm',
        name: 'Flanks stay firm',
        figure: m.flankTemperature,
        limit: Math.min(...soft.map((y) => y.material.softening)),
        sense: 'max',
        quantity: 'temperature',
        near: 0.03,
        why: 'Above its softening temperature a plastic flank smears; a worm turns most of its loss into heat there.',
        advice: 'Grease it, run it slower, take a metal worm with a plastic wheel, or more starts.',
      }),
    );
  for (const [id, name, wall, bore, shape] of [
    ['wall-1', 'worm', m.wall1, p.bore1, 'shape1'],
    ['wall-2', 'wheel', m.wall2, p.bore2, 'shape2'],
  ] as const) {
    if (bore > 0)
      list.push(
        check({
          id,
          name: `Wall over the bore, ${name}`,
          figure: wall,
          limit: 0.8 * p.module,
          sense: 'min',
          quantity: 'length',
          severity: 'warn',
          why: 'Between the bore, with its keyway or flat, and the roots.',
          ...(p[shape] === 'keyway' ? { mend: { path: shape, value: 'flat', label: 'A flat instead' } } : {}),
          advice: 'Take a smaller shaft, more teeth or a larger quotient.',
        }),
      );
  }
  list.push(...couplingChecks(m.coupling, at.torque / (Math.abs(m.numbers.ratio) * m.forward)));
  if (p.bore1 === 0)
    list.push(
      check({
        id: 'journal',
        name: 'Bearings pass over the worm’s shaft',
        figure: m.bearing.bore,
        limit: 2 * x.sides[0].root,
        sense: 'max',
        quantity: 'length',
        near: 0,
        severity: 'warn',
        why: 'The shaft is turned from the worm, and the bearing leans on a shoulder of the thread.',
        advice: 'Take a bearing with a smaller bore, or a larger quotient.',
      }),
    );
  if (p.bolts2 > 0) {
    const bolts = { bolts: p.bolts2, circle: p.boltCircle2, hole: p.boltHole };
    const between = [p.bore2 / 2, x.sides[1].root] as const;
    list.push(
      check({
        id: 'bolts',
        name: 'Screws fit the wheel',
        figure: boltRoom(bolts, ...between) - BOLT_WALL,
        limit: 0,
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
