import { spring, together } from '../springs.ts';
import { stated } from '../../units/stated.ts';
import {
  blankMass,
  crept,
  elastic,
  greaseDrag,
  ringInertia,
  ringStiffness,
  ringWall,
  roundMoment,
  seatStiffness,
  carrier,
  central,
  cutPartPrice,
  wheelPrice,
  loadedModes,
  loadMesh,
  meshDuty,
  meshKey,
  shortestLife,
  memberSpeed,
  meshFriction,
  meshModes,
  modeAt,
  modeLimits,
  planetPlay,
  dutyUnder,
  loadBorne,
  sharedOutBy,
  SHARED_OUT,
  topPitchSpeed,
  trainRatio,
  trainShares,
  trainSpeeds,
  trainTorques,
  type TrainTorques,
  type Mesh,
  type MeshLoad,
  type Mode,
  type ModeText,
  type ToothMaterial,
  type Train,
} from '../../gear/index.ts';
import { term } from '../../figure/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, Spring, StageNumbers } from '../contract.ts';
import type { Kept } from '../kept.ts';
import { one, PIN_PRICE, sumCosts } from '../costs.ts';
import { ROUND_A_WHEEL, springsCost } from '../split-wheel.ts';
import { needMaterials } from '../needs.ts';
import { compoundGeometry, type CompoundGeometry } from './geometry.ts';
import { pressedInAll } from './pins.ts';
import type { CompoundParams } from './params.ts';

/** One mesh of the stage as it carries. */
export interface CompoundMesh {
  readonly id: string;
  /** Member that it drives or is held by. */
  readonly of: 'input' | 'held' | 'output';
  readonly name: string;
  readonly wheels: readonly [string, string];
  readonly mesh: Mesh;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  readonly load: MeshLoad;
  readonly eta: number;
  /** Turn of the output for a metre along its circle, rad/m. */
  readonly angle: number;
}

/** Everything computed about a shared-planet stage. */
export interface CompoundModel {
  readonly geometry: CompoundGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly train: Train;
  readonly ratio: number;
  readonly forward: number;
  /** What a planet presses its pin with, all along it, N, and friction on all pins, N·m, both for a newton metre at the output. */
  readonly pressed: number;
  readonly rubs: number;
  /** Of a planet on its pin for one of the output. */
  readonly turns: number;
  readonly backward: number;
  readonly meshes: readonly CompoundMesh[];
  /** Load at which play that springs take out is back, N·m at the output; 0 where none press. */
  readonly opens: number;
  /** What the springs cost, N·m at the output. */
  readonly braking: number;
  readonly playOne: number;
  readonly bind: number;
  readonly modes: readonly Mode[];
  readonly rims: readonly BentRing[];
  /** Sun, one planet, held ring, driven ring, kg. */
  readonly masses: Masses;
  /** What its pieces weigh and cost. */
  readonly pieces: ReturnType<typeof piecesOf>;
  readonly numbers: StageNumbers;
}

/** A ring whose wall its planets bend. */
export interface BentRing {
  readonly id: string;
  readonly held: boolean;
  readonly name: string;
  /** Push of a planet, N. */
  readonly radial: number;
  /** Middle line of its wall, that wall and its width, m. */
  readonly radius: number;
  readonly wall: number;
  readonly width: number;
  /** Pa. */
  readonly stress: number;
}

/** The train of a stage with an efficiency for each mesh: sun, ring 1, ring 2. */
export function compoundTrain(p: CompoundParams, etas: readonly [number, number, number] = [1, 1, 1]): Train {
  return {
    input: p.drive === 'sun' ? central(p.zs, p.zpA, false, etas[0]) : carrier,
    held: central(p.zr1, p.zpA, true, etas[1]),
    output: central(p.zr2, p.zpB, true, etas[2]),
  };
}

/** A shared-planet stage before any duty. */
export interface CompoundBuild {
  readonly geometry: CompoundGeometry;
  /** What the planets' pins are of. */
  readonly pin: ToothMaterial;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly meshesOf: readonly MeshOf[];
}

/** A mesh of the stage: its wheels, and the member that it drives or is held by. */
interface MeshOf {
  readonly id: string;
  readonly name: string;
  readonly wheels: readonly [string, string];
  readonly mesh: Mesh;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  readonly of: 'input' | 'held' | 'output';
  readonly radius: number;
  /** How it can fail. */
  readonly modes: readonly ModeText[];
}

function meshesOf(g: CompoundGeometry, [ms, mp, mr]: CompoundBuild['materials']): MeshOf[] {
  const make = (m: Omit<MeshOf, 'modes'>): MeshOf => ({ ...m, modes: meshModes(m.id, m.name, m.wheels, m.materials) });
  const ring1 = make({
    id: 'ring1',
    name: 'planets and held ring',
    wheels: ['planets A', 'held ring'],
    mesh: g.mesh1,
    materials: [mp, mr],
    of: 'held',
    radius: g.mesh1.pair.rw2,
  });
  const ring2 = make({
    id: 'ring2',
    name: 'planets and driven ring',
    wheels: ['planets B', 'driven ring'],
    mesh: g.mesh2,
    materials: [mp, mr],
    of: 'output',
    radius: g.mesh2.pair.rw2,
  });
  if (!g.sunMesh) return [ring1, ring2];
  const sun = make({
    id: 'sun',
    name: 'sun and planets',
    wheels: ['sun', 'planets A, at the sun'],
    mesh: g.sunMesh,
    materials: [ms, mp],
    of: 'input',
    radius: g.sunMesh.pair.rw1,
  });
  return [sun, ring1, ring2];
}

/** Builds a stage; refuses in words what does not go together. */
export function buildCompound(p: CompoundParams, shelf: Shelf): Result<CompoundBuild> {
  const made = compoundGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const materials = needMaterials(p, ['materialS', 'materialP', 'materialR'], shelf);
  if (!materials.ok) return materials;
  const pins = needMaterials(p, ['materialPins'], shelf);
  if (!pins.ok) return pins;
  return ok({
    geometry: g,
    pin: pins.value[0],
    materials: materials.value,
    meshesOf: meshesOf(g, materials.value),
  });
}

/** Efficiency of each mesh; it does not depend on load. */
function etasOf(p: CompoundParams, b: CompoundBuild, shelf: Shelf): Record<MeshOf['of'], number> {
  const etas = { input: 1, held: 1, output: 1 };
  for (const m of b.meshesOf)
    etas[m.of] = p.meshBy === 'given' ? p.eta : 1 - meshFriction(m.materials[0], m.materials[1], shelf) * m.mesh.loss;
  return etas;
}

/**
 * What one even planet presses its pin with, all along it, for a newton metre at the output, N.
 *
 * Forces along the circles: the driven ring's in the plane of the second toothing, as much the other way in that of the
 * first; a carrier that drives pushes by what they differ. Rings push a planet inwards, a sun outwards, by tan α of theirs.
 *
 * @param drive torques of the train, on its members
 */
function onPin(p: CompoundParams, b: CompoundBuild, drive: TrainTorques, shelf: Shelf): number {
  const { geometry: g } = b;
  const long = p.width + p.widthB;
  const of = (torque: number, mesh: Mesh, radius: number) => {
    const force = Math.abs(torque / drive.output) / (p.planets * radius);
    return { force, off: force * Math.tan(mesh.pair.working) };
  };
  const driven = of(drive.output, g.mesh2, g.mesh2.pair.rw2);
  const held = of(drive.held, g.mesh1, g.mesh1.pair.rw2);
  const sun = g.sunMesh ? of(drive.input, g.sunMesh, g.sunMesh.pair.rw1) : undefined;
  const [first, off] = sun ? [driven.force, held.off - sun.off] : [held.force, held.off];
  const leans = factor(shelf, 'pin.lean') / 2;
  return pressedInAll(
    {
      along: [driven.force - first, leans * (driven.force * p.width + first * p.widthB)],
      across: [driven.off + off, leans * (driven.off * p.width - off * p.widthB)],
    },
    long,
  );
}

/** Torques of the train with what its meshes and pins lose. */
function drivenBy(p: CompoundParams, b: CompoundBuild, etas: Readonly<Record<MeshOf['of'], number>>, shelf: Shelf) {
  const train = compoundTrain(p, [etas.input, etas.held, etas.output]);
  const plain = trainTorques(train, 'input');
  const pressed = onPin(p, b, plain, shelf);
  // Where efficiencies are given all losses are in them.
  const rubs = p.meshBy === 'given' ? 0 : (p.planets * factor(shelf, 'pin.friction') * pressed * p.pin) / 2;
  return { train, pressed, rubs, drive: rubs > 0 ? trainTorques(train, 'input', rubs) : plain };
}

/** The same, and what passes it the other way. */
function efficiencyOf(p: CompoundParams, b: CompoundBuild, etas: Readonly<Record<MeshOf['of'], number>>, shelf: Shelf) {
  const forward = drivenBy(p, b, etas, shelf);
  const { train, rubs } = forward;
  return { ...forward, backward: trainTorques(train, 'output', rubs).efficiency, shares: trainShares(train) };
}

/** What does not go together, in words; it can still be drawn. */
export function wrongCompound(p: CompoundParams, b: CompoundBuild, shelf: Shelf): Result<never> | undefined {
  const { geometry: g } = b;
  const { train, drive } = drivenBy(p, b, etasOf(p, b, shelf), shelf);
  const root = Math.min(g.mesh1.sides[0].root, g.mesh2.sides[0].root);
  if (p.pin / 2 >= root - 0.3e-3)
    return refuse(
      'The pin does not fit the planets.',
      `Their roots reach down to ⌀ ${stated(2 * root, 'length', 4)} and need a wall.`,
      'Take a thinner pin, or larger planets.',
      'pin',
    );
  if (g.sunMesh && p.boreS / 2 >= g.sunMesh.sides[0].root)
    return refuse(
      'The bore cuts into the sun’s teeth.',
      `Its roots reach down to ⌀ ${stated(2 * g.sunMesh.sides[0].root, 'length', 4)}.`,
      'Take a smaller bore, or more teeth on the sun.',
      'boreS',
    );
  if (!(drive.efficiency > 0))
    return refuse(
      'The stage cannot be driven at all.',
      `At ratio ${trainRatio(train).toFixed(1)} its teeth lose more than is put in.`,
      'Take counts with less ratio, or less friction.',
      'zr2',
    );
  return undefined;
}

/** What the stage's formulas work on. */
interface Setting {
  readonly p: CompoundParams;
  readonly b: CompoundBuild;
  readonly at: Duty;
  readonly shelf: Shelf;
  readonly kept: Kept;
}

/**
 * Share of the worst planet over an even one: none floats, so each beyond two adds what the shop says.
 *
 * @returns ≥ 1 where the shop's factor is
 */
const loadShare = (planets: number, shelf: Shelf): number =>
  planets > 2 ? factor(shelf, 'planet.rigid') ** (planets - 2) : 1;

/** Force on one tooth of each mesh for a newton metre at the output, 1/m, in the order of the meshes. */
const forcesPer = ({ p, b, shelf }: Setting, drive: Readonly<Record<MeshOf['of'] | 'output', number>>): number[] =>
  b.meshesOf.map((m) => (Math.abs(drive[m.of] / drive.output) * loadShare(p.planets, shelf)) / (p.planets * m.radius));

/**
 * Each mesh as it carries.
 *
 * @param spins turns of a planet against the carrier for one of the output
 * @param holds radial stiffness that keeps each mesh together, N/m
 */
function loadsOf(
  { p, b, at, shelf, kept }: Setting,
  per: readonly number[],
  spins: number,
  holds: readonly number[],
): MeshLoad[] {
  const sun = b.geometry.sunMesh !== undefined;
  const press = SHARED_OUT[sharedOutBy(p)];
  return b.meshesOf.map((m, i) => {
    const { pair } = m.mesh;
    const outer = (spins * pair.g1.teeth) / pair.g2.teeth;
    // A planet's first toothing meshes with a sun on its other side, where there is one: it is bent both ways.
    const bare =
      m.id === 'sun'
        ? meshDuty(
            at,
            per[i]!,
            spins * pair.rw2,
            [(spins * pair.g2.teeth) / pair.g1.teeth, spins],
            [p.planets, 1],
            [false, true],
          )
        : meshDuty(at, per[i]!, spins * pair.rw1, [spins, outer], [1, p.planets], [sun && m.id === 'ring1', false]);
    const on = dutyUnder(press[m.of], bare, p.preload);
    const [first, second] = m.materials;
    return kept.step(m.id, [...meshKey(on), holds[i]], shelf, (s) => loadMesh(m.mesh, first, second, on, s, holds[i]!));
  });
}

/**
 * What springs between halves of rings hold and cost, N·m at the output.
 *
 * @param per force on the worst tooth of each mesh for a newton metre at the output, 1/m
 * @param spins turns of a planet against the carrier for one of the output
 * Source: force balance on the flanks; both rub along the planets' circles and lose what their mesh loses of the force.
 */
function sprungBy(
  { p, b, shelf }: Setting,
  per: readonly number[],
  etas: Readonly<Record<MeshOf['of'], number>>,
  spins: number,
): { readonly opens: number; readonly braking: number } {
  const press = SHARED_OUT[sharedOutBy(p)];
  let [most, rubs] = [0, 0];
  b.meshesOf.forEach((m, i) => {
    const { flanks } = press[m.of];
    if (flanks === 0) return;
    most = Math.max(most, per[i]! / loadShare(p.planets, shelf));
    rubs += flanks * (1 - etas[m.of]) * m.mesh.pair.rw1;
  });
  return most === 0
    ? { opens: 0, braking: 0 }
    : { opens: p.preload / most, braking: p.planets * p.preload * rubs * spins };
}

/** Radial stiffness that holds each mesh together, N/m: the wall of its ring; a sun's planets lean on the held ring. */
const ovalsOf = ({ p, b, shelf }: Setting): number[] => {
  const { geometry: g, materials } = b;
  const modulus = elastic(materials[2], factor(shelf, 'ambient'), shelf);
  const of = (mesh: Mesh, width: number) =>
    ringStiffness(modulus, width, g.outside / 2, mesh.sides[1].root, Math.max(2, p.planets));
  return b.meshesOf.map((m) => (m.id === 'ring2' ? of(g.mesh2, p.widthB) : of(g.mesh1, p.width)));
};

/** What stays between a passage and the planets' tips, m, where no sun stands there. */
const PASSAGE_GAP = 1e-3;

/** Clear passage along the axis, m: the sun's bore, or without a sun what the planets leave between them. */
const passage = (p: CompoundParams, g: CompoundGeometry): number =>
  g.sunMesh ? p.boreS : Math.max(0, 2 * (g.centre - Math.max(g.mesh1.pair.s1.ra, g.mesh2.pair.s1.ra) - PASSAGE_GAP));

/** Thickness of each plate that the planets' pins stand in, m. */
const PIN_PLATE = 3e-3;

/**
 * How stiff a planet is against leaning, N·m/rad: its pin in its two bores and, behind that, the plates that turn against
 * one another as the pins bend.
 *
 * @param long of the planet, m
 * @param seat stiffness of its bore about the pin, N/m²
 * @param bending E·I of the pin, N·m²
 * Source: bore as an even bed k over its length, k·L³/12; pins with square ends 12·E·I/(L + t)³, at ½(L + t) either side.
 * @example leanStiffness(0.02, 4e9, 2.6) // 899.135447
 */
export const leanStiffness = (long: number, seat: number, bending: number): number => {
  const bed = (seat * long ** 3) / 12;
  const plates = (12 * bending) / (long + PIN_PLATE);
  return 1 / (1 / bed + 1 / plates);
};

/**
 * Springs about the output, N·m/rad: each mesh of n planets, the rings' walls between them, and the planets, which lean
 * since their two rings pull in different planes.
 *
 * @param angles at the output for a metre along each mesh's circle, rad/m
 */
function springsOf(
  { p, b, shelf }: Setting,
  angles: readonly number[],
  loads: readonly MeshLoad[],
  ovals: readonly number[],
): Spring[] {
  const [, planet, ring] = b.materials;
  const n = p.planets;
  const ambient = factor(shelf, 'ambient');
  const meshes = b.meshesOf.map((m, i) =>
    spring(`teeth of ${m.name}`, (n * loads[i]!.stiffness) / angles[i]! ** 2, loads[i]!.held),
  );
  const walls = b.meshesOf.flatMap((m, i) =>
    m.of === 'input'
      ? []
      : [
          spring(
            `${m.wheels[1]} gives way between planets`,
            (n * ovals[i]!) / (angles[i]! * Math.tan(m.mesh.pair.working)) ** 2,
            crept(ring),
          ),
        ],
  );
  // The driven ring pulls each planet by its angle over n, in a plane half of both widths from the held ring's.
  const arm = (p.width + p.widthB) / 2;
  const lean = leanStiffness(
    p.width + p.widthB,
    seatStiffness(planet, shelf),
    elastic(b.pin, ambient, shelf) * roundMoment(p.pin),
  );
  const pull = angles[angles.length - 1]!;
  return [...meshes, ...walls, spring('planets lean on their pins', (n * lean) / (pull * arm) ** 2, crept(planet))];
}

/** Both rings' walls as the planets press them out; they are as wide outside. */
const rimsOf = ({ p, b }: Setting, loads: readonly MeshLoad[]): BentRing[] =>
  b.meshesOf.flatMap((m, i): BentRing[] => {
    if (m.of === 'input') return [];
    const outside = b.geometry.outside / 2;
    const wall = outside - m.mesh.sides[1].root;
    const [radius, width] = [outside - wall / 2, m.id === 'ring2' ? p.widthB : p.width];
    const { radial } = loads[i]!;
    const stress = ringWall(radial, radius, wall, width, p.planets);
    return [{ id: m.id, held: m.of === 'held', name: m.wheels[1], radial, radius, wall, width, stress }];
  });

type Masses = readonly [number, number, number, number];

/** Masses of the sun, of one planet, of the held and of the driven ring, kg. */
function massesOf({ p, b, shelf }: Setting): Masses {
  const { geometry: g, materials } = b;
  const [ms, mp, mr] = materials;
  const planet = (m: Mesh, width: number) => blankMass(m.pair.s1.r, p.pin / 2, width, mp, shelf);
  const ring = (m: Mesh, width: number) => blankMass(g.outside / 2, m.pair.s2.r, width, mr, shelf);
  return [
    g.sunMesh ? blankMass(g.sunMesh.pair.s1.r, p.boreS / 2, p.width, ms, shelf) : 0,
    planet(g.mesh1, p.width) + planet(g.mesh2, p.widthB),
    ring(g.mesh1, p.width),
    ring(g.mesh2, p.widthB),
  ];
}

/**
 * Where the planets' plain bores overheat; nothing where they stand still.
 *
 * @param pressed all that an even planet presses its pin with for a newton metre at the output, N
 */
function boresFail({ p, at, shelf }: Setting, pressed: number, turns: number): Mode[] {
  const pressure = (pressed * loadShare(p.planets, shelf)) / (p.pin * (p.width + p.widthB));
  const rubs = (pressure * turns * at.speed * p.pin) / 2;
  if (!(rubs > 0)) return [];
  const bears = factor(shelf, 'pin.pv');
  return [
    {
      ...modeAt(BORES, bears / rubs),
      told: () => ({
        formula: 'w_P/w₁',
        terms: [
          term('w_P', 'p·v that a plain bore bears', bears, 'pressureSpeed', 'shop', 'pin.pv'),
          term('w₁', 'mean p·v for a newton metre', rubs, 'pressureSpeed', 'computed'),
        ],
      }),
    },
  ];
}

const BORES: ModeText = {
  id: 'pv',
  mode: 'planet bores overheat (p·v)',
  time: 'continuous',
  why: 'Plain bores: planets turn fast on their pins, and press on them at both ends since their rings lean them.',
  grows: 'none',
};

/** How many springs turn halves of rings apart. */
export const ringSprings = (p: CompoundParams): number =>
  ROUND_A_WHEEL * { none: 0, driven: 1, rings: 2 }[sharedOutBy(p)];

/** Price of the wheels: their mass, the teeth that are cut, and a washer for each planet. */
function piecesOf({ p, b, shelf }: Setting, [sun, planet, held, driven]: Masses) {
  const [ms, mp, mr] = b.materials;
  return {
    sun: one(sun, b.geometry.sunMesh ? cutPartPrice(ms, sun, p.zs, shelf) : 0),
    planets: { quantity: p.planets, mass: planet, money: cutPartPrice(mp, planet, p.zpA + p.zpB, shelf) + PIN_PRICE },
    'held ring': one(held, wheelPrice(mr, held, p.zr1, sharedOutBy(p) === 'rings', shelf)),
    'driven ring': one(driven, wheelPrice(mr, driven, p.zr2, sharedOutBy(p) !== 'none', shelf)),
    springs: springsCost(ringSprings(p)),
  };
}

/**
 * Computes a shared-planet stage at a duty on its driven ring.
 *
 * Source: Willis for both toothings; efficiency by mesh powers in the carrier's frame (`epicyclic.ts`), forwards and
 * backwards; teeth by `mesh.ts`.
 */
export function modelCompound(p: CompoundParams, b: CompoundBuild, at: Duty, shelf: Shelf, kept: Kept): CompoundModel {
  const setting: Setting = { p, b, at, shelf, kept };
  const { geometry: g, materials, meshesOf: list } = b;
  const etas = etasOf(p, b, shelf);
  const { train, drive, backward, shares, pressed, rubs } = kept.step(
    'train',
    [etas.input, etas.held, etas.output],
    shelf,
    (s) => efficiencyOf(p, b, etas, s),
  );
  const plain = compoundTrain(p);
  const ratio = trainRatio(plain);
  const turns = Math.abs(trainSpeeds(plain).planet);

  const per = forcesPer(setting, drive);
  const ovals = ovalsOf(setting);
  const loads = loadsOf(setting, per, turns, ovals);
  const press = SHARED_OUT[sharedOutBy(p)];
  const modes = [
    ...list.flatMap((m, i) =>
      loadedModes(m.modes, loads[i]!, 1 / per[i]!, at).map((x) => ({
        ...x,
        torque: loadBorne(press[m.of], x.torque, p.preload / per[i]!),
      })),
    ),
    ...boresFail(setting, pressed, turns),
  ];
  const angles = list.map((m) => shares[m.of] / m.radius);
  const whole = list.map((m, i) => ({ angle: angles[i]!, pair: m.mesh.pair, of: m.of }));
  const play = planetPlay(whole, p.planets, shelf);
  // Meshes that springs press have none left, of bearings and shafts neither.
  const left = planetPlay(
    whole.filter((m) => press[m.of].flanks === 0),
    p.planets,
    shelf,
  );
  const sprung = sprungBy(setting, per, etas, turns);
  const springs = springsOf(setting, angles, loads, ovals);
  const stiffness = together(springs);

  const masses = massesOf(setting);
  const [sun, planet, , driven] = masses;
  const pieces = piecesOf(setting, masses);
  const cage = p.planets * planet * g.centre ** 2 * (memberSpeed(plain, carrier) / ratio) ** 2;
  const numbers: StageNumbers = {
    ratio,
    etaForward: drive.efficiency,
    etaBackward: backward,
    drag: greaseDrag(g.outside, shelf) + sprung.braking / Math.abs(ratio),
    play: [left.likely, left.least, left.most],
    stiffness,
    springs,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: (sun * (g.sunMesh?.pair.s1.r ?? 0) ** 2) / 2 + cage,
    inertiaOut: ringInertia(driven, g.outside / 2, g.mesh2.pair.s2.r),
    limits: modeLimits(modes),
    ...sumCosts(Object.values(pieces)),
    outside: g.outside,
    length: p.width + p.widthB + 8e-3,
    maxSpeed: topPitchSpeed(materials) / ((turns * g.mesh1.pair.rw1) / Math.abs(ratio)),
    bore: passage(p, g),
    beside: false,
    life: shortestLife(modes),
  };
  return {
    geometry: g,
    materials,
    train,
    ratio,
    forward: drive.efficiency,
    backward,
    pressed,
    rubs,
    turns,
    meshes: list.map(({ id, name, wheels, mesh, materials: of, of: member }, i) => ({
      id,
      of: member,
      name,
      wheels,
      mesh,
      materials: of,
      load: loads[i]!,
      eta: etas[member],
      angle: angles[i]!,
    })),
    ...sprung,
    playOne: play.one,
    bind: play.bind,
    modes,
    rims: rimsOf(setting, loads),
    masses,
    pieces,
    numbers,
  };
}
