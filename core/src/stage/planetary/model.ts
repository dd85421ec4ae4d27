import { bentWay } from '../shared-params.ts';
import {
  blankMass,
  crept,
  elastic,
  bearingDrag,
  bearingSeat,
  bearingStiffness,
  greaseAtInput,
  ringInertia,
  hubTurning,
  pinBetween,
  plateTwist,
  ringStiffness,
  ringWall,
  seatsHold,
  seatStands,
  seatStiffness,
  strengthOf,
  type PinGives,
  loadedModes,
  loadMesh,
  meshDuty,
  meshFriction,
  meshKey,
  shortestLife,
  modeAt,
  modeLimits,
  planetPlay,
  planetsLeft,
  planetsOutBy,
  PLANETS_OUT,
  dutyUnder,
  loadBorne,
  underPress,
  topPitchSpeed,
  trainShares,
  trainTorques,
  type MeshLoad,
  type Press,
  type Mesh,
  type Mode,
  type ToothMaterial,
  type Train,
  type TrainTorques,
} from '../../gear/index.ts';
import type { Bearing } from '../../schema/joint.ts';
import { ratedLife } from '../../shop/bearings.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { sumCosts } from '../costs.ts';
import { GAP, everyCost, planetaryCosts } from './costs.ts';
import { boreLimits, type Bored } from '../bore-holds.ts';
import type { Duty, Spring, StageNumbers } from '../contract.ts';
import type { Limit } from '../limits.ts';
import type { Kept } from '../kept.ts';
import type { PlanetaryBuild } from './build.ts';
import type { PlanetaryGeometry } from './geometry.ts';
import { roles, type Member, type PlanetaryParams } from './params.ts';
import { carrierTwist, pinBending } from './pins.ts';
import { setTrain } from './train.ts';
import { spring, together } from '../springs.ts';

/** Everything computed about a planetary stage. */
export interface PlanetaryModel {
  readonly geometry: PlanetaryGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing | undefined;
  /** What the planets' pins are of. */
  readonly pin: ToothMaterial;
  readonly setRatio: number;
  /** Share of the worst planet over an even one. */
  readonly share: number;
  /** Of the sun's and the ring's mesh. */
  readonly etas: readonly [number, number];
  readonly driven: Driven;
  readonly sunLoad: MeshLoad;
  readonly ringLoad: MeshLoad;
  /** What a pin stands in bending, Pa, what bore or bearing and its seats bear, N, and p·v of its bore for a newton metre, W/m². */
  readonly pinStands: {
    readonly bent: number;
    readonly borne: number;
    readonly seated: number;
    readonly rubs: number;
  };
  /** Torque on the carrier at the peak, N·m. */
  readonly carrierTorque: number;
  readonly pinForce: number;
  readonly pinSpeed: number;
  readonly pinStress: number;
  /** How far the carrier's twist leans the planets' pins at the peak, rad. */
  readonly lean: number;
  readonly pressureSpeed: number;
  /** Load at which play that springs take out is back, N·m at the output; 0 where none press. */
  readonly opens: number;
  /** What springs cost at the output of the last set, N·m. */
  readonly braking: number;
  /** Play of one planet alone, by allowances only, at the output of the last set, rad. */
  readonly playOne: number;
  /** Turn of the last set's output for a metre along the circles of the sun's and the ring's mesh, rad/m. */
  readonly angles: readonly [number, number];
  readonly bind: number;
  readonly wallStress: number;
  readonly sunWall: number;
  /** The sun, where its bore turns it, and what that stands. */
  readonly bores: readonly Bored[];
  readonly forms: readonly Limit[];
  /** Of the planets' bearings, s. */
  readonly bearingLife: number;
  /** Of the set where each comes first, at the stage's output. */
  readonly modes: readonly Mode[];
  /** What the set where each comes first leaves of what the last one says. */
  readonly setShares: readonly number[];
  readonly masses: readonly [number, number, number, number];
  readonly costs: ReturnType<typeof planetaryCosts>;
  readonly numbers: StageNumbers;
}

/**
 * Worst planet over an even one: three with a floating member share almost evenly; without one, and with more planets,
 * less so.
 *
 * @returns K_γ ≥ 1 where the shop's factors are
 */
function loadShare(p: PlanetaryParams, shelf: Shelf): number {
  if (p.planets <= 2) return 1;
  if (p.planets === 3 && p.floating !== 'none') return factor(shelf, 'planet.share');
  const rigid = factor(shelf, 'planet.rigid');
  if (p.floating === 'none') return rigid ** (p.planets - 2);
  return factor(shelf, 'planet.share') * Math.sqrt(rigid ** (p.planets - 3));
}

/** How one set is driven with what its meshes and pins lose, forwards and turned back. */
interface Driven {
  readonly train: Train;
  /** Magnitude of a member's torque for a newton metre at the output. */
  readonly torqueOn: Readonly<Record<Member, number>>;
  /** Friction on all pins for a newton metre at the output, N·m; nought where the efficiencies of meshes are given. */
  readonly rubs: number;
  readonly forward: number;
  readonly backward: number;
  /** What the teeth alone would pass. */
  readonly trainForward: number;
  readonly trainBackward: number;
  readonly shares: ReturnType<typeof trainShares>;
}

/** Efficiencies of the sun's and the ring's mesh; they do not depend on the load. */
function etasOf(p: PlanetaryParams, { geometry: g, materials: [ms, mp, mr] }: PlanetaryBuild, shelf: Shelf) {
  if (p.meshBy === 'given') return [p.etaS, p.etaR] as const;
  const of = (mesh: Mesh, one: ToothMaterial, two: ToothMaterial) => 1 - meshFriction(one, two, shelf) * mesh.loss;
  return [of(g.sunMesh, ms, mp), of(g.ringMesh, mp, mr)] as const;
}

/** What friction in a planet's bore or bearing has for its arm, m: torque against its turning over the force on its pin. */
const frictionArm = (p: PlanetaryParams, b: PlanetaryBuild, shelf: Shelf): number =>
  b.bearing ? factor(shelf, 'pin.roll') * (b.bearing.bore / 2) : factor(shelf, 'pin.friction') * (p.pin / 2);

/**
 * The sun carries what the set loses as well, and the held member the less of it.
 *
 * Source: mesh powers in the carrier's frame, each mesh passing η of what enters it, and planets that turn against
 * friction on their pins (`epicyclic.ts`). Losses are told at a set's output as it is driven; a set that holds itself is
 * loaded by its output alone, without them.
 */
function drivenBy(p: PlanetaryParams, b: PlanetaryBuild, etas: readonly [number, number], shelf: Shelf): Driven {
  const role = roles(p);
  const train = setTrain(p, ...etas);
  const teeth = trainTorques(train, 'input');
  const sizes = (t: TrainTorques): Driven['torqueOn'] => {
    const at = { [role.input]: t.input, [role.output]: t.output, [role.held]: t.held } as Record<Member, number>;
    const size = (m: Member) => Math.abs(at[m] / t.output);
    return { sun: size('sun'), ring: size('ring'), carrier: size('carrier') };
  };
  const onCarrier = teeth.efficiency > 0 ? sizes(teeth).carrier : b.motion.torqueOn.carrier;
  const rubs = p.meshBy === 'given' ? 0 : (onCarrier / b.geometry.centre) * frictionArm(p, b, shelf);
  const forward = trainTorques(train, 'input', rubs);
  return {
    train,
    torqueOn: forward.efficiency > 0 ? sizes(forward) : b.motion.torqueOn,
    rubs,
    forward: forward.efficiency,
    backward: trainTorques(train, 'output', rubs).efficiency,
    trainForward: teeth.efficiency,
    trainBackward: trainTorques(train, 'output').efficiency,
    shares: trainShares(train),
  };
}

/**
 * What springs that take the play out hold and cost, N·m at the output of a set.
 *
 * @param per mean force on a tooth of the sun's and the ring's mesh for a newton metre at the output, 1/m
 * @param etas of both meshes
 * Source: `PLANETS_OUT`; each flank that the springs press loses what its mesh loses of its force, along the planet's
 * circle, and pushed pins rub in their bores.
 */
function sprungBy(
  p: PlanetaryParams,
  b: PlanetaryBuild,
  per: readonly [number, number],
  etas: readonly [number, number],
  shelf: Shelf,
): { readonly opens: number; readonly braking: number } {
  const press = PLANETS_OUT[planetsOutBy(p)];
  if (press.opens === 0) return { opens: 0, braking: 0 };
  const meshes = [press.sun, press.ring] as const;
  const pressed = per.filter((_, i) => meshes[i]!.flanks > 0);
  const radii = [b.geometry.sunMesh.pair.rw2, b.geometry.ringMesh.pair.rw1] as const;
  const rubs = meshes.reduce((s, m, i) => s + m.flanks * (1 - etas[i]!) * radii[i]!, 0);
  const pins = press.pin.spring > 0 ? 2 * frictionArm(p, b, shelf) : 0;
  return {
    opens: (press.opens * p.preload) / Math.max(...pressed),
    braking: p.planets * p.preload * (rubs + pins) * b.motion.planetTurns,
  };
}

/** What sets in a row add up to at the input of what each drags at its own: 1 + 1/i + 1/i² … */
const slowing = (sets: number, ratio: number): number => {
  let sum = 0;
  for (let k = 0; k < sets; k++) sum += 1 / Math.abs(ratio) ** k;
  return sum;
};

/** What the planets' bearings drag without load, at the input, N·m: sets before the last turn faster by their ratio. */
function planetDrag(p: PlanetaryParams, b: PlanetaryBuild, speed: number, shelf: Shelf): number {
  if (!b.bearing) return 0;
  const { ratio, planetTurns } = b.motion;
  let sum = 0;
  for (let k = 0; k < p.sets; k++) {
    const turns = planetTurns * Math.abs(ratio) ** k;
    sum += p.planets * bearingDrag(b.bearing, speed * turns, shelf) * turns;
  }
  return sum / Math.abs(ratio) ** p.sets;
}

/** Radius inside which the ring has as much in its teeth as in their gaps, m. */
const ringInside = (g: PlanetaryGeometry): number => (g.ringMesh.pair.s2.ra + g.ringMesh.sides[1].root) / 2;

/** Masses of sun, one planet with its bearing, ring and carrier with pins, kg: blanks times the share left by holes. */
function masses(p: PlanetaryParams, b: PlanetaryBuild, shelf: Shelf): [number, number, number, number] {
  const { geometry: g, materials } = b;
  const [ms, mp, mr] = materials;
  const disc = (r: number, hole: number, w: number, m: ToothMaterial) => blankMass(r, hole, w, m, shelf);
  const pins = (p.planets * Math.PI * p.pin ** 2 * (p.width + 2 * p.plate) * b.pin.material.density) / 4;
  return [
    disc(g.sunMesh.pair.s1.r, p.boreS / 2, p.width, ms),
    disc(g.sunMesh.pair.s2.r, b.seat / 2, p.width, mp) + (b.bearing?.mass ?? 0),
    disc(g.outside / 2, ringInside(g), p.width, mr),
    disc(g.centre + p.pin, 0, 2 * p.plate, mr) + pins,
  ];
}

/** Moments of inertia of a set's members about the axis, kg·m²; the carrier's with its planets. */
function inertias(p: PlanetaryParams, b: PlanetaryBuild, mass: readonly number[]): Record<Member, number> {
  const { geometry: g } = b;
  const [sun, planet, ring, cage] = mass as [number, number, number, number];
  return {
    sun: (sun * g.sunMesh.pair.s1.r ** 2) / 2,
    carrier: p.planets * planet * (g.centre ** 2 + g.sunMesh.pair.s2.r ** 2 / 2) + (cage * (g.centre + p.pin) ** 2) / 2,
    ring: ringInertia(ring, g.outside / 2, ringInside(g)),
  };
}

/** Inertia at the input of all sets, kg·m²: sets after the first turn slower by the ratio, and count by its square. */
function inertiaAtInput(p: PlanetaryParams, b: PlanetaryBuild, of: Record<Member, number>): number {
  const slower = b.motion.ratio ** 2;
  let [sum, scale] = [0, 1];
  for (let k = 0; k < p.sets - 1; k++) {
    sum += ((of.sun + of.carrier / slower) * b.widths[k]!) / scale;
    scale *= slower;
  }
  return sum + of[roles(p).input] / scale;
}

/** What holds the planets and the ring where they are, for one planet. */
interface Holds {
  /** Radial stiffness of the ring's wall under all planets' pushes, N/m. */
  readonly oval: number;
  /** How a planet's pin gives, and the planet on it, m/N. */
  readonly pin: PinGives;
  readonly runs: number;
  /** Radial stiffness that keeps a planet at the sun: its pin, and the ring behind it, N/m. */
  readonly sun: number;
}

/**
 * Radial stiffness between a planet and its pin, N/m: of the bore that runs on it, or of the bearing and its seat; needles,
 * a full row of lines, of the seat alone.
 */
function planetOnPin(p: PlanetaryParams, { materials: [, planet] }: PlanetaryBuild, shelf: Shelf): number {
  if (p.pins === 'plain') return seatStiffness(planet, shelf) * p.width;
  return p.pins === 'ball' ? bearingStiffness(planet, shelf) : bearingSeat(planet, shelf);
}

function holdsOf(p: PlanetaryParams, b: PlanetaryBuild, shelf: Shelf): Holds {
  const { geometry: g, materials, pin } = b;
  const ring = materials[2];
  const modulus = elastic(ring, factor(shelf, 'ambient'), shelf);
  const oval = ringStiffness(modulus, p.width, g.outside / 2, g.ringMesh.sides[1].root, Math.max(2, p.planets));
  const seat = seatStiffness(ring, shelf);
  const gives = pinBetween(
    { diameter: p.pin, modulus: elastic(pin, factor(shelf, 'ambient'), shelf), seat, depth: p.plate },
    p.width + p.plate,
    'spread',
  );
  const runs = 1 / planetOnPin(p, b, shelf);
  return { oval, pin: gives, runs, sun: 1 / (gives.bends + gives.seats + runs) + oval };
}

/**
 * Springs of one set about its output, and the carrier's twist, N·m/rad.
 *
 * @param angles at the output for a metre along the sun's and the ring's mesh, rad/m
 * Source: each spring by the energy that it stores for a newton metre at the output; the separating force F·tan α of a
 * mesh ovals the ring, which lets the planet turn on by tan α of that.
 */
function springsOf(
  p: PlanetaryParams,
  b: PlanetaryBuild,
  holds: Holds,
  [sunLoad, ringLoad]: readonly [MeshLoad, MeshLoad],
  [aS, aR]: readonly [number, number],
  shelf: Shelf,
): { readonly springs: readonly Spring[]; readonly twist: number } {
  const { geometry: g, motion, pin } = b;
  const ring = b.materials[2];
  const n = p.planets;
  const cage = motion.torqueOn.carrier;
  const apart = p.width + p.plate;
  const ambient = factor(shelf, 'ambient');
  const twist = carrierTwist(n, p.pin, g.centre, apart, elastic(pin, ambient, shelf));
  const carried = (gives: number) => (cage > 0 ? (n * g.centre ** 2) / gives / cage ** 2 : Infinity);
  const shear = elastic(ring, ambient, shelf) / (2 * (1 + ring.poisson));
  const flange = p.boltsC > 0 ? p.boltCircleC / 2 : g.centre / 2;
  const plate = plateTwist(shear, p.plate, Math.min(flange, g.centre), Math.max(flange, g.centre));
  const springs = [
    spring('teeth of sun and planets', (n * sunLoad.stiffness) / aS ** 2, sunLoad.held),
    spring('teeth of planets and ring', (n * ringLoad.stiffness) / aR ** 2, ringLoad.held),
    spring(
      'ring gives way between planets',
      (n * holds.oval) / (aR * Math.tan(g.ringMesh.pair.working)) ** 2,
      crept(ring),
    ),
    spring('planet pins bend', carried(holds.pin.bends), crept(pin)),
    spring(
      p.pins === 'plain' ? 'planets’ bores on their pins' : 'planets’ bearings and their seats',
      carried(holds.runs),
      crept(b.materials[1]),
    ),
    spring('pins’ seats in the carrier', carried(holds.pin.seats), crept(ring)),
    // Half the carrier's torque comes across from the far plate, which turns against the near one, and the planets'
    // middles by half as much.
    spring('carrier twists between its plates', cage > 0 ? (4 * twist) / cage ** 2 : Infinity, crept(pin)),
    spring('carrier’s plate, from pins to flange', cage > 0 ? plate / cage ** 2 : Infinity, crept(ring)),
  ];
  return { springs, twist };
}

/**
 * The sun on the shaft that turns it, of the first set, or that it turns, of the last; one that is held is no wheel on a
 * shaft.
 *
 * @param gain torque at the output for one at the input
 */
function boresOf(p: PlanetaryParams, b: PlanetaryBuild, role: ReturnType<typeof roles>, gain: number): Bored[] {
  if (role.input !== 'sun' && role.output !== 'sun') return [];
  const turned = role.input === 'sun';
  return [
    {
      name: 'sun',
      bore: p.boreS,
      path: 'boreS',
      shape: p.shapeS,
      width: p.width * b.widths[turned ? 0 : p.sets - 1]!,
      material: b.materials[0],
      gain: turned ? gain : 1,
      wall: b.sunWall,
      driven: turned,
      longer: { path: 'width', name: 'Face width', value: p.width, per: b.widths[turned ? 0 : p.sets - 1]! },
    },
  ];
}

/** Computes a planetary stage at a duty on its output; teeth by ISO 6336 and VDI 2736 (`mesh.ts`). */
export function modelPlanetary(
  p: PlanetaryParams,
  b: PlanetaryBuild,
  at: Duty,
  shelf: Shelf,
  kept: Kept,
): PlanetaryModel {
  const { geometry: g, bearing, motion, widths } = b;
  const [ms, mp, mr] = b.materials;
  const n = p.planets;
  const setRatio = motion.ratio;
  const share = loadShare(p, shelf);
  const planetSpeed = motion.planetTurns * at.speed;

  const etas = etasOf(p, b, shelf);
  const driven = kept.step('train', etas, shelf, (s) => drivenBy(p, b, etas, s));
  const { torqueOn } = driven;
  // Forces on one tooth, and on one pin, for a newton metre at the output.
  const sunPer = (torqueOn.sun * share) / (n * g.sunMesh.pair.rw1);
  const ringPer = (torqueOn.ring * share) / (n * g.ringMesh.pair.rw2);
  const pinPer = (torqueOn.carrier * share) / (n * g.centre);
  // Planets mesh with the sun on one side and with the ring on the other: their teeth are bent both ways.
  const spins = motion.planetTurns;
  const way = planetsOutBy(p);
  const press = PLANETS_OUT[way];
  const atSun = dutyUnder(
    press.sun,
    meshDuty(at, sunPer, spins * g.sunMesh.pair.rw2, [(spins * p.zp) / p.zs, spins], [n, 1], [false, true]),
    p.preload,
  );
  const atRing = dutyUnder(
    press.ring,
    meshDuty(at, ringPer, spins * g.ringMesh.pair.rw1, [spins, (spins * p.zp) / p.zr], [1, n], [true, false]),
    p.preload,
  );
  const holds = kept.step('holds', [], shelf, (s) => holdsOf(p, b, s));
  const sunLoad = kept.step('sun', [...meshKey(atSun), holds.sun], shelf, (s) =>
    loadMesh(g.sunMesh, ms, mp, atSun, s, holds.sun),
  );
  const ringLoad = kept.step('ring', [...meshKey(atRing), holds.oval], shelf, (s) =>
    loadMesh(g.ringMesh, mp, mr, atRing, s, holds.oval),
  );

  const [eta, back] = [driven.forward, driven.backward];

  const role = roles(p);
  const shareOf = (m: Member) =>
    m === role.input ? driven.shares.input : m === role.output ? driven.shares.output : driven.shares.held;
  const aS = shareOf('sun') / g.sunMesh.pair.rw1;
  const aR = shareOf('ring') / g.ringMesh.pair.rw2;
  const play = kept.step('play', [aS, aR], shelf, (s) =>
    planetPlay(
      [
        { angle: aS, pair: g.sunMesh.pair },
        { angle: aR, pair: g.ringMesh.pair },
      ],
      n,
      s,
    ),
  );

  const left = kept.step('left', [aS, aR], shelf, (s) =>
    planetsLeft(way, { angle: aS, pair: g.sunMesh.pair }, { angle: aR, pair: g.ringMesh.pair }, n, s),
  );
  const sprung = sprungBy(p, b, [sunPer / share, ringPer / share], etas, shelf);

  const span = p.width + 2 * p.plate;
  const cage = torqueOn.carrier;
  const { springs: ofOne, twist } = springsOf(p, b, holds, [sunLoad, ringLoad], [aS, aR], shelf);

  // On a pin, with what springs add: stress and pressure go with its force.
  const onPin = (torque: number) => underPress(press.pin, pinPer * torque, p.preload);
  const bending = pinBending(pinPer, span, p.pin);
  const pressure = pinPer / (p.pin * p.width);
  const surface = planetSpeed * (p.pin / 2);
  const [sunModes, ringModes, pinMode, boreMode, seatMode] = b.modes;
  const pinStands = {
    bent: strengthOf(b.pin, bentWay(p), shelf),
    borne: bearing ? bearing.static : factor(shelf, 'pin.pressure') * p.pin * p.width,
    seated: seatsHold({ diameter: p.pin, depth: p.plate }, seatStands(b.materials[2], shelf)),
    rubs: pressure * surface,
  };
  const pinLimit = Math.min(pinStands.bent / bending, pinStands.borne / pinPer);
  const seatLimit = pinStands.seated / pinPer;
  const bare: readonly (readonly [Mode, Press, number])[] = [
    ...loadedModes(sunModes, sunLoad, 1 / sunPer, at).map((m) => [m, press.sun, p.preload / sunPer] as const),
    ...loadedModes(ringModes, ringLoad, 1 / ringPer, at).map((m) => [m, press.ring, p.preload / ringPer] as const),
    [modeAt(pinMode, pinLimit), press.pin, p.preload / pinPer],
    [modeAt(seatMode, seatLimit), press.pin, p.preload / pinPer],
    ...(!bearing && surface > 0
      ? [[modeAt(boreMode, factor(shelf, 'pin.pv') / (pressure * surface)), press.pin, p.preload / pinPer] as const]
      : []),
  ];
  const ofLast = bare.map(([m, by, spring]): Mode => ({ ...m, torque: loadBorne(by, m.torque, spring) }));

  // Sets before the last turn faster and carry less, on narrower wheels: the last one is not always the weak one.
  let [least, likely, most, compliance, braking, all] = [0, 0, 0, 0, 0, 0];
  const ends = ofLast.map((m) => m.torque);
  const lives = ofLast.map((m) => m.life);
  for (let k = 0; k < p.sets; k++) {
    const width = widths[k]!;
    const down = setRatio ** (p.sets - 1 - k);
    const before = Math.abs(down) * eta ** (p.sets - 1 - k);
    likely += left[0] / down;
    least += left[1] / down;
    most += left[2] / down;
    compliance += 1 / (width * down * down);
    braking += sprung.braking / Math.abs(setRatio) ** (k + 1);
    bare.forEach(([m, by, spring], i) => {
      // What goes with the speed as well meets as much more of it as the load is less.
      const slower = m.wears || m.time === 'continuous' ? Math.abs(down) : 1;
      ends[i] = Math.min(ends[i]!, before * loadBorne(by, (m.torque * width) / slower, spring));
      if (m.wears) lives[i] = Math.min(lives[i]!, (m.life * width * before) / Math.abs(down));
    });
    all += width;
  }
  const modes = p.sets > 1 ? ofLast.map((m, i): Mode => ({ ...m, torque: ends[i]!, life: lives[i]! })) : ofLast;
  const setShares = modes.map((m, i) =>
    m.time === 'life' ? (m.life < ofLast[i]!.life ? m.life / ofLast[i]!.life : 1) : m.torque / ofLast[i]!.torque,
  );
  const weights = kept.step('masses', [], shelf, (s) => masses(p, b, s));
  const costs = planetaryCosts(p, b, weights, shelf);
  const inertia = inertias(p, b, weights);
  const ratio = setRatio ** p.sets;
  const bores = boresOf(p, b, role, Math.abs(ratio) * eta ** p.sets);
  const springs = [
    ...ofOne.map((s) => spring(s.name, s.stiffness / compliance, s.held)),
    ...bores.map((s) =>
      spring(
        `${s.name} on its shaft`,
        hubTurning(s.material, s.bore, s.width, shelf) * (s.driven ? ratio ** 2 : 1),
        crept(s.material),
      ),
    ),
  ];
  const stiffness = together(springs);
  const forms = boreLimits(bores, shelf);
  const bearingLife =
    bearing && at.equivalent && at.meanSpeed
      ? ratedLife(bearing, onPin(at.equivalent), motion.planetTurns * at.meanSpeed)
      : Infinity;
  const numbers: StageNumbers = {
    ratio,
    etaForward: eta ** p.sets,
    etaBackward: back > 0 ? back ** p.sets : back,
    drag:
      greaseAtInput(g.outside, setRatio, shelf) * slowing(p.sets, setRatio) +
      planetDrag(p, b, at.speed, shelf) +
      braking,
    play: [likely, least, most],
    stiffness,
    springs,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: inertiaAtInput(p, b, inertia),
    inertiaOut: inertia[role.output],
    limits: [...modeLimits(modes), ...modeLimits(forms)],
    ...sumCosts(everyCost(costs)),
    outside: g.outside,
    length: p.width * all + 2 * p.plate * p.sets + GAP * (3 * p.sets - 1),
    // The first set turns fastest, its carrier at the input over one ratio.
    maxSpeed: topPitchSpeed(b.materials) / ((motion.planetTurns * g.sunMesh.pair.rw2) / Math.abs(setRatio)),
    // Through the sun, whose bore is the narrowest.
    bore: p.boreS,
    beside: false,
    life: Math.min(bearingLife, shortestLife(modes)),
  };
  return {
    geometry: g,
    materials: b.materials,
    bearing,
    pin: b.pin,
    setRatio,
    share,
    etas,
    driven,
    sunLoad,
    ringLoad,
    opens: sprung.opens,
    braking: sprung.braking,
    pinStands,
    carrierTorque: cage * at.torque,
    pinForce: onPin(at.torque),
    pinSpeed: planetSpeed,
    pinStress: (bending / pinPer) * onPin(at.torque),
    lean: (((cage * at.torque) / 2 / twist) * g.centre) / (p.width + p.plate),
    pressureSpeed: (pressure / pinPer) * onPin(at.torqueRms) * surface,
    playOne: play.one,
    angles: [aS, aR],
    bind: play.bind,
    wallStress: ringWall(ringLoad.radial, g.outside / 2 - p.rim / 2, p.rim, p.width, n),
    sunWall: b.sunWall,
    bores,
    forms,
    bearingLife,
    modes,
    setShares,
    masses: weights,
    costs,
    numbers,
  };
}
