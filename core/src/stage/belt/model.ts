import { lastingTorque } from '../../gear/lasting.ts';
import { pluckedNote, shaftForces, sides, spanStiffness, tightShare, type Tensioning } from '../../loop/index.ts';
import { Kept } from '../kept.ts';
import { shaftDrag } from '../loop-drag.ts';
import { pulled } from '../push.ts';
import { bentWindUp, inSeries } from '../../math/springs.ts';
import { stated } from '../../units/stated.ts';
import { spring, together } from '../springs.ts';
import { ok, refuse, type Result } from '../../result.ts';
import type { BeltSection } from '../../shop/section.ts';
import { factor, findSection, type Shelf } from '../../shop/shelf.ts';
import type { CapacityLimit, Duty, StageNumbers } from '../contract.ts';
import { fittingTakeUp, idlerWays, layoutBelt, type BeltLayout } from './layout.ts';
import { IDLER_BORE, type BeltParams } from './params.ts';
import { cutSpace, outsideRadius } from './pulley.ts';
import {
  beltShearForce,
  holdSpring,
  holdTorque,
  jumpForce,
  loadedTeeth,
  printedToothForce,
  pulleysHeld,
  tensionForce,
} from './strength.ts';
import { beltPrice, FLANGES, HUB, pulleyMass, pulleyPrice } from './weight.ts';

/** Everything computed about a belt stage; `numbers` is what the line sums. */
export interface BeltModel {
  readonly section: BeltSection;
  readonly layout: BeltLayout;
  readonly ratio: number;
  readonly force: number;
  readonly tight: number;
  readonly slack: number;
  /** Share of the pull that the tight side takes while the slack one carries as well. */
  readonly share: number;
  readonly neededTension: number;
  readonly shaft1: readonly [number, number];
  readonly shaft2: readonly [number, number];
  readonly shaftLoad: number;
  readonly pluck: number;
  readonly spanStiffness: number;
  readonly toothStiffness1: number;
  readonly toothStiffness2: number;
  readonly slackTorque: number;
  readonly windUp: number;
  readonly jumpTorque: number;
  readonly shearTorque: number;
  readonly tensionTorque: number;
  readonly printedTorque: number;
  readonly holdTorque1: number;
  readonly holdTorque2: number;
  readonly takeUpFit: number;
  readonly takeUpTension: number;
  readonly beltSpeed: number;
  readonly beltMass: number;
  readonly pulleyMass: readonly [number, number];
  readonly pulleyMoney: readonly [number, number];
  readonly beltMoney: number;
  readonly bearingMoney: number;
  /** How far the idler is moved to tension the belt and to let it go. */
  readonly idler: () => Tensioning | undefined;
  /** Most that the belt pulls on the idler, N: its tight side runs there while power comes back. */
  readonly idlerPull: number;
  readonly idlerMass: number;
  readonly idlerMoney: number;
  readonly numbers: StageNumbers;
}

/** A belt stage before any duty. */
export interface BeltBuild {
  readonly section: BeltSection;
  readonly layout: BeltLayout;
}

/** Allowance of a pulley's profile, m: only printed ones come out fat. */
export const allowanceOf = (p: BeltParams, made: BeltParams['made1']): number => (made === 'printed' ? p.allowance : 0);

/** Builds a stage; refuses in words what does not go together. */
export function buildBelt(p: BeltParams, shelf: Shelf): Result<BeltBuild> {
  const section = findSection(shelf, p.section);
  if (!section)
    return refuse(
      `There is no belt section “${p.section}” in the shop.`,
      'Its pitch and tooth form are not known.',
      `Choose one of ${shelf.sections.map((s) => s.id).join(', ')}.`,
      'section',
    );
  const layout = layoutBelt(p, section);
  if (!layout.ok) return layout;
  return ok({ section, layout: layout.value });
}

/** What does not go together, in words; it can still be drawn. */
export function wrongBelt(p: BeltParams, { section }: BeltBuild): Result<never> | undefined {
  const bores: readonly (readonly [number, number, string, string])[] = [
    [p.bore1, p.z1, 'bore1', 'driving'],
    [p.bore2, p.z2, 'bore2', 'driven'],
  ];
  for (const [bore, z, place, name] of bores) {
    const root = 2 * (outsideRadius(section, z) - section.space.depth);
    if (bore >= root - 1e-3)
      return refuse(
        `The bore cuts into the teeth of the ${name} pulley.`,
        `Its tooth spaces reach down to ${stated(root, 'length', 4)} and need ${stated(5e-4, 'length')} of wall.`,
        'Take a smaller bore or more teeth.',
        place,
      );
  }
  const seats: readonly (readonly [number, number, number, string, string])[] = [
    [p.seat1 ?? 0, p.bore1, p.z1, 'seat1', 'driving'],
    [p.seat2 ?? 0, p.bore2, p.z2, 'seat2', 'driven'],
  ];
  for (const [seat, bore, z, place, name] of seats) {
    const root = 2 * (outsideRadius(section, z) - section.space.depth);
    if (seat > 0 && (seat <= bore || seat >= root - 1e-3))
      return refuse(
        `The bearing seat does not fit the ${name} pulley.`,
        `It must be wider than the bore of ${stated(bore, 'length', 4)} and leave ${stated(5e-4, 'length')} under tooth ` +
          `spaces that reach down to ${stated(root, 'length', 4)}.`,
        'Change the seat, or set it to 0 for none.',
        place,
      );
  }
  const bore = p.idlerBore ?? IDLER_BORE;
  const idler =
    p.idler === 'inside' ? 2 * (outsideRadius(section, p.idlerTeeth) - section.space.depth) : p.idlerDiameter;
  if (p.idler !== 'none' && bore > idler - 1e-3 + 1e-9)
    return refuse(
      'The idler’s pin is too thick for the idler.',
      `${stated(bore, 'length', 4)} leaves less than ${stated(5e-4, 'length')} of wall under ${stated(idler, 'length', 4)}.`,
      'Take a thinner pin or a larger idler.',
      'idlerBore',
    );
  const cuts = [cutSpace(section, p.z1, allowanceOf(p, p.made1)), cutSpace(section, p.z2, allowanceOf(p, p.made2))];
  if (p.idler === 'inside') cuts.push(cutSpace(section, p.idlerTeeth));
  for (const c of cuts) if (!c.ok) return c;
  return undefined;
}

/** What the stage's formulas work on. */
interface Setting {
  readonly p: BeltParams;
  readonly b: BeltBuild;
  readonly shelf: Shelf;
}

/** Springs about the driven pulley, N·m/rad: both spans, the teeth in mesh of either pulley, and both on their shafts. */
function springsOf({ p, b, shelf }: Setting) {
  const { layout: L, section } = b;
  const r = L.d2 / 2;
  const ea = factor(shelf, section.ids.stiffness) * p.width;
  const tooth = factor(shelf, 'belt.tooth') * p.width;
  const [teeth1, teeth2] = [r * r * tooth * loadedTeeth(L.mesh1), r * r * tooth * loadedTeeth(L.mesh2)];
  const spans = spanStiffness(r, ea, L.tightSpan, L.slackSpan);
  const [one, two] = pulleysHeld(p, section);
  const first = holdSpring('driving pulley on its shaft', one, shelf);
  const holds = [
    spring(first.name, first.stiffness * (p.z2 / p.z1) ** 2, first.held),
    holdSpring('driven pulley on its shaft', two, shelf),
  ];
  const springs = [
    ...holds,
    spring('spans of the belt', spans),
    spring('teeth on the driving pulley', teeth1),
    spring('teeth on the driven pulley', teeth2),
  ];
  return {
    spans,
    teeth1,
    teeth2,
    springs,
    both: together(springs),
    // The slack side hangs: the tight one is left alone.
    tightOnly: inSeries((r * r * ea) / L.tightSpan, teeth1, teeth2, ...holds.map((h) => h.stiffness)),
  };
}

/** Torques at the driven pulley at which each part gives way, N·m. */
function limitsOf({ p, b, shelf }: Setting, ratio: number, eta: number, share: number) {
  const { layout: L, section } = b;
  const r = L.d2 / 2;
  const printed = (made: BeltParams['made1'], teeth: number, mesh: number) =>
    made === 'printed' ? printedToothForce(p, section, teeth, mesh, shelf) * r : Infinity;
  const [one, two] = pulleysHeld(p, section);
  const t = {
    // The pulley that holds it less decides: mostly the smaller one.
    jump: Math.min(jumpForce(p, section, p.made1, L.mesh1, shelf), jumpForce(p, section, p.made2, L.mesh2, shelf)) * r,
    shear: beltShearForce(p, section, Math.min(L.mesh1, L.mesh2), shelf) * r,
    tension: tensionForce(p, section, share, shelf) * r,
    printed: Math.min(printed(p.made1, p.z1, L.mesh1), printed(p.made2, p.z2, L.mesh2)),
    hold1: holdTorque(one, shelf),
    hold2: holdTorque(two, shelf),
  };
  const limit = (mode: string, torque: number): CapacityLimit => ({ mode, time: 'static', torque, life: Infinity });
  const limits = [
    limit('belt tension', t.tension),
    limit('belt tooth shear', t.shear),
    limit('belt tooth jump (skip)', t.jump),
    limit('pulley on its shaft (driven)', t.hold2),
    limit('pulley on its shaft (driving)', t.hold1 * ratio * eta),
  ];
  if (Number.isFinite(t.printed)) limits.push(limit('printed tooth shear', t.printed));
  return { ...t, limits };
}

/** Masses, kg, and prices of both pulleys, the belt and its idler. */
function weighed({ p, b, shelf }: Setting) {
  const { layout: L, section } = b;
  const pulley = (made: BeltParams['made1'], teeth: number, bore: number) => {
    const mass = pulleyMass(made, outsideRadius(section, teeth), bore, p.width, shelf);
    return { mass, money: pulleyPrice(made, teeth, p.width, mass, shelf) };
  };
  const belt = {
    mass: factor(shelf, section.ids.mass) * p.width * L.length,
    money: beltPrice(L.length, p.width, shelf),
  };
  return {
    one: pulley(p.made1, p.z1, p.bore1),
    two: pulley(p.made2, p.z2, p.bore2),
    belt,
    idler: idlerOf(p, section, shelf),
  };
}

/** An idler: a flat one is a bearing with a sleeve, a toothed one a bought pulley on a bearing. */
function idlerOf(p: BeltParams, section: BeltSection, shelf: Shelf): { mass: number; money: number } {
  if (p.idler === 'none') return { mass: 0, money: 0 };
  const toothed = p.idler === 'inside';
  const outside = toothed ? outsideRadius(section, p.idlerTeeth) : p.idlerDiameter / 2;
  const mass = pulleyMass('bought', outside, p.idlerBore ?? IDLER_BORE, p.width, shelf);
  const pulley = toothed ? pulleyPrice('bought', p.idlerTeeth, p.width, mass, shelf) : 0;
  return { mass, money: factor(shelf, 'price.bearing') + pulley };
}

// A square root rather than Math.hypot, which costs more than all the rest of the model.
const length = ([x, y]: readonly [number, number]): number => Math.sqrt(x * x + y * y);

/**
 * Computes a belt stage at a duty on its driven pulley.
 *
 * @param p parameters, SI
 * @param at duty at the driven pulley
 * @param shelf the shop; its factors are read as they stand
 * @param kept what of the stage stays while only its duty changes
 * Source: reference equations of the synchronous open belt drive (geometry exact; see `layout.ts`), spans as axial
 * springs.
 */
export function modelBelt(p: BeltParams, b: BeltBuild, at: Duty, shelf: Shelf, kept = new Kept()): BeltModel {
  const { section, layout: L } = b;
  const setting: Setting = { p, b, shelf };
  const ratio = p.z2 / p.z1;
  const [r1, r2] = [L.d1 / 2, L.d2 / 2];
  const eta = factor(shelf, 'belt.efficiency');

  const force = at.torque / r2;
  const share = tightShare(L.tightSpan, L.slackSpan);
  const side = sides(force, p.tension, share);
  const shafts = shaftForces(L.path, side);
  const lasting = shaftForces(L.path, sides(lastingTorque(at) / r2, p.tension, share));
  const loads: [number, number] = [length(shafts.first), length(shafts.last)];
  const springs = springsOf(setting);
  const slackTorque = (p.tension * r2) / (1 - share);
  const carries = limitsOf(setting, ratio, eta, share);
  const parts = weighed(setting);
  const o1 = outsideRadius(section, p.z1);
  const o2 = outsideRadius(section, p.z2);
  const clearance = section.clearance / r2;
  const takeUpTension = factor(shelf, 'belt.takeUp') * L.centre;
  const idlerPull = p.idler === 'none' ? 0 : 2 * side.tight * Math.sin(L.path.wraps[1]! / 2);

  const numbers: StageNumbers = {
    ratio,
    etaForward: eta,
    etaBackward: eta,
    pull: length(lasting.first),
    pullPeak: loads[0],
    pushes: pulled(loads[1], length(lasting.last)),
    ...(p.idler !== 'none' && { idlerPull }),
    drag: shaftDrag(loads, [p.bore1, p.bore2], ratio, shelf),
    play: [clearance, 0, 2 * clearance],
    stiffness: springs.both,
    springs: springs.springs,
    bendTorque: slackTorque,
    stiffnessBeyond: springs.tightOnly,
    inertiaIn: (parts.one.mass * o1 * o1) / 2 + parts.belt.mass * r1 * r1,
    inertiaOut: (parts.two.mass * o2 * o2) / 2,
    limits: carries.limits,
    mass: parts.one.mass + parts.two.mass + parts.belt.mass + parts.idler.mass,
    money: parts.one.money + parts.two.money + parts.belt.money + parts.idler.money + factor(shelf, 'price.bearing'),
    outside: L.centre + o1 + o2 + 2 * section.toothHeight,
    before: { beside: L.centre + o2 + section.toothHeight },
    length: p.width + FLANGES + HUB,
    maxSpeed: section.maxSpeed / r1,
    // A pulley bolted to its neighbour leaves its bore open; otherwise the shaft fills it.
    bore: p.hold2 === 'bolted' ? p.bore2 : 0,
    beside: true,
    life: Infinity,
  };
  return {
    section,
    layout: L,
    ratio,
    force,
    tight: side.tight,
    slack: side.slack,
    share,
    neededTension: force * (1 - share),
    shaft1: shafts.first,
    shaft2: shafts.last,
    shaftLoad: Math.max(...loads),
    pluck: pluckedNote(p.tension, factor(shelf, section.ids.mass) * p.width, L.tightSpan),
    spanStiffness: springs.spans,
    toothStiffness1: springs.teeth1,
    toothStiffness2: springs.teeth2,
    slackTorque,
    windUp: bentWindUp(at.torque, springs.both, slackTorque, springs.tightOnly),
    jumpTorque: carries.jump,
    shearTorque: carries.shear,
    tensionTorque: carries.tension,
    printedTorque: carries.printed,
    holdTorque1: carries.hold1,
    holdTorque2: carries.hold2,
    takeUpFit: fittingTakeUp(section, L),
    takeUpTension,
    idler: () => kept.step('idler', [takeUpTension], shelf, () => idlerWays(p, section, L, takeUpTension)),
    idlerPull,
    beltSpeed: at.speed * r2,
    beltMass: parts.belt.mass,
    pulleyMass: [parts.one.mass, parts.two.mass],
    pulleyMoney: [parts.one.money, parts.two.money],
    beltMoney: parts.belt.money,
    bearingMoney: factor(shelf, 'price.bearing'),
    idlerMass: parts.idler.mass,
    idlerMoney: parts.idler.money,
    numbers,
  };
}
