import { check, type Check, type Mend } from '../../figure/index.ts';
import type { BeltSection } from '../../shop/section.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { Duty } from '../contract.ts';
import { centreForTeeth, leastCentre } from './layout.ts';
import { buildBelt, modelBelt, wrongBelt, type BeltModel } from './model.ts';
import type { BeltParams } from './params.ts';
import { outsideRadius } from './pulley.ts';
import { holdTorque, pulleysHeld } from './strength.ts';

/** Below this many teeth of 2 mm pitch (as a length of pitch circle) a printed pulley is not worth trying. */
const PRINTED_LEAST = 24 * 2e-3;

/** Ways to hold a pulley on its shaft, from the simplest. */
const HOLDS = [
  ['screws', 'Set screws'],
  ['key', 'Key or flat'],
  ['glue', 'Glue it on'],
  ['bolted', 'Bolt it through'],
] as const;

/** The first of `values` (nearest first) for which the model with it passes. */
function nearest<K extends keyof BeltParams & string>(
  p: BeltParams,
  at: Duty,
  shelf: Shelf,
  path: K,
  values: Iterable<number>,
  passes: (m: BeltModel, tried: BeltParams) => boolean,
  label: (x: number) => string,
): Mend | undefined {
  for (const value of values) {
    const changed = { ...p, [path]: value };
    const tried = buildBelt(changed, shelf);
    if (!tried.ok || wrongBelt(changed, tried.value)) continue;
    if (passes(modelBelt(changed, tried.value, at, shelf), changed)) return { path, value, label: label(value) };
  }
  return undefined;
}

const upTo = function* (from: number, to: number, step: number): Generator<number> {
  for (let x = from; x <= to; x += step) yield x;
};

/** The least diameter of a wheel on a belt's back, in whole millimetres, m. */
export const leastBackBend = (s: BeltSection, shelf: Shelf): number =>
  Math.ceil(factor(shelf, 'belt.backBend') * 2e3 * outsideRadius(s, s.minTeeth)) / 1e3;

/**
 * What decides whether a belt stage works, each with its mend.
 *
 * @param mends whether mends are wanted that take a search
 */
export function beltChecks(p: BeltParams, at: Duty, shelf: Shelf, m: BeltModel, mends: boolean): Check[] {
  const s = m.section;
  const found: typeof nearest = mends ? nearest : () => undefined;
  const L = m.layout;
  const wider = s.widths.filter((w) => w > p.width);
  const perWidth = factor(shelf, s.ids.tension);
  const width = (passes: (x: BeltModel, tried: BeltParams) => boolean) =>
    found(p, at, shelf, 'width', wider, passes, (w) => `Belt width ${stated(w, 'length', 5)}`);
  const newtons = (x: number) => Math.ceil(x * 2) / 2;
  const toTension = (f: number): Mend => ({
    path: 'tension',
    value: newtons(f),
    label: `Tension ${stated(newtons(f), 'force', 5)}`,
  });
  const allowed = perWidth * p.width;
  // The simplest hold that carries it, and where none does the strongest, so long as it is stronger than what is there.
  const held = pulleysHeld(p, s);
  const betterHold = (path: 'hold1' | 'hold2', asked: number): Mend | undefined => {
    const of = held[path === 'hold1' ? 0 : 1];
    const carries = (hold: BeltParams['hold1']) => holdTorque({ ...of, hold }, shelf);
    const [value, label] =
      HOLDS.find(([hold]) => carries(hold) * 0.9 >= asked) ??
      HOLDS.reduce((a, b) => (carries(b[0]) > carries(a[0]) ? b : a));
    return carries(value) > carries(p[path]) * 1.001 ? { path, value, label } : undefined;
  };
  const list: Check[] = [];
  list.push(
    check({
      id: 'mesh',
      of: 'mesh',
      name: 'Teeth in mesh',
      figure: Math.min(L.mesh1, L.mesh2),
      limit: 6,
      sense: 'min',
      quantity: 'count',
      severity: 'warn',
      near: 0,
      why: 'Below six each tooth carries more: the load share falls by a fifth a tooth.',
      mend: () =>
        p.closure === 'closed' && p.setBy === 'length'
          ? found(
              p,
              at,
              shelf,
              'beltTeeth',
              s.stock.filter((t) => t > p.beltTeeth),
              (x) => Math.min(x.layout.mesh1, x.layout.mesh2) >= 6,
              (t) => `Belt with ${t} teeth`,
            )
          : undefined,
      advice: 'Take more teeth on the small pulley, or an outside idler near it.',
    }),
  );
  list.push(
    check({
      id: 'clear',
      of: 'centre',
      name: 'Pulleys clear each other',
      figure: L.centre,
      limit: leastCentre(p, s),
      sense: 'min',
      quantity: 'length',
      near: 0.01,
      why: 'Outsides and flanges must pass with half a millimetre.',
    }),
  );
  list.push(
    check({
      id: 'small',
      name: 'Smallest pulley',
      figure: Math.min(p.z1, p.z2),
      limit: s.minTeeth,
      sense: 'min',
      quantity: 'count',
      severity: 'warn',
      near: 0,
      why: 'Bent tighter than this the cords tire early.',
      mend:
        Math.max(p.z1, p.z2) < s.minTeeth
          ? undefined
          : p.z1 <= p.z2
            ? { path: 'z1', value: s.minTeeth, label: `Driving pulley ${s.minTeeth} teeth` }
            : { path: 'z2', value: s.minTeeth, label: `Driven pulley ${s.minTeeth} teeth` },
      advice: `Give both pulleys ${s.minTeeth} teeth, or take a finer section.`,
    }),
  );
  list.push(
    check({
      id: 'taut',
      of: 'needed',
      name: 'Slack side stays taut at peak',
      figure: p.tension,
      limit: m.neededTension,
      sense: 'min',
      quantity: 'force',
      severity: 'warn',
      why: 'Once it hangs the stiffness halves and the belt may climb.',
      mend: () => (m.neededTension * 1.1 + m.force * m.share <= allowed ? toTension(m.neededTension * 1.1) : undefined),
      advice: 'Take a wider belt or a larger driven pulley, then raise the tension.',
    }),
  );
  list.push(
    check({
      id: 'tension',
      of: 'tight',
      name: 'Tight side within its allowable',
      figure: m.tight,
      limit: allowed,
      sense: 'max',
      quantity: 'force',
      why: 'Beyond it the cords stretch for good.',
      mend: () => width((x, tried) => x.tight <= perWidth * tried.width),
      advice: 'Take a coarser section or a larger driven pulley.',
    }),
  );
  list.push(
    check({
      id: 'shear',
      of: 'shear',
      name: 'Belt teeth carry the peak',
      figure: at.torque,
      limit: m.shearTorque,
      sense: 'max',
      quantity: 'torque',
      why: 'The teeth in mesh share the circumferential force.',
      mend: () => width((x) => x.shearTorque >= at.torque),
      advice: 'Take a coarser section or more teeth on the small pulley.',
    }),
  );
  list.push(
    check({
      id: 'jump',
      of: 'jump',
      name: 'Does not jump a tooth',
      figure: at.torque,
      limit: m.jumpTorque,
      sense: 'max',
      quantity: 'torque',
      near: 0.2,
      why: 'A jump loses position and lets go of the load at once.',
      mend: () =>
        found(
          p,
          at,
          shelf,
          'tension',
          upTo(newtons(p.tension), Math.max(p.tension, allowed - m.force * m.share), 0.5),
          (x) => x.jumpTorque >= at.torque * 1.25,
          (f) => `Tension ${stated(f, 'force', 5)}`,
        ) ?? width((x) => x.jumpTorque >= at.torque * 1.25),
      advice: 'Take a coarser section, or more wrap.',
    }),
  );
  if (Number.isFinite(m.printedTorque))
    list.push(
      check({
        id: 'printed',
        name: 'Printed teeth carry the peak',
        figure: at.torque,
        limit: m.printedTorque,
        sense: 'max',
        quantity: 'torque',
        why: 'The root of a printed tooth shears along its layers.',
        mend: () => width((x) => x.printedTorque >= at.torque),
        advice: 'Buy the smaller pulley.',
      }),
    );
  for (const [made, z, path] of [
    [p.made1, p.z1, 'made1'],
    [p.made2, p.z2, 'made2'],
  ] as const) {
    if (made === 'printed')
      list.push(
        check({
          id: `print-${path}`,
          name: `Printed ${path === 'made1' ? 'driving' : 'driven'} pulley is large enough`,
          figure: z,
          limit: Math.ceil(PRINTED_LEAST / s.pitch),
          sense: 'min',
          quantity: 'count',
          severity: 'warn',
          near: 0,
          why: 'A small printed pulley has few layers a tooth and wears the belt.',
          mend: { path, value: 'bought', label: 'Buy that one' },
        }),
      );
  }
  list.push(
    check({
      id: 'hold1',
      name: 'Driving pulley holds on its shaft',
      figure: at.torque / m.ratio / m.numbers.etaForward,
      limit: m.holdTorque1,
      sense: 'max',
      quantity: 'torque',
      why: 'Its torque passes through the hold: screws, glue or a key.',
      mend: () => betterHold('hold1', at.torque / m.ratio / m.numbers.etaForward),
      advice: 'Take a larger bore, or bolt it to its neighbour.',
    }),
  );
  list.push(
    check({
      id: 'hold2',
      name: 'Driven pulley holds',
      figure: at.torque,
      limit: m.holdTorque2,
      sense: 'max',
      quantity: 'torque',
      why: 'All of the stage’s torque passes through the hold.',
      mend: () => betterHold('hold2', at.torque),
      advice: 'Take a larger bore, or bolt it to its neighbour.',
    }),
  );
  list.push(
    check({
      id: 'speed',
      of: 'speed',
      name: 'Belt speed',
      figure: m.beltSpeed,
      limit: s.maxSpeed,
      sense: 'max',
      quantity: 'linearSpeed',
      severity: 'warn',
      why: 'Faster belts heat, sing and throw.',
      advice: 'Take a smaller driving pulley.',
    }),
  );
  if (p.closure === 'open' && at.swing !== undefined)
    list.push(
      check({
        id: 'swing',
        of: 'swing',
        name: 'Clamped ends allow the swing',
        figure: at.swing,
        limit: L.wrap2,
        sense: 'max',
        quantity: 'angle',
        severity: 'warn',
        why: 'The clamp must stay on the arc that the belt wraps round the driven pulley; a spliced belt must keep its splice off both pulleys.',
        mend: { path: 'closure', value: 'closed', label: 'Closed belt' },
      }),
    );
  if (p.idler === 'outside') {
    const least = factor(shelf, 'belt.backBend') * 2 * outsideRadius(s, s.minTeeth);
    list.push(
      check({
        id: 'back',
        name: 'Back-bending idler',
        figure: p.idlerDiameter,
        limit: least,
        sense: 'min',
        quantity: 'length',
        severity: 'warn',
        near: 0,
        why: 'Bent backwards the belt needs a larger diameter than forwards.',
        mend: {
          path: 'idlerDiameter',
          value: leastBackBend(s, shelf),
          label: `Idler ${stated(leastBackBend(s, shelf), 'length', 5)}`,
        },
      }),
    );
  }
  if (p.idler === 'inside')
    list.push(
      check({
        id: 'idler',
        name: 'Inside idler',
        figure: p.idlerTeeth,
        limit: s.minTeeth,
        sense: 'min',
        quantity: 'count',
        severity: 'warn',
        near: 0,
        why: 'It bends the belt as the small pulley does.',
        mend: { path: 'idlerTeeth', value: s.minTeeth, label: `Idler ${s.minTeeth} teeth` },
      }),
    );
  if (p.closure === 'closed' && p.setBy === 'length') {
    // Nearest first, so that few centres are solved for.
    const stocked = [...s.stock]
      .sort((a, b) => Math.abs(a - p.beltTeeth) - Math.abs(b - p.beltTeeth))
      .find((t) => (centreForTeeth(p, s, t) ?? 0) >= leastCentre(p, s));
    list.push(
      check({
        id: 'stock',
        name: 'Belt is on the shelf',
        figure: s.stock.includes(p.beltTeeth) ? 0 : 1,
        limit: 0.5,
        sense: 'max',
        quantity: 'count',
        severity: 'warn',
        near: 0,
        why: 'Closed belts come in the lengths of the shop’s list.',
        ...(stocked && { mend: { path: 'beltTeeth', value: stocked, label: `Belt with ${stocked} teeth` } }),
      }),
    );
  }
  return list;
}
