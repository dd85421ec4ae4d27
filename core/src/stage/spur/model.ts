import { stated } from '../../units/stated.ts';
import {
  boreReach,
  crept,
  elastic,
  greaseAtInput,
  ringInertia,
  ringStiffness,
  loadedModes,
  loadMesh,
  shortestLife,
  meshDuty,
  meshFriction,
  meshKey,
  meshModes,
  modeLimits,
  meshPlaySpread,
  dutyUnder,
  loadBorne,
  playOut,
  pressOf,
  type PlayOut,
  takenOutBy,
  type TakenOut,
  type MeshLoad,
  type Mode,
  type ModeText,
  type ToothMaterial,
  blankMass,
  wheelPrice,
  topPitchSpeed,
  lastingShare,
} from '../../gear/index.ts';
import { inSeries } from '../../math/springs.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, Spring, StageNumbers } from '../contract.ts';
import { pushedByTeeth } from '../push.ts';
import type { Kept } from '../kept.ts';
import { needMaterials } from '../needs.ts';
import { boreLimits, bothBores, type Bored } from '../bore-holds.ts';
import { sumCosts } from '../costs.ts';
import { springsCost, springsOn } from '../split-wheel.ts';
import { hubSprings } from '../hub-springs.ts';
import { spring, together } from '../springs.ts';
import { spurGeometry, type SpurGeometry } from './geometry.ts';
import { spurRatio, type SpurParams } from './params.ts';

/** Everything computed about a spur train. */
export interface SpurModel {
  readonly geometry: SpurGeometry;
  readonly materials: readonly ToothMaterial[];
  readonly loads: readonly MeshLoad[];
  readonly modes: readonly Mode[];
  readonly efficiency: number;
  /** What taking the play of the last mesh out leaves and costs, along its circle. */
  readonly out: PlayOut;
  /** Play of all meshes before, m along the last circle. */
  readonly before: number;
  readonly wall1: number;
  readonly wall2: number;
  /** Wheels that their bores turn. */
  readonly bores: readonly Bored[];
  readonly masses: readonly number[];
  /** What each wheel costs. */
  readonly prices: readonly number[];
  readonly numbers: StageNumbers;
}

export const namesOf = (p: SpurParams): string[] => [
  'driving wheel',
  ...Array.from({ length: p.idlers }, (_, i) => (p.idlers > 1 ? `idler ${i + 1}` : 'idler')),
  p.form === 'ring' ? 'ring' : 'driven wheel',
];

/** A train before any duty. */
export interface SpurBuild {
  readonly geometry: SpurGeometry;
  readonly materials: readonly ToothMaterial[];
  /** What is left between roots and bore of the first and the last wheel, m. */
  readonly wall1: number;
  readonly wall2: number;
  /** How each mesh can fail. */
  readonly modes: readonly (readonly ModeText[])[];
}

/** Builds a train; refuses in words what does not go together. */
export function buildSpur(p: SpurParams, shelf: Shelf): Result<SpurBuild> {
  const made = spurGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const found = needMaterials(p, ['material1', 'material2'], shelf);
  if (!found.ok) return found;
  const [a, b] = found.value;
  const materials = g.wheels.map((_, i) => (i === g.wheels.length - 1 ? b : a));
  const first = g.meshes[0]!;
  const end = g.meshes[g.meshes.length - 1]!;
  const wall1 =
    first.sides[0].root -
    boreReach({ bore: p.bore1, shape: p.shape1, bolts: 0, boltCircle: 0, boltHole: 0, nuts: false });
  const wall2 =
    p.form === 'ring'
      ? Infinity
      : end.sides[1].root -
        boreReach({ bore: p.bore2, shape: p.shape2, bolts: 0, boltCircle: 0, boltHole: 0, nuts: false });
  const names = namesOf(p);
  const modes = g.meshes.map((_, i) =>
    meshModes(
      `${i + 1}`,
      g.meshes.length > 1 ? `${names[i]} and ${names[i + 1]}` : 'the pair',
      [names[i]!, names[i + 1]!],
      [materials[i]!, materials[i + 1]!],
    ),
  );
  return ok({ geometry: g, materials, wall1, wall2, modes });
}

/** What does not go together, in words; it can still be drawn. */
export function wrongSpur(_p: SpurParams, { geometry: g, wall1, wall2 }: SpurBuild): Result<never> | undefined {
  const first = g.meshes[0]!;
  const end = g.meshes[g.meshes.length - 1]!;
  if (wall1 <= 0)
    return refuse(
      'The bore cuts into the teeth of the driving wheel.',
      `Its roots reach down to ⌀ ${stated(2 * first.sides[0].root, 'length', 4)}.`,
      'Take a smaller bore, or more teeth.',
      'bore1',
    );
  if (wall2 <= 0)
    return refuse(
      'The bore cuts into the teeth of the driven wheel.',
      `Its roots reach down to ⌀ ${stated(2 * end.sides[1].root, 'length', 4)}.`,
      'Take a smaller bore, or more teeth.',
      'bore2',
    );
  return undefined;
}

/**
 * First and last wheel on their shafts; a ring has none.
 *
 * @param gain torque at the output for one at the input
 */
function boresOf(p: SpurParams, { materials, wall1, wall2 }: SpurBuild, gain: number): Bored[] {
  const names = namesOf(p);
  const [first, last] = [0, names.length - 1];
  const wider = { path: 'width', name: 'Face width', value: p.width };
  const all = bothBores(
    p,
    [names[first]!, names[last]!],
    [p.width, p.width],
    [materials[first]!, materials[last]!],
    [wall1, wall2],
    gain,
    [wider, wider],
  );
  return p.form === 'ring' ? all.slice(0, 1) : all;
}

/** Radial stiffness that holds a mesh together, N/m: the housing, and the wall of a ring that one wheel pushes outwards. */
function holdOf(p: SpurParams, { geometry: g, materials }: SpurBuild, i: number, shelf: Shelf): number {
  const housing = factor(shelf, 'gear.housing');
  const mesh = g.meshes[i]!;
  if (!mesh.pair.ring) return housing;
  const modulus = elastic(materials[i + 1]!, factor(shelf, 'ambient'), shelf);
  const root = mesh.sides[1].root;
  return inSeries(housing, ringStiffness(modulus, p.width, root + p.rim, root, 2));
}

/** Springs about the driven wheel, N·m/rad: every mesh, what holds its axes apart, and the first and last wheel on their shafts. */
function springsOf(p: SpurParams, b: SpurBuild, loads: readonly MeshLoad[], shelf: Shelf): Spring[] {
  const { geometry: g, materials } = b;
  const radius = g.meshes[g.meshes.length - 1]!.pair.rw2;
  const names = namesOf(p);
  const of = (i: number) => (g.meshes.length > 1 ? ` of ${names[i]} and ${names[i + 1]}` : '');
  const last = materials[materials.length - 1]!;
  const hubs = hubSprings(
    p,
    [names[0]!, names[names.length - 1]!],
    [p.width, p.width],
    [materials[0]!, last],
    spurRatio(p),
    shelf,
  );
  return [
    ...loads.map((l, i) => spring(`teeth${of(i)}`, l.stiffness * radius ** 2, l.held)),
    ...g.meshes.map((m, i) =>
      spring(
        `axes give way${of(i)}`,
        holdOf(p, b, i, shelf) * (radius / Math.tan(m.pair.working)) ** 2,
        m.pair.ring ? crept(last) : 1,
      ),
    ),
    ...(p.form === 'ring' ? hubs.slice(0, 1) : hubs),
  ];
}

/**
 * Play at the output, rad: of the meshes as they are, and of the last one as it is left where it was taken out; what
 * springs press together has none of bearings and shafts either.
 */
function playsOf(
  rest: number,
  thick: number,
  tilt: number,
  way: TakenOut,
  left: (k: 0 | 1 | 2) => number,
  meshes: number,
): [number, number, number] {
  if (way === 'none') return [rest + tilt / 2, Math.max(0, rest - thick), rest + thick + tilt];
  // Of one mesh nothing else is left; idlers' own stay.
  if (meshes === 1) return [left(0), left(1), left(2)];
  return [rest + left(0) + tilt / 2, Math.max(0, rest - thick) + left(1), rest + thick + left(2) + tilt];
}

/**
 * Computes a pair, or a train with idlers, at a duty on the driven wheel.
 *
 * Source: one force runs through all meshes of a train, but for what is lost on the way; teeth by ISO 6336 and VDI 2736 (`mesh.ts`).
 */
export function modelSpur(p: SpurParams, b: SpurBuild, at: Duty, shelf: Shelf, kept: Kept): SpurModel {
  const { geometry: g, materials, wall1, wall2 } = b;
  const ring = p.form === 'ring';
  const first = g.meshes[0]!;
  const end = g.meshes[g.meshes.length - 1]!;
  const ratio = spurRatio(p);
  const radius = end.pair.rw2;
  const turns = g.wheels.map((w) => p.z2 / w.teeth);
  const idle = (i: number) => i > 0 && i < g.wheels.length - 1;
  const lastMesh = g.meshes.length - 1;
  const way = takenOutBy(p);
  const wayOf = (i: number) => (i === lastMesh ? way : 'none');
  // What meshes after it lose, those before carry as well.
  const levers = g.meshes.map((_, i) =>
    g.meshes.reduce(
      (r, m, j) => (j > i ? r * (1 - meshFriction(materials[j]!, materials[j + 1]!, shelf) * m.loss) : r),
      radius,
    ),
  );
  const duties = g.meshes.map((_, i) =>
    dutyUnder(
      pressOf(wayOf(i)),
      meshDuty(at, 1 / levers[i]!, radius, [turns[i]!, turns[i + 1]!], [1, 1], [idle(i), idle(i + 1)]),
      p.preload,
    ),
  );
  const loads = kept.step('loads', duties.flatMap(meshKey), shelf, (read) =>
    g.meshes.map((m, i) => loadMesh(m, materials[i]!, materials[i + 1]!, duties[i]!, read, holdOf(p, b, i, read))),
  );
  const efficiency = loads.reduce((e, l) => e * l.efficiency, 1);
  // Springs on the last mesh: of split halves one carries load and spring together, sprung centres let go beyond their force.
  const slope = Math.tan(end.pair.working);
  const bores = boresOf(p, b, Math.abs(ratio) * efficiency);
  const toothModes = loads.flatMap((l, i) =>
    loadedModes(b.modes[i]!, l, levers[i]!, at).map((m) =>
      wayOf(i) === 'spring' && m.id.startsWith('skip')
        ? { ...m, torque: Math.min(m.torque, (p.preload / slope) * radius) }
        : { ...m, torque: loadBorne(pressOf(wayOf(i)), m.torque, p.preload * radius) },
    ),
  );
  const modes = [...toothModes, ...boreLimits(bores, shelf)];
  // Play of every mesh lies on one circle speed: as angles at the output they add.
  const one = g.meshes.reduce((s, m) => s + m.pair.play, 0) / radius;
  const thick = Math.hypot(...g.meshes.map((m) => meshPlaySpread(m.pair, shelf))) / radius;
  const tilt = (factor(shelf, 'gear.tilt') * g.meshes.length) / radius;
  // What is taken out is the play of the last mesh; those before keep theirs.
  const own = end.pair.play;
  const ownSpread = meshPlaySpread(end.pair, shelf);
  const out = playOut(
    way,
    [own, Math.max(0, own - ownSpread), own + ownSpread],
    p.preload,
    slope,
    loads[lastMesh]!.efficiency,
  );
  const rest = way === 'none' ? one : one - own / radius;
  const left = (k: 0 | 1 | 2) => (way === 'none' ? 0 : out.left[k] / radius);
  const springs = springsOf(p, b, loads, shelf);
  const stiffness = together(springs);
  const masses = g.wheels.map((w, i) => {
    const r = (i === 0 ? first.pair.s1 : g.meshes[i - 1]!.pair.s2).r;
    const [outer, inner] = w.ring
      ? [end.sides[1].root + p.rim, r]
      : [r, (i === 0 ? p.bore1 : i === g.wheels.length - 1 ? p.bore2 : 0) / 2];
    return blankMass(outer, inner, p.width, materials[i]!, shelf);
  });
  const reach = (i: number): number =>
    g.wheels[i]!.ring ? end.sides[1].root + p.rim : (i === 0 ? first.pair.s1 : g.meshes[i - 1]!.pair.s2).r;
  // An idler turns (z1/z_i) as fast as the input.
  const inertiaIn = masses
    .slice(0, -1)
    .reduce((s, m, i) => s + ((m * reach(i) ** 2) / 2) * (p.z1 / g.wheels[i]!.teeth) ** 2, 0);
  const lastMass = masses[masses.length - 1]!;
  const prices = masses.map((x, i) =>
    wheelPrice(materials[i]!, x, g.wheels[i]!.teeth, way === 'split' && i === g.wheels.length - 1, shelf),
  );
  const hooked = sumCosts([springsCost(springsOn(way))]);
  const ended = loads.at(-1)!;
  const numbers: StageNumbers = {
    ratio,
    etaForward: efficiency,
    etaBackward: efficiency,
    pull: lastingShare(at) * Math.hypot(loads[0]!.force, loads[0]!.radial),
    pullPeak: Math.hypot(loads[0]!.force, loads[0]!.radial),
    // Halves of a double helix push against one another.
    pushes: pushedByTeeth(at, ended.force, ended.radial, p.double === 'yes' ? 0 : ended.axial, end.pair.s2.r),
    drag: greaseAtInput(g.outside, ratio, shelf) + (out.drag * radius) / Math.abs(ratio),
    play: playsOf(rest, thick, tilt, way, left, g.meshes.length),
    stiffness,
    springs,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn,
    inertiaOut: ringInertia(lastMass, reach(g.wheels.length - 1), ring ? end.pair.s2.r : 0),
    limits: modeLimits(modes),
    mass: masses.reduce((s, x) => s + x, 0) + hooked.mass,
    money: prices.reduce((s, x) => s + x, 0) + hooked.money + factor(shelf, 'price.bearing') * p.idlers,
    outside: g.outside,
    before: { beside: g.beside },
    length: p.width,
    maxSpeed: topPitchSpeed(materials) / first.pair.rw1,
    bore: ring ? 0 : p.bore2,
    beside: true,
    life: shortestLife(modes),
  };
  return {
    geometry: g,
    materials,
    loads,
    modes,
    efficiency,
    out,
    before: one * radius,
    wall1,
    wall2,
    bores,
    masses,
    prices,
    numbers,
  };
}
