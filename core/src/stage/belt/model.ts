import { stated } from '../../units/stated.ts';
import { ok, refuse, type Result } from '../../result.ts';
import type { BeltSection } from '../../shop/section.ts';
import { factor, findSection, type Shelf } from '../../shop/shelf.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import { fittingTakeUp, layoutBelt, type BeltLayout } from './layout.ts';
import type { BeltParams } from './params.ts';
import { cutSpace, outsideRadius } from './pulley.ts';
import { beltShearForce, holdTorque, jumpForce, loadedTeeth, printedToothForce, tensionForce } from './strength.ts';
import { inSeries } from '../../math/springs.ts';

/** Everything computed about a belt stage; `numbers` is what the line sums. */
export interface BeltModel {
  readonly section: BeltSection;
  readonly layout: BeltLayout;
  readonly ratio: number;
  readonly force: number;
  readonly tight: number;
  readonly slack: number;
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
  readonly idlerMass: number;
  readonly idlerMoney: number;
  readonly numbers: StageNumbers;
}

export const HUB = 6e-3;
export const FLANGES = 2e-3;
/** Bore assumed for an idler, whose shaft nobody has chosen yet. */
const IDLER_BORE = 3e-3;

/**
 * Axial stiffness of a span of length L is E·A/L with E·A = (E·A/w)·w; two in parallel turn the driven pulley:
 * r2²·E·A·(1/L_t + 1/L_s).
 */
export const spanStiffness = (r2: number, ea: number, tight: number, slack: number): number =>
  r2 * r2 * ea * (1 / tight + 1 / slack);

function pulleyMass(made: BeltParams['made1'], outside: number, bore: number, width: number, shelf: Shelf): number {
  const volume =
    Math.PI * Math.max(0, outside ** 2 - (bore / 2) ** 2) * (width + FLANGES) +
    (made === 'bought' ? Math.PI * Math.max(0, (bore / 2 + 3e-3) ** 2 - (bore / 2) ** 2) * HUB : 0);
  return volume * factor(shelf, made === 'bought' ? 'metal.density' : 'printed.density');
}

function pulleyMoney(made: BeltParams['made1'], teeth: number, width: number, mass: number, shelf: Shelf): number {
  return made === 'bought'
    ? factor(shelf, 'price.pulley') + (factor(shelf, 'price.tooth') * teeth * width) / 6e-3
    : mass * factor(shelf, 'price.print');
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
  const cuts = [cutSpace(section, p.z1, allowanceOf(p, p.made1)), cutSpace(section, p.z2, allowanceOf(p, p.made2))];
  if (p.idler === 'inside') cuts.push(cutSpace(section, p.idlerTeeth));
  for (const c of cuts) if (!c.ok) return c;
  return undefined;
}

/**
 * Computes a belt stage at a duty on its driven pulley.
 *
 * @param p parameters, SI
 * @param at duty at the driven pulley
 * @param shelf the shop; its factors are read as they stand
 * Source: reference equations of the synchronous open belt drive (geometry exact; see `layout.ts`), spans as axial
 * springs.
 */
export function modelBelt(p: BeltParams, { section, layout: L }: BeltBuild, at: Duty, shelf: Shelf): BeltModel {
  const ratio = p.z2 / p.z1;
  const r1 = L.d1 / 2;
  const r2 = L.d2 / 2;
  const ea = factor(shelf, section.ids.stiffness) * p.width;
  const force = at.torque / r2;
  // Installed tension shares the load half and half until the slack side hangs.
  const hangs = force > 2 * p.tension;
  const tight = hangs ? force : p.tension + force / 2;
  const slack = hangs ? 0 : p.tension - force / 2;
  const kSpan = spanStiffness(r2, ea, L.tightSpan, L.slackSpan);
  const kTooth = factor(shelf, 'belt.tooth') * p.width;
  const k1 = r2 * r2 * kTooth * loadedTeeth(L.mesh1);
  const k2 = r2 * r2 * kTooth * loadedTeeth(L.mesh2);
  const stiffness = inSeries(kSpan, k1, k2);
  const stiffnessBeyond = inSeries((r2 * r2 * ea) / L.tightSpan, k1, k2);
  const slackTorque = 2 * p.tension * r2;
  const windUp =
    at.torque <= slackTorque
      ? at.torque / stiffness
      : slackTorque / stiffness + (at.torque - slackTorque) / stiffnessBeyond;
  const runs = L.path.runs;
  const tightRun = runs[runs.length - 1]!;
  const firstRun = runs[0]!;
  const beforeDriven = runs[runs.length - 2]!;
  // The belt pulls the driver along the run that leaves it and back along the run that arrives; the driven one
  // likewise.
  const pull = (heading: number, f: number): [number, number] => [f * Math.cos(heading), f * Math.sin(heading)];
  const [ax, ay] = pull(firstRun.heading, slack);
  const [bx, by] = pull(tightRun.heading, -tight);
  const [cx, cy] = pull(beforeDriven.heading, -slack);
  const [dx, dy] = pull(tightRun.heading, tight);
  const shaft1: [number, number] = [ax + bx, ay + by];
  const shaft2: [number, number] = [cx + dx, cy + dy];
  // Square roots rather than Math.hypot, which costs more than all the rest of this function.
  const load1 = Math.sqrt(shaft1[0] ** 2 + shaft1[1] ** 2);
  const load2 = Math.sqrt(shaft2[0] ** 2 + shaft2[1] ** 2);
  const shaftLoad = Math.max(load1, load2);
  const perLength = factor(shelf, section.ids.mass) * p.width;
  const pluck = p.tension > 0 ? Math.sqrt(p.tension / perLength) / (2 * L.tightSpan) : 0;
  const o1 = outsideRadius(section, p.z1);
  const o2 = outsideRadius(section, p.z2);
  const m1 = pulleyMass(p.made1, o1, p.bore1, p.width, shelf);
  const m2 = pulleyMass(p.made2, o2, p.bore2, p.width, shelf);
  const beltMass = perLength * L.length;
  const money1 = pulleyMoney(p.made1, p.z1, p.width, m1, shelf);
  const money2 = pulleyMoney(p.made2, p.z2, p.width, m2, shelf);
  const beltMoney = (factor(shelf, 'price.belt') * L.length * p.width) / 6e-3;
  // A flat idler is a bearing with a sleeve; a toothed one is a bought pulley on a bearing.
  const idlerOutside = p.idler === 'inside' ? outsideRadius(section, p.idlerTeeth) : p.idlerDiameter / 2;
  const idlerMass = p.idler === 'none' ? 0 : pulleyMass('bought', idlerOutside, IDLER_BORE, p.width, shelf);
  const idlerMoney =
    p.idler === 'none'
      ? 0
      : factor(shelf, 'price.bearing') +
        (p.idler === 'inside' ? pulleyMoney('bought', p.idlerTeeth, p.width, idlerMass, shelf) : 0);
  const jumpTorque = jumpForce(p, section, L.mesh1, shelf) * r2;
  const shearTorque = beltShearForce(p, section, Math.min(L.mesh1, L.mesh2), shelf) * r2;
  const tensionTorque = tensionForce(p, section, shelf) * r2;
  const printed1 = p.made1 === 'printed' ? printedToothForce(p, section, p.z1, L.mesh1, shelf) * r2 : Infinity;
  const printed2 = p.made2 === 'printed' ? printedToothForce(p, section, p.z2, L.mesh2, shelf) * r2 : Infinity;
  const printedTorque = Math.min(printed1, printed2);
  const eta = factor(shelf, 'belt.efficiency');
  const hold1 = holdTorque(p.hold1, p.bore1, o1, p.width, shelf);
  const hold2 = holdTorque(p.hold2, p.bore2, o2, p.width, shelf);
  const bearing = factor(shelf, 'belt.bearing');
  const seal = factor(shelf, 'belt.seal');
  // The driven shaft's own drag reaches the input through the ratio.
  const drag = seal + (bearing * load1 * p.bore1) / 2 + (seal + (bearing * load2 * p.bore2) / 2) / ratio;
  const clearance = section.clearance / r2;
  const limits = [
    { mode: 'belt tension', torque: tensionTorque },
    { mode: 'belt tooth shear', torque: shearTorque },
    { mode: 'belt tooth jump (skip)', torque: jumpTorque },
    { mode: 'pulley on its shaft (driven)', torque: hold2 },
    { mode: 'pulley on its shaft (driving)', torque: hold1 * ratio * eta },
  ];
  if (Number.isFinite(printedTorque)) limits.push({ mode: 'printed tooth shear', torque: printedTorque });
  const takeUpTension = factor(shelf, 'belt.takeUp') * L.centre;
  const numbers: StageNumbers = {
    ratio,
    etaForward: eta,
    etaBackward: eta,
    drag,
    play: [clearance, 0, 2 * clearance],
    stiffness,
    bendTorque: slackTorque,
    stiffnessBeyond,
    inertiaIn: (m1 * o1 * o1) / 2 + beltMass * r1 * r1,
    inertiaOut: (m2 * o2 * o2) / 2,
    limits,
    mass: m1 + m2 + beltMass + idlerMass,
    money: money1 + money2 + beltMoney + idlerMoney + factor(shelf, 'price.bearing'),
    outside: L.centre + o1 + o2 + 2 * section.toothHeight,
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
    tight,
    slack,
    neededTension: force / 2,
    shaft1,
    shaft2,
    shaftLoad,
    pluck,
    spanStiffness: kSpan,
    toothStiffness1: k1,
    toothStiffness2: k2,
    slackTorque,
    windUp,
    jumpTorque,
    shearTorque,
    tensionTorque,
    printedTorque,
    holdTorque1: hold1,
    holdTorque2: hold2,
    takeUpFit: fittingTakeUp(section, L.d1, L.d2, L.centre),
    takeUpTension,
    beltSpeed: at.speed * r2,
    beltMass,
    pulleyMass: [m1, m2],
    pulleyMoney: [money1, money2],
    beltMoney,
    idlerMass,
    idlerMoney,
    numbers,
  };
}
