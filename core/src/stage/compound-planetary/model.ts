import { stated } from '../../units/stated.ts';
import {
  carrier,
  central,
  expectedRange,
  loadedModes,
  loadMesh,
  memberSpeed,
  meshFriction,
  meshModes,
  modeLimits,
  meshPlaySpread,
  trainRatio,
  trainShares,
  trainSpeeds,
  trainTorques,
  warming,
  type Mesh,
  type MeshLoad,
  type Mode,
  type ModeText,
  type ToothMaterial,
  type Train,
} from '../../gear/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import type { Kept } from '../kept.ts';
import { needMaterials } from '../needs.ts';
import { compoundGeometry, type CompoundGeometry } from './geometry.ts';
import type { CompoundParams } from './params.ts';

/** One mesh of the stage as it carries. */
export interface CompoundMesh {
  readonly id: string;
  readonly name: string;
  readonly wheels: readonly [string, string];
  readonly mesh: Mesh;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  readonly load: MeshLoad;
  readonly eta: number;
}

/** Everything computed about a shared-planet stage. */
export interface CompoundModel {
  readonly geometry: CompoundGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly train: Train;
  readonly ratio: number;
  readonly forward: number;
  readonly backward: number;
  readonly meshes: readonly CompoundMesh[];
  readonly playOne: number;
  readonly bind: number;
  readonly modes: readonly Mode[];
  readonly masses: readonly [number, number, number];
  readonly numbers: StageNumbers;
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
  const make = (m: Omit<MeshOf, 'modes'>): MeshOf => ({ ...m, modes: meshModes(m.id, m.name, m.wheels) });
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
  return ok({ geometry: g, materials: materials.value, meshesOf: meshesOf(g, materials.value) });
}

/** Efficiency of each mesh; it does not depend on load. */
function etasOf(p: CompoundParams, b: CompoundBuild, shelf: Shelf): Record<MeshOf['of'], number> {
  const etas = { input: 1, held: 1, output: 1 };
  for (const m of b.meshesOf)
    etas[m.of] = p.meshBy === 'given' ? p.eta : 1 - meshFriction(m.materials[0], m.materials[1], shelf) * m.mesh.loss;
  return etas;
}

/** Torques of the train with what its meshes lose, and what passes it either way. */
function efficiencyOf(p: CompoundParams, etas: Readonly<Record<MeshOf['of'], number>>) {
  const train = compoundTrain(p, [etas.input, etas.held, etas.output]);
  return {
    train,
    drive: trainTorques(train, 'input'),
    backward: trainTorques(train, 'output').efficiency,
    shares: trainShares(train),
  };
}

/** What does not go together, in words; it can still be drawn. */
export function wrongCompound(p: CompoundParams, b: CompoundBuild, shelf: Shelf): Result<never> | undefined {
  const { geometry: g } = b;
  const { train, drive } = efficiencyOf(p, etasOf(p, b, shelf));
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

/**
 * Computes a shared-planet stage at a duty on its driven ring.
 *
 * Source: Willis for both toothings; efficiency by mesh powers in the carrier's frame (`epicyclic.ts`), forwards and
 * backwards; teeth by `mesh.ts`.
 */
export function modelCompound(p: CompoundParams, b: CompoundBuild, at: Duty, shelf: Shelf, kept: Kept): CompoundModel {
  const g = b.geometry;
  const [ms, mp, mr] = b.materials;
  const { meshesOf: list } = b;
  const etas = etasOf(p, b, shelf);
  const { train, drive, backward, shares } = kept.step('train', [etas.input, etas.held, etas.output], shelf, () =>
    efficiencyOf(p, etas),
  );
  const forward = drive.efficiency;
  const plain = compoundTrain(p);
  const ratio = trainRatio(plain);
  const n = p.planets;
  const share = n > 2 ? factor(shelf, 'planet.rigid') ** (n - 2) : 1;
  const planetSpeed = Math.abs(trainSpeeds(plain).planet) * at.speed;
  const warm = warming(at);
  const meshes: CompoundMesh[] = [];
  const modes: Mode[] = [];
  let [playOne, spread, compliance] = [0, 0, 0];
  for (const m of list) {
    const per = (Math.abs(drive[m.of] / drive.output) * share) / (n * m.radius);
    const speed = planetSpeed * (m.id === 'sun' ? m.mesh.pair.rw2 : m.mesh.pair.rw1);
    const load = kept.step(m.id, [per, at.torque, at.torqueRms, speed, warm], shelf, (s) =>
      loadMesh(m.mesh, m.materials[0], m.materials[1], per * at.torque, per * at.torqueRms, speed, s, warm),
    );
    meshes.push({
      id: m.id,
      name: m.name,
      wheels: m.wheels,
      mesh: m.mesh,
      materials: m.materials,
      load,
      eta: etas[m.of],
    });
    modes.push(...loadedModes(m.modes, load, 1 / per));
    const angle = shares[m.of] / m.radius;
    playOne += angle * m.mesh.pair.play;
    spread = Math.hypot(spread, angle);
    compliance += angle ** 2 / (n * load.stiffness);
  }
  const thick = meshPlaySpread(g.mesh1.pair, shelf) * spread;
  const tilt = factor(shelf, 'gear.tilt') * spread;
  const overlap = n > 1 ? expectedRange(n) * (factor(shelf, 'planet.place') / 2) * spread : 0;
  const bind = playOne - thick - 2 * overlap;
  const solid = factor(shelf, 'gear.solid');
  const disc = (r: number, hole: number, w: number, density: number) =>
    Math.PI * Math.max(0, r * r - hole * hole) * w * density * solid;
  const sunMass = g.sunMesh ? disc(g.sunMesh.pair.s1.r, p.boreS / 2, p.width, ms.material.density) : 0;
  const planetMass =
    disc(g.mesh1.pair.s1.r, p.pin / 2, p.width, mp.material.density) +
    disc(g.mesh2.pair.s1.r, p.pin / 2, p.widthB, mp.material.density);
  const ringMass =
    disc(g.outside / 2, g.mesh1.pair.s2.r, p.width, mr.material.density) +
    disc(g.outside / 2, g.mesh2.pair.s2.r, p.widthB, mr.material.density);
  const stiffness = 1 / compliance;
  const cage = n * planetMass * g.centre ** 2 * (memberSpeed(plain, carrier) / ratio) ** 2;
  const work = (m: ToothMaterial, teeth: number) =>
    m.material.made === 'printed' ? 0 : teeth * factor(shelf, 'price.milled');
  const numbers: StageNumbers = {
    ratio,
    etaForward: forward,
    etaBackward: backward,
    drag: factor(shelf, 'gear.churn'),
    play: [Math.max(0, playOne + tilt / 2 - overlap), Math.max(0, bind), playOne + thick + tilt],
    stiffness,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: (sunMass * (g.sunMesh?.pair.s1.r ?? 0) ** 2) / 2 + cage,
    inertiaOut: (ringMass / 2) * (g.outside / 2) ** 2,
    limits: modeLimits(modes, at.torque, at.torqueRms),
    mass: sunMass + n * planetMass + ringMass,
    money:
      sunMass * ms.material.price +
      work(ms, p.zs) +
      n * (planetMass * mp.material.price + work(mp, p.zpA + p.zpB) + 0.2) +
      ringMass * mr.material.price +
      work(mr, p.zr1 + p.zr2),
    outside: g.outside,
    length: p.width + p.widthB + 8e-3,
    maxSpeed:
      ([ms, mp, mr].some((m) => m.plastic) ? 5 : 15) /
      ((Math.abs(trainSpeeds(plain).planet) * g.mesh1.pair.rw1) / Math.abs(ratio)),
    bore: 0,
    beside: false,
    life: Infinity,
  };
  return {
    geometry: g,
    materials: b.materials,
    train,
    ratio,
    forward,
    backward,
    meshes,
    playOne,
    bind,
    modes,
    masses: [sunMass, planetMass, ringMass],
    numbers,
  };
}
