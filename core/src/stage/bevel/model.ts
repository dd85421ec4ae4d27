import {
  bearingStiffness,
  boreReach,
  cutPartPrice,
  greaseAtInput,
  loadedModes,
  loadMesh,
  meshDuty,
  meshKey,
  meshModes,
  meshPlaySpread,
  PLAIN_HUB,
  shortestLife,
  topPitchSpeed,
  type MeshLoad,
  type ModeText,
  type ToothMaterial,
  lastingShare,
} from '../../gear/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { Before, Duty, StageNumbers } from '../contract.ts';
import { pushedByTeeth } from '../push.ts';
import { boreLimits, bothBores, type Bored } from '../bore-holds.ts';
import type { Kept } from '../kept.ts';
import type { Limit } from '../limits.ts';
import { needMaterials } from '../needs.ts';
import { hubSprings } from '../hub-springs.ts';
import { spring, together } from '../springs.ts';
import { bevelGeometry, type BevelGeometry, type Cone } from './geometry.ts';
import type { BevelParams } from './params.ts';

/** A bevel pair before any duty. */
export interface BevelBuild {
  readonly geometry: BevelGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  /** What is left between roots at the inner end and bores, m. */
  readonly walls: readonly [number, number];
  readonly modes: readonly ModeText[];
}

/** Everything computed about a bevel pair. */
export interface BevelModel extends BevelBuild {
  readonly load: MeshLoad;
  /** Forces at mid-face, N: along the circle, and along and across the pinion's axis; swapped for the wheel's. */
  readonly tangent: number;
  readonly axial: readonly [number, number];
  readonly radial: readonly [number, number];
  readonly limits: readonly Limit[];
  /** Wheels that their bores turn. */
  readonly bores: readonly Bored[];
  readonly masses: readonly [number, number];
  readonly prices: readonly [number, number];
  readonly numbers: StageNumbers;
}

/** Wall of a hub round its bore, m. */
export const hubRadius = (bore: number): number => bore / 2 + Math.max(2.5e-3, 0.3 * bore);

/** Builds a pair; refuses in words what does not go together. */
export function buildBevel(p: BevelParams, shelf: Shelf): Result<BevelBuild> {
  const found = needMaterials(p, ['material1', 'material2'], shelf);
  if (!found.ok) return found;
  const made = bevelGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const inner = g.outer - p.width;
  const wall = (c: Cone, bore: number, shape: BevelParams['shape1']) =>
    inner * Math.sin(c.root) - boreReach({ ...PLAIN_HUB, bore, shape });
  return ok({
    geometry: g,
    materials: found.value,
    walls: [wall(g.cones[0], p.bore1, p.shape1), wall(g.cones[1], p.bore2, p.shape2)],
    modes: meshModes('1', 'pinion and wheel', ['pinion', 'wheel'], found.value),
  });
}

/** What does not go together, in words; it can still be drawn. */
export function wrongBevel(p: BevelParams, { walls }: BevelBuild): Result<never> | undefined {
  for (const [i, place, name, bore] of [
    [0, 'bore1', 'pinion', p.bore1],
    [1, 'bore2', 'wheel', p.bore2],
  ] as const)
    if (walls[i] <= 0)
      return refuse(
        `The bore cuts into the teeth of the ${name}.`,
        `At their inner end its roots come down to ⌀ ${stated(Math.max(0, bore + 2 * walls[i]), 'length', 4)}.`,
        'Take a smaller bore, a narrower face or more teeth.',
        place,
      );
  return undefined;
}

/** Mass of a wheel: a frustum of its pitch cone, the rim behind it and its hub, bored through, times what pockets leave, kg. */
function massOf(c: Cone, g: BevelGeometry, p: BevelParams, i: 0 | 1, material: ToothMaterial, shelf: Shelf): number {
  const inner = (g.outer - p.width) / g.outer;
  const high = p.width * Math.cos(c.pitch);
  const cone = ((Math.PI * high * c.outer ** 2) / 3) * (1 + inner + inner * inner);
  const [hub, bore] = i === 0 ? [p.hub1, p.bore1] : [p.hub2, p.bore2];
  const sleeve = Math.PI * hubRadius(bore) ** 2 * hub;
  const rim = Math.PI * Math.max(0, c.rim.over ** 2 - Math.max(c.rim.within, hubRadius(bore)) ** 2) * c.rim.deep;
  const hole = (Math.PI / 4) * bore ** 2 * (high + hub);
  return Math.max(0, cone + rim + sleeve - hole) * material.material.density * factor(shelf, 'gear.solid');
}

/**
 * What comes before lies along the pinion's axis, from its back or from where it is clear of the wheel.
 *
 * @param angle between the axes, rad
 */
function lyingBefore({ cones, length }: BevelGeometry, angle: number): NonNullable<Before['across']> {
  const [{ mount }, { over, mount: top }] = cones;
  const lean = Math.cos(angle);
  return { far: Math.max(mount * Math.sin(angle), over) + over, high: length - top + mount * lean, lean };
}

/** Computes a bevel pair at a duty on its wheel. Source: ISO 23509 geometry; virtual spur pair at mid-face (ISO 10300, method B1 in outline). */
export function modelBevel(p: BevelParams, b: BevelBuild, at: Duty, shelf: Shelf, kept: Kept): BevelModel {
  const { geometry: g, materials } = b;
  const [c1, c2] = g.cones;
  const ratio = p.z2 / p.z1;
  const r2 = c2.mean;
  const hold = factor(shelf, 'gear.housing');
  // Straight teeth carry more at their outer end: the virtual pair is loaded by so much more.
  const carries = factor(shelf, 'bevel.carries');
  const on = meshDuty(at, 1 / (r2 * carries), r2, [ratio, 1], [1, 1], [false, false]);
  const load = kept.step('load', meshKey(on), shelf, (read) =>
    loadMesh(g.mesh, materials[0], materials[1], on, read, factor(read, 'gear.housing')),
  );
  const tangent = at.torque / r2;
  const slope = Math.tan(p.pressure);
  const along = tangent * slope * Math.sin(c1.pitch);
  const across = tangent * slope * Math.cos(c1.pitch);
  // At a right angle the wheel's thrust is the pinion's radial force; at any other they follow their own cones.
  const axial = [along, tangent * slope * Math.sin(c2.pitch)] as const;
  const radial = [across, tangent * slope * Math.cos(c2.pitch)] as const;
  const hubs = [p.width + p.hub1, p.width + p.hub2] as const;
  const bores = bothBores(p, ['pinion', 'wheel'], hubs, materials, b.walls, ratio * load.efficiency, [
    { path: 'hub1', name: 'Hub', value: p.hub1 },
    { path: 'hub2', name: 'Hub', value: p.hub2 },
  ]);
  const limits = [
    ...loadedModes(b.modes, load, r2 * carries, at).map((m): Limit => ({
      ...m,
      formula: '0.85 of the virtual spur pair’s at mid-face, × r_m2',
    })),
    ...boreLimits(bores, shelf),
  ];
  const play = g.mesh.pair.play / r2;
  const place = 2 * factor(shelf, 'bevel.place') * slope;
  const spread =
    Math.hypot(meshPlaySpread(g.mesh.pair, shelf), place * Math.sin(c1.pitch), place * Math.sin(c2.pitch)) / r2;
  const tilt = factor(shelf, 'gear.tilt') / r2;
  const springs = [
    spring('teeth', load.stiffness * r2 ** 2, load.held),
    spring('axes give way', hold * (r2 / slope) ** 2),
    spring(
      'bearing that takes the thrust',
      bearingStiffness(materials[1], shelf) * (r2 / (slope * Math.max(0.05, Math.sin(c2.pitch)))) ** 2,
    ),
    ...hubSprings(p, ['pinion', 'wheel'], hubs, materials, ratio, shelf),
  ];
  const stiffness = together(springs);
  const masses = [massOf(c1, g, p, 0, materials[0], shelf), massOf(c2, g, p, 1, materials[1], shelf)] as const;
  // Cut one by one on a bevel planer, teeth take twice the work of a spur wheel's.
  const prices = [
    cutPartPrice(materials[0], masses[0], 2 * p.z1, shelf),
    cutPartPrice(materials[1], masses[1], 2 * p.z2, shelf),
  ] as const;
  const numbers: StageNumbers = {
    ratio,
    etaForward: load.efficiency,
    etaBackward: load.efficiency,
    pull: lastingShare(at) * Math.hypot(tangent, radial[0]),
    pullPeak: Math.hypot(tangent, radial[0]),
    pushes: pushedByTeeth(at, tangent, radial[1], axial[1], r2),
    drag: greaseAtInput(2 * Math.max(c1.over, c2.over), ratio, shelf),
    play: [play + tilt / 2, Math.max(0, play - spread), play + spread + tilt],
    stiffness,
    springs,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: 0.5 * masses[0] * c1.mean ** 2,
    inertiaOut: 0.5 * masses[1] * c2.mean ** 2,
    limits: limits.map((l) => ({ mode: l.mode, time: l.time, torque: l.torque, life: l.life })),
    mass: masses[0] + masses[1],
    money: prices[0] + prices[1],
    outside: g.outside,
    before: { across: lyingBefore(g, p.shaft) },
    length: g.length,
    maxSpeed: topPitchSpeed(materials) / c1.mean,
    bore: p.bore2,
    beside: true,
    life: shortestLife(limits),
  };
  return { ...b, load, tangent, axial, radial, limits, bores, masses, prices, numbers };
}
