import { reducedModulus } from '../../contact/index.ts';
import {
  bearingStiffness,
  crept,
  elastic,
  bearingDrag,
  greaseDrag,
  seatStiffness,
  flankCrush,
  lobeModes,
  rideOver,
  rootStrength,
  lobesLast,
  modeLimits,
  shortestLife,
  strengthOf,
  type Mode,
  type ToothMaterial,
} from '../../gear/index.ts';
import { linePressure, pathLength, pinContact } from '../../lobed/index.ts';
import type { Bearing } from '../../schema/joint.ts';
import { inSeries } from '../../math/springs.ts';
import { PIN_PRICE, rodMass, sumCosts } from '../costs.ts';
import { crankRod, ROD_DENSITY } from '../crank-rod.ts';
import { borneBy, pulledBy, type AxleLoad } from '../push.ts';
import { shaftStands } from '../shaft.ts';
import { spring, together } from '../springs.ts';
import { ratedLife } from '../../shop/bearings.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, Spring, StageNumbers } from '../contract.ts';
import type { RingPlateBuild } from './build.ts';
import type { RingPlateGeometry } from './geometry.ts';
import { GAP } from './outlines.ts';
import { ringPlateRatio, type RingPlateParams } from './params.ts';

/** Everything computed about a ring-plate stage. */
export interface RingPlateModel {
  readonly geometry: RingPlateGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /** Stiffness of one contact, N/m. */
  readonly contact: number;
  /** Worst over a turn at the peak: crank force, pin force, pressure. */
  readonly crankForce: number;
  readonly crankMean: number;
  /** Worst crank force over that of plates that share as well as they can. */
  readonly crankShare: number;
  readonly pinForce: number;
  readonly pressure: number;
  readonly lossPins: number;
  readonly lossBearings: number;
  readonly forward: number;
  readonly backward: number;
  readonly bind: number;
  readonly shaking: number;
  /** Of the cranks' bearings, s. */
  readonly bearingLife: number;
  readonly modes: readonly Mode[];
  readonly masses: readonly [number, number];
  readonly costs: ReturnType<typeof costsOf>;
  readonly numbers: StageNumbers;
}

/** What the steps of the model share. */
interface Setting {
  readonly p: RingPlateParams;
  readonly b: RingPlateBuild;
  readonly at: Duty;
  readonly shelf: Shelf;
  /** Cranks on which each plate runs. */
  readonly cranks: number;
  /** Worst crank force over that of plates that share as well as they can. */
  readonly share: number;
}

/** Shares of the load that sliding pins and the cranks' bearings cost. */
function lossesOf({ p, b, shelf }: Setting) {
  const sliding = factor(shelf, p.pinsRun === 'fixed' ? 'lobe.slide' : 'lobe.roll');
  const lossPins = sliding * b.spread.pinSlide;
  const lossBearings = factor(shelf, 'pin.roll') * b.spread.crankSum * (b.bearing.bore / 2) * p.pins;
  const loss = lossPins + lossBearings;
  return { lossPins, lossBearings, forward: 1 / (1 + loss), backward: 1 - loss };
}

/** Play as made, rad, likely, least and most, and what is left of the drawn one when everything takes from it. */
function playOf({ p, b, shelf }: Setting) {
  const rough = 2 / (p.pins * p.throw);
  const place = rough * factor(shelf, 'lobe.place');
  const crank = rough * factor(shelf, 'lobe.crank');
  const spread = Math.hypot(rough * factor(shelf, 'lobe.profile'), place);
  const bind = b.drawnPlay - spread - place;
  const likely = Math.max(0, b.drawnPlay - place) + crank;
  const play: [number, number, number] = [likely, Math.max(0, bind), b.drawnPlay + spread + crank];
  return { play, bind };
}

/** Masses of a plate with its bearings and of the wheel, kg. */
function massesOf({ p, b, shelf, cranks }: Setting): [number, number] {
  const { bearing, inner, materials } = b;
  const arms = cranks * (bearing.outside + 2 * p.wall) * (p.distance - inner * 0.8);
  const ring = Math.PI * ((inner + p.wall) ** 2 - inner ** 2);
  const wheel = Math.PI * ((p.circle / 2 + p.pin / 4) ** 2 - (p.bore / 2) ** 2) * (p.plates * p.width + 1e-3);
  return [
    (ring + arms) * p.width * materials[0].material.density + cranks * bearing.mass,
    wheel * materials[2].material.density * factor(shelf, 'gear.solid'),
  ];
}

/** Bore of the cranks, m: for the shaft that drives the first, or for rods that more than two eccentrics are put on. */
export const crankBore = (p: Pick<RingPlateParams, 'shaft' | 'plates' | 'throw'>, bore: number): number =>
  p.shaft > 0 ? p.shaft : crankRod(p.plates, p.throw, bore);

/** Rods of cranks: one for each that is bored and that no shaft drives. */
export const rodsOf = (p: Pick<RingPlateParams, 'shaft' | 'plates' | 'throw'>, cranks: number, bore: number): number =>
  crankBore(p, bore) > 0 ? cranks - (p.shaft > 0 ? 1 : 0) : 0;

/** What each part weighs and costs: by mass, and what is bought. */
function costsOf({ p, b, cranks }: Setting, [withBearings, wheel]: readonly [number, number]) {
  const { bearing, materials } = b;
  const [mp, mw, mh] = [materials[0].material, materials[1].material, materials[2].material];
  const plate = withBearings - cranks * bearing.mass;
  const total = p.plates * p.width + 1e-3;
  const rod = crankBore(p, bearing.bore);
  const crank = rodMass(bearing.bore, total, mh.density) - rodMass(rod, total, mh.density);
  const pieces = p.plates > 2 && rod > 0 ? p.plates : 1;
  return {
    plate: { quantity: p.plates, mass: plate, money: plate * mp.price },
    wheel: { quantity: 1, mass: wheel, money: wheel * mh.price },
    crank: { quantity: pieces * cranks, mass: crank / pieces, money: (crank / pieces) * mh.price },
    rod: { quantity: rodsOf(p, cranks, bearing.bore), mass: rodMass(rod, total, ROD_DENSITY), money: PIN_PRICE },
    pin: { quantity: p.pins, mass: rodMass(p.pin, total, mw.density), money: PIN_PRICE },
    bearing: { quantity: p.plates * cranks, mass: bearing.mass, money: bearing.price },
  };
}

/** Force the plates shake with, N: what their phases leave of m·e·ω² each. */
function shakingOf({ p, at }: Setting, plate: number, phases: readonly number[]): number {
  const left = Math.hypot(
    phases.reduce((s, x) => s + Math.cos(x), 0),
    phases.reduce((s, x) => s + Math.sin(x), 0),
  );
  return left < 1e-9 ? 0 : plate * p.throw * (at.speed * p.pins) ** 2 * left;
}

/** Radial stiffness that holds a plate on one of its cranks, N/m: the bearing in the plate and the crank's in the housing. */
const crankHold = ({ b, shelf }: Setting): number =>
  inSeries(bearingStiffness(b.materials[0], shelf), bearingStiffness(b.materials[2], shelf));

/**
 * Springs about the wheel, N·m/rad: lobes at the pins that carry, those pins in the wheel, the plates' rims between
 * pins and cranks, and the cranks' bearings in the plates and in the housing.
 *
 * Source: a newton metre over twice the energy that each stores, mean over a turn.
 */
function springsOf({ p, b, shelf }: Setting, modulus: number, seat: number): Spring[] {
  const [plate, pin, wheel] = b.materials;
  const { pinSquares, crankSquares, flexSquares } = b.spread;
  const lobes = (Math.PI / 4) * modulus * p.width;
  const bending = (elastic(plate, factor(shelf, 'ambient'), shelf) * p.width) / 12;
  return [
    spring('lobes at the wheel’s pins', lobes / pinSquares, Math.min(crept(plate), crept(pin))),
    spring('wheel’s pins in their seats', (seat * p.width) / pinSquares, crept(wheel)),
    spring('plates bend about the wheel', bending / flexSquares, crept(plate)),
    spring('cranks’ bearings in the plates', bearingStiffness(plate, shelf) / crankSquares, crept(plate)),
    spring('cranks’ bearings in the housing', bearingStiffness(wheel, shelf) / crankSquares, crept(wheel)),
  ];
}

/** Life of the cranks' bearings, s: L10 = (C/P)³·10⁶ turns (ISO 281) of a crank that turns with the input. */
function lifeOf({ p, b, at }: Setting, mean: number, torque: number): number {
  if (!at.equivalent || !at.meanSpeed || mean <= 0) return Infinity;
  return ratedLife(b.bearing, (mean * at.equivalent) / torque, at.meanSpeed * p.pins);
}

/** What the plates do to the cranks that no shaft of another's goes through: rods of steel, or printed ones on their ends. */
function axleLoads({ p, b, at, shelf, cranks }: Setting): AxleLoad[] {
  const slim = crankBore(p, b.bearing.bore) > 0;
  const stands = slim ? shaftStands(shelf) : strengthOf(b.materials[2], 'across', shelf);
  return b.spread.cranks
    .slice(p.shaft > 0 ? 1 : 0, cranks)
    .map((c) => ({ ...borneBy(at, at.torque, c, p.width + GAP), stands, slim }));
}

/** Area of all plates' lobes, m²: their profile runs a pin's radius outside the path of the pins' middles. */
const flankArea = (p: RingPlateParams, { pin }: { readonly pin: number }): number =>
  p.plates * p.width * (pathLength(p.pins, p.circle / 2, p.throw) + 2 * Math.PI * pin);

/** Everything that ends it, and at which torque. */
function modesOf(s: Setting, torque: number, pressure: number): Mode[] {
  const { b, shelf } = s;
  const ambient = factor(shelf, 'ambient');
  const [plate, pin] = b.materials;
  const crush = Math.min(flankCrush(plate, ambient, shelf), flankCrush(pin, ambient, shelf));
  const worst = Math.min(...b.geometry.steps.map((x) => x.torque));
  const lasts = lobesLast(
    {
      lobes: plate,
      pins: pin,
      press: pressure / Math.sqrt(torque),
      slide: b.spread.pinSlide,
      rolls: s.p.pinsRun !== 'fixed',
      area: flankArea(s.p, b.geometry.profile),
      lift: s.p.throw,
      meetings: s.p.pins,
    },
    s.at,
    shelf,
  );
  return [
    ...lobeModes(plate, lasts, { torque, pressure: Math.max(1, pressure), bears: crush }),
    rideOver((crankHold(s) * s.p.throw) / (b.spread.crankForce * s.share)),
    {
      id: 'eye',
      mode: 'plates tear about the cranks',
      torque:
        (rootStrength(plate, ambient, false, shelf).peak * 2 * s.p.wall * s.p.width) /
        (factor(shelf, 'lobe.eye') * b.spread.crankForce * s.share),
      life: Infinity,
      time: 'static',
      why: 'The worst crank pulls at the two walls of its eye, which bend as well.',
      grows: 'width',
    },
    {
      id: 'dead',
      mode: 'crank bearings dent near a dead point',
      torque: Math.max(1e-9, (b.bearing.static * worst) / s.share),
      life: Infinity,
      time: 'static',
      why: 'At the worst crank angle the plates need the most force for a torque; no bearing may carry more than its static rating.',
      grows: 'none',
    },
  ];
}

/** Computes a ring-plate stage at a duty on its wheel. */
export function modelRingPlate(p: RingPlateParams, built: RingPlateBuild, at: Duty, shelf: Shelf): RingPlateModel {
  const { geometry: g, bearing, inner, spread } = built;
  const [mp, mw, mh] = built.materials;
  const share = p.plates > 1 ? factor(shelf, 'lobe.plateShare') : 1;
  const s: Setting = { p, b: built, at, shelf, cranks: p.layout === 'one' ? 1 : 2, share };
  const ambient = factor(shelf, 'ambient');
  const [plates, pins] = [elastic(mp, ambient, shelf), elastic(mw, ambient, shelf)];
  const modulus = reducedModulus(plates, mp.poisson, pins, mw.poisson);
  const seat = seatStiffness(mh, shelf);
  const contact = pinContact(modulus, p.width, seat);
  const torque = Math.max(1e-3, at.torque);
  const pinForce = spread.pinForce * torque;
  const pressure = linePressure(spread.pinPress * torque, p.width, modulus, 1);
  const losses = lossesOf(s);
  const { play, bind } = playOf(s);
  const springs = springsOf(s, modulus, seat);
  const stiffness = together(springs);
  const [plateMass, wheelMass] = massesOf(s);
  const costs = costsOf(s, [plateMass, wheelMass]);
  const mean = Math.cbrt(spread.crankCubes) * torque * share;
  const bearingLife = lifeOf(s, mean, torque);
  const modes = modesOf(s, torque, pressure);
  const reach = p.layout === 'one' ? inner + p.wall + p.distance : 2 * p.distance;
  const outside = reach + bearing.outside + 2 * p.wall + 2 * p.throw;
  const numbers: StageNumbers = {
    ratio: ringPlateRatio(p),
    etaForward: losses.forward,
    etaBackward: losses.backward,
    // A bored crank sits on the shaft that drives it, and nothing else holds that.
    ...(p.shaft > 0 && pulledBy(at, at.torque, spread.cranks[0], p.width + GAP)),
    axles: axleLoads(s),
    drag: greaseDrag(outside, shelf) + p.plates * s.cranks * bearingDrag(bearing, at.speed * p.pins, shelf),
    play,
    stiffness,
    springs,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: p.plates * plateMass * p.throw ** 2,
    inertiaOut: (wheelMass * (p.circle / 2) ** 2) / 2,
    limits: modeLimits(modes),
    ...sumCosts(Object.values(costs)),
    outside,
    before: { beside: outside - bearing.outside / 2 - p.wall - p.throw },
    length: p.plates * p.width + 2e-3,
    maxSpeed: (mp.plastic || mw.plastic ? 4 : 12) / p.throw / p.pins,
    bore: p.bore,
    beside: true,
    life: Math.min(bearingLife, shortestLife(modes)),
  };
  return {
    geometry: g,
    materials: [mp, mw, mh],
    bearing,
    contact,
    crankForce: spread.crankForce * torque * share,
    crankMean: mean,
    crankShare: share,
    pinForce,
    pressure,
    ...losses,
    bind,
    shaking: shakingOf(s, plateMass, g.drive.phases),
    bearingLife,
    modes,
    masses: [plateMass, wheelMass],
    costs,
    numbers,
  };
}
