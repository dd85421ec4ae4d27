import {
  crept,
  elastic,
  bearingDrag,
  greaseDrag,
  ringStiffness,
  ringWall,
  strengthOf,
  type MaterialSort,
  lastingTorque,
  lifeAsked,
  METAL_ROOT,
  metalCycles,
  metalOver,
  modeLimits,
  plasticCycles,
  plasticShare,
  rootStrength,
  shortestLife,
  wearRate,
  WORN_OUT,
  wornPerTurn,
  type Mode,
  type RootStrength,
  type ToothMaterial,
  cutPartPrice,
} from '../../gear/index.ts';
import { carry, type Carried } from '../../lobed/index.ts';
import { ROLLER_PLATE } from './geometry.ts';
import type { Bearing } from '../../schema/joint.ts';
import { ratedLife } from '../../shop/bearings.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { sumCosts } from '../costs.ts';
import { springsCost } from '../split-wheel.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import type { Kept } from '../kept.ts';
import type { StrainWaveBuild } from './build.ts';
import { freeWay, slidePerTurn, turnUnder } from './contacts.ts';
import type { StrainWaveGeometry } from './geometry.ts';
import {
  hasRollers,
  outRadius,
  passesOf,
  ringTeeth,
  splineShare,
  strainWaveRatio,
  type StrainWaveParams,
} from './params.ts';
import type { RollerGroup } from '../../wave/index.ts';
import { lobePush, pushedBy, pushedStiffness, skipTorque } from './push.ts';
import {
  behindTeeth,
  clearWidth,
  contourPush,
  cupBuckling,
  cupTorsion,
  flexEnergy,
  flexTorque,
  pitchPush,
  twistSection,
  wallBending,
  wallStrain,
} from './wall.ts';
import { inSeries } from '../../math/springs.ts';
import { spring } from '../springs.ts';

/** Everything computed about a strain-wave stage. */
export interface StrainWaveModel {
  readonly geometry: StrainWaveGeometry;
  /** Spline, ring, generator. */
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /** Middles of the rollers, m; none for a contour. */
  readonly rollers: StrainWaveBuild['rollers'];
  /**
   * Radial force of a lobe on the generator at no load, and the least of what presses near a lobe's top (a roller's, or
   * the contour's over one tooth pitch), N.
   */
  readonly preload: number;
  readonly leastPreload: number;
  /** What bending a rolling bearing adds, what errors of making do, and all of what presses at a lobe, N. */
  readonly races: Races;
  readonly pinch: number;
  readonly presses: number;
  /** Load at which play that springs take out is back, and what they cost, N·m at the output; 0 where none press. */
  readonly opens: number;
  readonly braking: number;
  readonly strain: number;
  readonly strainLimit: number;
  readonly stress: number;
  /** Slope of the wall along a cup, rad, and the shear strain it brings. */
  readonly coning: number;
  readonly coningShear: number;
  readonly usable: number;
  readonly drag: number;
  readonly dragFlex: number;
  readonly dragGenerator: number;
  /** Of bearing or rollers without load. */
  readonly dragBearings: number;
  readonly starting: number;
  readonly turnBack: number;
  readonly lossTeeth: number;
  readonly lossGenerator: number;
  readonly forward: number;
  readonly backward: number;
  readonly carried: Carried;
  readonly toothForce: number;
  readonly pressure: number;
  readonly radial: number;
  /** Bending of the ring's wall between the lobes, Pa. */
  readonly rimStress: number;
  readonly rise: number;
  /** Slopes of twist against torque in three stretches, N·m/rad, with the torques between them. */
  readonly slopes: readonly [number, number, number];
  readonly bends: readonly [number, number];
  readonly cupStiffness: number;
  readonly generatorStiffness: number;
  readonly errorOnce: number;
  readonly errorTwice: number;
  readonly alignment: number;
  readonly bore: number;
  /** Radius at which rollers' middles stand, or of the generator's plug at a lobe's top, m. */
  readonly seat: number;
  readonly bind: number;
  /** Of the generator's bearing, or its most pressed roller. */
  readonly under: BearingUnder;
  readonly modes: readonly Mode[];
  readonly masses: readonly [number, number, number];
  readonly costs: ReturnType<typeof costsOf>;
  readonly numbers: StageNumbers;
}

const E_STEEL = 206e9;

const LOSS = { metal: 'wave.lossMetal', plastic: 'wave.lossPlastic', elastic: 'wave.lossElastic' } as const;

/** What the steps of the model share. */
interface Setting {
  readonly p: StrainWaveParams;
  readonly b: StrainWaveBuild;
  readonly at: Duty;
  readonly shelf: Shelf;
  /** Lobes. */
  readonly n: number;
  /** Turns of the generator for one of the output, without its sign, and how often it passes the spline by then. */
  readonly turns: number;
  readonly passes: number;
  /** Radius of the teeth's forces at what goes out, m. */
  readonly R: number;
  readonly kind: MaterialSort;
  /** Moduli of spline and ring as they are, Pa. */
  readonly moduli: readonly [number, number];
  readonly coned: boolean;
  readonly rollers: boolean;
  /** The contour slides in the spline. */
  readonly plain: boolean;
}

/** The most a wall may be strained for ever, over the notch of its teeth: metals by stress, the others by strain. */
function strainLimitOf({ b, shelf, kind, moduli }: Setting): number {
  const [spline] = b.materials;
  const bare =
    kind === 'metal'
      ? (factor(shelf, 'wave.fatigueMetal') * strengthOf(spline, 'along', shelf)) / moduli[0]
      : factor(shelf, kind === 'plastic' ? 'wave.strainPlastic' : 'wave.strainElastic');
  return bare / factor(shelf, 'wave.notch');
}

/** What presses and strains the wall before any load. */
function wallOf(s: Setting) {
  const { p, b, shelf, n, coned } = s;
  const { geometry: g } = b;
  // Springs push a lobe out until its tightest tooth touches: the wall is bent by that much more.
  const [r, w0] = [g.radius, g.throw + (tensionOf(p) > 0 ? freeRadius(g) : 0)];
  const [modulus] = s.moduli;
  const bending = wallBending(modulus, p.width, g.wall, factor(shelf, 'wave.rim'));
  const unit = (bending * w0) / r ** 3;
  // Between a wave's top and a third of the way down, the least that still presses.
  const third = Math.PI / n / 3;
  const { groups } = g.line;
  const near = groups.filter((x) => x.angle <= third + 1e-9);
  const strain = wallStrain(n, g.wall, w0, r, g.shapeFactor);
  return {
    bending,
    preload: groups.length
      ? groups.reduce((sum, x) => sum + x.force * (x.angle === 0 ? 1 : 2) * Math.cos(x.angle), 0) * unit
      : contourPush(n, bending, w0, r),
    leastPreload: near.length
      ? Math.min(...near.map((x) => x.force)) * unit
      : pitchPush(n, bending, w0, r, third, p.teeth),
    strain,
    strainLimit: strainLimitOf(s),
    stress: strain * modulus * factor(shelf, 'wave.notch'),
    coning: coned ? w0 / p.cup : 0,
    coningShear: coned ? w0 / (n * p.cup) : 0,
    usable: coned ? clearWidth(p.cup, g.pass, r - g.line.least) : Infinity,
  };
}

/** What bending a rolling bearing to the wave takes and strains; nothing for rollers and what slides. */
interface Races {
  /** What the outer ring presses on the balls at each lobe, N. */
  readonly push: number;
  /** What flexing it costs at the generator, N·m. */
  readonly flex: number;
  /** Bending stress of the ring that is bent most, Pa. */
  readonly stress: number;
}

const raceThickness = (b: Pick<Bearing, 'bore' | 'outside'>, shelf: Shelf): number =>
  (factor(shelf, 'wave.race') * (b.outside - b.bore)) / 2;

/**
 * Bending stress of a ball bearing's inner ring on a contour, Pa: (n² − 1)/2·E·h·w₀/r².
 * @param lift throw at a lobe's top, m
 */
export function raceStress(b: Pick<Bearing, 'bore' | 'outside'>, lift: number, lobes: number, shelf: Shelf): number {
  const thick = raceThickness(b, shelf);
  return E_STEEL * wallStrain(lobes, thick, lift, (b.bore + thick) / 2, 1);
}

/**
 * The rings of a rolling bearing on a contour, as thin rings: the inner one is bent once and for all, the outer one by
 * every wave, and presses on the balls for it.
 *
 * Source: thin ring bent to a wave, as the spline's wall is (`wall.ts`); rings' thickness from the shop.
 */
function racesOf({ b, shelf, n, rollers, plain }: Setting): Races {
  if (rollers || plain) return { push: 0, flex: 0, stress: 0 };
  const { bearing, geometry: g } = b;
  const thick = raceThickness(bearing, shelf);
  const outer = (bearing.outside - thick) / 2;
  const bending = wallBending(E_STEEL, bearing.width, thick, 1);
  const stored = flexEnergy(n, bending, g.throw, outer, 1, 1);
  return {
    push: contourPush(n, bending, g.throw, outer),
    flex: flexTorque(n, factor(shelf, 'wave.lossMetal'), stored),
    stress: raceStress(bearing, g.throw, n, shelf),
  };
}

/**
 * What errors of making press between generator and ring at each lobe, mean over a turn, N: out of round and off the
 * middle, less what the teeth leave free, against generator and ring.
 *
 * @param support radial stiffness of generator and ring at a lobe, N/m
 * Source: both errors added by squares; they press for half of a turn and are free for the other.
 */
function pinchOf({ b, shelf }: Setting, support: number): number {
  const { geometry: g } = b;
  const errors = Math.sqrt(factor(shelf, 'wave.round') ** 2 + factor(shelf, 'wave.centre') ** 2);
  return (support * Math.max(0, errors - freeRadius(g))) / 2;
}

/** How far a lobe may come out before its tightest tooth touches, m. */
const freeRadius = (g: StrainWaveGeometry): number => Math.max(0, g.least) / Math.max(0.05, Math.sin(g.lean));

/** Force by which springs press each lobe outwards, N. */
const tensionOf = (p: StrainWaveParams): number => p.tension ?? 0;

/**
 * What springs between the generator's halves hold and cost, N·m at the output: no play until the push of the load's teeth
 * is as much as theirs, for teeth that rub on both sides and lobes that press more.
 *
 * Source: wedge of the teeth's lean, {@link pushedBy}; both flanks of a lobe carry half of the push each, and slide as the
 * teeth under load do.
 */
function tensionedBy(
  { p, b, n, R, passes }: Setting,
  lossTeeth: number,
  generator: { readonly friction: number; readonly raceRadius: number },
): { readonly opens: number; readonly braking: number } {
  const force = tensionOf(p);
  const opens = pushedBy(force, n, R, b.geometry.lean);
  return { opens, braking: lossTeeth * opens + generator.friction * n * force * generator.raceRadius * passes };
}

/** What turning the generator costs without a load, N·m; with its friction and where that acts. */
function dragOf(s: Setting, bending: number, preload: number, races: Races) {
  const { p, b, at, shelf, n, passes, kind, coned, rollers, plain } = s;
  const { geometry: g, bearing } = b;
  const friction = factor(shelf, rollers ? 'wave.roller' : plain ? 'wave.plain' : 'wave.bearing');
  const raceRadius = rollers || plain ? g.radius - g.wall / 2 : (bearing.outside + bearing.bore) / 4;
  const along = coned ? behindTeeth(p.cup, p.width) : 1;
  const stored = flexEnergy(n, bending, g.throw, g.radius, g.line.bendSquare, along);
  const dragFlex = flexTorque(n, factor(shelf, LOSS[kind]), stored);
  const dragGenerator = friction * n * preload * raceRadius;
  const faster = fasterOf(s);
  const each = plain ? 0 : bearingDrag(bearing, at.speed * passes * faster, shelf) * faster;
  const dragBearings = each * (rollers ? b.rollers.length : 1);
  return {
    friction,
    raceRadius,
    dragFlex,
    dragGenerator,
    dragBearings,
    drag: dragFlex + races.flex + dragGenerator + dragBearings + greaseDrag(g.outside, shelf) / 2,
  };
}

/** Side of the engaged depth on which a tooth lies, m: nearly flat on flat. */
const touching = (depth: number, module: number): number => Math.max(0.3 * depth, Math.min(depth, 0.2 * module));

/** The teeth under the peak: every tooth on its own clearance, all lobes alike. */
function teethOf({ p, b, at, shelf, n, R, moduli }: Setting, kept: Kept) {
  const { geometry: g } = b;
  const torque = Math.max(1e-3, at.torque);
  const along = Math.cos(g.lean) ** 2;
  const cut = (modulus: number) => factor(shelf, 'gear.stiffness') * along * p.width * ((2 * modulus) / E_STEEL);
  // A belt's teeth are rubber on a cord: what a bench finds of them, not a wheel's by its modulus.
  const stiffness = inSeries(g.section ? factor(shelf, 'belt.tooth') * p.width : cut(moduli[0]), cut(moduli[1]));
  const carried = kept.step('carried', [stiffness, torque], shelf, () => carry([b.contacts], stiffness, torque));
  const toothForce = Math.max(...carried.forces);
  const depth = Math.max(1e-6, g.engaged);
  return {
    torque,
    stiffness,
    carried,
    toothForce,
    depth,
    radial: lobePush(torque, n, R, g.lean),
    pressure: toothForce / (p.width * touching(depth, g.module)),
  };
}
type Teeth = ReturnType<typeof teethOf>;

/** Shares of the load that sliding teeth and the generator under their push cost. */
function lossesOf(
  { b, shelf, n, passes }: Setting,
  teeth: Teeth,
  generator: { readonly friction: number; readonly raceRadius: number },
) {
  const plastic = b.materials[0].plastic || b.materials[1].plastic;
  const slide = slidePerTurn(b.geometry, teeth.carried.forces);
  const friction = factor(shelf, plastic ? 'gear.frictionPlastic' : 'gear.frictionMetal');
  const lossTeeth = (friction * slide * passes) / teeth.torque;
  const lossGenerator = (generator.friction * n * teeth.radial * generator.raceRadius * passes) / teeth.torque;
  const forward = 1 / (1 + lossTeeth + lossGenerator);
  return { lossTeeth, lossGenerator, forward, backward: 1 - lossTeeth - lossGenerator };
}

/** How much warmer flexing keeps the wall, K: its heat over the surface inside and outside. */
function riseOf({ p, b, at, shelf, passes, kind, coned }: Setting, dragFlex: number): number {
  if (!coned && kind === 'metal') return 0;
  const surface = 2 * Math.PI * b.geometry.radius * (coned ? p.cup : p.width) * 2;
  return (dragFlex * at.speed * passes) / (factor(shelf, 'wave.cooling') * surface);
}

/**
 * How many times what its most pressed roller bears a lobe bears: rollers share as the bent spline presses them, and push
 * outwards by the cosine of where they stand.
 *
 * @example rollersShare([{ angle: 0, force: 2, gap: 0 }, { angle: Math.PI / 3, force: 1, gap: 0 }]) // 1.5
 * @returns 1 for a contour
 */
export function rollersShare(groups: readonly RollerGroup[]): number {
  let [all, most] = [0, 0];
  for (const { angle, force } of groups) {
    all += force * (angle === 0 ? 1 : 2) * Math.cos(angle);
    most = Math.max(most, force);
  }
  return most > 0 ? all / most : 1;
}

/** Turns of the output in the life that is asked. */
const turnsAsked = (at: Duty): number => ((at.meanSpeed ?? at.speed) * lifeAsked(at)) / (2 * Math.PI);

/**
 * Flanks in the long run: what sliding in and out rubs off the softer teeth's sides over the depth that touches. Metal on
 * metal, greased, wears too little to tell.
 *
 * Source: the linear law of wear of VDI 2736-2, with the sliding of teeth as they go in and out under their forces.
 */
function flanksLast({ p, b, at, shelf, passes }: Setting, teeth: Teeth): { torque: number; life: number } {
  const { geometry: g } = b;
  const [ms, mr] = b.materials;
  const slide = (slidePerTurn(g, teeth.carried.forces) * passes) / teeth.torque;
  const flank = p.width * touching(teeth.depth, g.module);
  const one = Math.max(
    wornPerTurn(1, slide, wearRate(ms, mr, shelf), flank * p.teeth),
    wornPerTurn(1, slide, wearRate(mr, ms, shelf), flank * ringTeeth(p)),
  );
  const torque = (WORN_OUT * g.module) / (one * turnsAsked(at));
  return { torque, life: (lifeAsked(at) * torque) / lastingTorque(at) };
}

/** Load cycles after which a wall that stands ten million of them counts as standing them for ever. */
const EVER = 1e7;

/**
 * The wall in the long run: each wave bends it, and torsion comes on top; together they may use up what it stands.
 *
 * Source: bending and shear added by squares (von Mises); both fall with load cycles along one Wöhler line, told by what
 * the shop says a wall stands for ever.
 */
function wallLasts(
  { p, b, at, n, passes }: Setting,
  wall: { readonly strain: number; readonly strainLimit: number },
  strength: RootStrength,
): { torque: number; life: number } {
  const { geometry: g } = b;
  const [ms] = b.materials;
  const waves = turnsAsked(at) * passes * n;
  const bent = wall.strain / wall.strainLimit;
  const ever = ms.plastic ? plasticShare(EVER) : 1;
  const twist = ((strength.lasting * ever) / Math.sqrt(3)) * (twistSection(g.radius, g.wall) / splineShare(p));
  const stands = ms.plastic ? plasticShare(waves) / ever : metalOver(METAL_ROOT, waves);
  const used = Math.sqrt(bent ** 2 + (lastingTorque(at) / twist) ** 2);
  const cycles = ms.plastic ? plasticCycles(used * ever) : metalCycles(METAL_ROOT, used);
  return {
    torque: twist * Math.sqrt(Math.max(0, stands ** 2 - bent ** 2)),
    life: waves > 0 ? (lifeAsked(at) * cycles) / waves : Infinity,
  };
}

/** Everything that ends it, and at which torque. */
function modesOf(
  s: Setting,
  teeth: Teeth,
  wall: { readonly strain: number; readonly strainLimit: number; readonly preload: number },
  support: number,
  rise: number,
): Mode[] {
  const { p, b, at, shelf, n, R, coned, rollers, plain } = s;
  const { geometry: g, bearing } = b;
  const [ms] = b.materials;
  const ambient = factor(shelf, 'ambient');
  const strength = rootStrength(ms, ambient + rise, at.reverses === true, shelf);
  const thickness = 2 * g.mesh.tooth.half(Math.max(g.splineRoot, g.splineTip - g.engaged));
  const toothShear = (teeth.toothForce * Math.cos(g.lean)) / (p.width * Math.max(1e-6, thickness));
  const flanks = flanksLast(s, teeth);
  const tube = wallLasts(s, wall, strength);
  const [modulus] = s.moduli;
  const modes: Mode[] = [
    {
      id: 'skip',
      mode: 'the wave skips',
      torque: skipTorque(support, teeth.depth, n, R, g.lean),
      life: Infinity,
      time: 'static',
      why: 'The teeth’s lean pushes the spline off the ring; generator and ring give way, and at the whole depth the teeth ride over.',
      grows: 'none',
    },
    {
      id: 'shear',
      mode: 'teeth shear off',
      torque: g.section
        ? (teeth.torque * factor(shelf, g.section.ids.shear) * p.width) / teeth.toothForce
        : (teeth.torque * strength.peak) / Math.sqrt(3) / toothShear,
      life: Infinity,
      time: 'static',
      why: 'The worst tooth across its thickness where the ring’s tips stand.',
      grows: 'width',
    },
    {
      id: 'wear',
      mode: 'flanks wear',
      torque: flanks.torque,
      life: flanks.life,
      time: 'life',
      why: 'What sliding in and out rubs off the softer teeth over the depth that touches; worn out is 0.15 of a module (linear wear as in VDI 2736-2).',
      grows: 'width',
    },
    {
      id: 'wall',
      mode: 'the wall tires',
      torque: tube.torque,
      life: tube.life,
      time: 'life',
      why: 'Torsion on top of the bending that every wave brings, wave after wave (fatigue).',
      grows: 'none',
    },
  ];
  if (g.section)
    modes.push({
      id: 'cord',
      mode: 'the belt’s cords stretch',
      torque: n * R * factor(shelf, g.section.ids.tension) * p.width,
      life: Infinity,
      time: 'static',
      why: 'What one lobe’s teeth push along the belt, taken by its cords alone, against the tension that it stands.',
      grows: 'width',
    });
  if (coned)
    modes.push({
      id: 'buckle',
      mode: 'the wall buckles',
      torque:
        cupBuckling(modulus, g.radius, g.wall, Math.max(p.width, p.cup), factor(shelf, 'wave.buckle')) / splineShare(p),
      life: Infinity,
      time: 'static',
      why: 'A thin cylinder folds in torsion (NASA SP-8007).',
      grows: 'none',
    });
  if (!plain) {
    const stands = bearing.static * rollersShare(g.line.groups) - wall.preload;
    modes.push({
      id: 'dent',
      mode: rollers ? 'rollers dent' : 'the generator’s bearing dents',
      torque: Math.max(1e-9, pushedBy(stands, n, R, g.lean)),
      life: Infinity,
      time: 'static',
      why: 'Static rating against what a lobe’s teeth push inwards, beside the preload.',
      grows: 'none',
    });
  }
  return modes;
}

/**
 * A belt between two rings, N·m/rad: its body is sheared from one half of its width to the other along the teeth in mesh,
 * G·t·(teeth·pitch)/b·r²; cords run along it and do not help.
 *
 * @param shear G of the body, Pa
 * @param width of one ring's teeth, which is how far the halves' middles lie apart, m
 */
export const acrossBelt = (
  shear: number,
  g: Pick<StrainWaveGeometry, 'inMesh' | 'radius' | 'module' | 'wall' | 'splineTip' | 'splineRoot'>,
  width: number,
): number =>
  (shear * (g.wall + (g.splineTip - g.splineRoot) / 2) * g.inMesh * Math.PI * g.module * g.radius ** 2) / width;

/** Springs in series: teeth that close one after another, the cup, the generator with the ring. */
function springsOf(
  { p, b, n, R, coned, moduli, shelf }: Setting,
  teeth: Teeth,
  support: number,
  ring: number,
  limit: number,
) {
  const { geometry: g, contacts } = b;
  const [ms, mr] = b.materials;
  const shear = moduli[0] / (2 * (1 + ms.poisson));
  const second = teeth.stiffness * R * R * 0.25 * g.inMesh;
  const cupStiffness = coned
    ? cupTorsion(shear, g.radius, g.wall, p.cup) / splineShare(p) ** 2
    : g.section
      ? inSeries(second, acrossBelt(shear, g, p.width) / splineShare(p) ** 2)
      : second;
  const generatorStiffness = pushedStiffness(support, n, R, g.lean);
  const bends: [number, number] = [0.2 * limit, 0.6 * limit];
  const slope = (from: number, to: number): number => {
    const turn = turnUnder(contacts, teeth.stiffness, to) - turnUnder(contacts, teeth.stiffness, from);
    return inSeries(Math.max(1e-6, (to - from) / Math.max(1e-12, turn)), cupStiffness, generatorStiffness);
  };
  const slopes: [number, number, number] = [
    slope(Math.max(1e-4, 0.02 * limit), bends[0]),
    slope(bends[0], bends[1]),
    slope(bends[1], Math.max(bends[1] * 1.01, limit)),
  ];
  const teethAlone = 1 / Math.max(1e-12, 1 / slopes[0] - 1 / cupStiffness - 1 / generatorStiffness);
  const pushed = (stiffness: number) => pushedStiffness(stiffness, n, R, g.lean);
  const [c1, c2] = [crept(ms), crept(mr)];
  const parts = [
    spring('teeth that touch', teethAlone, inSeries(moduli[0] * c1, moduli[1] * c2) / inSeries(...moduli)),
    spring(
      coned ? 'cup twists' : g.section ? 'belt sheared across its cords' : 'spline between both rings',
      cupStiffness,
      c1,
    ),
    spring('generator and its bearing', pushed(factor(shelf, 'wave.support'))),
    spring('ring gives way between lobes', pushed(ring), c2),
  ];
  return { cupStiffness, generatorStiffness, bends, slopes, parts };
}

/** How far making moves a tooth's side either way, m. */
const spreadOf = ({ b, shelf }: Setting): number =>
  factor(shelf, 'wave.round') * Math.tan(b.geometry.lean) + factor(shelf, 'gear.thickness');

/** Play at the output, rad, likely, least and most: what a tooth is free either way, and what making adds. */
function playOf(s: Setting): [number, number, number] {
  const { geometry: g } = s.b;
  const gap = s.p.slack * Math.tan(g.lean);
  const likely = Math.max(0, (freeWay(g) + 2 * gap) / s.R);
  const spread = spreadOf(s) / s.R;
  return [likely, Math.max(0, likely - spread), likely + spread];
}

/**
 * Errors of the output, rad: off centre by e, both lobes slide sideways against each other; as one goes deeper it takes
 * over, which leaves e²/(2·depth).
 */
function errorsOf({ shelf, R }: Setting, depth: number) {
  const off = factor(shelf, 'wave.centre');
  return { errorTwice: (off * off) / (2 * depth) / R, errorOnce: (off * Math.min(1, off / depth)) / R };
}

/** Masses of spline, ring and generator, kg; how many bearings or rollers are bought. */
function massesOf({ p, b, coned, rollers, plain }: Setting) {
  const { geometry: g, seat, bearing } = b;
  const [ms, mr, mg] = b.materials;
  const { radius: r, wall } = g;
  const toothRing = Math.PI * ((r + g.splineTip) ** 2 - (r - wall / 2) ** 2) * p.width * 0.75;
  const tube = 2 * Math.PI * r * wall * (p.cup - p.width);
  const end = Math.PI * r * r * Math.max(1.5e-3, 1.5 * wall);
  const ringArea = Math.PI * ((g.outside / 2) ** 2 - ((g.ringTip + g.ringRoot) / 2) ** 2);
  const bought = plain ? 0 : rollers ? b.rollers.length : 1;
  // Rollers stand between two plates; anything else rides on a plug.
  const across = Math.PI * Math.max(0, seat ** 2 - (p.shaft / 2) ** 2);
  const body = (rollers ? 2 * ROLLER_PLATE : p.width * 0.8) * across * mg.material.density;
  return {
    spline: (toothRing + (coned ? tube + end : 0)) * ms.material.density,
    ring: ringArea * (p.width + 2e-3) * mr.material.density * (coned ? 1 : 2),
    body,
    generator: body + bearing.mass * bought,
    bought,
  };
}
type Masses = ReturnType<typeof massesOf>;

/** What each part weighs and costs: printed ones by mass, others by mass and milled teeth; a belt by its length. */
function costsOf({ p, b, shelf, coned, rollers }: Setting, mass: Masses) {
  const { geometry: g, bearing } = b;
  const [ms, mr, mg] = b.materials;
  const spline = g.section
    ? factor(shelf, 'price.belt') * Math.PI * 2 * g.radius * (p.width / 6e-3)
    : cutPartPrice(ms, mass.spline, p.teeth, shelf);
  const ring = mass.ring / (coned ? 1 : 2);
  const plates = rollers ? 2 : 1;
  const body = mass.body / plates;
  return {
    spline: { quantity: 1, mass: mass.spline, money: spline },
    ring: { quantity: 1, mass: ring, money: cutPartPrice(mr, ring, ringTeeth(p), shelf) },
    follow: { quantity: coned ? 0 : 1, mass: ring, money: cutPartPrice(mr, ring, p.teeth, shelf) },
    generator: { quantity: plates, mass: body, money: body * mg.material.price },
    bearing: { quantity: mass.bought, mass: bearing.mass, money: bearing.price },
    springs: springsCost(tensionOf(p) > 0 ? p.lobes : 0),
  };
}

/** How much faster than the generator its bearing turns: rollers by what the spline's inside is over them. */
const fasterOf = ({ b, rollers }: Setting): number =>
  rollers ? (2 * b.geometry.radius - b.geometry.wall) / b.bearing.outside : 1;

/** What a bearing of the generator carries, N, how fast its rings turn against one another, rad/s, and its life, s. */
interface BearingUnder {
  readonly load: number;
  readonly speed: number;
  readonly life: number;
}

/**
 * Life of the generator's bearing, or of the most pressed of its rollers, s: L10 = (C/P)³·10⁶ turns (ISO 281) under preload
 * and push.
 */
function bearingUnder(s: Setting, preload: number): BearingUnder {
  const { b, at, n, R, passes, plain } = s;
  if (plain || !at.equivalent || !at.meanSpeed) return { load: 0, speed: 0, life: Infinity };
  const { lean, line } = b.geometry;
  const load = Math.max(1e-6, preload + lobePush(at.equivalent, n, R, lean)) / rollersShare(line.groups);
  const speed = at.meanSpeed * passes * fasterOf(s);
  return { load, speed, life: ratedLife(b.bearing, load, speed) };
}

/** Highest speed of the generator, rad/s: what slides is bound by its speed, what rolls by its bearing. */
function topSpeed({ b, rollers, plain }: Setting): number {
  const { geometry: g, materials } = b;
  if (plain) return (materials[0].plastic || materials[2].plastic ? 1.5 : 4) / (g.radius - g.wall / 2);
  return rollers ? 300 : 370;
}

/**
 * Computes a strain-wave stage at a duty on its output.
 *
 * Source: thin-ring bending for the wall (strain (n² − 1)/2·t·w0/r² times the shape's factor), one-sided tooth contacts
 * at their own clearances for load, thin-cylinder torsion for the cup, NASA SP-8007 for its buckling,
 * hysteresis 2π·tan δ of the strain energy a wave for what flexing costs.
 */
export function modelStrainWave(
  p: StrainWaveParams,
  built: StrainWaveBuild,
  at: Duty,
  shelf: Shelf,
  kept: Kept,
): StrainWaveModel {
  const { geometry: g, bearing, seat, bore } = built;
  const [ms, mr, mg] = built.materials;
  const n = p.lobes;
  const ratio = strainWaveRatio(p);
  const rollers = hasRollers(p);
  const ambient = factor(shelf, 'ambient');
  const s: Setting = {
    p,
    b: built,
    at,
    shelf,
    n,
    turns: Math.abs(ratio),
    passes: passesOf(p),
    R: outRadius(p, g.module),
    kind: ms.sort,
    moduli: [elastic(ms, ambient, shelf), elastic(mr, ambient, shelf)],
    coned: p.body === 'cup',
    rollers,
    plain: !rollers && p.run === 'plain',
  };
  const { bending, ...wall } = wallOf(s);
  const races = racesOf(s);
  const ring = ringStiffness(s.moduli[1], p.width, g.outside / 2, g.ringRoot, n);
  const support = inSeries(factor(shelf, 'wave.support'), ring);
  const pinch = pinchOf(s, support);
  // What springs press is told on its own, with the teeth that it rubs.
  const unsprung = wall.preload + races.push + pinch;
  const presses = unsprung + tensionOf(p);
  const { friction, raceRadius, ...drags } = dragOf(s, bending, unsprung, races);
  const teeth = teethOf(s, kept);
  const losses = lossesOf(s, teeth, { friction, raceRadius });
  const sprung = tensionedBy(s, losses.lossTeeth, { friction, raceRadius });
  const drag = drags.drag + sprung.braking / s.turns;
  const rise = riseOf(s, drags.dragFlex);
  const modes = modesOf(s, teeth, { ...wall, preload: presses }, support, rise);
  const { parts, ...springs } = springsOf(
    s,
    teeth,
    support,
    ring,
    Math.min(...modes.filter((m) => m.time === 'static').map((m) => m.torque)),
  );
  const mass = massesOf(s);
  const costs = costsOf(s, mass);
  const under = bearingUnder(s, presses);
  const numbers: StageNumbers = {
    ratio,
    etaForward: losses.forward,
    etaBackward: losses.backward,
    drag,
    play: tensionOf(p) > 0 ? [0, 0, 0] : playOf(s),
    stiffness: springs.slopes[0],
    springs: parts,
    bendTorque: springs.bends[0],
    stiffnessBeyond: springs.slopes[1],
    inertiaIn: (mass.generator * seat * seat) / 2,
    inertiaOut: p.held === 'ring' ? mass.spline * g.radius ** 2 : mass.ring * (g.outside / 2 - p.ringWall / 2) ** 2,
    limits: modeLimits(modes),
    ...sumCosts(Object.values(costs)),
    outside: g.outside,
    length: s.coned ? p.cup + 2e-3 : 2 * p.width + 2e-3,
    maxSpeed: topSpeed(s),
    bore: p.shaft,
    beside: false,
    life: Math.min(under.life, shortestLife(modes)),
  };
  const { carried, toothForce, pressure, radial } = teeth;
  return {
    geometry: g,
    materials: [ms, mr, mg],
    bearing,
    rollers: built.rollers,
    ...wall,
    races,
    pinch,
    presses,
    ...drags,
    ...sprung,
    drag,
    starting: drag * factor(shelf, 'wave.start'),
    turnBack: (drag * s.turns) / Math.max(1e-6, losses.backward),
    ...losses,
    carried,
    toothForce,
    pressure,
    radial,
    rimStress: ringWall(radial, (g.outside - p.ringWall) / 2, p.ringWall, p.width, p.lobes),
    rise,
    ...springs,
    ...errorsOf(s, teeth.depth),
    alignment: freeRadius(g),
    bore,
    seat,
    bind: g.least - spreadOf(s),
    under,
    modes,
    masses: [mass.spline, mass.ring, mass.generator],
    costs,
    numbers,
  };
}
