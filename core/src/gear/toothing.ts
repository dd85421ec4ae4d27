import * as v from 'valibot';
import { check, type Check, type Mend } from '../figure/index.ts';
import { quantity, wholeNumber } from '../schema/quantity-schema.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { CapacityLimit, FieldSpec } from '../stage/contract.ts';
import { formatQuantity } from '../units/format.ts';
import { gear, leastShift, thicknessAt, type Gear } from './gear.ts';
import { steppedUp } from '../math/steps.ts';
import type { Mesh, MeshLoad } from './mesh.ts';
import type { ToothMaterial } from './tooth-material.ts';

const deg = Math.PI / 180;

export const teeth = (what: string, max = 400) => v.pipe(wholeNumber(5, max), v.description(`Teeth, ${what}`));
export const shift = (what: string) =>
  v.pipe(quantity('count', -1, 1.5), v.description(`Profile shift factor, ${what}`));
export const thinning = (what: string) =>
  v.pipe(quantity('length', 0, 2e-3), v.description(`Tooth-thickness allowance, ${what}, m`));
export const materialId = (what: string) => v.pipe(v.string(), v.description(`Material of the shop, ${what}`));
export const yesNo = (what: string) => v.pipe(v.picklist(['no', 'yes']), v.description(what));
export const hubShape = (what: string) =>
  v.pipe(v.picklist(['round', 'flat', 'keyway']), v.description(`Bore, ${what}`));
export const size = (what: string, min = 0, max = 2) =>
  v.pipe(quantity('length', min, max), v.description(`${what}, m`));

/** What every toothed stage says of its teeth; SI units. */
export const toothingEntries = {
  module: v.pipe(quantity('length', 1e-4, 2e-2), v.description('Normal module, m')),
  pressure: v.pipe(quantity('angle', 14 * deg, 30 * deg), v.description('Normal pressure angle, rad')),
  helix: v.pipe(quantity('angle', 0, 45 * deg), v.description('Helix angle, rad')),
  double: yesNo('Double-helical, two mirrored halves'),
  width: v.pipe(quantity('length', 5e-4, 0.3), v.description('Face width, m')),
  addendum: v.pipe(quantity('count', 0.5, 1.5), v.description('Addendum over module')),
  dedendum: v.pipe(quantity('count', 0.6, 2), v.description('Dedendum over module')),
  fillet: v.pipe(quantity('count', 0, 0.6), v.description('Root rounding of the cutter over module')),
  chamfer: v.pipe(quantity('length', 0, 2e-3), v.description('Tip chamfer, m')),
  trim: yesNo('Tips shortened where they would touch a mating root'),
};

export interface Toothing {
  readonly module: number;
  readonly pressure: number;
  readonly helix: number;
  readonly double: 'no' | 'yes';
  readonly width: number;
  readonly addendum: number;
  readonly dedendum: number;
  readonly fillet: number;
  readonly chamfer: number;
  readonly trim: 'no' | 'yes';
}

export const plainToothing = (module: number, width: number): { -readonly [K in keyof Toothing]: Toothing[K] } => ({
  module,
  pressure: 20 * deg,
  helix: 0,
  double: 'no',
  width,
  addendum: 1,
  dedendum: 1.25,
  fillet: 0.38,
  chamfer: 0,
  trim: 'no',
});

/** A wheel of a stage's toothing. */
export const wheel = (p: Toothing, teethCount: number, more: Partial<Gear>): Gear =>
  gear({
    module: p.module,
    pressure: p.pressure,
    teeth: teethCount,
    addendum: p.addendum,
    dedendum: p.dedendum,
    fillet: p.fillet,
    chamfer: p.chamfer,
    ...more,
  });

/** Modules of ISO 54 that reducers are made in, m. */
export const MODULES = [0.3, 0.4, 0.5, 0.6, 0.8, 1, 1.25, 1.5, 2, 2.5, 3, 4, 5].map((x) => x * 1e-3);

/** Fields of the toothing, the same for every toothed kind. */
export function toothingFields<P extends Toothing>(): FieldSpec<P>[] {
  const fields: FieldSpec<Toothing>[] = [
    {
      as: 'quantity',
      quantity: 'length',
      path: 'module',
      label: 'Module',
      group: 'Teeth',
      help: 'Normal module; ISO 54 prefers 0.5, 0.8, 1, 1.25, 1.5, 2. The same in every mesh.',
      step: 5e-5,
    },
    {
      as: 'quantity',
      quantity: 'length',
      path: 'width',
      label: 'Face width',
      group: 'Teeth',
      help: 'Strength and stiffness grow with it.',
      step: 5e-4,
    },
    {
      as: 'quantity',
      quantity: 'angle',
      path: 'helix',
      label: 'Helix',
      group: 'Teeth',
      help: 'Quieter, with thrust; a double helix carries its own.',
      step: deg,
    },
    {
      as: 'choice',
      path: 'double',
      label: 'Double helix',
      group: 'Teeth',
      help: 'Two mirrored halves: no thrust, and it cannot be pushed in along the axis.',
      when: (p) => p.helix > 0,
      options: () => NO_YES,
    },
    {
      as: 'quantity',
      quantity: 'angle',
      path: 'pressure',
      label: 'Pressure angle',
      group: 'Tooth form',
      help: 'In the normal section; 20° is usual, 25° stronger and harder on bearings.',
      step: 2.5 * deg,
    },
    {
      as: 'quantity',
      quantity: 'count',
      path: 'addendum',
      label: 'Addendum',
      group: 'Tooth form',
      help: 'Over the module; 1 in ISO 53.',
      step: 0.05,
    },
    {
      as: 'quantity',
      quantity: 'count',
      path: 'dedendum',
      label: 'Dedendum',
      group: 'Tooth form',
      help: 'Over the module; 1.25 in ISO 53.',
      step: 0.05,
    },
    {
      as: 'quantity',
      quantity: 'count',
      path: 'fillet',
      label: 'Root rounding',
      group: 'Tooth form',
      help: 'Of the cutter’s tip, over the module; 0.38 in ISO 53 A. The root is the trochoid it leaves.',
      step: 0.02,
    },
    {
      as: 'quantity',
      quantity: 'length',
      path: 'chamfer',
      label: 'Tip chamfer',
      group: 'Tooth form',
      help: 'Takes the sharp tip off, along the radius.',
      step: 5e-5,
    },
    {
      as: 'choice',
      path: 'trim',
      label: 'Trim tips',
      group: 'Tooth form',
      help: 'Shorten tips where they would touch a root.',
      options: () => NO_YES,
    },
  ];
  return fields as unknown as FieldSpec<P>[];
}

export const NO_YES = [
  { value: 'no', label: 'No' },
  { value: 'yes', label: 'Yes' },
];
export const SHAPES = [
  { value: 'round', label: 'Round' },
  { value: 'flat', label: 'With a flat' },
  { value: 'keyway', label: 'With a keyway' },
];

/** Fields of materials and bores, by path. */
export const materialField = <P>(path: keyof P & string, label: string): FieldSpec<P> =>
  ({
    as: 'choice',
    path,
    label,
    group: 'Made of',
    help: 'From the shop’s materials.',
    options: (_p, shelf: Shelf) => shelf.materials.map((m) => ({ value: m.id, label: m.name })),
  }) as FieldSpec<P>;
export const countField = <P>(
  path: keyof P & string,
  label: string,
  help: string,
  group = 'Teeth',
  min = 5,
  max = 400,
): FieldSpec<P> => ({ as: 'count', path, label, group, help, min, max }) as FieldSpec<P>;
export const lengthField = <P>(
  path: keyof P & string,
  label: string,
  help: string,
  group: string,
  step = 5e-4,
  when?: (p: P) => boolean,
): FieldSpec<P> =>
  ({ as: 'quantity', quantity: 'length', path, label, group, help, step, ...(when && { when }) }) as FieldSpec<P>;
export const shiftField = <P>(
  path: keyof P & string,
  label: string,
  help: string,
  when?: (p: P) => boolean,
): FieldSpec<P> =>
  ({
    as: 'quantity',
    quantity: 'count',
    path,
    label,
    group: 'Shift and play',
    help,
    step: 0.05,
    ...(when && { when }),
  }) as FieldSpec<P>;
export const choiceField = <P>(
  path: keyof P & string,
  label: string,
  group: string,
  help: string,
  options: readonly { value: string | number; label: string }[],
  when?: (p: P) => boolean,
): FieldSpec<P> =>
  ({ as: 'choice', path, label, group, help, options: () => options, ...(when && { when }) }) as FieldSpec<P>;

/** How a wheel is called, and which parameters would mend it. */
export interface WheelName {
  readonly id: string;
  readonly name: string;
  readonly shift?: string;
  readonly teeth?: string;
}

const mm = (x: number): string => formatQuantity(x, 'length');

/** Checks of one wheel's own teeth: undercut and tips. */
export function wheelChecks(g: Gear, w: WheelName, mesh: Mesh, index: 0 | 1, material: ToothMaterial): Check[] {
  const list: Check[] = [];
  const side = mesh.sides[index];
  if (!g.ring) {
    const least = leastShift(g);
    const up = Math.ceil(least * 100) / 100;
    const full = Math.ceil(
      (2 * (g.dedendum - g.fillet * (1 - Math.sin(g.pressure)) - g.shift) * Math.cos(g.helix)) /
        Math.sin(side.size.at) ** 2,
    );
    list.push(
      check({
        id: `undercut-${w.id}`,
        name: `Undercut, ${w.name}`,
        figure: g.shift,
        limit: least,
        sense: 'min',
        quantity: 'count',
        severity: side.undercut && least - g.shift > 0.15 ? 'stop' : 'warn',
        near: 0,
        why: 'Below this shift the cutter eats into the flank: a weak root, and contact lost.',
        ...(w.shift
          ? { mend: { path: w.shift, value: up, label: `Shift ${up}` } }
          : w.teeth
            ? { mend: { path: w.teeth, value: full, label: `${full} teeth` } }
            : {}),
        advice: `Give it ${full} teeth, or more shift.`,
      }),
    );
  }
  const least = (material.material.made === 'printed' ? 0.2 : 0.25) * g.module;
  const tip = g.ring ? Math.max(side.size.ra, side.size.rb) : side.size.ra;
  const thick = thicknessAt(side.size, g.teeth, tip);
  list.push(
    check({
      id: `tip-${w.id}`,
      name: `Tip width, ${w.name}`,
      figure: thick,
      limit: least,
      sense: 'min',
      quantity: 'length',
      severity: thick <= 0 ? 'stop' : 'warn',
      why: 'A thinner tip chips, or is lost in printing.',
      ...(w.shift
        ? {
            mend: {
              path: w.shift,
              value: Math.round((g.shift + (g.ring ? 0.1 : -0.1)) * 100) / 100,
              label: `Shift ${Math.round((g.shift + (g.ring ? 0.1 : -0.1)) * 100) / 100}`,
            },
          }
        : {}),
      advice: 'Take less shift, or a lower addendum.',
    }),
  );
  return list;
}

/** Checks of a mesh's geometry: contact, roots, clearance, and a ring's interferences. */
export function meshChecks(id: string, name: string, m: Mesh): Check[] {
  const { pair: p, interference: x } = m;
  const mod = p.g1.module;
  const trim: Mend = { path: 'trim', value: 'yes', label: 'Trim the tips' };
  const total = p.contact + m.overlap;
  const list = [
    check({
      id: `contact-${id}`,
      of: `contact-${id}`,
      name: `Contact ratio, ${name}`,
      figure: m.overlap > 0 ? total : p.contact,
      limit: 1.1,
      sense: 'min',
      quantity: 'count',
      severity: p.contact < 1 ? 'stop' : 'warn',
      near: 0.05,
      why: 'Below one a tooth lets go before the next takes over.',
      mend: {
        path: 'addendum',
        value: Math.round((p.g1.addendum + 0.1) * 100) / 100,
        label: `Addendum ${Math.round((p.g1.addendum + 0.1) * 100) / 100}`,
      },
      advice: 'Take more teeth, less shift or a higher addendum.',
    }),
    check({
      id: `roots-${id}`,
      name: `Tips clear of roots, ${name}`,
      figure: Math.min(x.root1, x.root2),
      limit: 0,
      sense: 'min',
      quantity: 'length',
      near: 0,
      severity: 'warn',
      why: 'A tip that reaches past the end of the mating involute rides on its root.',
      mend: trim,
    }),
    check({
      id: `clear-${id}`,
      name: `Tip clearance, ${name}`,
      figure: Math.min(x.clear12, x.clear21),
      limit: 0.1 * mod,
      sense: 'min',
      quantity: 'length',
      severity: Math.min(x.clear12, x.clear21) <= 0 ? 'stop' : 'warn',
      near: 0,
      why: 'Between a tip and the root it runs in there must be room for dirt, grease and what a process adds.',
      mend: trim,
    }),
  ];
  if (p.ring) {
    list.push(
      check({
        id: `tips-${id}`,
        name: `Ring’s tips pass, ${name}`,
        figure: x.tips === Infinity ? Math.PI / 2 : x.tips,
        limit: 0,
        sense: 'min',
        quantity: 'angle',
        near: 0,
        why: 'With few teeth between ring and pinion their tips collide outside the mesh.',
        mend: {
          path: 'addendum',
          value: Math.max(0.5, Math.round((p.g1.addendum - 0.1) * 100) / 100),
          label: 'Lower addendum',
        },
        advice: 'Take a ring with more teeth, or a lower addendum.',
      }),
    );
    list.push(
      check({
        id: `base-${id}`,
        name: `Ring’s tips above its base, ${name}`,
        figure: p.s2.ra,
        limit: p.s2.rb,
        sense: 'min',
        quantity: 'length',
        near: 0,
        severity: 'warn',
        why: 'There is no involute below the base circle, so teeth there do not carry.',
        advice: 'Shift the ring out, or take a lower addendum or more teeth.',
      }),
    );
  }
  return list;
}

/** What a way of failing is called and why it comes: text that no number changes, laid down once for a stage. */
export interface ModeText {
  readonly id: string;
  readonly mode: string;
  /** Whether the torque carried for ever counts, not the peak. */
  readonly ever: boolean;
  readonly why: string;
  /** Whether more width helps in proportion. */
  readonly grows: 'width' | 'none';
}

/** A way of failing, and when it comes. */
export interface Mode extends ModeText {
  /** Torque at the output at which it comes, N·m. */
  readonly torque: number;
  /** Temperature of what fails, K, where it is of plastic and warm. */
  readonly temperature?: number | undefined;
}

/**
 * The ways in which a mesh fails, in the order of `loadedModes`: each root at once and for ever, flanks, ride-over.
 *
 * @param names of its two wheels
 */
export function meshModes(id: string, name: string, names: readonly [string, string]): ModeText[] {
  const root = (i: 0 | 1): ModeText[] => [
    {
      id: `break-${id}-${i}`,
      mode: `root of the ${names[i]} breaks`,
      ever: false,
      why: 'Bending at the root, force at the tip (ISO 6336-3).',
      grows: 'width',
    },
    {
      id: `tire-${id}-${i}`,
      mode: `root of the ${names[i]} tires`,
      ever: true,
      why: 'Bending for ever at the RMS torque.',
      grows: 'width',
    },
  ];
  return [
    ...root(0),
    ...root(1),
    {
      id: `pit-${id}`,
      mode: `flanks of ${name} wear`,
      ever: true,
      why: 'Hertzian pressure at the pitch point for ever at the RMS torque (ISO 6336-2).',
      grows: 'width',
    },
    {
      id: `skip-${id}`,
      mode: `${name} skips`,
      ever: false,
      why: 'The separating force opens the centres by the working depth and teeth ride over; a stiffer housing holds them.',
      grows: 'none',
    },
  ];
}

/** The modes of a mesh under a load; `perForce` is the torque at the output for a newton on the teeth, m. */
export function loadedModes(texts: readonly ModeText[], l: MeshLoad, perForce: number): Mode[] {
  const [a, b, c, d, pit, skip] = texts as readonly [ModeText, ModeText, ModeText, ModeText, ModeText, ModeText];
  const warm = l.rootTemperature;
  return [
    modeAt(a, l.breaks[0] * perForce, warm),
    modeAt(b, l.tires[0] * perForce, warm),
    modeAt(c, l.breaks[1] * perForce, warm),
    modeAt(d, l.tires[1] * perForce, warm),
    modeAt(pit, l.pits * perForce),
    modeAt(skip, l.skips * perForce),
  ];
}

/** A mode at its torque; written out, since it is made some hundred times for a band. */
export const modeAt = (t: ModeText, torque: number, temperature?: number): Mode => ({
  id: t.id,
  mode: t.mode,
  ever: t.ever,
  why: t.why,
  grows: t.grows,
  torque,
  temperature,
});

/** Why a mode comes, with how warm it is where that takes strength. */
export const modeWhy = (m: Mode): string =>
  m.temperature !== undefined && m.temperature > 300
    ? `${m.why.slice(0, -1)} at ${formatQuantity(m.temperature, 'temperature', {}, 3)}.`
    : m.why;

/** Checks of strength, each with the margin at the brief's torque and what it takes. */
export function modeChecks(
  modes: readonly Mode[],
  p: { readonly width: number; readonly module: number },
  torque: number,
  ever: number,
): Check[] {
  return modes.map((m) => {
    const asked = m.ever ? ever : torque;
    // A tenth in hand, so that what is mended holds and is not only near.
    const need = steppedUp((p.width * asked) / 0.9 / Math.max(m.torque, 1e-12), 5e-4);
    const coarser = MODULES.find((x) => x > p.module * 1.001);
    return check({
      id: m.id,
      of: m.id,
      name: `${m.mode[0]!.toUpperCase()}${m.mode.slice(1)}`,
      figure: asked,
      limit: m.torque,
      sense: 'max',
      quantity: 'torque',
      severity: m.ever ? 'warn' : 'stop',
      why: modeWhy(m),
      mend:
        m.grows === 'width' && need < 0.3 && need < 6 * p.width
          ? { path: 'width', value: need, label: `Face width ${mm(need)}` }
          : coarser && m.torque > 0
            ? { path: 'module', value: coarser, label: `Module ${mm(coarser)}` }
            : undefined,
      advice: 'Take a larger module, a stronger material, or share it among more planets.',
    });
  });
}

/**
 * What limits a stage at once, for its numbers: modes that count at the peak, and those for ever scaled up by how much
 * more the peak asks.
 */
export const modeLimits = (modes: readonly Mode[], torque: number, ever: number, share = 1): CapacityLimit[] =>
  modes.map((m) => ({
    mode: m.mode,
    torque: (m.ever && ever > 0 ? m.torque * Math.max(1, torque / ever) : m.torque) / share,
  }));
