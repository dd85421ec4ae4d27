import { boltPlaces, PLAIN_HUB } from '../gear/hub.ts';
import { intoHole, screwMass, SCREWS, type Screw } from '../shop/fasteners.ts';
import { circle } from '../shape/outline.ts';
import { prism, solidVolume, type Prism, type Solid } from '../shape/solid.ts';
import { sweptBy, type Body } from './body.ts';
import { inTheWay } from './in-the-way.ts';
import { at, bodyOf, size, STEEL, type Weighed } from './drawn.ts';
import { pointIn } from './frame.ts';
import type { StandingStage } from './layout.ts';
import { EDGE, goesOn, hasHub, HEAD_ROOM, HUB, LIP } from './plan.ts';
import { FITS, type Link } from './shafts.ts';
import type { Plate } from './seats.ts';
import { axisOf, outAxis, type Setting } from './setting.ts';
import { screwSolid } from './ties.ts';

/** How far a shaft stands out of the cover where its length is not given, m. */
const STUB = 0.015;
/** Metal round the bore of a hub that has no screws, m. */
const HUB_WALL = 4e-3;
/** Work of turning a piece, and of cutting a rod to length; price of their steel a kilogram: starting values. */
const [TURNED, ROD, C45, SILVER] = [6, 0.5, 6, 14];

/** Speed of what a stage gives its power to, in turns of the motor. */
export const speedAfter = (s: StandingStage): number => s.bodies.find((b) => b.turns === 'output')?.speed ?? NaN;

/** What a shaft is keyed into: what turns with a stage's output, and with the input of the next; a bought one is a block. */
const keyedTo = (s: StandingStage, next: StandingStage | undefined): string[] =>
  [
    ...s.bodies.filter((b) => b.turns === 'output'),
    ...(next?.bodies.filter((b) => next.bought || b.turns === 'input') ?? []),
  ].map((b) => b.id);

const turned = (solid: Solid): Weighed => {
  const mass = solidVolume(solid) * STEEL.density;
  return { made: 'bought', material: 'Steel C45, milled', mass, money: TURNED + mass * C45 };
};

const rod = (solid: Solid): Weighed => {
  const mass = solidVolume(solid) * STEEL.density;
  return { made: 'bought', material: 'Silver steel 115CrV3, ground rod', mass, money: ROD + mass * SILVER };
};

/** Height of the face that a stage gives its power at, m. */
export const faceOfOutput = (s: StandingStage): number => pointIn(s.frame, s.ports.output.at)[2];

/** Height of the face that a stage takes its power at, m. */
const faceOfInput = (s: StandingStage): number => pointIn(s.frame, s.ports.input.at)[2];

/**
 * Where a shaft that drives a stage ends, m: before what does not turn with it behind the wheel that it drives.
 *
 * @param end where it would end in a housing; behind one it stands in the stage as far as one stands out of a cover
 * @param beyond where what is fixed on the stage's flange begins
 */
function endIn(s: StandingStage, { into }: Link, gap: number, end: number | undefined, beyond: number): number {
  const driven = s.bodies.filter((b) => b.turns === 'input').map(sweptBy);
  const top = Math.max(...driven.map((b) => b.to));
  const [x, y] = axisOf(s);
  const wall = inTheWay(
    s.bodies.filter((b) => b.turns !== 'input' && !s.bought),
    { x, y, r: into / 2 },
    top,
  );
  return Math.min(end ?? faceOfInput(s) + STUB, Math.min(wall, beyond) - gap / 2);
}

/** A round bar about its axis, from one height to another, m, that is as thick as the next bore above a step. */
function barOf({ diameter, into }: Link, from: number, step: number, to: number): Prism[] {
  if (Math.abs(into - diameter) < FITS || !(step > from && step < to))
    return [prism(circle(0, 0, diameter / 2), from, to)];
  return [prism(circle(0, 0, diameter / 2), from, step), prism(circle(0, 0, into / 2), step, to)];
}

/** The shaft or hub that carries power out of a stage; none where its own flange does. */
export function linkBody(w: Setting, k: number, plates: readonly Plate[]): Body | undefined {
  const { plan, stages, output, h, step } = w;
  const link = plan.links[k]!;
  const s = stages[k]!;
  const isLast = k === stages.length - 1;
  const drives = goesOn(plan, k);
  // At the line's end a hub is wanted for a shaft alone, and a shaft only where none is given.
  if (!drives && link.hub !== (output !== undefined)) return undefined;
  const [x, y] = outAxis(s);
  const port = faceOfOutput(s);
  const lower = link.hub ? port : link.beside ? plates[k]!.from + LIP / 2 : s.from;
  // What goes on behind the housing is driven by the same shaft.
  const next = w.layout.stages[s.index + 1];
  // What is in one with its own shaft has no bore to go into: they are coupled where it begins. A bought unit takes a shaft in,
  // as it takes the motor's.
  const coupled = next && !next.bought && !(next.ports.input.shaft > 0) ? faceOfInput(next) : undefined;
  const end = isLast ? undefined : plates[k + 2]!.from - h.gap / 2;
  // A hub on the next stage's flange, or the output's shaft in it, comes down to that flange.
  const hung = k + 1 < stages.length && hasHub(plan, w.variant, k + 1);
  const meets = hung ? faceOfOutput(stages[k + 1]!) : Infinity;
  const upper =
    coupled ?? (next ? endIn(next, link, h.gap, end, meets) : output ? port + HUB : plates[k + 1]!.to + STUB);
  const borne = Math.max(plates[k + 1]!.to, plates[k + 1]!.from + (link.bearing?.width ?? 0) + LIP);
  const turnedFrom = next ? Math.max(faceOfInput(next), borne) : upper;
  const bar = (from: number) => barOf(link, from, turnedFrom - lower, upper - lower);
  // Keys, flats and set screws are not in a shaft's body.
  const common = {
    frames: [at(x, y, lower)],
    apart: (2 * k + 0.9) * step,
    speed: speedAfter(s),
    joins: keyedTo(s, next),
  };
  if (!link.hub) {
    const solid: Solid = { prisms: bar(0) };
    const stepped = solid.prisms.length > 1;
    return bodyOf(
      {
        ...common,
        id: `shaft-${k + 1}`,
        name: drives ? `Shaft ${k + 1}` : 'Output shaft',
        note:
          `⌀ ${size(link.diameter)}, ${size(upper - lower)} long` +
          (stepped ? `, ⌀ ${size(link.into)} from ${size(solid.prisms[1]!.from)} on` : ''),
        solid,
      },
      stepped ? turned(solid) : rod(solid),
    );
  }
  const f = link.flange;
  const held = f && flangeScrew(f);
  const across = f
    ? f.circle + Math.max(f.hole, held ? headHole(held.screw) : 0) + 2 * EDGE
    : link.diameter + 2 * HUB_WALL;
  const round = (d: number) => (f ? flangePlaces(f).map(([x0, y0]) => circle(x0, y0, d / 2)) : []);
  const bolts = round(f?.hole ?? 0);
  const bored = drives ? [] : [circle(0, 0, output!.shaftDiameter / 2)];
  const solid: Solid = {
    prisms: [
      // Heads are sunk: there is no more room than the gap before the next plate.
      ...(held
        ? [
            prism(circle(0, 0, across / 2), 0, HUB - held.sunk, [...bolts, ...bored]),
            prism(circle(0, 0, across / 2), HUB - held.sunk, HUB, [...round(headHole(held.screw)), ...bored]),
          ]
        : [prism(circle(0, 0, across / 2), 0, HUB, [...bolts, ...bored])]),
      ...(drives ? bar(HUB) : []),
    ],
  };
  const how = f ? `, ${f.screws} screws on ⌀ ${size(f.circle)}` : ', bonded';
  return bodyOf(
    {
      ...common,
      id: `hub-${k + 1}`,
      name: drives ? 'Flanged shaft' : 'Hub',
      note:
        `flange ⌀ ${size(across)}, ${size(HUB)} thick${how}; ` +
        (drives
          ? `shaft ⌀ ${size(link.diameter)}, ${size(upper - lower)} over all`
          : `bored ${size(output!.shaftDiameter)}`),
      solid,
    },
    turned(solid),
  );
}

type Flange = NonNullable<Link['flange']>;

/** Centres of a flange’s screws about its axis, m: where the stage has its holes. */
const flangePlaces = (f: Flange): readonly (readonly [number, number])[] =>
  boltPlaces({ ...PLAIN_HUB, bolts: f.screws, boltCircle: f.circle });

/** Across a sunk head, m. */
const headHole = (s: Screw): number => s.head + HEAD_ROOM[0];
/** Least that is left of a hub under a sunk head, m. */
const UNDER = 1.5e-3;

/** What holds a hub on a flange: the screw that its holes take, how deep its head is sunk, how long it is. */
export interface FlangeScrew {
  readonly screw: Screw;
  /** m */
  readonly sunk: number;
  /** m; undefined where no standard screw finds enough thread in the flange. */
  readonly length: number | undefined;
}

/** The largest screw that goes through a flange’s holes and whose head sinks into a hub; undefined where none does. */
export function flangeScrew(f: Flange): FlangeScrew | undefined {
  const screw = Object.values(SCREWS).findLast(
    (s) => s.hole <= f.hole + 1e-6 && HUB - s.headHeight - HEAD_ROOM[1] >= UNDER,
  );
  if (!screw) return undefined;
  const sunk = screw.headHeight + HEAD_ROOM[1];
  return { screw, sunk, length: intoHole(screw, HUB - sunk, f.deep) };
}

/** The screws of a hub on its flange; none where it is bonded. */
export function hubScrews(w: Setting, k: number): Body | undefined {
  const { plan, stages, variant, step } = w;
  const link = plan.links[k]!;
  const held = link.flange && hasHub(plan, variant, k) ? flangeScrew(link.flange) : undefined;
  if (!held) return undefined;
  const { screw: s, sunk } = held;
  const long = held.length ?? s.lengths[0]!;
  const [x, y] = outAxis(stages[k]!);
  const z = faceOfOutput(stages[k]!) + HUB - sunk;
  const speed = speedAfter(stages[k]!);
  const still = bodyOf(
    {
      id: `screw-hub-${k + 1}`,
      name: `Screw ISO 4762 ${s.id}×${Math.round(long * 1e4) / 10}`,
      note: `holds the hub on the flange, in inserts or a tapped thread; key ${size(s.key)}`,
      solid: screwSolid(s, long),
      frames: flangePlaces(link.flange!).map(([dx, dy]) => at(x + dx, y + dy, z)),
      apart: (2 * k + 1.1) * step,
      // It is in its thread there.
      joins: keyedTo(stages[k]!, undefined),
    },
    { made: 'bought', material: STEEL.name, mass: screwMass(s, long), money: s.price },
  );
  // They go round with the flange.
  return {
    ...still,
    turns: 'output',
    speed,
    places: (crank) => {
      const [c, q] = [Math.cos(crank * speed), Math.sin(crank * speed)];
      return flangePlaces(link.flange!).map(([dx, dy]) => ({
        ...at(x + c * dx - q * dy, y + q * dx + c * dy, z),
        x: [c, q, 0],
        y: [-q, c, 0],
      }));
    },
  };
}

/** Where the output's shaft runs, and how far it must reach, m. */
export interface ShaftRun {
  readonly from: number;
  readonly to: number;
  readonly needs: number;
}

/** The output's own shaft, as it was given; it is counted with the output. */
export function outputShaft(w: Setting, plates: readonly Plate[]): { run: ShaftRun; body?: Body } {
  const { plan, stages, output, pair, own, step } = w;
  if (!output) return { run: { from: NaN, to: NaN, needs: NaN } };
  const last = stages.length - 1;
  const s = stages[last]!;
  const cover = plates.at(-1)!;
  const long = output.shaftLength + (pair ? output.span : 0);
  const from = plan.links[last]!.hub ? faceOfOutput(s) : s.from;
  const run = { from, to: from + long, needs: pair && own ? cover.from + output.span + own.width : cover.to };
  if (!(long > 0)) return { run };
  const hollow = Math.min(output.shaftBore, output.shaftDiameter);
  const body = bodyOf(
    {
      id: 'output-shaft',
      name: 'Output shaft',
      note: `⌀ ${size(output.shaftDiameter)}, ${size(long)} long; counted with the output`,
      solid: {
        prisms: [prism(circle(0, 0, output.shaftDiameter / 2), 0, long, hollow > 0 ? [circle(0, 0, hollow / 2)] : [])],
      },
      frames: [at(0, 0, from)],
      apart: (2 * last + 1.4) * step,
      speed: speedAfter(s),
    },
    { made: 'bought', material: output.shaftMaterial.name, mass: 0, money: 0 },
  );
  return { run, body };
}
