import { check, type Check, type Mend } from '../../figure/index.ts';
import { torqueFor, type Mode } from '../../gear/index.ts';
import { steppedUp } from '../../math/steps.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { isBall } from '../../shop/bearings.ts';
import { stated } from '../../units/stated.ts';
import type { Duty } from '../contract.ts';
import { couplingChecks } from '../coupling.ts';
import { limitChecks } from '../limits.ts';
import { RUNS } from '../output-units.ts';
import { modelScrew, type ScrewModel } from './model.ts';
import { nutsOf, opensOver } from './nuts.ts';
import type { ScrewParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 4);
/** Usual diameters of screws, m. */
export const DIAMETERS = [4, 5, 6, 8, 10, 12, 14, 16, 20, 24, 28, 32, 40].map((x) => x * 1e-3);

/** What decides whether a screw works, each with its mend. */
export function screwChecks(p: ScrewParams, at: Duty, shelf: Shelf, m: ScrewModel): Check[] {
  const thicker = (times: number): Mend | undefined => {
    const d = DIAMETERS.find((x) => x >= p.diameter * times && x > p.diameter * 1.001);
    if (!d) return undefined;
    const nut = Math.max(p.nutDiameter, steppedUp(2.2 * d, 1e-3));
    return { path: 'diameter', value: d, also: { nutDiameter: nut }, label: `Screw ${mm(d)}` };
  };
  const nuts = nutsOf(p);
  // Where the preload takes what the load needs: as much as keeps both nuts pressed at the peak, if that is enough.
  const looser = (limit: Mode): Mend | undefined => {
    const enough = steppedUp(Math.max(1, at.torque / opensOver(nuts)), 1);
    if (enough >= nuts.preload) return undefined;
    const then = modelScrew({ ...p, preload: enough }, m, at, shelf).limits.find((l) => l.id === limit.id)!;
    return then.torque >= torqueFor(at, limit.time)
      ? { path: 'preload', value: enough, label: `Preload ${stated(enough, 'force', 4)}` }
      : undefined;
  };
  const list = limitChecks(
    m.limits,
    at,
    'Take a thicker screw, or shorten what is free.',
    (limit, times) => {
      switch (limit.id) {
        case 'thrust':
        case 'tires': {
          const needs = Math.max(times, 1.01);
          const [dents, tires] = limit.id === 'thrust' ? [needs, 1] : [1, needs];
          const better = shelf.bearings
            .filter((b) => isBall(b) && b.static >= m.bearing.static * dents && b.dynamic >= m.bearing.dynamic * tires)
            .sort((a, b) => a.outside - b.outside)[0];
          return better && { path: 'bearing', value: better.id, label: `Bearing ${better.name}` };
        }
        case 'strips':
        case 'crushes':
        case 'wears': {
          const long = steppedUp(p.nutLength * times, 1e-3);
          return (
            looser(limit) ??
            (long <= 4 * p.diameter ? { path: 'nutLength', value: long, label: `Nut ${mm(long)} long` } : thicker(1.2))
          );
        }
        case 'dents':
        case 'rolls':
          return looser(limit);
        default:
          return thicker(limit.id === 'buckles' ? times ** 0.25 : Math.sqrt(times));
      }
    },
    RUNS,
  );
  const euler = at.torque > 0 ? m.buckles / at.torque : Infinity;
  if (Number.isFinite(euler))
    list.push(
      check({
        id: 'euler',
        of: 'euler',
        name: 'Safety against buckling',
        figure: euler,
        limit: 3,
        sense: 'min',
        quantity: 'ratio',
        severity: 'warn',
        why: 'Euler’s load over the peak; three to five is usual for screws that are pushed.',
        mend: () => thicker((3.2 / euler) ** 0.25),
        advice: 'Carry both ends, hang the load so that the screw is pulled, or take a thicker one.',
      }),
    );
  const turning = (at.speed * 2 * Math.PI) / m.thread.lead;
  list.push(
    check({
      id: 'whirl',
      of: 'whirl',
      name: 'Stays below its first whirl',
      figure: turning,
      limit: 0.8 * m.whirl,
      sense: 'max',
      quantity: 'speed',
      why: 'Near it a long screw bows out and beats; eight tenths are usual.',
      mend: () => {
        const starts = Math.ceil((p.starts * turning) / (0.75 * m.whirl));
        return p.type === 'ball' && starts <= 6
          ? { path: 'starts', value: starts, label: `${starts} starts` }
          : thicker((1.1 * turning) / (0.8 * m.whirl));
      },
      advice: 'Take a larger lead, a thicker screw, or let the nut turn.',
    }),
  );
  if (p.type === 'trapezoidal' && m.work.backward <= 0)
    list.push(
      check({
        id: 'holds',
        of: 'holds',
        name: 'Holds by itself, under vibration too',
        figure: m.holds,
        limit: 1.5,
        sense: 'min',
        quantity: 'ratio',
        severity: 'note',
        near: 0,
        why: 'Vibration takes a good part of a thread’s friction; half as much again as is needed keeps it still.',
        advice: 'Take a finer pitch, or a brake where something hangs on it.',
      }),
    );
  const closes = steppedUp(Math.max(5, (1.05 * at.torque) / opensOver(nuts)), 5);
  if (p.nut === 'double' && p.preload > 0)
    list.push(
      check({
        id: 'opens',
        of: 'opens',
        name: 'Both nuts carry under the peak',
        figure: at.torque,
        limit: m.opens,
        sense: 'max',
        quantity: 'force',
        severity: 'warn',
        why: 'Beyond it one nut lets go: no play comes of it, but the nuts are half as stiff.',
        mend: { path: 'preload', value: closes, label: `Preload ${stated(closes, 'force', 4)}` },
        advice: 'More preload costs friction.',
      }),
    );
  list.push(
    ...couplingChecks(m.coupling, m.torque),
    check({
      id: 'stroke',
      name: 'Screw covers the stroke',
      figure: at.swing ?? 0,
      limit: p.stroke,
      sense: 'max',
      quantity: 'length',
      near: 0,
      why: 'Beyond it the nut runs off the thread, or into a bearing.',
      mend: at.swing
        ? { path: 'stroke', value: steppedUp(at.swing, 1e-3), label: `Stroke ${mm(steppedUp(at.swing, 1e-3))}` }
        : undefined,
      advice: 'Take a longer screw, and stops at both ends.',
    }),
    check({
      id: 'free',
      name: 'Free length is what there is',
      figure: p.free,
      limit: 0.9 * p.stroke,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      near: 0,
      why: 'With the nut at its far end nearly the whole stroke is free between it and the bearing.',
      mend: {
        path: 'free',
        value: steppedUp(p.stroke + p.nutLength, 1e-3),
        label: `Free length ${mm(steppedUp(p.stroke + p.nutLength, 1e-3))}`,
      },
    }),
  );
  return list;
}
