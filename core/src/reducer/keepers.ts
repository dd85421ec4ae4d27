import { check, type Check } from '../figure/index.ts';
import type { Bearing } from '../schema/joint.ts';
import { circle } from '../shape/outline.ts';
import { prism, solidVolume, type Solid } from '../shape/solid.ts';
import { grooveCarries, ringFor, type RetainingRing } from '../shop/retaining-rings.ts';
import { stated } from '../units/stated.ts';
import type { Body } from './body.ts';
import { at, bodyOf, mm, size, STEEL, plateId } from './drawn.ts';
import { wheelOn } from './keys.ts';
import { faceOfOutput, speedAfter, type ShaftRun } from './link-bodies.ts';
import type { Working } from './link-loads.ts';
import { hasHub, HUB, type HousingPlan } from './plan.ts';
import { lipHole, type Plate } from './seats.ts';
import { outAxis, type Setting } from './setting.ts';
import { YIELD } from './strength.ts';

/** What keeps a shaft along its axis on one side: a retaining ring beside a bearing. */
export interface Keeper {
  /** Place of the stage that the shaft comes out of, in the run. */
  readonly k: number;
  /** It is the output's own shaft. */
  readonly output: boolean;
  readonly side: 'lower' | 'upper';
  /** Of the shaft's diameter; undefined where the standard has none. */
  readonly ring: RetainingRing | undefined;
  readonly bearing: Bearing;
  /** Face of the bearing's inner ring that it lies on, m along the axis, and how much room it has there. */
  readonly face: number;
  readonly room: number;
}

/** Price of a ring, starting value. */
const PRICE = 0.15;

/** Along the axis, where what turns with a stage's output begins and ends about its axis, m. */
function wheelsOf({ stages, sweeps }: Setting, k: number): { from: number; to: number } {
  const [x, y] = outAxis(stages[k]!);
  const own = sweeps[k]!.filter(({ body }) => body.turns === 'output').filter(({ body }) => {
    const [f] = body.places(0);
    return f !== undefined && Math.hypot(f.at[0] - x, f.at[1] - y) < 1e-6;
  });
  // Of what has no bodies nothing is known but where the stage lies.
  if (own.length === 0) return stages[k]!;
  return { from: Math.min(...own.map((s) => s.from)), to: Math.max(...own.map((s) => s.to)) };
}

/**
 * Where retaining rings keep the plain shafts of a run: inside of the two bearings of a shaft between stages, round both
 * rows of the output's.
 */
export function keepersOf(w: Setting, plates: readonly Plate[], shaft: ShaftRun): readonly Keeper[] {
  const { plan, output, own, pair, variant } = w;
  const last = plan.links.length - 1;
  return plan.links.flatMap((link, k): Keeper[] => {
    const { from, to } = wheelsOf(w, k);
    if (k === last && output) {
      if (!pair || !own || !(shaft.to > shaft.from)) return [];
      const cover = plates.at(-1)!;
      // A hub lies on the flange, which may stand higher than the wheel.
      const top = hasHub(plan, variant, k) ? Math.max(to, faceOfOutput(w.stages[k]!)) + HUB : to;
      const outer = cover.from + output.span + own.width;
      const common = { k, output: true, ring: ringFor(output.shaftDiameter), bearing: own };
      const beyond = common.ring?.beyond ?? 0;
      return [
        { ...common, side: 'lower', face: cover.from, room: cover.from - top },
        { ...common, side: 'upper', face: outer, room: shaft.to - outer - beyond },
      ];
    }
    const { bearing } = link;
    // A shaft in one bearing alone, or on a flange, is kept by what it is fixed to.
    if (link.hub || !link.beside || !bearing) return [];
    const common = { k, output: false, ring: ringFor(link.diameter), bearing };
    const [below, above] = [plates[k]!.to, plates[k + 1]!.from];
    return [
      { ...common, side: 'lower', face: below, room: from - below },
      { ...common, side: 'upper', face: above, room: above - to },
    ];
  });
}

/** How far a ring's lugs reach across in its groove, m. */
const across = (r: RetainingRing): number => r.groove + 2 * r.lug;

/** Whether there is a ring for the shaft, room for it, and its lugs clear the bearing's outer ring. */
export const keeps = ({ ring, room, bearing }: Keeper): boolean =>
  ring !== undefined && room >= ring.thick - 1e-9 && across(ring) <= lipHole(bearing) + 1e-9;

/** Whether a keeper's ring lies on the face from below. */
const isBelow = (x: Keeper): boolean => (x.side === 'lower') === x.output;

const idOf = (x: Keeper): string => `keeper-${x.output ? 'end' : x.k + 1}-${x.side}`;

/** The rings as bodies; their grooves are not in the shafts', as their keys’ slots are not. */
export const keeperBodies = (w: Setting, keepers: readonly Keeper[]): Body[] =>
  keepers.filter(keeps).map((x) => {
    const ring = x.ring!;
    const s = w.stages[x.k]!;
    const [ax, ay] = outAxis(s);
    const low = isBelow(x) ? x.face - ring.thick : x.face;
    const outer = circle(0, 0, ring.groove / 2 + ring.back);
    const solid: Solid = { prisms: [prism(outer, 0, ring.thick, [circle(0, 0, ring.shaft / 2)])] };
    const shaft = x.output ? 'case/output-shaft' : `case/shaft-${x.k + 1}`;
    const plate = `case/${plateId(x.k + 1, w.stages.length + 1)}`;
    const wheel = wheelOn(s, 'output')?.id ?? plate;
    const body = bodyOf(
      {
        id: idOf(x),
        name: `Retaining ring DIN 471 ${mm(ring.shaft)}×${mm(ring.thick)}`,
        note: `groove ⌀ ${size(ring.groove)}, ${size(ring.wide)} wide, ${isBelow(x) ? 'below' : 'above'} bearing ${x.bearing.name}`,
        solid,
        frames: [at(ax, ay, low)],
        apart: (2 * x.k + 0.9) * w.step,
        speed: speedAfter(s),
        joins: [shaft],
      },
      {
        made: 'bought',
        material: 'as supplied',
        mass: solidVolume(solid) * STEEL.density,
        money: PRICE,
      },
    );
    return { ...body, lies: { on: shaft, ...(!x.output && { under: x.side === 'lower' ? wheel : plate }) } };
  });

/**
 * Whether rings keep the shafts of a housing along their axes, and their grooves stand what wheels push along them.
 *
 * @param working of the run's stages
 */
export function keeperChecks(
  keepers: readonly Keeper[],
  { first, last }: Pick<HousingPlan, 'first' | 'last'>,
  working: readonly Working[] = [],
): Check[] {
  const shafts = new Map<string, Keeper[]>();
  for (const x of keepers) {
    const name = first + x.k === last ? 'Output’s shaft' : `Shaft after stage ${first + x.k + 1}`;
    shafts.set(name, [...(shafts.get(name) ?? []), x]);
  }
  return [...shafts].flatMap(([name, list]): Check[] => {
    const id = list[0]!.output ? 'output' : `${list[0]!.k + 1}`;
    const { ring, bearing } = list[0]!;
    const common = { name: `${name} is kept along its axis`, severity: 'warn', near: 0 } as const;
    const else_ = 'or keep it by retaining compound in its bearings.';
    if (!ring || across(ring) > lipHole(bearing) + 1e-9)
      return [
        check({
          ...common,
          id: `kept-${id}`,
          figure: ring ? across(ring) : 0,
          limit: ring ? lipHole(bearing) : 1,
          sense: ring ? 'max' : 'min',
          quantity: ring ? 'length' : 'count',
          why: ring
            ? `The lugs of the ring of its diameter (DIN 471) would rub on the outer ring of bearing ${bearing.name}.`
            : 'DIN 471 has no ring of its diameter, and nothing else keeps it from wandering along its bearings.',
          advice: ring ? `Put shims under the rings, ${else_}` : `Take a shaft of a usual diameter, ${else_}`,
        }),
      ];
    const tight = list.reduce((a, b) => (b.room < a.room ? b : a));
    const along = working[first + list[0]!.k]?.numbers.pushes?.peak.along ?? 0;
    const gap = Math.ceil((ring.thick - 1e-9) * 1e4) / 1e4;
    return [
      check({
        ...common,
        id: `kept-${id}`,
        figure: Math.max(0, tight.room),
        limit: ring.thick,
        sense: 'min',
        quantity: 'length',
        why: `A retaining ring DIN 471 of ${stated(ring.thick, 'length', 2)} lies on either side, between a bearing and what turns with the shaft.`,
        ...(!(tight.output && tight.side === 'upper') && {
          mend: { path: 'housing.gap', value: gap, label: `Room of ${stated(gap, 'length', 2)} to what moves` },
        }),
        advice:
          tight.output && tight.side === 'upper'
            ? `Take a longer shaft, ${else_}`
            : `Leave more room to what moves, ${else_}`,
      }),
      ...(along > 0
        ? [
            check({
              id: `groove-${id}`,
              name: `Grooves of the ${name.toLowerCase()} stand the push along it`,
              figure: along,
              limit: grooveCarries(ring, YIELD),
              sense: 'max',
              quantity: 'force',
              why: 'Teeth at an angle push their shaft along its axis, against a retaining ring.',
              advice: 'Take a thicker shaft, or teeth of less helix.',
            }),
          ]
        : []),
    ];
  });
}
