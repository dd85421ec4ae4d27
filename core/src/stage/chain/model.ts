import {
  blankMass,
  boreReach,
  crept,
  cutPartPrice,
  elastic,
  lastingTorque,
  lifeAsked,
  passesIn,
  PLAIN_HUB,
  rootCycles,
  rootStrength,
  rootStress,
  strengthOf,
  type ToothMaterial,
} from '../../gear/index.ts';
import type { Sides, Tensioning } from '../../loop/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { CHAINS, findChain, type ChainSize } from '../../shop/chains.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import { boreLimits, bothBores, type Bored } from '../bore-holds.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import { Kept } from '../kept.ts';
import { limitOf, type Limit } from '../limits.ts';
import { shaftDrag } from '../loop-drag.ts';
import { pulled } from '../push.ts';
import { needMaterials } from '../needs.ts';
import { hubSprings } from '../hub-springs.ts';
import { spring, together } from '../springs.ts';
import { chained, idlerWays, layoutChain, type ChainLayout, type PlacedAside } from './layout.ts';
import { asidesOf, IDLER_BORE, type ChainParams } from './params.ts';
import { firstToothShare, toothBending, toothGap, type ToothGap } from './sprocket.ts';

/** A chain stage before any duty. */
export interface ChainBuild {
  readonly chain: ChainSize;
  readonly layout: ChainLayout;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  readonly gaps: readonly [ToothGap, ToothGap];
  /** Width of the teeth, m. */
  readonly width: number;
  /** Bending of a tooth on either sprocket, 1/m (`toothBending`). */
  readonly bending: readonly [number, number];
  /** What is left between roots and bore, m. */
  readonly walls: readonly [number, number];
}

/** Everything computed about a chain stage. */
export interface ChainModel extends ChainBuild {
  /** Chain force that turns the driven sprocket, and of the tight run, N. */
  readonly force: number;
  readonly tight: number;
  readonly shafts: readonly [number, number];
  /** Pressure in the joints, Pa. */
  readonly pressure: number;
  readonly ripple: number;
  readonly chainSpeed: number;
  /** Elongation at which it is worn out, and the turns of the loop until then. */
  readonly wornOut: number;
  readonly slackLength: number;
  /** Shift of the centres that takes up an elongation to the end of its life, m. */
  readonly takeUp: number;
  /** How far the idler is moved to do so, and to let the chain go. */
  readonly idler: () => Tensioning | undefined;
  readonly efficiency: number;
  readonly limits: readonly Limit[];
  /** Sprockets that their bores turn. */
  readonly bores: readonly Bored[];
  readonly masses: readonly [number, number, number, number];
  readonly prices: readonly [number, number, number, number];
  readonly numbers: StageNumbers;
}

/** Builds a stage; refuses in words what does not go together. */
export function buildChain(p: ChainParams, shelf: Shelf): Result<ChainBuild> {
  const chain = findChain(p.size);
  if (!chain)
    return refuse(
      `There is no chain “${p.size}”.`,
      'Its pitch and rollers are not known.',
      `Choose one of ${CHAINS.map((c) => c.id).join(', ')}.`,
      'size',
    );
  const found = needMaterials(p, ['material1', 'material2'], shelf);
  if (!found.ok) return found;
  const layout = layoutChain(p, chain);
  if (!layout.ok) return layout;
  const gaps = [toothGap(chain, p.z1, p.form), toothGap(chain, p.z2, p.form)] as const;
  const reach = (bore: number, shape: ChainParams['shape1']) => boreReach({ ...PLAIN_HUB, bore, shape });
  return ok({
    chain,
    layout: layout.value,
    materials: found.value,
    gaps,
    width: toothWidth(chain),
    bending: [toothBending(gaps[0], p.z1), toothBending(gaps[1], p.z2)],
    walls: [gaps[0].root - reach(p.bore1, p.shape1), gaps[1].root - reach(p.bore2, p.shape2)],
  });
}

/** Width of a simplex sprocket's teeth over the chain's inner width. Source: ISO 606, b_f1 = 0.93·b₁ up to 12.7 mm of pitch. */
export const toothWidth = (chain: Pick<ChainSize, 'inner'>): number => 0.93 * chain.inner;

/** What does not go together, in words; it can still be drawn. */
export function wrongChain(p: ChainParams, b: ChainBuild): Result<never> | undefined {
  for (const [i, place, name] of [
    [0, 'bore1', 'driving'],
    [1, 'bore2', 'driven'],
  ] as const)
    if (b.walls[i] <= 5e-4)
      return refuse(
        `The bore cuts into the teeth of the ${name} sprocket.`,
        `Its roots reach down to ⌀ ${stated(2 * b.gaps[i].root, 'length', 4)}, and half a millimetre of wall is the least.`,
        'Take a smaller bore or more teeth.',
        place,
      );
  for (const a of b.layout.asides) {
    const { root } = toothGap(b.chain, a.teeth, p.form);
    if (asideBore(p, a) / 2 > root - 5e-4 + 1e-9)
      return refuse(
        `The pin of the ${a.name} cuts into its teeth.`,
        `Its roots reach down to ⌀ ${stated(2 * root, 'length', 4)}, and half a millimetre of wall is the least.`,
        'Take a thinner pin or more teeth.',
        a.driven ? `${a.id}Teeth` : 'idlerBore',
      );
  }
  return undefined;
}

/** Elongation at which a chain is worn out: 3 %, or less where it would climb a large sprocket. Source: 200/z %, usual practice. */
export const elongationAtEnd = (z1: number, z2: number): number => Math.min(0.03, 2 / Math.max(z1, z2));

/** What the stage's formulas work on. */
interface Setting {
  readonly p: ChainParams;
  readonly b: ChainBuild;
  readonly at: Duty;
  readonly shelf: Shelf;
}

/** How much more the tight run carries than what turns the driven sprocket. */
const withBranch = (p: ChainParams): number => asidesOf(p).reduce((s, a) => s + a.load, 1);

/**
 * How often a joint turns by a radian over 2π in a round of the chain, each time by the pull it turns under over that of the
 * driven sprocket: where it leaves the driven one, on and off every branch, and where it comes on the driver. The slack run
 * pulls nothing.
 *
 * @param branches from the driven sprocket to the driver
 * @example jointTurns([11, 22], []).toFixed(6) // '0.136364'
 * @example jointTurns([11, 22], [{ teeth: 10, load: 0.5 }]).toFixed(6) // '0.431818'
 */
export function jointTurns(
  [driving, driven]: readonly [number, number],
  branches: readonly { readonly teeth: number; readonly load: number }[],
): number {
  let pull = 1;
  let sum = 1 / driven;
  for (const { teeth, load } of branches) {
    sum += (2 * pull + load) / teeth;
    pull += load;
  }
  return sum + pull / driving;
}

/** An offset link bears less. Source: ISO 606, cranked links four fifths. */
const OFFSET = 0.8;

/**
 * Share of the work that the joints' friction takes: 2π·µ·(d_p/2)·turns/p.
 *
 * @param pin its diameter, m
 * @param turns of a joint, under the pull at the driver (`jointTurns`)
 * @example jointLoss(0.12, 0.00231, 0.00635, 1 / 11 + 1 / 22).toFixed(6) // '0.018701'
 */
export const jointLoss = (friction: number, pin: number, pitch: number, turns: number): number =>
  ((Math.PI * friction * pin) / pitch) * turns;

const turnsOf = ({ p, b }: Pick<Setting, 'p' | 'b'>): number =>
  jointTurns(
    [p.z1, p.z2],
    b.layout.asides.filter((a) => a.driven),
  );

/** Length by which the chain is longer than its path, m: sag of the slack run, wear that nobody takes up, room in the seats. */
function slackLength(p: ChainParams, { chain, layout }: ChainBuild, sag: number, worn: number): number {
  const hang = (8 / 3) * sag ** 2 * layout.slack;
  const wear = p.takeUp === 'never' ? worn * layout.links * chain.pitch : 0;
  // A roller beds on the other side of its seat when the pull turns round.
  return hang + wear + 0.02 * chain.roller;
}

/** Teeth that share a sprocket's pull as springs: the first two have most of it. */
const SHARING = 2;

/** Springs about the driven sprocket, N·m/rad. */
function springsOf({ p, b, shelf }: Setting) {
  const { chain, layout: L, materials, width } = b;
  const ambient = factor(shelf, 'ambient');
  const tooth = (i: 0 | 1) => {
    // A single tooth gives half as much as a pair in mesh does, in proportion to its modulus.
    const share = elastic(materials[i], ambient, shelf) / STEEL;
    return 2 * factor(shelf, 'gear.stiffness') * share * width * SHARING * L.r2 ** 2;
  };
  const run = (L.r2 ** 2 * factor(shelf, 'chain.stiffness') * chain.breaks) / L.tight;
  return [
    spring('tight run of the chain', run),
    spring('teeth of the driving sprocket', tooth(0), crept(materials[0])),
    spring('teeth of the driven sprocket', tooth(1), crept(materials[1])),
    ...hubSprings(p, ['driving sprocket', 'driven sprocket'], [width, width], materials, p.z2 / p.z1, shelf),
  ];
}

/** Young’s modulus of steel, Pa: what the shop’s stiffness of a mesh is told for. */
const STEEL = 206e9;

/** How a tooth of one sprocket breaks, and tires, as torque at the output. */
function toothLimits({ p, b, at, shelf }: Setting, i: 0 | 1): Limit[] {
  const { layout: L } = b;
  const material = b.materials[i];
  const z = i === 0 ? p.z1 : p.z2;
  const name = i === 0 ? 'driving' : 'driven';
  const thick = b.gaps[i].seat;
  const strength = rootStrength(material, factor(shelf, 'ambient'), false, shelf, thick);
  // Stress of its first tooth for a newton metre at the output, Pa.
  const pulled = i === 0 ? withBranch(p) : 1;
  const stress = (firstToothShare(z) * b.bending[i] * pulled) / (b.width * L.r2);
  const passes = passesIn(at, i === 0 ? p.z2 / p.z1 : 1, 1);
  const torque = lastingTorque(at);
  const lasts = passes > 0 ? (lifeAsked(at) * rootCycles(material, strength, stress * torque)) / passes : Infinity;
  // A roller lies in a seat hardly wider than itself: what it presses on is its diameter across the teeth.
  const seat = strengthOf(material, 'along', shelf) * b.chain.roller * b.width;
  return [
    limitOf(
      `crush-${i}`,
      `seats of the ${name} sprocket are crushed`,
      'static',
      (seat * L.r2) / (firstToothShare(z) * pulled),
      'The roller of the first tooth presses its seat with most of the pull.',
      'σ·d₁·b·r₂/share',
    ),
    limitOf(
      `break-${i}`,
      `tooth of the ${name} sprocket breaks`,
      'static',
      strength.peak / stress,
      'The first tooth in mesh takes most of the pull, and is bent by its roller.',
      'σ·b·r₂/(share·6h/t²)',
    ),
    limitOf(
      `tire-${i}`,
      `tooth of the ${name} sprocket tires`,
      'life',
      passes > 0 ? rootStress(material, strength, passes) / stress : strength.lasting / stress,
      'The same bending at the equivalent torque, once a turn.',
      'load cycles that it stands over how often they come',
      lasts,
    ),
  ];
}

/** All that limits the stage, as torque at the output, N·m. */
function limitsOf(s: Setting): Limit[] {
  const { p, b, at, shelf } = s;
  const { chain, layout: L } = b;
  const odd = L.links % 2 === 1 ? OFFSET : 1;
  const perForce = L.r2 / withBranch(p);
  // Wear of a joint for a newton metre and a turn of the loop, m of its pitch.
  const turned = 2 * Math.PI * turnsOf(s);
  const once = (factor(shelf, 'chain.wear') * 1e-15 * (chain.pin / 2) * turned) / (chain.area * L.r2);
  const way = ((at.meanSpeed ?? at.speed) * L.r2) / (L.links * chain.pitch);
  const room = elongationAtEnd(p.z1, p.z2) * chain.pitch;
  const torque = lastingTorque(at);
  return [
    limitOf(
      'yield',
      'chain stretches for good',
      'static',
      factor(shelf, 'chain.yields') * chain.breaks * odd * perForce,
      'Beyond its share of the least breaking load the plates’ holes draw long.',
      'share·F_B·r₂',
    ),
    limitOf(
      'plates',
      'plates of the chain tire',
      'continuous',
      factor(shelf, 'chain.fatigue') * chain.breaks * odd * perForce,
      'Each turn of the loop pulls every plate once (dynamic strength, ISO 606).',
      'share·F_B·r₂',
    ),
    limitOf(
      'wear',
      'chain is worn out',
      'life',
      way > 0 ? room / (once * way * lifeAsked(at)) : Infinity,
      'Pins and bushes wear at each turn of a joint under pull (linear wear); elongated by ' +
        `${(100 * elongationAtEnd(p.z1, p.z2)).toFixed(1)} % it climbs its teeth.`,
      withBranch(p) > 1
        ? 'ε·p·A·X·p/(k·(d_p/2)·2π·Σ((F_on + F_off)/z)·v)'
        : 'ε·p·A·X·p/(k·F·(d_p/2)·2π(1/z₁ + 1/z₂)·v)',
      way > 0 && torque > 0 ? room / (once * torque * way) : Infinity,
    ),
    ...toothLimits(s, 0),
    ...toothLimits(s, 1),
  ];
}

/** Masses, kg, and prices of both sprockets, the chain, and its other sprockets together. */
function weighed({ p, b, shelf }: Setting) {
  const { chain, layout: L, materials, width, gaps } = b;
  const blank = (i: 0 | 1, teeth: number, r: number, bore: number) => {
    const mass = blankMass(r, bore / 2, width, materials[i], shelf);
    return { mass, money: cutPartPrice(materials[i], mass, teeth, shelf) };
  };
  const one = blank(0, p.z1, gaps[0].pitchRadius, p.bore1);
  const two = blank(1, p.z2, gaps[1].pitchRadius, p.bore2);
  const long = L.links * chain.pitch;
  const more = L.asides.map((a) => blank(0, a.teeth, L.path.wheels[a.at]!.r, asideBore(p, a)));
  const pair = factor(shelf, 'price.bearing');
  return {
    masses: [one.mass, two.mass, chain.mass * long, more.reduce((s, x) => s + x.mass, 0)] as const,
    prices: [
      one.money,
      two.money,
      (factor(shelf, 'price.chain') * long * chain.pitch) / 0.01,
      more.reduce((s, x) => s + x.money + pair, 0),
    ] as const,
  };
}

/** Bore of a sprocket that is neither driver nor driven, m. */
export const asideBore = (p: Pick<ChainParams, 'idlerBore'>, a: PlacedAside): number =>
  a.driven ? IDLER_BORE : (p.idlerBore ?? IDLER_BORE);

/** Most that a chain pulls on the pin of an idler, N: its tight run lies there while power comes back. */
const pullOnIdlers = ({ asides, path }: ChainLayout, tight: number): number =>
  asides.reduce((most, a) => (a.driven ? most : Math.max(most, 2 * tight * Math.sin(path.wraps[a.at]! / 2))), 0);

/** Way of the centres that takes up what a chain has grown longer by at the end of its life, m. */
export const takeUpOf = (p: ChainParams, { layout, chain }: Pick<ChainBuild, 'layout' | 'chain'>): number =>
  (elongationAtEnd(p.z1, p.z2) * layout.links * chain.pitch) / chained(layout);

/** How far a chain's idler is moved to take up what it grows longer by, and to let it go. */
export const idlerOf = (p: ChainParams, b: Pick<ChainBuild, 'layout' | 'chain'>): Tensioning | undefined =>
  idlerWays(p, b.chain.pitch, b.layout, takeUpOf(p, b) * chained(b.layout));

/** What the runs pull the shafts of the driver and of the driven sprocket with, N. */
function shaftLoads({ layout: L }: ChainBuild, { tight, slack }: Sides, driven: number): [number, number] {
  const { runs } = L.path;
  const along = (i: number) => [Math.cos(runs[i]!.heading), Math.sin(runs[i]!.heading)] as const;
  const sum = (leaves: number, arrives: number, a: number, z: number) => {
    const [u, w] = [along(leaves), along(arrives)];
    const [x, y] = [a * u[0] - z * w[0], a * u[1] - z * w[1]];
    return Math.sqrt(x * x + y * y);
  };
  return [sum(0, runs.length - 1, slack, tight), sum(L.driven, L.driven - 1, driven, slack)];
}

/**
 * Computes a chain stage at a duty on its driven sprocket.
 *
 * Source: ISO 606 for sizes and tooth forms, plane geometry of the open chain for its path, its joints as bearings that
 * turn a little under load for friction and wear.
 */
export function modelChain(p: ChainParams, b: ChainBuild, at: Duty, shelf: Shelf, kept = new Kept()): ChainModel {
  const s: Setting = { p, b, at, shelf };
  const { chain, layout: L, gaps } = b;
  const force = at.torque / L.r2;
  // A slack run carries its own weight alone: m·g·L²/(8·sag).
  const hang = (chain.mass * factor(shelf, 'gravity') * L.slack) / (8 * p.sag);
  const tight = force * withBranch(p) + hang;
  const lastingForce = lastingTorque(at) / L.r2;
  const lasting = shaftLoads(b, { tight: lastingForce * withBranch(p) + hang, slack: hang }, lastingForce + hang);
  const shafts = shaftLoads(b, { tight, slack: hang }, force + hang);
  const eta = 1 - jointLoss(factor(shelf, 'chain.friction'), chain.pin, chain.pitch, turnsOf(s) / withBranch(p));
  const springs = springsOf(s);
  const stiffness = together(springs);
  const bores = bothBores(
    p,
    ['driving sprocket', 'driven sprocket'],
    [b.width, b.width],
    b.materials,
    b.walls,
    (p.z2 / p.z1) * (eta / withBranch(p)),
    [],
  );
  const limits = [...limitsOf(s), ...boreLimits(bores, shelf)];
  const { masses, prices } = weighed(s);
  const ratio = p.z2 / p.z1;
  const worn = p.takeUp === 'never' ? p.worn : 0;
  const play = (sag: number, share: number) => slackLength(p, b, sag, share * worn) / L.r2;
  const wide = L.path.wheels.reduce((w, x) => [Math.min(w[0]!, x.x - x.r), Math.max(w[1]!, x.x + x.r)], [0, 0]);
  const numbers: StageNumbers = {
    ratio,
    etaForward: eta,
    etaBackward: eta,
    ...(withBranch(p) > 1 && { branched: withBranch(p) - 1 }),
    pull: lasting[0],
    pullPeak: shafts[0],
    pushes: pulled(shafts[1], lasting[1]),
    ...(p.idler !== 'none' && { idlerPull: pullOnIdlers(L, tight) }),
    drag: shaftDrag(shafts, [p.bore1, p.bore2], ratio, shelf),
    // Sag is set by eye: between half of it and half as much again, on a chain new or worn.
    play: [play(p.sag, 1), play(0.5 * p.sag, 0), play(1.5 * p.sag, 1.2)],
    stiffness,
    springs,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: (masses[0] * gaps[0].pitchRadius ** 2) / 2 + masses[2] * L.r1 ** 2,
    inertiaOut: (masses[1] * gaps[1].pitchRadius ** 2) / 2,
    limits: limits.map((l) => ({ mode: l.mode, time: l.time, torque: l.torque, life: l.life })),
    mass: masses[0] + masses[1] + masses[2] + masses[3],
    money: prices[0] + prices[1] + prices[2] + prices[3],
    outside: wide[1]! - wide[0]! + chain.plate,
    before: { beside: wide[1]! - L.path.wheels[0]!.x + chain.plate / 2 },
    length: chain.across,
    maxSpeed: factor(shelf, 'chain.speed') / L.r1,
    bore: p.bore2,
    beside: true,
    life: limits.reduce((least, l) => Math.min(least, l.life), Infinity),
  };
  return {
    ...b,
    force,
    tight,
    shafts,
    pressure: tight / chain.area,
    ripple: 1 - Math.cos(Math.PI / p.z1),
    chainSpeed: at.speed * L.r2,
    wornOut: elongationAtEnd(p.z1, p.z2),
    slackLength: slackLength(p, b, p.sag, worn),
    takeUp: takeUpOf(p, b),
    idler: () => kept.step('idler', [], shelf, () => idlerOf(p, b)),
    efficiency: eta,
    limits,
    bores,
    masses,
    prices,
    numbers,
  };
}
