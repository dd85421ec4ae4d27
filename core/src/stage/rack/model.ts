import { reducedModulus } from '../../contact/index.ts';
import {
  blankMass,
  boreReach,
  crept,
  cutPartPrice,
  wheelPrice,
  elastic,
  flankCrush,
  greaseDrag,
  hubTurning,
  loadedModes,
  loadMesh,
  lobesLast,
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
} from '../../gear/index.ts';
import { SEAT_OF } from '../../gear/seated-pin.ts';
import { linePressure, pinContact } from '../../lobed/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { Duty, Spring, StageNumbers } from '../contract.ts';
import type { Kept } from '../kept.ts';
import { limitOf, type Limit } from '../limits.ts';
import { needMaterials } from '../needs.ts';
import { sumCosts } from '../costs.ts';
import { springsCost, springsOn } from '../split-wheel.ts';
import { spring, together } from '../springs.ts';
import { rackGeometry, type RackGeometry } from './geometry.ts';
import type { RackParams } from './params.ts';

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
  readonly efficiency: number;
  /** Forces on the pinion's shaft, N: along the rack is the peak itself. */
  readonly radial: number;
  readonly axial: number;
  readonly out: PlayOut;
  /** Play of the mesh before anything takes it out, m. */
  readonly before: number;
  readonly limits: readonly Limit[];
  readonly masses: readonly [number, number];
  readonly prices: readonly [number, number];
  readonly numbers: StageNumbers;
}

/** Share of a milled tooth's price that one of a rack takes: many are cut at a pass. */
const RACK_CUT = 0.25;
/** Young’s modulus and shear modulus of the shaft’s steel, Pa. */
const [STEEL, SHEAR] = [210e9, 80e9];

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

/** Stiffness of the shaft at the pinion, N/m: bent over its overhang, and twisted over it. */
function shaftSprings(p: RackParams, { geometry: g, materials }: RackBuild, shelf: Shelf): Spring[] {
  const bends = (3 * STEEL * Math.PI * p.bore ** 4) / (64 * p.overhang ** 3);
  const twists = (SHEAR * Math.PI * p.bore ** 4) / (32 * p.overhang) / g.radius ** 2;
  const hub = hubTurning(materials[0], p.bore, p.width, shelf) / g.radius ** 2;
  return [
    spring('shaft bends over its overhang', bends),
    spring('shaft twists', twists),
    spring('pinion on its shaft', hub, crept(materials[0])),
  ];
}

/** Play of the mesh before anything takes it out, along the rack, m: likely, least, most. */
function playOf(p: RackParams, g: RackGeometry, shelf: Shelf): [number, number, number] {
  if (g.rollers) {
    // What is set in is taken from what was made wrong.
    const wrong = factor(shelf, 'lobe.profile');
    return [0, 0, Math.max(0, 2 * (wrong - p.interference))];
  }
  const { pair } = g.mesh!;
  const spread = Math.hypot(meshPlaySpread(pair, shelf), 2 * p.straight * Math.tan(g.angle));
  const tilt = factor(shelf, 'gear.tilt');
  return [pair.play + tilt / 2, Math.max(0, pair.play - spread), pair.play + spread + tilt];
}

/** What of rollers on a rack any duty leaves as it is. */
interface RollerFacts {
  readonly efficiency: number;
  readonly stiffness: number;
  readonly drag: number;
  readonly limits: readonly Limit[];
}

/** Rollers on their flanks: a line of contact each, on one side as many as carry at once. */
function rollersOf(p: RackParams, { geometry: g, materials }: RackBuild, at: Duty, shelf: Shelf): RollerFacts {
  const r = g.rollers!;
  const ambient = factor(shelf, 'ambient');
  const [a, b] = materials;
  const moduli = materials.map((m) => elastic(m, ambient, shelf)) as [number, number];
  const modulus = reducedModulus(moduli[0], a.poisson, moduli[1], b.poisson);
  const carry = Math.max(1, Math.floor(r.carrying));
  const friction = factor(shelf, 'lobe.roll');
  // Mean over a contact of tan(θ/2), from 0 to where it ends.
  const leans = (-2 * Math.log(Math.cos(r.reach / 2))) / r.reach;
  const one = pinContact(modulus, p.width, (factor(shelf, 'lobe.seat') * moduli[0]) / SEAT_OF);
  const steep = Math.cos(r.reach / 2);
  // The worst roller stands at the end of its contact, where it leans most; a flank is all but straight there.
  const worst = 1 / (carry * steep);
  const press = linePressure(worst, p.width, modulus, 1 / r.roller);
  const crush = Math.min(flankCrush(a, ambient, shelf), flankCrush(b, ambient, shelf));
  const height = r.tip + r.roller;
  const lasts = lobesLast(
    {
      lobes: b,
      pins: a,
      press,
      slide: 2 * leans,
      rolls: true,
      area: g.teeth * height * p.width,
      lift: height / 2,
      meetings: (2 * Math.PI) / Math.max(p.stroke, g.pitch),
    },
    at,
    shelf,
  );
  // Pins are carried at both ends by the discs: M = F·b/8 for a force over their length.
  const pin = 0.6 * p.roller;
  const bend = (worst * p.width) / 8 / ((Math.PI * pin ** 3) / 32);
  return {
    efficiency: 1 - 2 * friction * leans,
    stiffness: carry * (p.interference > 0 ? 2 : 1) * one,
    drag: 2 * carry * one * p.interference * friction,
    limits: [
      limitOf(
        'crush',
        'flanks of the rack are crushed by a roller',
        'static',
        (crush / press) ** 2,
        'Hertzian pressure of a roller at the end of its contact, beyond what the softer of both bears once.',
        '(p/p₁)², p₁ for a newton',
      ),
      limitOf(
        'flank',
        b.plastic ? 'flanks of the rack wear' : 'flanks of the rack pit',
        'life',
        lasts.torque,
        b.plastic
          ? 'What rollers rub off the flanks (linear wear as in VDI 2736-2).'
          : 'Hertzian pressure each time a roller goes by (pitting).',
        'passes that it stands over how often they come',
        lasts.life,
      ),
      limitOf(
        'pin',
        'pin of a roller bends',
        'static',
        (450e6 * factor(shelf, 'strength.metal')) / bend,
        'A pin of six tenths of the roller’s diameter, ground steel, carried at both ends by the discs.',
        'R_e·π·d³/32/(b/8)',
      ),
    ],
  };
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
  let springs: Spring[];
  let limits: readonly Limit[];
  if (g.mesh) {
    const mesh = g.mesh;
    const press = pressOf(p.takenOut);
    const on = dutyUnder(
      press,
      meshDuty(at, 1, 1, [1 / g.radius, 1 / mesh.pair.rw2], [1, 1], [false, false]),
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
    const r = rollersOf(p, b, at, shelf);
    efficiency = r.efficiency;
    out = { left: play, opens: 0, drag: r.drag };
    springs = [spring('rollers on their flanks', r.stiffness, crept(materials[1])), axes, ...shaft];
    limits = r.limits;
  }
  const stiffness = together(springs);
  const section = p.back * p.width + (g.rackTip - g.rackRoot) * 0.5 * p.width;
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
    drag: greaseDrag(2 * g.tip, shelf) + out.drag * g.radius,
    play: out.left,
    stiffness,
    springs,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: (masses[0] * g.radius ** 2) / 2,
    inertiaOut: p.moves === 'rack' ? masses[1] : 0,
    limits: limits.map((l) => ({ mode: l.mode, time: l.time, torque: l.torque, life: l.life })),
    mass: masses[0] + masses[1] + hooked.mass,
    money: prices[0] + prices[1] + hooked.money,
    outside: g.tip + g.axis + p.back,
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
    axial: load?.axial ?? 0,
    out,
    before: play[0],
    limits,
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
