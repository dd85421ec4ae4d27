import { stated } from '../../units/stated.ts';
import { reducedModulus } from '../../contact/index.ts';
import { flankLimit, modeLimits, rootLimits, type Mode, type ToothMaterial } from '../../gear/index.ts';
import type { Bearing } from '../../schema/joint.ts';
import { carry, sampledError, stopContacts, type ContactSet, type SampledError } from '../../lobed/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { isNeedle } from '../../shop/bearings.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import type { Kept } from '../kept.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { cycloidalGeometry, phaseOf, STEPS, type CycloidalGeometry } from './geometry.ts';
import { branchPins, cycloidalRatio, heldShare, lobesOf, type CycloidalParams } from './params.ts';

/** How a load spreads, worst and mean over a pitch of the crank, whatever friction there is. */
interface CycloidalSpread {
  readonly pinForce: number;
  readonly pressure: number;
  readonly outForce: number;
  readonly bearing: number;
  /** Cubic mean of the bearing's load, N. */
  readonly bearingMean: number;
  readonly carrying: number;
  readonly stiffness: number;
  /** Force times way of sliding for a radian of the output, over the moment: loss for a friction of one, by place. */
  readonly pinSlide: number;
  readonly outSlide: number;
  readonly journalSlide: number;
  readonly windUp: number;
}

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
  readonly bind: number;
  readonly ripple: number;
  /** Transmission error as made, by sampling; worked out when it is looked at. */
  readonly error: () => SampledError;
  readonly webs: { readonly hole: number; readonly bearing: number; readonly rim: number };
  readonly outBend: number;
  readonly shaking: number;
  readonly couple: number;
  readonly modes: readonly Mode[];
  readonly masses: readonly [number, number, number];
  readonly numbers: StageNumbers;
}

const PIN_YIELD = 450e6;

/** Moment on one disc's worth of output pins: pushes at right angles to the arm, in proportion to their levers. */
function outShare(p: CycloidalParams, crank: number): { sum: number; most: number; lever: number } {
  let [sum, squares, most] = [0, 0, 0];
  for (let i = 0; i < p.outPins; i++) {
    const s = Math.max(0, Math.sin(crank - (2 * Math.PI * i) / p.outPins));
    sum += s;
    squares += s * s;
    most = Math.max(most, s);
  }
  const each = 1 / ((p.outCircle / 2) * squares);
  return { sum: each * sum, most: each * most, lever: (p.outCircle / 2) * most };
}

/** Spreads a load over pins, output pins and bearings: `moment` on all discs together, N·m. */
function spreadOf(
  p: CycloidalParams,
  g: CycloidalGeometry,
  contact: number,
  modulus: number,
  moment: number,
  journal: number,
): CycloidalSpread {
  const Z = p.pins;
  const n = branchPins(p);
  let [pinForce, pressure, outForce, bearing, cubes, carrying, stiffness, pinSlide, outSlide, journalSlide, windUp] = [
    0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0,
  ];
  g.sets.forEach((sets: readonly ContactSet[], k) => {
    const crank = (2 * Math.PI * k) / Z / STEPS;
    const c = carry(sets, contact, moment);
    carrying += c.carrying / STEPS;
    stiffness += c.stiffness / STEPS;
    windUp += c.turn / STEPS;
    sets.forEach((s, d) => {
      let [fx, fy, share] = [0, 0, 0];
      for (let j = 0; j < Z; j++) {
        const f = c.forces[d * Z + j]!;
        if (f === 0) continue;
        fx += f * s.nx[j]!;
        fy += f * s.ny[j]!;
        share += f * s.arms[j]!;
        pinForce = Math.max(pinForce, f);
        pressure = Math.max(
          pressure,
          Math.sqrt(Math.max(0, ((f / p.width) * modulus * (2 / p.pin + s.curves[j]!)) / Math.PI)),
        );
        pinSlide += (f * s.slides[j]!) / moment / STEPS;
      }
      const at = crank + phaseOf(p, d);
      const out = outShare(p, at);
      outForce = Math.max(outForce, out.most * share);
      outSlide += (out.sum * share * p.throw * n) / moment / STEPS;
      const b = Math.hypot(fx - out.sum * share * Math.cos(at), fy - out.sum * share * Math.sin(at));
      bearing = Math.max(bearing, b);
      cubes += b ** 3 / (STEPS * p.discs);
      journalSlide += (b * (journal / 2) * n) / moment / STEPS;
    });
  });
  return {
    pinForce,
    pressure,
    outForce,
    bearing,
    bearingMean: Math.cbrt(cubes),
    carrying,
    stiffness,
    pinSlide,
    outSlide,
    journalSlide,
    windUp,
  };
}

/** A cycloidal stage before any duty. */
export interface CycloidalBuild {
  readonly geometry: CycloidalGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /** Across a hole of the output pins, m. */
  readonly hole: number;
  /** Thinnest places of a disc: between holes, to the bearing's seat, to the hollows, m. */
  readonly webs: { readonly hole: number; readonly bearing: number; readonly rim: number };
}

/** Builds a stage; refuses in words what does not go together. */
export function buildCycloidal(p: CycloidalParams, shelf: Shelf): Result<CycloidalBuild> {
  const made = cycloidalGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const materials = needMaterials(p, ['materialD', 'materialP', 'materialH'], shelf);
  if (!materials.ok) return materials;
  const found = needBearing(p.bearing, shelf, 'Each disc turns on one, on its eccentric.');
  if (!found.ok) return found;
  const bearing = found.value;
  const hole = p.outPin + 2 * p.throw + p.outGap;
  const small = g.profile.circle - g.profile.pin - p.throw;
  const neighbours = p.outCircle * Math.sin(Math.PI / p.outPins) - hole;
  const webs = {
    hole: neighbours,
    bearing: (p.outCircle - hole - bearing.outside) / 2,
    rim: small - (p.outCircle + hole) / 2,
  };
  return ok({ geometry: g, materials: materials.value, bearing, hole, webs });
}

/** What does not go together, in words; it can still be drawn. */
export function wrongCycloidal(p: CycloidalParams, b: CycloidalBuild): Result<never> | undefined {
  const { geometry: g, bearing, hole, webs } = b;
  const small = g.profile.circle - g.profile.pin - p.throw;
  if (webs.bearing <= 0)
    return refuse(
      'The output holes break into the bearing’s seat.',
      `Holes of ${stated(hole, 'length', 4)} on ⌀ ${stated(p.outCircle, 'length', 4)} reach in to ⌀ ` +
        `${stated(p.outCircle - hole, 'length', 4)}, the bearing out to ` +
        `${stated(bearing.outside, 'length', 4)}.`,
      'Take a larger circle of output pins, thinner pins or a smaller bearing.',
      'outCircle',
    );
  if (webs.rim <= 0)
    return refuse(
      'The output holes break through the lobes.',
      `They reach out to ⌀ ${stated(p.outCircle + hole, 'length', 4)}, the hollows in to ${stated(2 * small, 'length', 4)}.`,
      'Take a smaller circle of output pins, or thinner pins.',
      'outCircle',
    );
  if (webs.hole <= 0)
    return refuse(
      'Neighbouring output holes run into one another.',
      `${p.outPins} holes of ${stated(hole, 'length', 4)} do not fit on ⌀ ${stated(p.outCircle, 'length', 4)}.`,
      'Take fewer or thinner output pins.',
      'outPins',
    );
  if (p.shaft / 2 + p.throw >= bearing.bore / 2 - 3e-4)
    return refuse(
      'The motor’s shaft breaks through the eccentric.',
      `The eccentric of ⌀ ${stated(bearing.bore, 'length', 4)} stands ${stated(p.throw, 'length', 4)} beside the shaft’s middle.`,
      'Take a larger bearing, a thinner shaft or less eccentricity.',
      'shaft',
    );
  return undefined;
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
  const { geometry: g, bearing, hole, webs } = built;
  const [md, mp, mh] = built.materials;
  const Z = p.pins;
  const modulus = reducedModulus(md.material.modulus, md.poisson, mp.material.modulus, mp.poisson);
  // Along a line the approach is all but linear: π/4·E*·L; the pin gives way in its seat behind it.
  const contact =
    1 /
    (1 / ((Math.PI / 4) * modulus * p.width) +
      1 / (factor(shelf, 'lobe.seat') * p.width * Math.min(1, mh.material.modulus / 3e9)));
  // With the disc held, the ring turns less than the disc would, and carries as much more.
  const held = heldShare(p);
  const n = branchPins(p);
  const least = 1e-3;
  const moment = Math.max(least, at.torque * held);
  const spreadAt = (name: string, on: number) =>
    kept.step(name, [contact, on], shelf, () => spreadOf(p, g, contact, modulus, on, bearing.bore));
  const pushes = spreadAt('load', moment);
  const load: CycloidalLoad = {
    ...pushes,
    lossPins: factor(shelf, p.pinsRun === 'fixed' ? 'lobe.slide' : 'lobe.roll') * pushes.pinSlide,
    lossOut: factor(shelf, p.outRun === 'fixed' ? 'lobe.slide' : 'lobe.roll') * pushes.outSlide,
    lossBearing: factor(shelf, 'pin.roll') * pushes.journalSlide,
  };
  const loss = load.lossPins + load.lossOut + load.lossBearing;
  const forward = 1 / (1 + loss);
  const backward = 1 - loss;

  const profileSpread = factor(shelf, 'lobe.profile');
  const place = factor(shelf, 'lobe.place');
  const rough = 2 / ((n - 1) * p.throw);
  const mean = g.plays.reduce((s, [a, b]) => s + (b - a), 0) / g.plays.length;
  // Pins off their places: the nearest of those that touch first decides, about one spread nearer on either side.
  const playDisc = Math.max(0, mean - rough * place + factor(shelf, 'lobe.crank') * rough);
  const slack = g.plays.reduce((s, [a, b]) => Math.min(s, b - a), Infinity) - rough * (profileSpread + place);
  const lever = Math.min(
    ...Array.from({ length: STEPS }, (_, k) => outShare(p, (2 * Math.PI * k) / p.outPins / STEPS).lever),
  );
  const playOut = p.outGap / Math.max(1e-6, lever);
  const play = (disc: number) => (Math.max(0, disc) + playOut) * held;
  const spread = rough * Math.hypot(profileSpread, place);
  const playBand: [number, number, number] = [
    play(playDisc),
    play(mean - spread - rough * place),
    play(mean + spread + rough * factor(shelf, 'lobe.crank')),
  ];
  // First to touch changes as the crank goes round: the middle between both ends wanders.
  const middles = g.plays.map(([a, b]) => (a + b) / 2);
  const ripple = (Math.max(...middles) - Math.min(...middles) + rough * place) * held;

  const outLength = p.discs * p.width + 1e-3;
  const outSection = (Math.PI * p.outPin ** 4) / 64;
  const outK =
    p.carriedBy === 'both' ? (192 * 206e9 * outSection) / outLength ** 3 : (3 * 206e9 * outSection) / outLength ** 3;
  const outBendPer =
    (32 * (p.carriedBy === 'both' ? (p.discs * outLength) / 8 : (p.discs * outLength) / 2)) / (Math.PI * p.outPin ** 3);
  const outStiff = (p.outPins / 4) * outK * (p.outCircle / 2) ** 2;
  const stiffness = 1 / (1 / Math.max(1, load.stiffness) + 1 / outStiff) / (held * held);

  const solid = factor(shelf, 'gear.solid');
  const discMass =
    (Math.PI * g.profile.circle ** 2 - (Math.PI * bearing.outside ** 2) / 4 - (p.outPins * Math.PI * hole ** 2) / 4) *
      p.width *
      md.material.density +
    bearing.mass;
  const inside = p.circle / 2 - p.pin / 2;
  const housingMass =
    Math.PI * ((g.outside / 2) ** 2 - inside ** 2) * (p.discs * p.width + 2e-3) * mh.material.density * solid;
  const plateMass =
    Math.PI *
      (p.outCircle / 2 + p.outPin) ** 2 *
      (p.carriedBy === 'both' ? 2 : 1) *
      Math.max(3e-3, p.outPin) *
      mh.material.density +
    p.outPins * (Math.PI / 4) * p.outPin ** 2 * outLength * 7850;
  const pinMass = p.pins * (Math.PI / 4) * p.pin ** 2 * (p.discs * p.width + 2e-3) * 7850;
  const omega = at.speed * Math.abs(cycloidalRatio(p));
  const force = discMass * p.throw * omega ** 2;
  const shaking = p.discs === 1 ? force : 0;
  const couple = p.discs === 2 ? force * p.width : p.discs === 3 ? force * p.width * Math.sqrt(3) : 0;

  // Limits at the moment that reaches them: forces grow with it, pressure with its root, as more pins come in.
  const permissible = Math.min(
    flankLimit(md, factor(shelf, 'ambient'), shelf),
    flankLimit(mp, factor(shelf, 'ambient'), shelf),
  );
  const strong = moment >= 1 ? load : spreadAt('unit', 1);
  const base = Math.max(moment, 1) / held;
  const shear = (4 / 3) * (strong.outForce / ((Math.PI / 4) * p.outPin ** 2));
  const bend = strong.outForce * outBendPer;
  const webStress = strong.pinForce / (p.width * Math.max(1e-5, Math.min(webs.bearing, webs.rim, webs.hole)));
  const modes: Mode[] = [
    {
      id: 'flank',
      mode: 'lobes wear at the pins',
      torque: base * (permissible / strong.pressure) ** 2,
      ever: true,
      why: 'Hertzian pressure of the worst pin’s line contact for ever at the RMS torque.',
      grows: 'width',
    },
    {
      id: 'out',
      mode: 'output pins bend',
      torque: base * (PIN_YIELD / Math.hypot(bend, Math.sqrt(3) * shear)),
      ever: false,
      why: `The worst output pin carries about 4T/(n·R); ${p.carriedBy === 'both' ? 'held in a plate on either side' : 'standing out of one plate'}.`,
      grows: 'none',
    },
    {
      id: 'dent',
      mode: 'eccentric bearing dents',
      torque: base * (bearing.static / strong.bearing),
      ever: false,
      why: 'Static rating C0 of the eccentric bearing against the sum of all pins.',
      grows: 'none',
    },
    {
      id: 'web',
      mode: 'webs of the disc tear',
      torque: base * (rootLimits(md, factor(shelf, 'ambient'), shelf).peak / webStress),
      ever: false,
      why: 'The worst pin’s push through the thinnest web.',
      grows: 'width',
    },
  ];
  const meanSpeed = at.meanSpeed ?? 0;
  const exponent = isNeedle(bearing) ? 10 / 3 : 3;
  const wear = at.equivalent && meanSpeed > 0 ? (load.bearingMean * at.equivalent * held) / moment : 0;
  const life = wear > 0 ? ((bearing.dynamic / wear) ** exponent * 1e6 * 2 * Math.PI) / (meanSpeed * n) : Infinity;
  const work = (m: ToothMaterial, n: number) => (m.material.made === 'printed' ? 0 : n * factor(shelf, 'price.milled'));
  const plastic = md.plastic || mp.plastic;
  const numbers: StageNumbers = {
    ratio: cycloidalRatio(p),
    etaForward: forward,
    etaBackward: backward,
    drag: factor(shelf, 'gear.churn'),
    play: playBand,
    stiffness,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: p.discs * discMass * (p.throw ** 2 + g.profile.circle ** 2 / 2 / cycloidalRatio(p) ** 2),
    inertiaOut:
      p.held === 'ring' ? (plateMass * (p.outCircle / 2) ** 2) / 2 : housingMass * (p.circle / 2 + p.rim / 2) ** 2,
    limits: modeLimits(modes, at.torque, at.torqueRms),
    mass: p.discs * discMass + housingMass + plateMass + pinMass,
    money:
      p.discs * ((discMass - bearing.mass) * md.material.price + work(md, lobesOf(p)) + bearing.price) +
      housingMass * mh.material.price +
      work(mh, Z) +
      plateMass * mh.material.price +
      (p.pins + p.outPins) * 0.2,
    outside: g.outside,
    length: p.discs * p.width + 2e-3 + (p.carriedBy === 'both' ? 2 : 1) * Math.max(3e-3, p.outPin),
    maxSpeed: (plastic ? 4 : 12) / (p.pinsRun === 'fixed' ? 1 : 0.6) / p.throw / n,
    bore: p.shaft,
    beside: false,
    life,
  };
  return {
    geometry: g,
    materials: [md, mp, mh],
    bearing,
    load,
    contact,
    forward,
    backward,
    playDisc: playDisc * held,
    playOut: playOut * held,
    bind: slack * held,
    ripple,
    error: () =>
      kept.step('error', [profileSpread, place], shelf, () =>
        sampledError(
          kept.step('stops', [], shelf, () => stopContacts(g.pair, p.difference)),
          place,
          profileSpread,
        ),
      ),
    webs,
    outBend: load.outForce * outBendPer,
    shaking,
    couple,
    modes,
    masses: [discMass, housingMass, plateMass],
    numbers,
  };
}
