import {
  blankMass,
  boreReach,
  crept,
  cutPartPrice,
  wheelPrice,
  greaseDrag,
  hubTurning,
  loadedModes,
  loadMesh,
  meshDuty,
  meshKey,
  meshModes,
  meshPlaySpread,
  loadBorne,
  dutyUnder,
  PLAIN_HUB,
  playOut,
  pressOf,
  shortestLife,
  topPitchSpeed,
  type MeshLoad,
  type ModeText,
  type PlayOut,
  type ToothMaterial,
  lastingShare,
} from '../../gear/index.ts';
import { term } from '../../figure/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import { boreLimits, type Bored } from '../bore-holds.ts';
import type { Duty, Spring, StageNumbers } from '../contract.ts';
import type { Kept } from '../kept.ts';
import { limitOf, type Limit } from '../limits.ts';
import { needMaterials } from '../needs.ts';
import { sumCosts } from '../costs.ts';
import { springsCost, springsOn } from '../split-wheel.ts';
import { bentAndTwisted, shaftStands, shaftStress } from '../shaft.ts';
import { spring, together } from '../springs.ts';
import { rackGeometry, type RackGeometry } from './geometry.ts';
import type { RackParams } from './params.ts';
import { gapArea } from './rollers.ts';
import { rollersCarry, STEEL, type RollersLoaded } from './rollers-carry.ts';

/** A rack stage before any duty. */
export interface RackBuild {
  readonly geometry: RackGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  /** What is left between roots, or roller pins, and bore, m. */
  readonly wall: number;
  readonly modes: readonly ModeText[];
}

/** Everything computed about a rack stage; forces N, its "torque" is the force along the rack. */
export interface RackModel extends RackBuild {
  readonly load: MeshLoad | undefined;
  readonly rollers: RollersLoaded | undefined;
  readonly efficiency: number;
  /** Forces on the pinion's shaft, N: along the rack is the peak itself. */
  readonly radial: number;
  readonly axial: number;
  readonly out: PlayOut;
  /** Play of the mesh before anything takes it out, m. */
  readonly before: number;
  readonly limits: readonly Limit[];
  /** The pinion that its bore turns. */
  readonly bores: readonly Bored[];
  readonly masses: readonly [number, number];
  readonly prices: readonly [number, number];
  readonly numbers: StageNumbers;
}

/** Share of a milled tooth's price that one of a rack takes: many are cut at a pass. */
const RACK_CUT = 0.25;
/** Shear modulus of the shaft’s steel, Pa. */
const SHEAR = 80e9;

/** Builds a stage; refuses in words what does not go together. */
export function buildRack(p: RackParams, shelf: Shelf): Result<RackBuild> {
  const found = needMaterials(p, ['material1', 'material2'], shelf);
  if (!found.ok) return found;
  const made = rackGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const root = g.mesh ? g.mesh.sides[0].root : g.radius - p.roller / 2;
  return ok({
    geometry: g,
    materials: found.value,
    wall: root - boreReach({ ...PLAIN_HUB, bore: p.bore, shape: p.shape }),
    modes: g.mesh ? meshModes('1', 'pinion and rack', ['pinion', 'rack'], found.value) : [],
  });
}

/** What does not go together, in words; it can still be drawn. */
export const wrongRack = (p: RackParams, { wall }: RackBuild): Result<never> | undefined =>
  wall > 0
    ? undefined
    : refuse(
        'The bore cuts into the teeth of the pinion.',
        `It leaves no wall; ⌀ ${stated(Math.max(0, p.bore + 2 * wall), 'length', 4)} is where it would end.`,
        'Take a smaller bore, or more teeth.',
        'bore',
      );

/**
 * Stiffness of the shaft at the pinion along the rack, N/m: bent over its overhang, and twisted over it. Bent off the rack as
 * well, by tan α of the force, it lets the pinion run on by tan α of that.
 */
function shaftSprings(p: RackParams, { geometry: g, materials }: RackBuild, shelf: Shelf): Spring[] {
  const bends = ((3 * STEEL * Math.PI * p.bore ** 4) / (64 * p.overhang ** 3)) * Math.cos(g.angle) ** 2;
  const twists = (SHEAR * Math.PI * p.bore ** 4) / (32 * p.overhang) / g.radius ** 2;
  const hub = hubTurning(materials[0], p.bore, p.width, shelf) / g.radius ** 2;
  return [
    spring('shaft bends over its overhang', bends),
    spring('shaft twists', twists),
    spring('pinion on its shaft', hub, crept(materials[0])),
  ];
}

/**
 * Moment that stresses the pinion's shaft at its bearing for a newton along the rack, m: bent over the overhang along the
 * rack and, by the separating force and by what a helix pushes along the shaft at its circle, across it; and twisted.
 *
 * @param lean tan β of a single helix, 0 without
 * @example pinionMoment(0.012, 0.01, Math.tan(Math.PI / 9), 0).toFixed(7) // '0.0154297'
 */
export const pinionMoment = (overhang: number, radius: number, slope: number, lean: number): number =>
  bentAndTwisted(Math.sqrt(overhang ** 2 + (slope * overhang + lean * radius) ** 2), radius);

/** Where the pinion's shaft stays bent, as force along the rack, N. */
function shaftYields(p: RackParams, { geometry: g }: RackBuild, shelf: Shelf): Limit {
  const slope = Math.tan(g.angle);
  const lean = g.mesh && p.double === 'no' ? Math.tan(Math.abs(p.helix)) : 0;
  const stands = shaftStands(shelf);
  return limitOf(
    'shaft',
    'shaft of the pinion yields',
    'static',
    stands / (shaftStress(p.bore) * pinionMoment(p.overhang, g.radius, slope, lean)),
    'Bent over its overhang by the force along the rack and the one that pushes it off, and twisted (von Mises).',
    'R_e·(π·d³/32)/√(L² + (L·tan α + r·tan β)² + ¾·r²)',
    Infinity,
    () => [
      term('R_e', 'what the shaft stands', stands, 'stress', 'computed'),
      term('d', 'shaft', p.bore, 'length', 'field', 'bore'),
      term('L', 'overhang', p.overhang, 'length', 'field', 'overhang'),
      term('α', 'angle that the force leans by', g.angle, 'angle', 'computed'),
      term('β', 'helix that pushes along the shaft', Math.atan(lean), 'angle', 'computed'),
      term('r', 'pitch radius', g.radius, 'length', 'computed'),
    ],
  );
}

/** Play of the mesh before anything takes it out, along the rack, m: likely, least, most. */
function playOf(p: RackParams, g: RackGeometry, shelf: Shelf): [number, number, number] {
  if (g.rollers) {
    // What is set in is taken from what was made wrong, and from how far off the rack lies.
    const wrong = factor(shelf, 'lobe.profile');
    return [0, 0, Math.max(0, 2 * (wrong - p.interference) + p.straight * Math.tan(Math.PI / p.z))];
  }
  const { pair } = g.mesh!;
  const spread = Math.hypot(meshPlaySpread(pair, shelf), 2 * p.straight * Math.tan(g.angle));
  const tilt = factor(shelf, 'gear.tilt');
  return [pair.play + tilt / 2, Math.max(0, pair.play - spread), pair.play + spread + tilt];
}

/**
 * Computes a rack and pinion at a duty of the carriage: forces N, ways m.
 *
 * Source: the pinion’s mesh with a wheel of ten million teeth by ISO 6336 and VDI 2736 (`mesh.ts`); shaft as a beam.
 */
export function modelRack(p: RackParams, b: RackBuild, at: Duty, shelf: Shelf, kept: Kept): RackModel {
  const { geometry: g, materials } = b;
  const slope = Math.tan(g.angle);
  const hold = factor(shelf, 'gear.housing');
  const play = playOf(p, g, shelf);
  const shaft = shaftSprings(p, b, shelf);
  const axes = spring('axes give way', hold / slope ** 2);
  let efficiency: number;
  let out: PlayOut;
  let load: MeshLoad | undefined;
  let rollers: RollersLoaded | undefined;
  let springs: Spring[];
  let limits: readonly Limit[];
  let [bendTorque, softer] = [Infinity, 0];
  if (g.mesh) {
    const mesh = g.mesh;
    const press = pressOf(p.takenOut);
    const on = dutyUnder(
      press,
      // Where nothing says how far it goes, each tooth of the rack is met once a stroke.
      meshDuty({ swing: p.stroke, ...at }, 1, 1, [1 / g.radius, 1 / mesh.pair.rw2], [1, 1], [false, false]),
      p.preload,
    );
    load = kept.step('load', meshKey(on), shelf, (read) =>
      loadMesh(mesh, materials[0], materials[1], on, read, factor(read, 'gear.housing')),
    );
    efficiency = load.efficiency;
    out = playOut(p.takenOut, play, p.preload, slope, efficiency);
    springs = [spring('teeth', load.stiffness, load.held), axes, ...shaft];
    limits = loadedModes(b.modes, load, 1, at).map((m) => ({
      ...m,
      torque: m.id.startsWith('skip') ? skipOf(p, m.torque, out) : loadBorne(press, m.torque, p.preload),
      formula: 'force at which it comes, along the rack',
    }));
  } else {
    const r = (rollers = rollersCarry(p, b, at, shelf));
    efficiency = r.efficiency;
    out = { left: play, opens: 0, drag: r.drag };
    springs = [...r.springs, axes, ...shaft];
    limits = r.limits;
    if (r.preload > 0) [bendTorque, softer] = [r.lets, r.softer];
  }
  const bores: Bored[] = [
    {
      name: 'pinion',
      bore: p.bore,
      path: 'bore',
      shape: p.shape,
      width: p.width,
      material: materials[0],
      gain: efficiency / g.radius,
      wall: b.wall,
      driven: true,
      longer: { path: 'width', name: 'Face width', value: p.width },
    },
  ];
  limits = [...limits, shaftYields(p, b, shelf), ...boreLimits(bores, shelf)];
  const stiffness = together(springs);
  const beyond = 1 / (1 / stiffness + softer);
  // Teeth and gaps of an involute rack are alike; gaps for rollers are as their flanks leave them.
  const gaps = g.rollers ? gapArea(g.rollers) / g.pitch : (g.rackTip + g.rackRoot) / 2;
  const section = (p.back + g.rackTip - gaps) * p.width;
  const masses = [
    blankMass(g.radius, p.bore / 2, p.width, materials[0], shelf),
    section * g.length * materials[1].material.density,
  ] as const;
  const prices = [
    wheelPrice(materials[0], masses[0], p.z, halved(p), shelf),
    cutPartPrice(materials[1], masses[1], g.teeth * RACK_CUT, shelf),
  ] as const;
  const hooked = sumCosts([springsCost(g.mesh ? springsOn(p.takenOut) : 0)]);
  const radial = g.mesh ? load!.radial : at.torque * slope;
  const numbers: StageNumbers = {
    ratio: 1 / g.radius,
    etaForward: efficiency,
    etaBackward: efficiency,
    pull: lastingShare(at) * Math.hypot(at.torque, radial),
    pullPeak: Math.hypot(at.torque, radial),
    drag: greaseDrag(2 * g.tip, shelf) + out.drag * g.radius,
    play: out.left,
    stiffness,
    springs,
    bendTorque,
    stiffnessBeyond: beyond,
    inertiaIn: (masses[0] * g.radius ** 2) / 2,
    inertiaOut: p.moves === 'rack' ? masses[1] : 0,
    limits: limits.map((l) => ({ mode: l.mode, time: l.time, torque: l.torque, life: l.life })),
    mass: masses[0] + masses[1] + hooked.mass,
    ...(p.moves === 'carriage' && { rides: masses[0] + hooked.mass }),
    money: prices[0] + prices[1] + hooked.money,
    outside: g.tip + g.axis + p.back,
    before: { beside: g.axis + p.back },
    length: p.width,
    maxSpeed: topPitchSpeed(materials) / g.radius,
    bore: 0,
    beside: true,
    life: shortestLife(limits),
  };
  return {
    ...b,
    load,
    efficiency,
    radial,
    rollers,
    axial: load?.axial ?? 0,
    out,
    before: play[0],
    limits,
    bores,
    masses,
    prices,
    numbers,
  };
}

/** Whether the pinion is in two halves. */
export const halved = (p: RackParams): boolean => p.form === 'involute' && p.takenOut === 'split';

/** A pinion that springs press on rides over once they are overcome; one that is held, where its housing gives way. */
const skipOf = (p: RackParams, held: number, out: PlayOut): number =>
  p.takenOut === 'spring' ? Math.min(held, out.opens) : held;
