import {
  boreReach,
  carrier,
  central,
  expectedRange,
  loadMesh,
  meshModes,
  modeLimits,
  meshPlaySpread,
  trainRatio,
  trainShares,
  trainSpeeds,
  trainTorques,
  warming,
  type Central,
  type MeshLoad,
  type Mode,
  type ToothMaterial,
  type Train,
} from '../../gear/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Bearing } from '../../joint/joint.ts';
import { isNeedle } from '../../shop/bearings.ts';
import type { Duty, StageNumbers, StageProblem } from '../contract.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { planetaryGeometry, type PlanetaryGeometry } from './geometry.ts';
import { roles, type Member, type PlanetaryParams } from './params.ts';

/** Everything computed about a planetary stage. */
export interface PlanetaryModel {
  readonly geometry: PlanetaryGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing | undefined;
  readonly train: Train;
  readonly setRatio: number;
  /** Share of the worst planet over an even one. */
  readonly share: number;
  readonly etaSun: number;
  readonly etaRing: number;
  readonly trainForward: number;
  readonly trainBackward: number;
  readonly pinLoss: number;
  readonly sunLoad: MeshLoad;
  readonly ringLoad: MeshLoad;
  readonly pinForce: number;
  readonly pinSpeed: number;
  readonly pinStress: number;
  /** How far the carrier's twist leans the planets' pins at the peak, rad. */
  readonly lean: number;
  readonly pressureSpeed: number;
  /** Play of one planet alone, by allowances only, at the output of the last set, rad. */
  readonly playOne: number;
  readonly bind: number;
  readonly wallStress: number;
  readonly sunWall: number;
  readonly modes: readonly Mode[];
  readonly masses: readonly [number, number, number, number];
  readonly numbers: StageNumbers;
}

/** Pins and carrier plates are of ground rod and printed or milled plate. */
const PIN_YIELD = 450e6;
const PIN_MODULUS = 210e9;
const STEEL = 7850;

/**
 * Worst planet over an even one: three with a floating member share almost evenly; without one, and with more planets,
 * less so.
 */
function loadShare(p: PlanetaryParams, shelf: Shelf): number {
  const floats = p.floating !== 'none';
  if (p.planets <= 2) return 1;
  const rigid = factor(shelf, 'planet.rigid') ** (p.planets - 2);
  if (!floats) return rigid;
  const three = factor(shelf, 'planet.share');
  return p.planets === 3 ? three : three * Math.sqrt(rigid / factor(shelf, 'planet.rigid'));
}

const inSeries = (...k: number[]): number => 1 / k.reduce((s, x) => s + 1 / x, 0);

/** A wheel's price: printed by its mass, milled by its mass and teeth. */
const priceOf = (m: ToothMaterial, mass: number, teeth: number, shelf: Shelf): number =>
  mass * m.material.price + (m.material.made === 'printed' ? 0 : teeth * factor(shelf, 'price.milled'));

/** A planetary stage before any duty: teeth, materials, and what the planets run on. */
export interface PlanetaryBuild {
  readonly geometry: PlanetaryGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing | undefined;
  /** Across what sits in a planet: the bearing, or the pin, m. */
  readonly seat: number;
  /** What is left between the sun's roots and its bore, m. */
  readonly sunWall: number;
}

/** Builds a stage; refuses in words what does not go together. */
export function buildPlanetary(p: PlanetaryParams, shelf: Shelf): Result<PlanetaryBuild> {
  const made = planetaryGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const materials = needMaterials(p, ['materialS', 'materialP', 'materialR'], shelf);
  if (!materials.ok) return materials;
  const found = p.pins === 'plain' ? undefined : needBearing(p.bearing, shelf, 'The planets run on it.');
  if (found && !found.ok) return found;
  const bearing = found?.value;
  const seat = bearing ? bearing.outside : p.pin;
  const hub = { bore: p.boreS, shape: p.shapeS, bolts: 0, boltCircle: 0, boltHole: p.boltHole, nuts: false };
  const sunWall = g.sunMesh.sides[0].root - boreReach(hub);
  return ok({ geometry: g, materials: materials.value, bearing, seat, sunWall });
}

/** What does not go together, in words; it can still be drawn. */
export function wrongPlanetary(p: PlanetaryParams, b: PlanetaryBuild, shelf: Shelf): Result<never> | undefined {
  const { geometry: g, bearing, seat, sunWall } = b;
  if (bearing && isNeedle(bearing) !== (p.pins === 'needle')) {
    const other =
      shelf.bearings.find((b) => isNeedle(b) === (p.pins === 'needle') && Math.abs(b.bore - p.pin) < 1e-6) ??
      shelf.bearings.find((b) => isNeedle(b) === (p.pins === 'needle'));
    const problem: StageProblem = {
      what: `${bearing.name} is ${isNeedle(bearing) ? 'a needle' : 'a ball'} bearing.`,
      why: `The planets were to run on ${p.pins === 'needle' ? 'needles' : 'balls'}.`,
      mend: 'Choose a bearing of that sort, or the other sort of planet bearing.',
      place: 'bearing',
      ...(other && {
        fix: {
          path: 'bearing',
          value: other.id,
          also: { pin: other.bore },
          label: `${other.name}, pin ${(other.bore * 1e3).toFixed(0)} mm`,
        },
      }),
    };
    return { ok: false, problem };
  }
  if (p.sets > 1 && p.arrangement !== 'sun-carrier')
    return refuse(
      'Only sets driven at the sun can be stacked.',
      'Each set’s carrier is the next one’s sun, inside one ring tube.',
      'Let the sun drive and the carrier be driven, or take one set.',
      'sets',
    );
  const planetRoot = g.sunMesh.sides[1].root;
  if (seat / 2 >= planetRoot - 0.3e-3)
    return refuse(
      `${bearing ? 'The bearing' : 'The pin'} does not fit the planet.`,
      `Its roots reach down to ⌀ ${(planetRoot * 2e3).toFixed(2)} mm and need a wall.`,
      bearing ? 'Take a smaller bearing, or larger planets.' : 'Take a thinner pin, or larger planets.',
      bearing ? 'bearing' : 'pin',
    );
  if (p.boreS > 0 && sunWall <= 0)
    return refuse(
      'The bore cuts into the sun’s teeth.',
      `Its roots reach down to ⌀ ${(g.sunMesh.sides[0].root * 2e3).toFixed(2)} mm${p.shapeS === 'keyway' ? ', and the keyway goes deeper than the bore' : ''}.`,
      'Take a smaller bore, or more teeth on the sun.',
      'boreS',
    );
  return undefined;
}

/**
 * Computes a planetary stage at a duty on its output.
 *
 * Source: Willis for speeds; torques and efficiency by mesh powers in the carrier's frame (`epicyclic.ts`); teeth by
 * ISO 6336 and VDI 2736 (`mesh.ts`).
 */
export function modelPlanetary(p: PlanetaryParams, b: PlanetaryBuild, at: Duty, shelf: Shelf): PlanetaryModel {
  const { geometry: g, bearing, seat, sunWall } = b;
  const [ms, mp, mr] = b.materials;
  const role = roles(p);
  const n = p.planets;
  const share = loadShare(p, shelf);
  const sunWork = g.sunMesh.pair.rw1;
  const ringWork = g.ringMesh.pair.rw2;
  const speeds0 = (etaS: number, etaR: number): Record<Member, Central> => ({
    sun: central(p.zs, p.zp, false, etaS),
    ring: central(p.zr, p.zp, true, etaR),
    carrier,
  });
  const trainOf = (etaS: number, etaR: number): Train => {
    const c = speeds0(etaS, etaR);
    return { input: c[role.input], output: c[role.output], held: c[role.held] };
  };
  const lossless = trainOf(1, 1);
  const setRatio = trainRatio(lossless);
  const planetSpeed = Math.abs(trainSpeeds(lossless).planet) * at.speed;
  // Forces from the torques without loss; a few percent of loss is within the load factor.
  const t = trainTorques(lossless, 'input');
  const torqueOn = (m: Member): number =>
    Math.abs((m === role.input ? t.input : m === role.output ? t.output : t.held) / t.output);
  const toothForce = (m: Member, radius: number) => (torqueOn(m) * share) / (n * radius);
  const [sunPer, ringPer] = [toothForce('sun', sunWork), toothForce('ring', ringWork)];
  const pitchSpeed = planetSpeed * g.sunMesh.pair.rw2;
  const sunLoad = loadMesh(
    g.sunMesh,
    ms,
    mp,
    sunPer * at.torque,
    sunPer * at.torqueRms,
    pitchSpeed,
    shelf,
    warming(at),
  );
  const ringLoad = loadMesh(
    g.ringMesh,
    mp,
    mr,
    ringPer * at.torque,
    ringPer * at.torqueRms,
    planetSpeed * g.ringMesh.pair.rw1,
    shelf,
    warming(at),
  );
  const etaSun = p.meshBy === 'given' ? p.etaS : sunLoad.efficiency;
  const etaRing = p.meshBy === 'given' ? p.etaR : ringLoad.efficiency;
  const train = trainOf(etaSun, etaRing);
  const forward = trainTorques(train, 'input').efficiency;
  const backward = trainTorques(train, 'output').efficiency;
  const pinPer = (torqueOn('carrier') * share) / (n * g.centre);
  // Pins: friction of all planets over the power that comes in.
  const pinFriction =
    p.pins === 'plain' ? factor(shelf, 'pin.friction') * (p.pin / 2) : factor(shelf, 'pin.roll') * (bearing!.bore / 2);
  const pinLoss =
    p.meshBy === 'given' ? 0 : ((n * pinPer) / share) * pinFriction * Math.abs(trainSpeeds(lossless).planet);
  const eta1 = forward * Math.max(0, 1 - pinLoss);
  const back1 = backward > 0 ? backward * Math.max(0, 1 - pinLoss) : backward;

  const pinForce = pinPer * at.torque;
  const span = p.width + 2 * p.plate;
  const pinStressPer = (32 * ((pinPer * span) / 8)) / (Math.PI * p.pin ** 3);
  const bearingWidth = p.width;
  const pressurePer = pinPer / (p.pin * bearingWidth);
  const surface = planetSpeed * (p.pin / 2);
  const pressureSpeed = pressurePer * at.torqueRms * surface;

  const shares = trainShares(train);
  const shareOf = (m: Member) => (m === role.input ? shares.input : m === role.output ? shares.output : shares.held);
  const [aS, aR] = [shareOf('sun') / sunWork, shareOf('ring') / ringWork];
  const playOne = aS * g.sunMesh.pair.play + aR * g.ringMesh.pair.play;
  const thick = meshPlaySpread(g.sunMesh.pair, shelf);
  const tilt = factor(shelf, 'gear.tilt');
  const sigma = (factor(shelf, 'planet.place') / 2) * Math.hypot(aS, aR);
  const overlap = n > 1 ? expectedRange(n) * sigma : 0;
  const both = aS + aR;
  // Several planets leave play only where all their free ranges overlap: less, by the range of their places.
  const likely = Math.max(0, playOne + (both * tilt) / 2 - overlap);
  const bind = playOne - Math.hypot(aS, aR) * thick - 2 * overlap;
  const play1: [number, number, number] = [
    likely,
    Math.max(0, bind),
    playOne + Math.hypot(aS, aR) * thick + both * tilt,
  ];

  const kSun = (n * sunLoad.stiffness) / aS ** 2;
  const kRing = (n * ringLoad.stiffness) / aR ** 2;
  // A pin between two plates: fixed both ends, loaded along its length.
  const pinK = (384 * PIN_MODULUS * ((Math.PI * p.pin ** 4) / 64)) / span ** 3;
  const kPins = torqueOn('carrier') > 0 ? (n * pinK * g.centre ** 2) / torqueOn('carrier') ** 2 : Infinity;
  // Two plates joined by the pins alone: half the carrier's torque comes across from the far plate, which turns against
  // the near one, and the planets' middles by half as much.
  const plates = (n * 12 * PIN_MODULUS * ((Math.PI * p.pin ** 4) / 64) * g.centre ** 2) / (p.width + p.plate) ** 3;
  const kCarrier = torqueOn('carrier') > 0 ? (4 * plates) / torqueOn('carrier') ** 2 : Infinity;
  const lean = (((torqueOn('carrier') * at.torque) / 2 / plates) * g.centre) / (p.width + p.plate);
  const k1 = inSeries(kSun, kRing, kPins, kCarrier);

  const solid = factor(shelf, 'gear.solid');
  const disc = (r: number, hole: number, w: number, density: number) =>
    Math.PI * Math.max(0, r * r - hole * hole) * w * density * solid;
  const sunMass = disc(g.sunMesh.pair.s1.r, p.boreS / 2, p.width, ms.material.density);
  const planetMass = disc(g.sunMesh.pair.s2.r, seat / 2, p.width, mp.material.density) + (bearing?.mass ?? 0);
  const ringMass = disc(
    g.outside / 2,
    (g.ringMesh.pair.s2.ra + g.ringMesh.sides[1].root) / 2,
    p.width,
    mr.material.density,
  );
  const plateRadius = g.centre + p.pin;
  const carrierMass =
    disc(plateRadius, 0, 2 * p.plate, mr.material.density) + (n * Math.PI * p.pin ** 2 * span * STEEL) / 4;
  // Widths of the sets fall off towards the input; all weigh in proportion.
  const widths = Array.from({ length: p.sets }, (_, k) => p.step ** (p.sets - 1 - k));
  const all = widths.reduce((a, b) => a + b, 0);
  const mass = (sunMass + n * planetMass + ringMass + carrierMass) * all;
  const ratio = setRatio ** p.sets;
  const inertiaPlanets =
    n * (planetMass * g.centre ** 2 + (planetMass * g.sunMesh.pair.s2.r ** 2) / 2) +
    (carrierMass * plateRadius ** 2) / 2;
  const ringInertia = ringMass * (g.outside / 2) ** 2;
  const sunInertia = (sunMass * g.sunMesh.pair.s1.r ** 2) / 2;
  const inertiaOf: Record<Member, number> = { sun: sunInertia, carrier: inertiaPlanets, ring: ringInertia };
  // Sets after the first turn slower by the ratio, and count by its square.
  let [inputSide, scale] = [0, 1];
  for (let k = 0; k < p.sets - 1; k++) {
    inputSide += ((sunInertia + inertiaPlanets / setRatio ** 2) * widths[k]!) / scale;
    scale *= setRatio ** 2;
  }
  inputSide += inertiaOf[role.input] / scale;

  const pinLimit =
    p.pins === 'plain'
      ? Math.min(PIN_YIELD / pinStressPer, factor(shelf, 'pin.pressure') / pressurePer)
      : Math.min(PIN_YIELD / pinStressPer, bearing!.static / pinPer);
  const modes: Mode[] = [
    ...meshModes('sun', 'sun and planets', g.sunMesh, sunLoad, 1 / sunPer, ['sun', 'planets, at the sun']),
    ...meshModes('ring', 'planets and ring', g.ringMesh, ringLoad, 1 / ringPer, ['planets, at the ring', 'ring']),
    {
      id: 'pin',
      mode: p.pins === 'plain' ? 'planet pins bend or bores crush' : 'planet bearings dent or pins bend',
      torque: pinLimit,
      ever: false,
      why:
        'Each pin carries twice a mesh’s force: ' +
        `${p.pins === 'plain' ? 'bending of a pin held at both ends, and pressure in the bore' : 'bending, and the bearing’s static rating C0'}.`,
      grows: 'none',
    },
  ];
  if (p.pins === 'plain' && surface > 0)
    modes.push({
      id: 'pv',
      mode: 'planet bores overheat (p·v)',
      torque: factor(shelf, 'pin.pv') / (pressurePer * surface),
      ever: true,
      why: 'Plain bores: pressure times rubbing speed decides how warm they run.',
      grows: 'width',
    });
  // Earlier sets carry less torque on narrower wheels: the last one is not always the weak one.
  const weakest = Math.max(...widths.map((w, k) => 1 / (w * setRatio ** (p.sets - 1 - k))), 1);
  const limits = modeLimits(modes, at.torque, at.torqueRms).map((l) => ({ mode: l.mode, torque: l.torque / weakest }));
  const theta = Math.PI / n;
  const wall = p.rim;
  const wallStress =
    (((ringLoad.radial * (g.outside / 2 - wall / 2)) / 2) * (1 / theta - 1 / Math.tan(theta)) * 6) /
    (p.width * wall * wall);
  const life =
    bearing && at.equivalent && at.meanSpeed
      ? ((bearing.dynamic / (pinPer * at.equivalent)) ** (isNeedle(bearing) ? 10 / 3 : 3) * 1e6 * 2 * Math.PI) /
        (Math.abs(trainSpeeds(lossless).planet) * at.meanSpeed)
      : Infinity;

  let play: [number, number, number] = [0, 0, 0];
  let compliance = 0;
  for (let k = 0; k < p.sets; k++) {
    const down = setRatio ** (p.sets - 1 - k);
    play = [play[0] + play1[0] / down, play[1] + play1[1] / down, play[2] + play1[2] / down];
    compliance += 1 / (k1 * widths[k]! * down * down);
  }
  const stiffness = 1 / compliance;
  const money =
    all *
    (priceOf(ms, sunMass, p.zs, shelf) +
      n * (priceOf(mp, planetMass, p.zp, shelf) + (bearing?.price ?? 0.2)) +
      priceOf(mr, ringMass, p.zr, shelf) +
      carrierMass * mr.material.price);
  // Pitch-line speed that grease and plastics stand, carried to the input.
  const topSpeed =
    ([ms, mp, mr].some((m) => m.plastic) ? 5 : 15) /
    ((Math.abs(trainSpeeds(lossless).planet) * g.sunMesh.pair.rw2) / Math.abs(ratio));
  const numbers: StageNumbers = {
    ratio,
    etaForward: eta1 ** p.sets,
    etaBackward: back1 > 0 ? back1 ** p.sets : back1,
    drag: factor(shelf, 'gear.churn'),
    play,
    stiffness,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: inputSide,
    inertiaOut: inertiaOf[role.output],
    limits,
    mass,
    money,
    outside: g.outside,
    length: p.width * all + 2 * p.plate * p.sets + 1e-3 * p.sets,
    maxSpeed: topSpeed,
    bore: 0,
    beside: false,
    life,
  };
  return {
    geometry: g,
    materials: [ms, mp, mr],
    bearing,
    train,
    setRatio,
    share,
    etaSun,
    etaRing,
    trainForward: forward,
    trainBackward: backward,
    pinLoss,
    sunLoad,
    ringLoad,
    pinForce,
    pinSpeed: planetSpeed,
    pinStress: pinStressPer * at.torque,
    lean,
    pressureSpeed,
    playOne,
    bind,
    wallStress,
    sunWall,
    modes,
    masses: [sunMass, planetMass, ringMass, carrierMass],
    numbers,
  };
}
