import { check, type Check, type Mend } from '../figure/index.ts';
import { SCREW_IDS, type ScrewId } from '../schema/housing-schema.ts';
import type { Material } from '../schema/joint.ts';
import { preload, SCREWS, type Screw } from '../shop/fasteners.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';
import { bentAndTwisted } from '../stage/shaft.ts';
import type { Reducer, ReducerVariant } from './reducer.ts';
import { creeps, keptOf, standsAcross } from './for-good.ts';
import { flangeScrew } from './link-bodies.ts';
import { EDGE, endingAt, goesOn, hasHub, hasShaft, HUB } from './plan.ts';
import { faceHolds, postsCarry, wallsCarry } from './sides.ts';
import type { HeldRing } from './rings.ts';
import { bendingOf, type Working } from './link-loads.ts';
import type { Link } from './shafts.ts';

/** Yield of ground silver steel, Pa. */
export const YIELD = 450e6;
/** Share of it that a key, a flat, a set screw or a ring's groove leaves; shear against tension (von Mises). */
const [NOTCHED, SHEAR] = [0.75, 1 / Math.sqrt(3)];

/**
 * Torque at which a steel shaft yields, N·m: τ·π·d³/16, less what its key or flat takes.
 *
 * Source: torsion of a round bar; shear yield by von Mises.
 * @example shaftCarries(0.008) // 19.59
 */
export const shaftCarries = (diameter: number): number => (YIELD * SHEAR * NOTCHED * Math.PI * diameter ** 3) / 16;

/**
 * Torque that a ring takes between two faces, N·m: half of the screws' force goes through it and half through what stands
 * round it, on both of its faces: μ·F.
 *
 * @param force of all screws together, N
 * @param radius at which it is clamped, m
 * @example clampCarries(3000, 0.03, 0.2) // 18
 */
export const clampCarries = (force: number, radius: number, friction: number): number => friction * force * radius;

/**
 * Torque that a screwed flange carries by friction, N·m: so much a screw, by its stress area against an M3’s.
 *
 * @param radius of the screws’ circle, m
 * @example flangeCarries(4, SCREWS.M3, 0.012, shelf) // 16.8
 */
export const flangeCarries = (screws: number, screw: Screw, radius: number, shelf: Shelf): number =>
  screws * factor(shelf, 'hold.bolt') * (screw.area / SCREWS.M3.area) * radius;

/**
 * Share of what closed walls carry that is left where one side is open between two plates: a pair of sides across from one
 * another is sheared alone, T = τ·t·A.
 */
const OPEN = 0.5;

/** Share of a plastic's strength that is counted on round an insert: knurls do not fill it, and layers begin to part there. */
const ROUND_INSERT = 0.5;

/**
 * Force along its axis that an insert, or a thread, in plastic holds before it comes out, N: π·d·L·τ of the cylinder round
 * it.
 *
 * @param hole what it sits in, diameter, m
 * @param deep how deep the plate is, m
 * Source: shear of the material round it, τ = σ/√3 by von Mises; half of it counted.
 * @example insertHolds(3.2e-3, 3e-3, { strength: 70e6, across: 35e6 }) // 304.7
 */
export const insertHolds = (hole: number, deep: number, m: Pick<Material, 'strength' | 'across'>): number =>
  Math.PI * hole * deep * SHEAR * ROUND_INSERT * (m.across ?? m.strength);

/** Width of a nut's thread where the screw's crests shear it, over its pitch: an eighth is the screw's. */
const THREAD = 7 / 8;

/**
 * Force along its axis that a thread cut into a plate holds before it strips, N: ⅞·π·d·L·τ; of plastics half.
 *
 * @param deep how deep the screw bites, m
 * Source: basic profile of ISO 68-1, sheared at the screw's outside; τ = σ/√3 by von Mises.
 * @example threadHolds(SCREWS.M3, 4e-3, { strength: 250e6 }) // 4761.2
 */
export const threadHolds = (
  { d }: Pick<Screw, 'd'>,
  deep: number,
  m: Pick<Material, 'strength' | 'across' | 'creep'> & Partial<Pick<Material, 'made'>>,
): number => THREAD * Math.PI * d * deep * SHEAR * standsAcross(m);

/**
 * Torque that screws in inserts carry by leaning on the holes of their plate, N·m.
 *
 * Source: bearing pressure on the projected hole; half of the strength counted, as round an insert.
 * @example insertsBear(6, 3.2e-3, 3e-3, 0.012, { strength: 70e6 }) // 24.192
 */
export const insertsBear = (
  screws: number,
  hole: number,
  deep: number,
  radius: number,
  m: Pick<Material, 'strength'>,
): number => screws * hole * deep * ROUND_INSERT * m.strength * radius;

/** Force that the screws of a housing keep on what they clamp, N. */
export function clampForce(screw: Screw, count: number, { housing }: ReducerVariant, shelf: Shelf): number {
  const m = housing!.material;
  return count * preload(screw, standsAcross(m)) * keptOf(m, shelf);
}

/** The next thread that holds; undefined where none does. */
export const thicker = (now: ScrewId, holds: (s: Screw) => boolean): ScrewId | undefined =>
  SCREW_IDS.slice(SCREW_IDS.indexOf(now) + 1).find((id) => holds(SCREWS[id]));

/** The next thread of the housing's screws that holds. */
export function screwMend(now: ScrewId, holds: (s: Screw) => boolean): Mend | undefined {
  const found = thicker(now, holds);
  return found && { path: 'housing.screw', value: found, label: `Screws ${found}` };
}

/** What carries at a stage of the line, N·m. */
export interface Carries {
  /** Peak torque at the stage's output, and on what it holds. */
  readonly output: number;
  readonly held: number;
}

/** Whether shafts, and what holds rings, stand the line's peak. */
export function strengthChecks(
  reducer: Reducer,
  whole: ReducerVariant,
  carries: readonly Carries[],
  shelf: Shelf,
  working: readonly Working[] = [],
): Check[] {
  const { housing, plan, layout } = reducer;
  if (!housing || !plan) return [];
  const variant = endingAt(plan, whole, layout.stages.length);
  const list: Check[] = [];
  const andCreeps = creeps(variant.housing!.material) ? ', and plastics creep under them' : '';
  const { screw, screws } = { screw: SCREWS[variant.housing!.screw], screws: housing.screws.length };
  plan.links.forEach((link, k) => {
    if (hasHub(plan, variant, k) && link.flange) list.push(...flanged(link, carries[link.stage]!.output));
    if (!hasShaft(plan, variant, k)) return;
    const limit = shaftCarries(link.into);
    const torque = carries[link.stage]!.output;
    const bent = working.length > 0 ? bendingOf(reducer, k, working) : 0;
    list.push(
      check({
        id: `shaft-${k + 1}`,
        name: !goesOn(plan, k)
          ? 'Output’s shaft carries the peak'
          : `Shaft after stage ${link.stage + 1} carries the peak`,
        // As a torque alone: √(T² + ⁴⁄₃·M²).
        figure: (2 / Math.sqrt(3)) * bentAndTwisted(bent, torque),
        limit,
        sense: 'max',
        quantity: 'torque',
        why: `Steel of ${stated(link.into, 'length', 3)} with a key or a flat yields in torsion${bent > 0 ? `; ${stated(bent, 'torque', 3)} of bending by the wheels on it count as torque does (von Mises)` : ''}.`,
        advice: 'Take a thicker shaft: larger bores on either side of it.',
      }),
    );
  });
  list.push(...sideChecks());
  for (const ring of housing.rings) {
    const { held } = carries[ring.stage]!;
    const name = `stage ${ring.stage + 1}`;
    list.push(ring.shelf && ring.clamp ? clamped(ring, held, name) : loose(ring, name));
  }
  return list;

  /** Walls or posts between plates, and what it is mounted by, against the peak at the output. */
  function sideChecks(): Check[] {
    const h = variant.housing!;
    const torque = carries[plan!.last]?.output ?? 0;
    const strong = h.material.across ?? h.material.strength;
    const radii = housing!.screws.map((c) => Math.hypot(c.x, c.y));
    const { plates } = housing!;
    const bays = plates.slice(1).map((p, k) => p.from - plates[k]!.to);
    const isWalls = h.sides === 'walls';
    const limit = isWalls
      ? wallsCarry(housing!.area, h.wall, strong) * (plan!.aside ? OPEN : 1)
      : postsCarry(radii, { diameter: screw.hole + 2 * EDGE, hole: screw.hole, length: Math.max(...bays) }, strong);
    const out = [
      check({
        id: 'sides',
        name: isWalls ? 'Walls carry the peak' : 'Posts carry the peak',
        figure: torque,
        limit,
        sense: 'max',
        quantity: 'torque',
        why: isWalls
          ? `What the output gives, the housing takes: its walls are sheared${plan!.aside ? ', of which one side is open for the motor' : ''}.`
          : 'What the output gives, the housing takes: the posts between its plates are bent.',
        advice: isWalls ? 'Make the walls thicker.' : 'Close the housing by walls, or take more and thicker screws.',
      }),
    ];
    const holds = (s: Screw, at: readonly number[]) =>
      faceHolds(at, clampForce(s, 1, variant, shelf), factor(shelf, 'clamp.friction'));
    const mounted = {
      figure: torque,
      sense: 'max',
      quantity: 'torque',
      severity: 'warn',
      advice: 'Take more screws, or put pins through the plate into what carries it.',
    } as const;
    if ((h.stands ?? 0) > 0)
      out.push(
        check({
          ...mounted,
          id: 'mounted',
          name: 'Its rods hold the housing where it is mounted',
          limit: holds(screw, radii),
          why: `They press the cover on what carries it${andCreeps}; the output’s torque would turn it.`,
          mend: () => screwMend(screw.id, (x) => holds(x, radii) >= torque),
        }),
      );
    if (h.ears) {
      const at = housing!.ears.map((c) => Math.hypot(c.x, c.y));
      const found = thicker(h.ears.screw, (x) => holds(x, at) >= torque);
      out.push(
        check({
          ...mounted,
          id: 'ears-hold',
          name: 'Its ears hold the housing where it is mounted',
          limit: holds(SCREWS[h.ears.screw], at),
          why: `Their screws press them on what carries it${andCreeps}; the output’s torque would turn it.`,
          ...(found && { mend: { path: 'housing.ears.screw', value: found, label: `Ears for ${found}` } }),
        }),
      );
    }
    return out;
  }

  function flanged({ flange, stage }: Link, torque: number): Check[] {
    const held = flangeScrew(flange!);
    const common = { name: `Screws of the hub on stage ${stage + 1}`, group: 'strength' };
    if (!held)
      return [
        check({
          ...common,
          id: `flange-thread-${stage + 1}`,
          name: `${common.name} go through its flange`,
          figure: flange!.hole,
          limit: SCREWS.M2.hole,
          sense: 'min',
          quantity: 'length',
          near: 0,
          why: 'No standard screw is so thin.',
          advice: 'Give the stage’s flange holes of 2.4 to 4 mm.',
        }),
      ];
    if (held.length === undefined) {
      const { screw, sunk } = held;
      const bites = screw.lengths.find((l) => l >= HUB - sunk + 0.8 * screw.d) ?? Infinity;
      return [
        check({
          ...common,
          id: `flange-thread-${stage + 1}`,
          name: `${common.name} find thread enough`,
          figure: flange!.deep,
          limit: bites - (HUB - sunk),
          sense: 'min',
          quantity: 'length',
          why: `The shortest standard screw of ${screw.id} that bites by 0.8 of its diameter comes out behind the plate.`,
          advice: 'Give the stage’s plate more thickness.',
        }),
      ];
    }
    const { screws, circle, hole, deep, material } = flange!;
    const bolted = flangeCarries(screws, held.screw, circle / 2, shelf);
    if (material?.made !== 'printed')
      return [
        check({
          ...common,
          id: `flange-${stage + 1}`,
          name: `${common.name} carry the peak`,
          figure: torque,
          limit: bolted,
          sense: 'max',
          quantity: 'torque',
          why: 'They press hub and flange together, and friction carries the torque; where it slips, screws wear their holes.',
          advice: 'Take more screws or a larger circle in the stage, or bond the hub as well.',
        }),
      ];
    // In plastic a screw presses no harder than its insert stays in, less what creeps.
    const stays = insertHolds(hole, deep, material);
    const pressed = screws * factor(shelf, 'clamp.friction') * keptOf(material, shelf) * stays * (circle / 2);
    return [
      check({
        ...common,
        id: `flange-${stage + 1}`,
        name: `${common.name} hold by friction`,
        figure: torque,
        limit: Math.min(bolted, pressed),
        sense: 'max',
        quantity: 'torque',
        severity: 'warn',
        why:
          `An insert in ${stated(deep, 'length', 3)} of ${material.name.replace(/, printed$/, '')} comes out at ${stated(stays, 'force', 2)}, and creep leaves less of what it presses; ` +
          'beyond, the hub slips by the play of its screws and they lean on their holes.',
        advice: 'Take more screws, a larger circle or a thicker plate in the stage, or bond the hub as well.',
      }),
      check({
        ...common,
        id: `flange-bears-${stage + 1}`,
        name: `${common.name} bear the peak on their holes`,
        figure: torque,
        limit: insertsBear(screws, hole, deep, circle / 2, material),
        sense: 'max',
        quantity: 'torque',
        why: 'Once friction slips, inserts press on the plastic beside them, which gives way.',
        advice: 'Take more screws, a larger circle or a thicker plate in the stage.',
      }),
    ];
  }

  function clamped(ring: HeldRing, held: number, name: string): Check {
    const radius = (ring.radius + Math.max(ring.before, ring.behind)) / 2;
    const by = (s: Screw) =>
      clampCarries(clampForce(s, screws, variant, shelf), radius, factor(shelf, 'clamp.friction'));
    return check({
      id: `ring-${ring.stage + 1}`,
      name: `Ring of ${name} stays put between its shelf and its clamp`,
      figure: held,
      limit: by(screw),
      sense: 'max',
      quantity: 'torque',
      severity: 'warn',
      why: `The housing’s screws press it${andCreeps}; what it holds would turn it.`,
      mend: () => screwMend(screw.id, (x) => by(x) >= held),
      advice: 'Bond the ring, or put pins across its seat.',
    });
  }

  function loose(ring: HeldRing, name: string): Check {
    return check({
      id: `ring-${ring.stage + 1}`,
      name: `Ring of ${name} is held along the axis`,
      figure: Number(ring.shelf) + Number(ring.clamp),
      limit: 2,
      sense: 'min',
      quantity: 'count',
      near: 0,
      severity: 'note',
      why: 'What turns beside it is as large as it is: there is no room for a shelf or a clamp.',
      advice: 'Bond it into its seat, or put pins across.',
    });
  }
}
