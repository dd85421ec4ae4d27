import { reducedModulus } from '../../contact/index.ts';
import { flankLimit, modeLimits, toothMaterial, type Mode, type ToothMaterial } from '../../gear/index.ts';
import type { Bearing } from '../../joint/joint.ts';
import { platePathRadius } from '../../lobed/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import { keepLast } from '../last.ts';
import { ringPlateGeometry, type PlateContacts, type RingPlateGeometry } from './geometry.ts';
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
  readonly pinForce: number;
  readonly pressure: number;
  readonly lossPins: number;
  readonly lossBearings: number;
  readonly forward: number;
  readonly backward: number;
  readonly bind: number;
  readonly shaking: number;
  readonly modes: readonly Mode[];
  readonly masses: readonly [number, number];
  readonly numbers: StageNumbers;
}

/** Factors a stage reads. */
export const ringPlateFactors = (p: RingPlateParams): readonly string[] => [
  p.pinsRun === 'fixed' ? 'lobe.slide' : 'lobe.roll',
  'lobe.profile',
  'lobe.place',
  'lobe.crank',
  'lobe.seat',
  'pin.roll',
  'gear.housing',
  'gear.hot',
  'gear.plasticFlank',
  'gear.metalFlank',
  'ambient',
  'gear.churn',
  'gear.solid',
  'price.milled',
];

/**
 * Pushes of the pins on a plate that a force of its cranks presses on them: all contacts alike, so that the plate gives
 * way to where its pins balance the force.
 *
 * Source: least energy of one-sided springs under a push, by Newton's steps in the plane; every contact normal passes
 * through the pitch point, so the moment follows.
 */
export function pressed(s: PlateContacts, stiffness: number, fx: number, fy: number): Float64Array {
  const n = s.nx.length;
  const forces = new Float64Array(n);
  const size = Math.hypot(fx, fy);
  if (size === 0) return forces;
  let [dx, dy] = [fx / (stiffness * n * 0.25), fy / (stiffness * n * 0.25)];
  for (let k = 0; k < 60; k++) {
    // A pin's push on the plate runs along its normal, and grows as the plate moves against it.
    let [gx, gy, a, b, c] = [fx, fy, 0, 0, 0];
    for (let j = 0; j < n; j++) {
      const bite = -(dx * s.nx[j]! + dy * s.ny[j]!);
      const f = stiffness * Math.max(0, bite);
      forces[j] = f;
      gx += f * s.nx[j]!;
      gy += f * s.ny[j]!;
      if (bite > 0) {
        a += stiffness * s.nx[j]! ** 2;
        b += stiffness * s.nx[j]! * s.ny[j]!;
        c += stiffness * s.ny[j]! ** 2;
      }
    }
    if (Math.hypot(gx, gy) < 1e-10 * size) break;
    const det = a * c - b * b;
    if (!(det > 1e-9 * stiffness * stiffness)) {
      dx *= 1.5;
      dy *= 1.5;
      continue;
    }
    dx += (c * gx - b * gy) / det;
    dy += (a * gy - b * gx) / det;
  }
  return forces;
}

/** Computes a ring-plate stage at a duty on its wheel. */
export function modelRingPlate(p: RingPlateParams, at: Duty, shelf: Shelf): Result<RingPlateModel> {
  const made = ringPlateGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const mats: ToothMaterial[] = [];
  for (const [id, place] of [
    [p.materialP, 'materialP'],
    [p.materialW, 'materialW'],
    [p.materialH, 'materialH'],
  ] as const) {
    const m = toothMaterial(id, shelf, place);
    if (!m.ok) return m;
    mats.push(m.value);
  }
  const [mp, mw, mh] = mats as [ToothMaterial, ToothMaterial, ToothMaterial];
  const bearing = shelf.bearings.find((b) => b.id === p.bearing);
  if (!bearing)
    return refuse(
      `There is no bearing “${p.bearing}” in the shop.`,
      'Each plate turns on one on every eccentric.',
      `Choose one of ${shelf.bearings
        .slice(0, 6)
        .map((b) => b.id)
        .join(', ')} and others.`,
      'bearing',
    );
  const R = p.circle / 2;
  const inner = R + p.throw + p.pin / 2 + p.offset;
  if (p.distance - bearing.outside / 2 <= inner)
    return refuse(
      'A crank’s bearing breaks into the lobes.',
      `The lobes reach out to ${(inner * 1e3).toFixed(2)} mm, the bearing in to ` +
        `${((p.distance - bearing.outside / 2) * 1e3).toFixed(2)} mm from the wheel’s middle.`,
      `Move the crank out to ${((inner + bearing.outside / 2 + 2e-3) * 1e3).toFixed(1)} mm or more, or take a smaller bearing.`,
      'distance',
    );
  if (p.bore / 2 >= R - p.pin / 2 - 5e-4)
    return refuse(
      'The bore leaves no wheel for its pins.',
      `They reach in to ⌀ ${((2 * R - p.pin) * 1e3).toFixed(2)} mm.`,
      'Take a smaller bore.',
      'bore',
    );
  const modulus = reducedModulus(mp.material.modulus, mp.poisson, mw.material.modulus, mw.poisson);
  const contact =
    1 /
    (1 / ((Math.PI / 4) * modulus * p.width) +
      1 / (factor(shelf, 'lobe.seat') * p.width * Math.min(1, mh.material.modulus / 3e9)));
  const mu = factor(shelf, p.pinsRun === 'fixed' ? 'lobe.slide' : 'lobe.roll');
  const roll = factor(shelf, 'pin.roll');
  const torque = Math.max(1e-3, at.torque);
  let [crankForce, cubes, pinForce, lossPins, lossBearings, energy] = [0, 0, 0, 0, 0, 0];
  // At a dead point no force would do; figures are told where the plates pass a hundredth of their best, and a check
  // tells of the point itself.
  const passing = g.steps.filter((s) => s.torque > 0.01 * g.greatest);
  passing.forEach((s) => {
    const force = torque / s.torque;
    s.plates.forEach((f, k) => {
      const c = s.contacts[k]!;
      const [fx, fy] = [(f.first[0] + f.second[0]) * force, (f.first[1] + f.second[1]) * force];
      const pushes = pressed(c, contact, fx, fy);
      for (let j = 0; j < pushes.length; j++) {
        const push = pushes[j]!;
        if (push === 0) continue;
        pinForce = Math.max(pinForce, push);
        lossPins += (mu * push * c.slides[j]!) / torque / passing.length;
        energy += push ** 2 / contact / passing.length;
      }
      const each = [Math.hypot(...f.first) * force, Math.hypot(...f.second) * force];
      for (const x of each) {
        crankForce = Math.max(crankForce, x);
        cubes += x ** 3 / (passing.length * s.plates.length * (p.layout === 'one' ? 1 : 2));
        lossBearings += (roll * x * (bearing.bore / 2) * p.pins) / torque / passing.length;
        energy += x ** 2 / factor(shelf, 'gear.housing') / passing.length;
      }
    });
  });
  // The sharpest meeting of pin and lobe: the lobe's tip, where the plate bulges inwards.
  const tip = platePathRadius(g.profile, Math.PI / (p.pins + 1));
  const curve = tip < 0 ? 1 / (-tip - g.profile.pin) : -1 / (tip + g.profile.pin);
  const pressure = Math.sqrt(Math.max(0, ((pinForce / p.width) * modulus * (2 / p.pin + curve)) / Math.PI));
  const loss = lossPins + lossBearings;
  const rough = 2 / (p.pins * p.throw);
  const spread = rough * Math.hypot(factor(shelf, 'lobe.profile'), factor(shelf, 'lobe.place'));
  // One plate alone plays by its gap over the longest levers; several leave what the tightest leaves.
  const arms = g.steps.map((s) =>
    Math.min(...s.contacts.map((c) => p.offset / Math.max(...c.arms) + p.offset / -Math.min(...c.arms))),
  );
  const drawn = arms.reduce((a, b) => a + b, 0) / arms.length;
  const likely = Math.max(0, drawn - rough * factor(shelf, 'lobe.place')) + rough * factor(shelf, 'lobe.crank');
  const play: [number, number, number] = [
    likely,
    Math.max(0, drawn - spread - rough * factor(shelf, 'lobe.place')),
    drawn + spread + rough * factor(shelf, 'lobe.crank'),
  ];
  const stiffness = energy > 0 ? torque ** 2 / energy : contact;
  const outer = inner + p.wall;
  const cranks = p.layout === 'one' ? 1 : 2;
  const plateMass =
    (Math.PI * (outer ** 2 - inner ** 2) + cranks * (bearing.outside + 2 * p.wall) * (p.distance - inner * 0.8)) *
      p.width *
      mp.material.density +
    cranks * bearing.mass;
  const wheelMass =
    Math.PI *
    ((R + p.pin / 4) ** 2 - (p.bore / 2) ** 2) *
    (p.plates * p.width + 2e-3) *
    mh.material.density *
    factor(shelf, 'gear.solid');
  const omega = at.speed * p.pins;
  const phases = g.drive.phases;
  const unbalance = Math.hypot(
    phases.reduce((s, x) => s + Math.cos(x), 0),
    phases.reduce((s, x) => s + Math.sin(x), 0),
  );
  const permissible = Math.min(
    flankLimit(mp, factor(shelf, 'ambient'), shelf),
    flankLimit(mw, factor(shelf, 'ambient'), shelf),
  );
  const worst = Math.min(...g.steps.map((s) => s.torque));
  const modes: Mode[] = [
    {
      id: 'flank',
      mode: 'lobes wear at the pins',
      torque: torque * (permissible / Math.max(1, pressure)) ** 2,
      ever: true,
      why: 'Hertzian pressure of the worst pin at a lobe’s tip for ever at the RMS torque.',
      grows: 'width',
    },
    {
      id: 'dead',
      mode: 'crank bearings dent near a dead point',
      torque: Math.max(1e-9, bearing.static * worst),
      ever: false,
      why: 'At the worst crank angle the plates need the most force for a torque; no bearing may carry more than its static rating.',
      grows: 'none',
    },
  ];
  const mean = Math.cbrt(cubes);
  const wear = at.equivalent && at.meanSpeed ? (mean * at.equivalent) / torque : 0;
  const life = wear > 0 ? ((bearing.dynamic / wear) ** 3 * 1e6 * 2 * Math.PI) / (at.meanSpeed! * p.pins) : Infinity;
  const numbers: StageNumbers = {
    ratio: ringPlateRatio(p),
    etaForward: 1 / (1 + loss),
    etaBackward: 1 - loss,
    drag: factor(shelf, 'gear.churn'),
    play,
    stiffness,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: p.plates * plateMass * p.throw ** 2,
    inertiaOut: (wheelMass * R * R) / 2,
    limits: modeLimits(modes, at.torque, at.torqueRms),
    mass: p.plates * plateMass + wheelMass,
    money:
      p.plates * ((plateMass - cranks * bearing.mass) * mp.material.price + cranks * bearing.price) +
      wheelMass * mh.material.price +
      p.pins * 0.2,
    outside: (p.layout === 'one' ? outer + p.distance : 2 * p.distance) + bearing.outside + 2 * p.wall + 2 * p.throw,
    length: p.plates * p.width + 2e-3,
    maxSpeed: (mp.plastic || mw.plastic ? 4 : 12) / p.throw / p.pins,
    bore: p.bore,
    beside: true,
    life,
  };
  return ok({
    geometry: g,
    materials: [mp, mw, mh],
    bearing,
    contact,
    crankForce,
    crankMean: mean,
    pinForce,
    pressure,
    lossPins,
    lossBearings,
    forward: numbers.etaForward,
    backward: numbers.etaBackward,
    bind: drawn - spread - rough * factor(shelf, 'lobe.place'),
    shaking: plateMass * p.throw * omega ** 2 * (unbalance < 1e-9 ? 0 : unbalance),
    modes,
    masses: [plateMass, wheelMass],
    numbers,
  });
}

/** The model as a drawing asks for it, the last answer kept. */
export const forDrawing = keepLast(modelRingPlate);
