import { check, type Check, type Mend } from '../figure/index.ts';
import { stated } from '../units/stated.ts';
import { axleChecks } from './axles.ts';
import { blockChecks } from './block-checks.ts';
import { endingAt, goesOn, hasShaft } from './plan.ts';
import { undone } from './frame.ts';
import { acrossTheWay, inTheWay } from './in-the-way.ts';
import { bodyIn, type StandingStage } from './layout.ts';
import type { MotorFace } from '../shop/motor-face.ts';
import type { Reducer, ReducerVariant } from './reducer.ts';

/** Share of a driven wheel's width that its shaft should reach into it. */
const REACHES = 0.6;
/** Bores and shafts that differ by less fit, m. */
const FITS = 5e-5;
/** What must be left of a plate between two bearings, m. */
const LEAST_WALL = 1e-3;
/** Screws that hold plates level. */
const LEAST_SCREWS = 3;

const say = (x: number): string => stated(x, 'length', 4);
/** Rounded to tenths of a millimetre, down or up. */
const down = (x: number): number => Math.floor(x * 1e4 + 1e-6) / 1e4;
const up = (x: number): number => Math.ceil(x * 1e4 - 1e-6) / 1e4;

/** A bore of a stage made as wide as what goes through it, m; nothing where no parameter of the stage says how wide it is. */
const boredTo = (s: StandingStage, port: 'input' | 'output', wide: number): { mend?: Mend } => {
  const { boredBy } = s.ports[port];
  if (boredBy === undefined) return {};
  return {
    mend: {
      path: `stages.${s.index}.${boredBy}`,
      value: wide,
      label: `Stage ${s.index + 1}: ${port === 'input' ? 'driving' : 'driven'} bore ${say(wide)}`,
    },
  };
};

/** Whether the coupling of a stage, where it has one, takes the shaft that drives it, m. */
function coupled(id: string, what: string, diameter: number, driven: StandingStage | undefined): Check[] {
  const coupling = driven?.ports.input.coupling;
  if (!coupling) return [];
  return [
    check({
      id,
      name: `Coupling takes the ${what}`,
      figure: diameter,
      limit: coupling.most,
      sense: 'max',
      quantity: 'length',
      near: 0,
      severity: 'warn',
      why: `Stage ${driven.index + 1} has a shaft of its own; the coupling on it can be bored for ${say(coupling.most)}.`,
      advice: 'Have the shaft turned down, or take bearings of a larger bore in the stage.',
    }),
  ];
}

/**
 * The same for a motor's shaft that had no bore to go into, which is cut where it would run into something behind it.
 *
 * @param wall where that is, m from the motor's face
 * @param thick the plate that it goes through, m
 */
function joined(
  first: StandingStage,
  face: MotorFace,
  { housing }: ReducerVariant,
  wall: number,
  thick: number,
): { mend?: Mend } {
  const { mend } = boredTo(first, 'input', face.shaft);
  const { gap, plate } = housing!;
  // Its plate may be thinner then, and is never thinner than asked for.
  const reach = down(wall - gap / 2 + plate - thick);
  return !mend ? {} : { mend: reach < face.reach ? { ...mend, also: { 'housing.reach': reach } } : mend };
}

/** Where the motor's shaft meets what does not turn with it, m from its face; Infinity where nothing is in its way. */
function blockedAt({ bodies: all, face, plan, run: line }: Reducer): number {
  const shaft = all.find((b) => b.id === 'motor/shaft')!.places(0)[0]!;
  const bodies = all.map((b) => bodyIn(undone(shaft), b));
  const first = line.stages[0]!;
  const shaftAt = { x: 0, y: 0, r: face.shaft / 2 };
  const along = inTheWay(
    bodies.filter(
      (b) =>
        b.of !== 'motor' &&
        !(b.turns === 'input' && b.stage === first.index) &&
        !(b.of === 'stage' && b.stage !== first.index && plan === undefined),
    ),
    shaftAt,
  );
  return Math.min(
    along,
    acrossTheWay(
      bodies.filter((b) => b.turns === 'output'),
      shaftAt,
    ),
  );
}

/**
 * What decides whether a line's housing goes together: shafts that reach and fit, room for screws, bearings that are to be
 * had.
 */
export function reducerChecks(reducer: Reducer, variant: ReducerVariant): Check[] {
  const { housing, plan, face, run: line } = reducer;
  if (variant.housing?.by !== 'here') return [];
  const list: Check[] = [];
  const bore = line.stages[0]?.ports.input.shaft ?? 0;
  if (bore > 0)
    list.push(
      check({
        id: 'motor-bore',
        name: 'Motor’s shaft fits the first stage’s bore',
        figure: Math.abs(face.shaft - bore),
        limit: FITS,
        sense: 'max',
        quantity: 'length',
        near: 0,
        severity: 'warn',
        why: `The shaft is ${say(face.shaft)}, the bore ${say(bore)}.`,
        ...boredTo(line.stages[0]!, 'input', face.shaft),
        advice: 'Give the first wheel the shaft’s bore, or say what shaft your motor has.',
      }),
    );
  list.push(...coupled('motor-coupled', 'motor’s shaft', face.shaft, line.stages[0]));
  if (!housing || !plan) return list;
  const { output } = endingAt(plan, variant, line.stages.length);
  const wall = blockedAt(reducer);
  if (plan.direct)
    list.push(
      check({
        id: 'motor-joins',
        name: 'Motor’s shaft goes into what it drives',
        figure: bore > 0 ? 1 : 0,
        limit: 1,
        sense: 'min',
        quantity: 'count',
        near: 0,
        severity: 'warn',
        why: `What it drives in stage 1 has ${bore > 0 ? 'a' : 'no'} bore for it; the housing made here has no room for a coupling between them.`,
        ...joined(line.stages[0]!, face, variant, wall, plan.plates[0]!),
        advice:
          'Bore it for the motor’s shaft, or mount the motor on a plate of its own, as far off as a coupling is long.',
      }),
    );
  // Where it is to go through bearings on either side, that is asked instead.
  if (Number.isFinite(housing.engaged) && !(bore > 0 && plan.aside?.borne)) {
    const limit = Math.min(REACHES * housing.driven, 1.5 * face.shaft);
    const short = limit - housing.engaged;
    const { plate } = variant.housing!;
    list.push(
      check({
        id: 'motor-reach',
        name: 'Motor’s shaft reaches into what it drives',
        figure: Math.max(0, housing.engaged),
        limit,
        sense: 'min',
        quantity: 'length',
        near: 0,
        severity: 'warn',
        why: 'A wheel that sits on the end of a shaft tilts and works loose.',
        ...(plan.direct &&
          plate - short >= 2e-3 && {
            mend: {
              path: 'housing.plate',
              value: down(plate - short),
              label: `Plates ${say(down(plate - short))} thick`,
            },
          }),
        advice: plan.aside
          ? 'Take a motor with a longer shaft, or one whose shaft is not cut.'
          : 'Take a motor with a longer shaft, or thinner plates; sink the motor into its plate.',
      }),
    );
  }
  if ((plan.direct || plan.aside) && face.reach > 0 && wall < Infinity && line.stages[0]!.ports.input.shaft > 0) {
    const most = down(wall - variant.housing!.gap / 2);
    list.push(
      check({
        id: 'motor-room',
        name: 'Motor’s shaft ends before what does not turn with it',
        figure: face.reach,
        limit: wall,
        sense: 'max',
        quantity: 'length',
        near: 0,
        why: 'Behind the wheel it drives something stands in its way.',
        mend: { path: 'housing.reach', value: most, label: `Cut the shaft to ${say(most)}` },
        advice: 'Cut the shaft, or take thicker plates.',
      }),
    );
  }
  for (const { stage, name } of housing.inside)
    list.push(
      check({
        id: `inside-${stage + 1}`,
        name: `Something holds the ${name.toLowerCase()} of stage ${stage + 1}`,
        figure: 0,
        limit: 1,
        sense: 'min',
        quantity: 'count',
        near: 0,
        severity: 'warn',
        why: 'It stands still inside of what turns round it: no wall of the housing made here reaches it.',
        advice: 'Screw it to the plate beside it, or hold the outer member and let this one turn.',
      }),
    );
  if (housing.wall < Infinity)
    list.push(
      check({
        id: 'seats-apart',
        name: 'Bearings in one plate stand apart',
        figure: Math.max(0, housing.wall),
        limit: LEAST_WALL,
        sense: 'min',
        quantity: 'length',
        near: 0,
        severity: housing.wall > 0 ? 'warn' : 'stop',
        why:
          housing.wall > 0
            ? 'So much of the plate is left between the two that come nearest.'
            : 'Two of them want the same place in it.',
        advice: 'Turn one of the stages beside it about its input’s axis, or change a centre distance.',
      }),
    );
  list.push(...blockChecks(plan.aside, line.stages[0], face), ...axleChecks(housing.axles));
  plan.links.forEach((link, k) => {
    const isLast = k + 1 === plan.links.length;
    const stage = line.stages[link.stage]!;
    // A stage behind the housing is driven by the same shaft.
    const next = line.stages[link.stage + 1];
    const bore = next?.ports.input.shaft ?? 0;
    const wider = bore > link.diameter;
    list.push(...coupled(`coupled-${k + 1}`, `shaft after stage ${link.stage + 1}`, link.diameter, next));
    if (next && !link.hub && bore > 0)
      list.push(
        check({
          id: `bores-${k + 1}`,
          name: `One shaft through stages ${link.stage + 1} and ${link.stage + 2}`,
          figure: Math.abs(link.diameter - bore),
          limit: FITS,
          sense: 'max',
          quantity: 'length',
          near: 0,
          severity: wider ? 'warn' : 'note',
          why:
            `It comes out of a bore of ${say(link.diameter)} and goes into one of ${say(bore)}: ` +
            (wider ? 'thicker there, it would not go through its bearings.' : 'it is turned with a step.'),
          ...boredTo(next, 'input', link.diameter),
          advice: wider
            ? 'Give both the same bore, or press a sleeve into the wider one.'
            : 'Give both the same bore, and a plain rod does.',
        }),
      );
    if (isLast && output && !link.hub)
      list.push(
        check({
          id: 'output-bore',
          name: 'Output shaft fits the last stage’s bore',
          figure: Math.abs(output.shaftDiameter - stage.ports.output.shaft),
          limit: FITS,
          sense: 'max',
          quantity: 'length',
          near: 0,
          why: `The shaft is ${say(output.shaftDiameter)}, the bore ${say(stage.ports.output.shaft)}.`,
          ...boredTo(stage, 'output', output.shaftDiameter),
          advice: 'Give the last wheel the shaft’s bore, or the shaft the bore’s diameter.',
        }),
      );
    if (hasShaft(plan, { output }, k))
      list.push(
        check({
          id: `bearing-${k + 1}`,
          name: !goesOn(plan, k)
            ? 'A bearing for the output’s shaft'
            : `A bearing for the shaft after stage ${link.stage + 1}`,
          figure: link.bearing ? 1 : 0,
          limit: 1,
          sense: 'min',
          quantity: 'count',
          near: 0,
          severity: 'warn',
          why: `The shop has no ball bearing of bore ${say(link.diameter)}: the shaft runs in the plate itself.`,
          advice: 'Take a bore that bearings are made for, or put the bearing in the shop.',
        }),
      );
  });
  if (output && Number.isFinite(housing.shaft.to)) {
    const short = housing.shaft.needs - housing.shaft.to;
    list.push(
      check({
        id: 'output-reach',
        name: 'Output shaft reaches through its bearings',
        figure: housing.shaft.to - housing.shaft.from,
        limit: housing.shaft.needs - housing.shaft.from,
        sense: 'min',
        quantity: 'length',
        near: 0,
        why: 'From the wheel that drives it to the outer bearing’s face.',
        mend: {
          path: 'output.shaftLength',
          value: up(output.shaftLength + short),
          label: `Shaft longer by ${say(up(short))}`,
        },
        advice: 'Take a longer shaft or set the bearings closer.',
      }),
    );
  }
  const { ears } = variant.housing!;
  if (ears)
    list.push(
      check({
        id: 'ears',
        name: 'Room for the housing’s ears',
        figure: housing.ears.length,
        limit: ears.count,
        sense: 'min',
        quantity: 'count',
        near: 0,
        severity: 'warn',
        why: 'Between the screws that hold it together there is not room for all of them round the outline.',
        advice: 'Take fewer ears, or thinner screws for them.',
      }),
    );
  list.push(
    check({
      id: 'screws',
      name: 'Room for the housing’s screws',
      figure: housing.screws.length,
      limit: Math.min(LEAST_SCREWS, housing.wanted),
      sense: 'min',
      quantity: 'count',
      near: 0,
      why: 'Round the outline there is not room for enough of them to hold the plates level.',
      advice: 'Take smaller screws or a thicker wall.',
    }),
  );
  return list;
}
