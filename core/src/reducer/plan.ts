import type { Bearing, Variant } from '../schema/joint.ts';
import { intoHole, SCREWS } from '../shop/fasteners.ts';
import type { MotorFace } from '../shop/motor-face.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Ports } from '../stage/contract.ts';
import type { Aside } from './aside.ts';
import { linksOf, smallestBearing, type Link } from './shafts.ts';

/** Thickness of the hub on a flange, of the lip behind a bearing, and what must be left under a screw's head, m. */
export const HUB = 5e-3;
export const LIP = 1e-3;
const UNDER_HEAD = 2e-3;
/** Slide fit of what is laid in by hand; least step that stops a ring; material left round a hole, m. */
export const [SLIDE, STEP, EDGE] = [5e-5, 1.5e-3, 2e-3] as const;
/** Screws stand no farther apart than this along the outline, m. */
export const PITCH = 0.07;
/** Room between stages that stand in no housing of ours, and before what turns there, m. */
export const APART = 1e-3;

/** What of a line stands in a housing that is made here. */
export interface HousingPlan {
  /** First and last stage in it, by their places in the line. */
  readonly first: number;
  readonly last: number;
  /** What carries power out of each of these stages. */
  readonly links: readonly Link[];
  /** Thickness of each plate, one more than stages, m. */
  readonly plates: readonly number[];
  /** The motor is screwed on the first plate. */
  readonly direct: boolean;
  /** Power comes into its first stage across, from a motor on a block of its own between the first two plates. */
  readonly aside?: Aside;
  /** How much further than the first stage the room round it reaches before and behind, m. */
  readonly more: readonly [number, number];
  /** What stands behind it: a unit with a face of its own, or a stage that is made. */
  readonly behind?: 'bought' | 'made';
}

/**
 * Which stages can stand in plates that lie across their outputs' axes: the first run of such.
 *
 * @param across whether power may come into the first stage of the line across
 */
function runOf(
  ports: readonly Ports[],
  bought: readonly boolean[],
  across: boolean,
): readonly [number, number] | undefined {
  const first = bought.indexOf(false);
  // What runs straight has a guide of its own.
  const stands = (k: number) =>
    !bought[k] && (ports[k]!.input.along === 'z' || (k === 0 && across)) && !ports[k]!.output.straight;
  if (first < 0 || !stands(first)) return undefined;
  let last = first;
  while (last + 1 < ports.length && stands(last + 1)) last++;
  return [first, last];
}

/** A variant as its housing ends: the output's shaft stands behind the last stage, and one that ends before has none. */
export const endingAt = <V extends Pick<Variant, 'output'>>(
  plan: Pick<HousingPlan, 'last'>,
  variant: V,
  stages: number,
): V => (plan.last + 1 < stages ? { ...variant, output: undefined } : variant);

/** Whether a link drives a stage of the line: the next one in the housing, or what stands behind it. */
export const goesOn = ({ links, behind }: Pick<HousingPlan, 'links' | 'behind'>, k: number): boolean =>
  k + 1 < links.length || behind !== undefined;

/** Whether a hub is fixed on the flange of a stage: power goes on from it by a shaft. */
export const hasHub = (
  plan: Pick<HousingPlan, 'links' | 'behind'>,
  variant: Pick<Variant, 'output'>,
  k: number,
): boolean => plan.links[k]!.hub && (goesOn(plan, k) || variant.output !== undefined);

/**
 * Whether a shaft that is made here carries power on from a stage: to another one, or out of a bore where no output is given.
 */
export const hasShaft = (
  plan: Pick<HousingPlan, 'links' | 'behind'>,
  variant: Pick<Variant, 'output'>,
  k: number,
): boolean => goesOn(plan, k) || (!plan.links[k]!.hub && variant.output === undefined);

/** Over a screw's head in its counterbore, m: across, and deep. */
export const HEAD_ROOM = [6e-4, 2e-4] as const;

/** Whether a boss for the bearing of the first stage's output stands clear of the motor beside it. */
function clearOfMotor({ input, output }: Ports, link: Link, motor: Variant['motor']): boolean {
  const apart = Math.hypot(output.at[0] - input.at[0], output.at[1] - input.at[1]);
  const corner = (motor.frame / 2) * Math.SQRT2;
  return apart > corner + (link.bearing?.outside ?? 0) / 2 + BESIDE;
}
/** Room for the wall of such a boss, m. */
const BESIDE = 5e-3;

/** Whether a bearing beside the motor's axis, or on it, would be cut into by the pilot of the motor beside it. */
const meetsPilot = (
  { at: input }: Ports['input'],
  { at }: Pick<Ports['output'], 'at'>,
  bearing: Bearing | undefined,
  { pilot }: MotorFace,
): boolean =>
  bearing !== undefined && Math.hypot(at[0] - input[0], at[1] - input[1]) < (pilot + bearing.outside) / 2 + EDGE;

/** Plates get thicker by this until a standard screw fits what it holds, m. */
const THICKER = 5e-4;

/** The least thickness from `least` on at which a standard screw holds the motor with its head sunk, m. */
export function forMotor(face: MotorFace, least: number): number {
  const s = SCREWS[face.thread];
  const sunk = s.headHeight + HEAD_ROOM[1];
  let thick = Math.max(least, sunk + UNDER_HEAD);
  for (let n = 0; n < 20 && intoHole(s, thick - sunk, face.deep) === undefined; n++) thick += THICKER;
  return thick;
}

/**
 * What stands between plates, and how thick they are: no thinner than a bearing in them is wide with a lip behind it, nor
 * than what holds the motor.
 *
 * @param across how the first stage of the line stands in it where power comes into that across
 */
export function housingPlan(
  variant: Pick<Variant, 'housing' | 'output' | 'motor'>,
  ports: readonly Ports[],
  bought: readonly boolean[],
  face: MotorFace,
  shelf: Shelf,
  across?: Aside,
): HousingPlan | undefined {
  const { housing, motor } = variant;
  const run = housing && housing.by === 'here' ? runOf(ports, bought, across !== undefined) : undefined;
  if (!housing || !run) return undefined;
  const [first, last] = run;
  const { output } = endingAt({ last }, variant, ports.length);
  const aside = first === 0 ? across : undefined;
  const links = linksOf(ports.slice(first, last + 1), first, shelf, ports[last + 1]);
  // What drives across may leave no room for the wheel's shaft on its side.
  if (aside && links[0]!.beside && aside.near < links[0]!.diameter / 2 + housing.gap)
    links[0] = { ...links[0]!, beside: false };
  const behind = ports[last + 1] && (bought[last + 1] ? 'bought' : 'made');
  const direct = first === 0 && !aside;
  const plates = Array.from({ length: links.length + 1 }, (_, i) => {
    const widths = [housing.plate];
    const [before, after] = [links[i - 1], links[i]];
    const byOutput = (k: number) => k === links.length - 1 && output !== undefined;
    // Outside a boss holds what is wider than its plate; between stages, and under a unit's face, there is no room for one.
    if (before && (i < links.length || behind === 'bought') && !byOutput(i - 1))
      widths.push((before.bearing?.width ?? 0) + LIP);
    const clear = i === 0 && direct && clearOfMotor(ports[0]!, after!, motor);
    const overPilot = (at: Pick<Ports['output'], 'at'>, bearing: Bearing | undefined) =>
      i === 0 && direct && meetsPilot(ports[0]!.input, at, bearing, face) ? face.pilotHeight + HEAD_ROOM[1] : 0;
    // Tongues of blocks come up from below what sits in the plate over them.
    const groove = aside && i === 1 ? STEP : 0;
    if (after?.beside && !byOutput(i) && (i > 0 || !clear))
      widths.push((after.bearing?.width ?? 0) + LIP + groove + overPilot(ports[first + i]!.output, after.bearing));
    // A stage's own shafts are borne on both sides of it.
    for (const stage of [i - 1, i])
      for (const axle of (links[stage] && ports[first + stage]!.axles) ?? []) {
        const bearing = smallestBearing(shelf, axle.diameter);
        widths.push((bearing?.width ?? 0) + LIP + groove + overPilot(axle, bearing));
      }
    const least = Math.max(...widths);
    return i === 0 && direct ? forMotor(face, least) : least;
  });
  return {
    first,
    last,
    links,
    plates,
    direct,
    ...(aside && { aside }),
    more: moreFor(
      aside,
      housing.gap,
      housing.gap + (hasHub({ links, ...(behind && { behind }) }, variant, 0) ? HUB : 0),
    ),
    ...(behind && { behind }),
  };
}

/** How much more room blocks beside the first stage ask for than it has before and behind it anyway, m. */
const moreFor = (aside: Aside | undefined, before: number, behind: number): readonly [number, number] =>
  aside ? [Math.max(0, aside.beyond[0] - before), Math.max(0, aside.beyond[1] - behind)] : [0, 0];

/** How far what holds the housing together stands out of its cover, m: a rod with its nut stands highest. */
function headsOver({ screw, stands }: NonNullable<Variant['housing']>): number {
  const s = SCREWS[screw];
  return s.washerHeight + Math.max(s.headHeight, s.nutHeight + 1.5 * s.pitch + (stands ?? 0));
}

/** What stands between a stage and the next one along the axis, m. */
export function roomBetween(
  plan: HousingPlan | undefined,
  variant: Pick<Variant, 'housing' | 'output'>,
  before: number,
  boughtBefore: boolean,
): number {
  if (!plan) return boughtBefore ? 0 : APART;
  const { gap } = variant.housing!;
  if (before + 1 === plan.first) return plan.plates[0]! + gap;
  if (before >= plan.first && before <= plan.last) {
    const k = before - plan.first;
    const hub = (hasHub(plan, variant, k) ? HUB : 0) + (k === 0 ? plan.more[1] : 0);
    const boss = (plan.links[k]!.bearing?.width ?? 0) + LIP - plan.plates[k + 1]!;
    const over =
      before < plan.last ? gap : plan.behind === 'made' ? gap + Math.max(headsOver(variant.housing!), boss) : 0;
    return hub + gap + plan.plates[k + 1]! + over;
  }
  return boughtBefore ? 0 : APART;
}
