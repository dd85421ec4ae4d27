import { check, type Check, type Mend } from '../../figure/index.ts';
import { MODULES, wheelChecks } from '../../gear/index.ts';
import { steppedUp } from '../../math/steps.ts';
import { stated } from '../../units/stated.ts';
import type { Duty } from '../contract.ts';
import { boreChecks, isBoreLimit } from '../bore-holds.ts';
import { IN_HAND, limitChecks } from '../limits.ts';
import { RUNS } from '../output-units.ts';
import { takenOutChecks } from '../taken-out.ts';
import type { RackModel } from './model.ts';
import type { RackParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 4);

/** Rollers set in by less, where what they press behind leaves too little for the load; undefined where it does not decide. */
function looserMend(p: RackParams, at: Duty, { rollers: r }: RackModel, id: string): Mend | undefined {
  const bears = r && (id === 'crush' ? r.bears.crush : id === 'pin' ? r.bears.pin : undefined);
  const wanted = IN_HAND * at.torque;
  if (bears === undefined || bears < wanted || r!.lets <= 2 * bears - wanted) return undefined;
  const value = Math.floor(((p.interference * (2 * bears - wanted)) / r!.lets) * 1e7) / 1e7;
  return { path: 'interference', value, label: `Set in by ${stated(value, 'smallLength', 3)}` };
}

/** Rollers may take up as much of their pitch and leave a tip on the rack. */
const THICK = 0.56;

/**
 * Pins that bend less: on thicker rollers where the pitch has room, on shorter ones where the flanks can spare the width.
 */
function pinMend(p: RackParams, at: Duty, m: RackModel, times: number): Mend | undefined {
  const pitch = m.geometry.pitch;
  const thick = steppedUp(p.roller * Math.cbrt(times), 1e-4);
  if (thick <= THICK * pitch) return { path: 'roller', value: thick, label: `Rollers ${mm(thick)}` };
  const short = Math.floor(p.width / times / 5e-4) * 5e-4;
  const crush = m.limits.find((l) => l.id === 'crush')!.torque;
  if (short >= 2 * p.roller && (crush * short) / p.width > at.torque)
    return { path: 'width', value: short, label: `Face width ${mm(short)}` };
  return undefined;
}

/** Wall over the bore that teeth need, in modules. */
const WALL = 0.8;

/** A shaft that bends less: thicker where the pinion has room for it, nearer to its bearing where that suffices. */
function shaftMend(p: RackParams, m: RackModel, times: number): Mend | undefined {
  const bore = steppedUp(p.bore * Math.cbrt(times), 5e-4);
  if (m.wall - (bore - p.bore) / 2 > WALL * p.module)
    return { path: 'bore', value: bore, label: `Shaft ⌀ ${mm(bore)}` };
  // What twists it stays; half the face width and a bearing's shoulder are the least.
  const near = Math.floor(p.overhang / times / 5e-4) * 5e-4;
  return near >= p.width / 2 + 2e-3 && m.geometry.radius < p.overhang
    ? { path: 'overhang', value: near, label: `Overhang ${mm(near)}` }
    : undefined;
}

/** What decides whether a rack and pinion work, each with its mend. */
export function rackChecks(p: RackParams, at: Duty, m: RackModel): Check[] {
  const g = m.geometry;
  const list: Check[] = [];
  if (g.mesh) {
    list.push(
      ...wheelChecks(g.pinion!, { id: '1', name: 'pinion', shift: 'shift', teeth: 'z' }, g.mesh, 0, m.materials[0]),
      check({
        id: 'roots',
        name: 'Tips clear the roots',
        figure: (p.dedendum - p.addendum) * p.module,
        limit: 0.1 * p.module,
        sense: 'min',
        quantity: 'length',
        why: 'Tips that touch the roots of the other lift the pinion off its distance.',
        mend: { path: 'dedendum', value: Math.ceil((p.addendum + 0.25) * 20) / 20, label: 'Deeper roots' },
      }),
      check({
        id: 'contact',
        of: 'contact',
        name: 'Teeth hand over',
        figure: g.contact,
        limit: 1.1,
        sense: 'min',
        quantity: 'count',
        near: 0.1,
        why: 'Below one the pinion lets go of a tooth before the next has taken over.',
        advice: 'Take more teeth, less shift or a higher addendum.',
      }),
    );
  } else {
    list.push(
      check({
        id: 'contact',
        of: 'contact',
        name: 'A roller carries on either side at all times',
        figure: g.contact,
        limit: 1,
        sense: 'min',
        quantity: 'count',
        near: 0.1,
        why: 'With less than one on each flank the play comes back in places, and the rack is handed over with a knock.',
        mend: { path: 'z', value: p.z + 2, label: `${p.z + 2} rollers` },
        advice: 'Take more rollers, or thinner ones.',
      }),
      check({
        id: 'land',
        name: 'Tips of the rack',
        figure: 2 * g.rollers!.land,
        limit: 0.2 * p.module,
        sense: 'min',
        quantity: 'length',
        severity: 'warn',
        why: 'Thinner tips chip, or are lost in printing.',
        mend: {
          path: 'roller',
          value: Number((p.roller * 0.9).toPrecision(2)),
          label: `Rollers ${mm(Number((p.roller * 0.9).toPrecision(2)))}`,
        },
        advice: 'Take thinner rollers.',
      }),
    );
  }
  const coarser = MODULES.find((x) => x > p.module * 1.001);
  list.push(
    ...boreChecks(m.limits, m.bores, at, RUNS),
    ...limitChecks(
      m.limits.filter((l) => !isBoreLimit(l)),
      at,
      g.mesh
        ? 'Take a larger module, a wider rack or a stronger material.'
        : 'Take thicker rollers, a larger module or a stronger material.',
      (limit, times) => {
        const looser = looserMend(p, at, m, limit.id);
        if (looser) return looser;
        if (limit.id === 'pin') return pinMend(p, at, m, times);
        if (limit.id === 'shaft') return shaftMend(p, m, times);
        const wide = steppedUp(p.width * times, 5e-4);
        return !limit.id.startsWith('skip') && wide < 0.3 && wide < 6 * p.width
          ? { path: 'width', value: wide, label: `Face width ${mm(wide)}` }
          : coarser
            ? { path: 'module', value: coarser, label: `Module ${mm(coarser)}` }
            : undefined;
      },
      RUNS,
    ),
  );
  // Told about a metre, a force is its own torque.
  if (p.form === 'involute') list.push(...takenOutChecks(p, at, m.out, 1));
  list.push(
    check({
      id: 'stroke',
      of: 'length',
      name: 'Rack covers the stroke',
      figure: at.swing ?? 0,
      limit: p.stroke,
      sense: 'max',
      quantity: 'length',
      near: 0,
      why: 'Beyond its end the pinion drops out of the teeth.',
      mend: at.swing
        ? { path: 'stroke', value: steppedUp(at.swing, 1e-3), label: `Stroke ${mm(at.swing)}` }
        : undefined,
      advice: 'Take a longer rack, and stops at both ends.',
    }),
    ...(g.mesh && p.takenOut === 'none'
      ? [
          check({
            id: 'tight',
            name: 'Does not jam where the rack comes nearest',
            figure: m.before - 2 * p.straight * Math.tan(g.angle),
            limit: 0,
            sense: 'min',
            quantity: 'length',
            severity: 'warn',
            near: 0,
            why: 'A rack that lies nearer to the pinion in places takes play out there, and beyond it binds.',
            mend: {
              path: 'allowance2',
              value: steppedUp(p.allowance2 + 2 * p.straight * Math.tan(g.angle) - m.before + 1e-5, 1e-5),
              label: 'Thinner teeth on the rack',
            },
            advice: 'Lay the rack straighter, or give it more play.',
          }),
        ]
      : []),
    check({
      id: 'wall',
      name: 'Wall over the bore',
      figure: m.wall,
      limit: WALL * p.module,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      why: 'Between the bore, with its keyway or flat, and the roots.',
      ...(p.shape === 'keyway' ? { mend: { path: 'shape', value: 'flat', label: 'A flat instead' } } : {}),
      advice: 'Take a smaller shaft or more teeth.',
    }),
    check({
      id: 'back',
      name: 'Rack is high enough under its teeth',
      figure: p.back,
      limit: g.rackRoot + 1.5 * p.module,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      why: 'Under its roots it needs a module and a half to be screwed down straight.',
      mend: {
        path: 'back',
        value: steppedUp(g.rackRoot + 1.5 * p.module, 5e-4),
        label: `Rack height ${mm(steppedUp(g.rackRoot + 1.5 * p.module, 5e-4))}`,
      },
    }),
  );
  return list;
}
