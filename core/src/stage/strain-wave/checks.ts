import { isCrossed } from '../../shop/bearings.ts';
import { check, type Check, type Mend } from '../../figure/index.ts';
import { modeAgainst, modeChecks, telling } from '../../gear/index.ts';
import { steppedUp } from '../../math/steps.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { Duty } from '../contract.ts';
import { ringWallCheck } from '../ring-wall.ts';
import { sprungChecks } from '../taken-out.ts';
import { strainWaveGeometry } from './geometry.ts';
import type { StrainWaveModel } from './model.ts';
import { hasRollers, type StrainWaveParams } from './params.ts';
import { rollersFor } from './rollers.ts';
import { stepped } from '../../math/steps.ts';

const mm = (x: number): string => stated(x, 'length', 4);

interface Way {
  readonly path: 'thin' | 'depth' | 'addendum' | 'shift';
  readonly step: number;
  readonly most: number;
  readonly say: (x: number) => string;
}

/** What can clear teeth that clash, each in steps a person would take. */
const waysFor = (p: StrainWaveParams): Way[] => [
  { path: 'thin', step: 2e-5, most: 16, say: (x) => `Allowance ${mm(x)}` },
  { path: 'depth', step: -0.02, most: 15, say: (x) => `Depth factor ${x}` },
  ...(p.form === 'belt'
    ? []
    : [{ path: 'addendum', step: -0.05, most: 8, say: (x: number) => `Addendum ${x}` } as const]),
  ...(p.form === 'involute' ? [{ path: 'shift', step: 0.2, most: 10, say: (x: number) => `Shift ${x}` } as const] : []),
];

/** The first step along each way at which no tooth clashes any more, those that take least of their range first. */
export function clearing(p: StrainWaveParams, room = 0): Mend[] {
  const found: { mend: Mend; share: number }[] = [];
  for (const w of waysFor(p)) {
    for (let k = 1; k <= w.most; k++) {
      const value = stepped(p[w.path] + k * w.step, Math.abs(w.step) / 2);
      const g = strainWaveGeometry({ ...p, [w.path]: value });
      if (!g.ok) break;
      if (g.value.least >= room) {
        found.push({ mend: { path: w.path, value, label: w.say(value) }, share: k / w.most });
        break;
      }
    }
  }
  return found.sort((a, b) => a.share - b.share).map((x) => x.mend);
}

/** A ring of small bearings in place of one that is bent, as many as the spline has room for; undefined where none fit. */
function rollersInstead(p: StrainWaveParams, shelf: Shelf): Mend | undefined {
  const found = rollersFor(p, shelf);
  return (
    found && {
      path: 'shape',
      value: found.shape,
      also: { bearing: found.bearing, rollers: found.rollers, shaft: found.shaft },
      label: `${found.rollers} rollers`,
    }
  );
}

/**
 * What decides whether a strain-wave stage works.
 * @param mends whether ways out are looked for that take geometries of their own
 */
export function strainWaveChecks(
  p: StrainWaveParams,
  at: Duty,
  m: StrainWaveModel,
  shelf: Shelf,
  mends = true,
): Check[] {
  const g = m.geometry;
  const clash = g.least < 0;
  const ways = clash && mends ? clearing(p) : [];
  const where = `${stated(Math.abs(g.leastAt), 'angle', 2)} from a lobe’s top, ${mm(Math.max(0, g.splineTip - g.leastHeight))} below the tooth’s tip`;
  const bearingRoom = 2 * (g.radius - g.wall / 2) - m.bearing.outside;
  const thinner = Number(
    (Math.floor(g.wall * Math.min(1, (0.9 * m.strainLimit) / m.strain) * 1e5) / 1e5).toPrecision(6),
  );
  const share = at.torque > 0 ? (m.drag * Math.abs(m.numbers.ratio) * m.forward) / at.torque : 0;
  const nearGap = Math.max(
    p.slack,
    ...g.line.groups.filter((x) => x.angle <= Math.PI / p.lobes / 3 + 1e-9).map((x) => x.gap * g.throw),
  );
  const more = (path: string, value: number, label: string): Mend => ({ path, value, label });
  const limit = m.materials[0].material.softening - factor(shelf, 'mount.margin');
  // Looked for once, and where a check fails: it builds one generator after another.
  let found: { readonly mend: Mend | undefined } | undefined;
  const rolls = (): Mend | undefined =>
    (found ??= { mend: hasRollers(p) || !mends ? undefined : rollersInstead(p, shelf) }).mend;
  const list: Check[] = [
    ...sprungChecks((p.tension ?? 0) > 0, p.tension ?? 0, at, m, 'tension'),
    check({
      id: 'clash',
      of: 'clearance',
      name: 'Teeth pass without clashing',
      figure: g.least,
      limit: 0,
      sense: 'min',
      quantity: 'length',
      severity: g.least < -0.05 * g.module ? 'stop' : 'warn',
      near: 0,
      why: clash
        ? `A tooth overlaps its space by ${mm(-g.least)}, ${where}: it binds there, or bends.`
        : `Tightest ${where}.`,
      mend: ways[0],
      advice:
        ways.length > 1
          ? `Or: ${ways
              .slice(1)
              .map((w) => w.label.toLowerCase())
              .join('; ')}.`
          : 'Thin the teeth, lower them, or take less throw.',
    }),
    check({
      id: 'pass',
      of: 'pass',
      name: 'Teeth leave the ring between the lobes',
      figure: g.pass,
      limit: 0.03 * g.module,
      sense: 'min',
      quantity: 'length',
      near: 0,
      why: 'Where the spline is drawn in furthest its tips must pass the ring’s, or it cannot turn against it.',
      mend: more(
        'addendum',
        stepped(Math.max(0.1, p.addendum - Math.ceil((0.03 * g.module - g.pass) / (2 * g.module) / 0.05) * 0.05), 0.01),
        'Lower addendum',
      ),
      advice: 'Take a lower addendum or more depth.',
    }),
    check({
      id: 'tips',
      name: 'Tips clear the ring’s roots',
      figure: Math.min(g.tipRoom, g.rootRoom),
      limit: p.form === 'belt' ? -1e-5 : 0.03 * g.module,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      near: 0,
      why: 'At a lobe’s top a tip that touches ground keeps the sides apart.',
      ...(p.form === 'belt'
        ? { mend: more('depth', stepped(p.depth - 0.02, 0.01), 'Less depth') }
        : {
            mend: more(
              'dedendum',
              stepped(
                p.dedendum + Math.ceil((0.03 * g.module - Math.min(g.tipRoom, g.rootRoom)) / g.module / 0.05) * 0.05,
                0.01,
              ),
              'Higher dedendum',
            ),
          }),
      advice: 'Cut the spaces deeper or take less throw.',
    }),
    ringWallCheck({
      of: 'rim',
      name: 'Ring’s wall',
      stress: m.rimStress,
      wall: p.ringWall,
      material: m.materials[1].material,
      path: 'ringWall',
      value: p.ringWall,
      held: p.held === 'ring',
      why: 'The lobes press the ring out as they carry, and bend its wall in between as they go round.',
    }),
    check({
      id: 'strain',
      of: 'strain',
      name: 'Wall stands its bending',
      figure: m.strain,
      limit: m.strainLimit,
      sense: 'max',
      quantity: 'efficiency',
      severity: m.strain > 2.5 * m.strainLimit ? 'stop' : 'warn',
      why: `Every wave bends the wall out and in; ${m.materials[0].material.name} tires above this.`,
      ...(p.form === 'belt' ? {} : { mend: more('wall', thinner, `Wall ${mm(thinner)}`) }),
      advice: 'Take a thinner wall, a larger radius with more and finer teeth, or another material.',
    }),
    check({
      id: 'gap',
      of: 'leastPreload',
      name: 'Generator presses near the lobes’ tops',
      figure: nearGap,
      limit: 0.05 * g.engaged,
      sense: 'max',
      quantity: 'length',
      severity: 'warn',
      near: 0,
      why: 'Where the spline has a gap behind it near a lobe’s top, it gives way under load and skips.',
      mend:
        p.slack > 0.05 * g.engaged
          ? more('slack', 0, 'No gap')
          : p.shape === 'many'
            ? more('rollers', p.rollers + 2 * p.lobes, `${p.rollers + 2 * p.lobes} rollers`)
            : more('slack', 0, 'No gap'),
    }),
    ...(p.body === 'cup'
      ? [
          check({
            id: 'usable',
            of: 'usable',
            name: 'Teeth clear the ring along their width',
            figure: p.width,
            limit: Number.isFinite(m.usable) ? m.usable : p.cup,
            sense: 'max',
            quantity: 'length',
            near: 0.05,
            why: 'Towards the closed end the wave dies away: teeth that reach too far back catch between the lobes.',
            mend: more(
              'cup',
              steppedUp((p.cup * p.width) / Math.max(1e-6, m.usable) + 1e-4, 1e-3),
              `Cup ${mm(steppedUp((p.cup * p.width) / Math.max(1e-6, m.usable) + 1e-4, 1e-3))}`,
            ),
            advice: 'Take a longer cup, narrower teeth or a lower addendum.',
          }),
        ]
      : []),
    ...(!hasRollers(p) && p.run === 'bearing'
      ? [
          check({
            id: 'fits',
            name: 'Bearing fills the spline',
            figure: Math.abs(bearingRoom),
            limit: 1e-4,
            sense: 'max',
            quantity: 'length',
            near: 0,
            why:
              bearingRoom > 0
                ? 'The bearing is smaller than the spline’s inside: the wave is not carried round.'
                : 'The bearing is larger than the spline’s inside and cannot be put in.',
            ...(p.form === 'belt'
              ? {}
              : {
                  mend: {
                    path: 'radius',
                    value: Number(((m.bearing.outside + g.wall) / 2).toPrecision(7)),
                    label: `Neutral line ${mm((m.bearing.outside + g.wall) / 2)}`,
                  },
                }),
            advice: 'Choose teeth and wall so that the inside is the bearing’s outside, or take rollers.',
          }),
        ]
      : []),
    ...(m.races.stress > 0
      ? [
          check({
            id: 'races',
            of: 'races',
            name: 'Bearing’s rings stand the wave',
            figure: m.races.stress,
            limit: factor(shelf, 'wave.raceStress'),
            sense: 'max',
            quantity: 'stress',
            why:
              `${m.bearing.name} is a deep-groove ball bearing and no thin one made to be bent: its rings are strained ` +
              'like this by every wave, and press on its balls.',
            mend: rolls,
            advice: 'Take rollers, a larger bearing with finer teeth, or less throw.',
          }),
        ]
      : []),
    check({
      id: 'stall',
      of: 'drag',
      name: 'Drag leaves torque to drive with',
      figure: share,
      limit: 0.3,
      sense: 'max',
      quantity: 'efficiency',
      severity: 'warn',
      why:
        `Turning the generator unloaded takes as much as ${(100 * share).toFixed(0)} % of what the load ` +
        `does; ${stated(Math.abs(m.numbers.ratio), 'ratio', 3)} says otherwise, and the motor stalls.`,
      // Where the generator rubs more than the wall flexes, a thinner wall is of no use.
      mend:
        m.dragFlex < m.dragGenerator + m.dragBearings
          ? rolls
          : p.form === 'belt'
            ? undefined
            : more(
                'wall',
                stepped(g.wall * Math.cbrt(Math.min(1, 0.25 / Math.max(share, 1e-9))), 1e-5),
                'Thinner wall',
              ),
      advice: 'Take a generator that rolls, a thinner wall, finer teeth or less ratio.',
    }),
    check({
      id: 'back',
      of: 'back',
      name: 'Can be turned back',
      figure: m.backward,
      limit: 0.2,
      sense: 'min',
      quantity: 'efficiency',
      severity: 'note',
      why: 'Below this it feels stuck by hand; what flexing costs comes on top.',
      mend: rolls,
      advice: 'A generator that rolls turns back more easily.',
    }),
    check({
      id: 'align',
      of: 'alignment',
      name: 'Generator stands in the middle',
      figure: factor(shelf, 'wave.centre'),
      limit: Math.max(0, m.alignment),
      sense: 'max',
      quantity: 'length',
      severity: 'note',
      near: 0,
      why: 'Off the middle by more than the clearance allows, teeth of one lobe clash once a turn.',
      advice: 'Let the generator float, or align motor and ring; a dial on the ring’s bore tells.',
    }),
    check({
      id: 'warm',
      of: 'rise',
      name: 'Spline stays below softening',
      figure: factor(shelf, 'ambient') + m.rise,
      limit,
      sense: 'max',
      quantity: 'temperature',
      severity: 'warn',
      near: 0.01,
      why: 'Flexing warms it; running continuously at the brief’s speed.',
      advice: 'Turn it slower or in turns, or take a material that flexes with less loss.',
    }),
    ...modeChecks(
      m.modes.filter((x) => x.id !== 'skip' && x.id !== 'dent' && x.id !== 'wall' && x.id !== 'buckle'),
      { width: p.width, module: 1 },
      at,
      'Take wider teeth, more depth or a stronger material.',
    ),
  ];
  const skip = m.modes.find((x) => x.id === 'skip')!;
  const wall = m.modes.find((x) => x.id === 'wall')!;
  const buckle = m.modes.find((x) => x.id === 'buckle');
  const thicker = buckle ? steppedUp(g.wall * ((1.1 * at.torque) / Math.max(1e-9, buckle.torque)) ** 0.45, 5e-5) : 0;
  list.push(
    check({
      id: 'skip',
      of: 'skip',
      name: 'Holds against skipping',
      figure: at.torque,
      limit: skip.torque,
      sense: 'max',
      quantity: 'torque',
      why: `${skip.why} What skips lets go of its load.`,
      mend: more(
        'ringWall',
        steppedUp(p.ringWall * Math.cbrt(at.torque / Math.max(1e-9, skip.torque)) * 1.1, 5e-4),
        'Thicker ring',
      ),
      advice: 'Stiffen generator and ring, take steeper sides or deeper teeth.',
    }),
    ...telling([wall]).map((mode) =>
      check({
        id: 'wall',
        of: 'wall',
        name: 'Wall lasts under the torque',
        ...modeAgainst(mode, at),
        why: mode.why,
        advice: 'Take a larger radius or a stronger material; a thicker wall also bends harder.',
      }),
    ),
    ...(buckle
      ? [
          check({
            id: 'buckle',
            of: 'buckle',
            name: 'Wall does not buckle',
            figure: at.torque,
            limit: buckle.torque,
            sense: 'max',
            quantity: 'torque',
            why: buckle.why,
            ...(p.form !== 'belt' && thicker > g.wall && { mend: more('wall', thicker, 'Thicker wall') }),
            advice: 'Take a thicker wall or a shorter cup.',
          }),
        ]
      : []),
  );
  const dent = m.modes.find((x) => x.id === 'dent');
  if (!dent) return list;
  const stronger = shelf.bearings
    .filter((b) => !isCrossed(b))
    .sort((a, b) => a.outside - b.outside)
    .find(
      (b) =>
        b.static > m.bearing.static &&
        b.static > 1.05 * m.bearing.static * (at.torque / Math.max(1e-9, dent.torque)) &&
        (hasRollers(p) ? b.outside <= 1.6 * m.bearing.outside : b.outside === m.bearing.outside),
    );
  list.push(
    check({
      id: 'dent',
      of: 'dent',
      name: hasRollers(p) ? 'Rollers hold' : 'Generator’s bearing holds',
      figure: at.torque,
      limit: dent.torque,
      sense: 'max',
      quantity: 'torque',
      why: dent.why,
      ...(stronger && { mend: { path: 'bearing', value: stronger.id, label: `Bearing ${stronger.name}` } }),
      advice: 'Take a larger bearing, more rollers or steeper sides.',
    }),
  );
  return list;
}
