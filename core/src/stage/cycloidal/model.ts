import { bentWay } from '../shared-params.ts';
import { reducedModulus } from '../../contact/index.ts';
import {
  bearingStiffness,
  crept,
  elastic,
  bearingDrag,
  greaseDrag,
  plateTwist,
  seatStiffness,
  strengthOf,
  flankCrush,
  shortestLife,
  lobeModes,
  rideOver,
  lobesLast,
  modeLimits,
  rootStrength,
  type Mode,
  type ToothMaterial,
  blankMass,
  wallStress,
  cutPartPrice,
} from '../../gear/index.ts';
import {
  pathLength,
  pinContact,
  sampledError,
  stopContacts,
  type Cycloid,
  type SampledError,
} from '../../lobed/index.ts';
import type { Bearing } from '../../schema/joint.ts';
import { ratedLife } from '../../shop/bearings.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { PIN_PRICE, rodMass, sumCosts } from '../costs.ts';
import { crankRod, ROD_DENSITY } from '../crank-rod.ts';
import type { Duty, Spring, StageNumbers } from '../contract.ts';
import type { Kept } from '../kept.ts';
import type { CycloidalBuild } from './build.ts';
import { STEPS, wallBehind, type CycloidalGeometry } from './geometry.ts';
import { holesGive, outPinOf, outPinsGive, outPinStress, outPlate, outSeatsHold, outShare } from './output-pins.ts';
import { pulledBy } from '../push.ts';
import { spring, together } from '../springs.ts';
import { branchPins, cycloidalRatio, heldShare, lobesOf, type CycloidalParams } from './params.ts';
import { rimMoment, spreadOf, type CycloidalSpread } from './spread.ts';

/** What one load does. */
export interface CycloidalLoad extends CycloidalSpread {
  /** Loss over what goes out, by place. */
  readonly lossPins: number;
  readonly lossOut: number;
  readonly lossBearing: number;
}

/** Everything computed about a cycloidal stage. */
export interface CycloidalModel {
  readonly geometry: CycloidalGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  readonly load: CycloidalLoad;
  readonly contact: number;
  readonly forward: number;
  readonly backward: number;
  readonly playDisc: number;
  readonly playOut: number;
  /** Turn of the output for a metre of gap at the lobes, and at the output's pins, rad/m. */
  readonly turnGap: number;
  readonly turnOut: number;
  readonly bind: number;
  readonly ripple: number;
  /** Transmission error as made, by sampling; worked out when it is looked at. */
  readonly error: () => SampledError;
  readonly webs: { readonly hole: number; readonly bearing: number; readonly rim: number };
  readonly outBend: number;
  /** What bends the housing's wall most, Pa; worked out when it is looked at. */
  readonly rimStress: () => number;
  readonly shaking: number;
  readonly couple: number;
  /** Of the eccentric bearings, s. */
  readonly bearingLife: number;
  readonly modes: readonly Mode[];
  readonly masses: readonly [number, number, number];
  readonly costs: ReturnType<typeof costsOf>;
  readonly numbers: StageNumbers;
}

/** What the steps of the model share. */
interface Setting {
  readonly p: CycloidalParams;
  readonly b: CycloidalBuild;
  readonly at: Duty;
  readonly shelf: Shelf;
  /** Turns of the crank for one of the disc against the ring. */
  readonly n: number;
  /** With the disc held, the ring turns less than the disc would, and carries as much more. */
  readonly held: number;
}

/** What friction makes of how contacts slide on the disc's moment: losses by place, over what goes out. */
function lossesOf({ p, shelf, held }: Setting, pushes: CycloidalSpread): CycloidalLoad {
  const sliding = (run: CycloidalParams['pinsRun']) => factor(shelf, run === 'fixed' ? 'lobe.slide' : 'lobe.roll');
  return {
    ...pushes,
    lossPins: held * sliding(p.pinsRun) * pushes.pinSlide,
    lossOut: held * sliding(p.outRun) * pushes.outSlide,
    lossBearing: held * factor(shelf, 'pin.roll') * pushes.journalSlide,
  };
}

/**
 * Turn of the disc that a micrometre at a pin allows either way, rad/m: 2/((n − 1)·e).
 * @example turnPerGap(12, 1e-3) // 181.818
 */
export const turnPerGap = (turns: number, lift: number): number => 2 / ((turns - 1) * lift);

/**
 * Play as made, rad at the output: of the disc with pins off their places (the nearest of those that touch first
 * decides, about one spread nearer on either side) and of the output holes; and how much it may vary.
 */
function playsOf({ p, b, shelf, n, held }: Setting) {
  const { plays } = b.geometry;
  const rough = turnPerGap(n, p.throw);
  const profile = factor(shelf, 'lobe.profile');
  const place = rough * factor(shelf, 'lobe.place');
  const crank = rough * factor(shelf, 'lobe.crank');
  const mean = plays.reduce((s, [a, c]) => s + (c - a), 0) / plays.length;
  const spread = Math.hypot(rough * profile, place);
  const lever = Math.min(
    ...Array.from({ length: STEPS }, (_, k) => outShare(p, (2 * Math.PI * k) / p.outPins / STEPS).lever),
  );
  const disc = Math.max(0, mean - place + crank);
  const out = p.outGap / Math.max(1e-6, lever);
  const play = (of: number) => (Math.max(0, of) + out) * held;
  // First to touch changes as the crank goes round: the middle between both ends wanders.
  const middles = plays.map(([a, c]) => (a + c) / 2);
  const band: [number, number, number] = [play(disc), play(mean - spread - place), play(mean + spread + crank)];
  return {
    playDisc: disc * held,
    playOut: out * held,
    turnGap: rough * held,
    turnOut: held / Math.max(1e-6, lever),
    band,
    bind: (plays.reduce((s, [a, c]) => Math.min(s, c - a), Infinity) - rough * profile - place) * held,
    ripple: (Math.max(...middles) - Math.min(...middles) + place) * held,
  };
}

/** How many plates carry the output pins. */
const platesOf = (p: CycloidalParams): number => (p.carriedBy === 'both' ? 2 : 1);

/** Bore of the crank, m: for the motor's shaft, or for a rod that more than two eccentrics are put on. */
export const crankBore = (
  p: Pick<CycloidalParams, 'shaft' | 'discs' | 'throw'>,
  { bore }: Pick<Bearing, 'bore'>,
): number => (p.shaft > 0 ? p.shaft : crankRod(p.discs, p.throw, bore));

/** Whether the crank is put together of an eccentric for each disc, since no bearing gets to one between two others. */
export const inPieces = (
  p: Pick<CycloidalParams, 'shaft' | 'discs' | 'throw'>,
  bearing: Pick<Bearing, 'bore'>,
): boolean => p.discs > 2 && crankBore(p, bearing) > 0;

/** Masses of one disc with its bearing, of the housing, of output plates and pins, of a ring's pin and the crank, kg. */
function massesOf({ p, b, shelf }: Setting) {
  const { geometry: g, bearing, hole } = b;
  const [md, mp, mh] = b.materials;
  const area = Math.PI * (g.profile.circle ** 2 - bearing.outside ** 2 / 4 - (p.outPins * hole ** 2) / 4);
  const inside = p.circle / 2 - p.pin / 2;
  const high = p.discs * p.width + 1e-3;
  const plate = Math.PI * (p.outCircle / 2 + p.outPin) ** 2 * outPlate(p) * mh.material.density;
  const outPin = rodMass(p.outPin, high + platesOf(p) * outPlate(p), mp.material.density);
  return {
    disc: area * p.width * md.material.density + bearing.mass,
    housing: blankMass(g.outside / 2, inside, high, mh, shelf),
    plate,
    outPin,
    plates: plate * platesOf(p) + p.outPins * outPin,
    pin: rodMass(p.pin, high, mp.material.density),
    crank: blankMass(bearing.bore / 2, crankBore(p, bearing) / 2, p.discs * p.width, mh, shelf),
    rod: p.shaft > 0 ? 0 : rodMass(crankBore(p, bearing), p.discs * p.width, ROD_DENSITY),
  };
}
type Masses = ReturnType<typeof massesOf>;

/**
 * Force and couple that the discs shake with, N and N·m: two of them cancel the force and leave a couple of F·w, three
 * leave √3·F·w.
 * @param force of one disc, m·e·ω², N
 * @param width from one disc to the next, m
 * @example shakingOf(3, 10, 6e-3) // { shaking: 0, couple: 0.103923 }
 */
export const shakingOf = (discs: number, force: number, width: number): { shaking: number; couple: number } => ({
  shaking: discs === 1 ? force : 0,
  couple: discs === 2 ? force * width : discs === 3 ? force * width * Math.sqrt(3) : 0,
});

/** Area of all discs' lobes, m²: their profile runs a pin's radius inside the path of the pins' middles. */
const flankArea = (p: CycloidalParams, { pins, circle, throw: lift, pin }: Cycloid): number =>
  p.discs * p.width * Math.max(1e-4, pathLength(pins, circle, lift) - 2 * Math.PI * pin);

/** Everything that ends it, and at which torque: forces grow with it, pressure with its root, as more pins come in. */
function modesOf(s: Setting, strong: CycloidalSpread, base: number): Mode[] {
  const { p, b, shelf } = s;
  const [md, mp] = b.materials;
  const ambient = factor(shelf, 'ambient');
  const crush = Math.min(flankCrush(md, ambient, shelf), flankCrush(mp, ambient, shelf));
  const thinnest = Math.max(1e-5, Math.min(b.webs.bearing, b.webs.rim, b.webs.hole));
  const stress = outPinStress(p, b.pushes, outPinOf(p, mp, b.materials[2], shelf)).all * s.held;
  const lasts = lobesLast(
    {
      lobes: md,
      pins: mp,
      press: strong.pressure / Math.sqrt(base),
      slide: strong.pinSlide * s.held,
      rolls: p.pinsRun !== 'fixed',
      area: flankArea(p, b.geometry.profile),
      lift: p.throw,
      meetings: s.n,
    },
    s.at,
    shelf,
  );
  return [
    ...lobeModes(md, lasts, { torque: base, pressure: strong.pressure, bears: crush }),
    rideOver(base * ((bearingStiffness(md, shelf) * p.throw) / strong.bearing)),
    {
      id: 'out',
      mode: 'output pins bend',
      // Upright pins of plastic are pulled apart across their layers.
      torque: strengthOf(mp, bentWay(p), shelf) / stress,
      life: Infinity,
      time: 'static',
      why: `The worst output pin carries about 4T/(n·R); ${p.carriedBy === 'both' ? 'held in a plate on either side' : 'standing out of one plate'}.`,
      grows: 'none',
    },
    {
      id: 'seat',
      mode: 'output pins press their seats wide',
      torque: outSeatsHold(p, b.pushes, b.materials[2], shelf) / s.held,
      life: Infinity,
      time: 'static',
      why:
        p.carriedBy === 'both'
          ? 'The worst output pin leans on a seat at either end; of a plastic half of its strength is counted, since it creeps.'
          : 'A pin that stands out of one plate tips in its seat; of a plastic half of its strength is counted, since it creeps.',
      grows: 'none',
    },
    {
      id: 'dent',
      mode: 'eccentric bearing dents',
      torque: base * (b.bearing.static / strong.bearing),
      life: Infinity,
      time: 'static',
      why: 'Static rating C0 of the eccentric bearing against the sum of all pins.',
      grows: 'none',
    },
    {
      id: 'web',
      mode: 'webs of the disc tear',
      torque: base * (rootStrength(md, ambient, false, shelf).peak / (strong.pinForce / (p.width * thinnest))),
      life: Infinity,
      time: 'static',
      why: 'The worst pin’s push through the thinnest web.',
      grows: 'width',
    },
  ];
}

/** What springs of the discs rest on. */
interface Gives {
  /** Of one contact with its seat, N/m; reduced modulus of lobe and pin, Pa; seat by its width, N/m²; modulus of a disc, Pa. */
  readonly contact: number;
  readonly modulus: number;
  readonly seat: number;
  readonly disc: number;
}

/**
 * Springs about the output, N·m/rad: lobes at the pins that carry, the pins in their seats, the eccentric bearings, the
 * discs between holes and lobes, the holes at the output pins, and those pins with their seats.
 *
 * Source: each by the energy that it stores for a newton metre, mean over a pitch of the crank.
 */
function springsOf({ p, b, shelf, held }: Setting, load: CycloidalSpread, x: Gives): Spring[] {
  const [md, mp, mh] = b.materials;
  const about = (stiffness: number) => stiffness / held ** 2;
  const line = (Math.PI / 4) * x.modulus * p.width;
  // All contacts that carry, each of a newton a metre.
  const arms = Math.max(1, load.stiffness) / x.contact;
  const lobes = Math.min(crept(md), crept(mp));
  const pins = outPinsGive(p, b.pushes, outPinOf(p, mp, mh, shelf));
  const shear = x.disc / (2 * (1 + md.poisson));
  const [inner, outer] = [p.outCircle / 2, b.geometry.profile.circle - p.pin / 2];
  const holes = holesGive(b.pushes, p.discs);
  return [
    spring('lobes at the ring’s pins', about(arms * line), lobes),
    spring('ring’s pins in their seats', about(arms * x.seat * p.width), crept(mh)),
    spring('eccentric bearings in the discs', about(bearingStiffness(md, shelf) / load.bearingSquares), crept(md)),
    spring('discs between holes and lobes', about(plateTwist(shear, p.discs * p.width, inner, outer)), crept(md)),
    spring('holes at the output pins', about(line / holes), lobes),
    spring('output pins bend', about(1 / pins.bends), crept(mp)),
    spring('output pins in their seats', about(1 / pins.seats), crept(mh)),
  ];
}

/** Life of the eccentric bearings, s. */
function lifeOf({ b, at, n, held }: Setting, mean: number, moment: number): number {
  const load = at.equivalent && at.meanSpeed ? (mean * at.equivalent * held) / moment : 0;
  return load > 0 ? ratedLife(b.bearing, load, at.meanSpeed! * n) : Infinity;
}

/** What each part weighs and costs: by mass, by lobes milled where they are not printed, and what is bought. */
function costsOf({ p, b, shelf }: Setting, mass: Masses) {
  const [md, , mh] = b.materials;
  const { price } = mh.material;
  const disc = mass.disc - b.bearing.mass;
  const pieces = inPieces(p, b.bearing) ? p.discs : 1;
  return {
    disc: { quantity: p.discs, mass: disc, money: cutPartPrice(md, disc, lobesOf(p), shelf) },
    ring: { quantity: 1, mass: mass.housing, money: cutPartPrice(mh, mass.housing, p.pins, shelf) },
    crank: { quantity: pieces, mass: mass.crank / pieces, money: (mass.crank * price) / pieces },
    rod: { quantity: mass.rod > 0 ? 1 : 0, mass: mass.rod, money: PIN_PRICE },
    plate: { quantity: platesOf(p), mass: mass.plate, money: mass.plate * price },
    pin: { quantity: p.pins, mass: mass.pin, money: PIN_PRICE },
    outPin: { quantity: p.outPins, mass: mass.outPin, money: PIN_PRICE },
    bearing: { quantity: p.discs, mass: b.bearing.mass, money: b.bearing.price },
  };
}

/**
 * Computes a cycloidal stage at a duty on its output.
 *
 * Source: contact equilibrium of every pin at its own gap (`contacts.ts`), Hertz along a line (Johnson, 4.2), output
 * pins sharing by their levers, losses by the way each contact slides
 * for a radian of the output; ISO 281 for the eccentric bearing.
 */
export function modelCycloidal(
  p: CycloidalParams,
  built: CycloidalBuild,
  at: Duty,
  shelf: Shelf,
  kept: Kept,
): CycloidalModel {
  const { geometry: g, bearing, webs } = built;
  const [md, mp, mh] = built.materials;
  const held = heldShare(p);
  const ratio = cycloidalRatio(p);
  const s: Setting = { p, b: built, at, shelf, n: branchPins(p), held };
  const ambient = factor(shelf, 'ambient');
  const [ed, ep] = [elastic(md, ambient, shelf), elastic(mp, ambient, shelf)];
  const modulus = reducedModulus(ed, md.poisson, ep, mp.poisson);
  const seat = seatStiffness(mh, shelf);
  const contact = pinContact(modulus, p.width, seat);
  const moment = Math.max(1e-3, at.torque * held);
  const spreadAt = (name: string, on: number) =>
    kept.step(name, [contact, modulus, on], shelf, () => spreadOf(p, g, contact, modulus, on, bearing.bore));
  const load = lossesOf(s, spreadAt('load', moment));
  const loss = load.lossPins + load.lossOut + load.lossBearing;
  const { band, ...plays } = playsOf(s);
  const springs = springsOf(s, load, { contact, modulus, seat, disc: ed });
  const stiffness = together(springs);
  const mass = massesOf(s);
  const costs = costsOf(s, mass);
  const shaking = shakingOf(p.discs, mass.disc * p.throw * (at.speed * ratio) ** 2, p.width);
  const modes = modesOf(s, moment >= 1 ? load : spreadAt('unit', 1), Math.max(moment, 1) / held);
  const bearingLife = lifeOf(s, load.bearingMean, moment);
  const numbers: StageNumbers = {
    ratio,
    etaForward: 1 / (1 + loss),
    etaBackward: 1 - loss,
    // A crank that is bored sits on the shaft that drives it, and nothing else holds that.
    ...(p.shaft > 0 && pulledBy(at, (at.torque * held) / moment, load.shaft, p.width)),
    // The crank turns as often against the disc, whichever part is held.
    drag: greaseDrag(g.outside, shelf) + p.discs * bearingDrag(bearing, at.speed * s.n, shelf),
    play: band,
    stiffness,
    springs,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    // A held disc goes round without turning.
    inertiaIn: p.discs * mass.disc * (p.throw ** 2 + (p.held === 'ring' ? g.profile.circle ** 2 / 2 / ratio ** 2 : 0)),
    inertiaOut:
      p.held === 'ring' ? (mass.plates * (p.outCircle / 2) ** 2) / 2 : mass.housing * (p.circle / 2 + p.rim / 2) ** 2,
    limits: modeLimits(modes),
    ...sumCosts(Object.values(costs)),
    outside: g.outside,
    length: p.discs * p.width + 2e-3 + platesOf(p) * outPlate(p),
    maxSpeed: (md.plastic || mp.plastic ? 4 : 12) / (p.pinsRun === 'fixed' ? 1 : 0.6) / p.throw / s.n,
    bore: p.shaft,
    beside: false,
    life: Math.min(bearingLife, shortestLife(modes)),
  };
  const [profile, place] = [factor(shelf, 'lobe.profile'), factor(shelf, 'lobe.place')];
  return {
    geometry: g,
    materials: [md, mp, mh],
    bearing,
    load,
    contact,
    forward: numbers.etaForward,
    backward: numbers.etaBackward,
    ...plays,
    error: () =>
      kept.step('error', [profile, place], shelf, () =>
        sampledError(
          kept.step('stops', [], shelf, () => stopContacts(g.pair, p.difference)),
          place,
          profile,
        ),
      ),
    webs,
    rimStress: () =>
      kept.step('rim', [contact, moment], shelf, () => {
        const wall = wallBehind(p);
        return wallStress(rimMoment(g.sets, contact, moment, (g.outside - wall) / 2), wall, p.width);
      }),
    outBend: outPinStress(p, built.pushes, outPinOf(p, mp, mh, shelf)).bending * moment,
    ...shaking,
    bearingLife,
    modes,
    masses: [mass.disc, mass.housing, mass.plates],
    costs,
    numbers,
  };
}
