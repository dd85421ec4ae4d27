import { check, type Check, type Mend } from '../figure/index.ts';
import { gear, leastShift, thicknessAt, type Gear } from './gear.ts';
import type { Mesh } from './mesh.ts';
import type { ToothMaterial } from './tooth-material.ts';

const deg = Math.PI / 180;

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

/** Whether teeth run in two hands: what meshes with them goes on along the axis from neither side. */
export const isTwoHanded = (p: Pick<Toothing, 'double' | 'helix'>): boolean => p.double === 'yes' && p.helix > 0;

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

/** How a wheel is called, and which parameters would mend it. */
export interface WheelName {
  readonly id: string;
  readonly name: string;
  readonly shift?: string;
  readonly teeth?: string;
}

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
