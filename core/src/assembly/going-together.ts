import type { ManifoldToplevel } from 'manifold-3d';
import { refuse, type Result } from '../result.ts';
import type { Variant } from '../schema/joint.ts';
import { openLine, openStage, type StageOpener } from '../line/open.ts';
import type { Body } from '../reducer/body.ts';
import { undone } from '../reducer/frame.ts';
import { creeps, standsAcross } from '../reducer/for-good.ts';
import { bodyIn } from '../reducer/layout.ts';
import { CARRIAGE, carriageOf, liesAcross } from '../reducer/carriage.ts';
import { orderOf, type Move, type Order, type OrderProgress } from '../reducer/order.ts';
import { reducerOf, type Reducer } from '../reducer/reducer.ts';
import { SCREWS, preload, tightening, type Screw } from '../shop/fasteners.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { AssemblyStep } from '../stage/contract.ts';
import { stated } from '../units/stated.ts';

/** One step of putting a line together. */
export interface GoingStep {
  /** Alike for alike steps, so that what was ticked off stays so. */
  readonly id: string;
  /** The body that goes in, and place of its stage in the line; −1 for what is of none. */
  readonly body: string;
  readonly stage: number;
  readonly do: string;
  readonly tool?: string;
  readonly caution?: string;
  /** What to mind with the whole stage, told before its first part. */
  readonly minds?: readonly AssemblyStep[];
}

/** Putting a line together, step by step; or what of it does not come apart. */
export interface GoingTogether {
  readonly steps: readonly GoingStep[];
  /** What no move takes out, and what is in its way either way: sentences. */
  readonly stuck: readonly string[];
}

const lower = (name: string): string => (/^[A-Z][a-z]/.test(name) ? name[0]!.toLowerCase() + name.slice(1) : name);

/** What is said of one move. */
function says(
  move: Move,
  reducer: Reducer,
  tight: (s: Screw) => string,
  face: Screw,
  screw: Screw,
): Omit<GoingStep, 'id' | 'body' | 'stage'> {
  const { unit, way, springs, deep } = move;
  if (unit.body === CARRIAGE) return lowered(reducer);
  const body = reducer.bodies.find((b) => b.id === unit.body)!;
  const name = lower(body.part.name);
  const many = unit.count === 1 ? `the ${name}` : `${unit.count} × ${name}`;
  const reach = deep > 1e-3 ? `, ${stated(deep, 'length', 3)} deep` : '';
  const kind = unit.body.replace(/^[^/]*\//, '');
  if (unit.body === 'case/plate-motor') return { do: `Lay down ${many}, its inside up.` };
  if (unit.body === 'case/block-motor')
    return { do: `Lay down ${many}, its inside up: on it the driving side is put together by itself.` };
  if (/^case\/block-/.test(unit.body))
    return { do: `Push ${many} over the shaft; once all stands, the grooves of the plates hold it.` };
  if (unit.body === 'motor/body')
    return {
      do: `Hold the motor against the ${reducer.plan?.aside ? 'block' : 'plate'} from below, its shaft through it.`,
    };
  if (unit.body === 'case/screw-motor')
    return {
      do: `Screw the motor on from inside with ${many}.`,
      tool: `key ${stated(face.key, 'length', 2)}${reach}, ${tight(face)}`,
    };
  if (/^case\/screw-hub/.test(unit.body)) {
    const own = SCREWS[/M[\d.]+/.exec(name)![0] as Screw['id']];
    const link = reducer.plan!.links[Number(unit.body.replace(/^.*-/, '')) - 1]!;
    const of = link.flange?.material;
    const intoPlastic = of !== undefined && (of.made === 'printed' || creeps(of));
    return {
      do: `Screw the hub on its flange with ${many}.`,
      tool: `key ${stated(own.key, 'length', 2)}${reach}`,
      caution: intoPlastic
        ? 'Into inserts or plastic: snug, no more; a drop of medium thread locker.'
        : 'A drop of medium thread locker.',
    };
  }
  if (unit.body === 'case/tie')
    return {
      do: `Push ${many} through from above.`,
      ...(/^screw/.test(name) && { tool: `key ${stated(screw.key, 'length', 2)}` }),
    };
  if (/^case\/screw-idler/.test(unit.body)) {
    const melted = body.joins?.some((id) => id.startsWith('case/insert'));
    return {
      do: `Screw the tensioner’s slide on with ${many}, so that it still slides; tighten once the tension is set.`,
      tool: `key ${stated(screw.key, 'length', 2)}`,
      caution: `${melted ? 'Into inserts: snug, no more' : `Into threads of the cover: ${tight(screw)}, no more`}. Motor unpowered while the tension is set.`,
    };
  }
  if (/^case\/washer/.test(unit.body)) return { do: `Put ${many} on from ${way === 'up' ? 'below' : 'above'}.` };
  if (unit.body === 'case/nut')
    return {
      do: `Turn ${many} on from ${way === 'up' ? 'below' : 'above'} and tighten crosswise.`,
      tool: `spanner ${stated(screw.nut, 'length', 2)}, ${tight(screw)}`,
    };
  const plate = move.seat && listed([move.seat.in], reducer);
  if (unit.body.startsWith('case/insert'))
    return {
      do: `Melt ${many} into the ${plate ?? 'plate'}, flush${move.seat?.stands ? '' : ', before that goes on'}.`,
      tool: 'soldering iron with a flat tip',
      caution: 'Hot: eye protection, fresh air; let it cool before anything leans on it.',
    };
  if (plate && /-pin-\d+$/.test(unit.body))
    return { do: `Press ${many} into the ${plate}, before that goes on.`, caution: 'Press, do not hammer.' };
  if (plate && !move.seat!.stands)
    return {
      do: `Press ${many} into the ${plate}, flush, before that goes on.`,
      caution: 'Press on the outer ring; do not hammer.',
    };
  if (/^(bearing|roller)/.test(kind) && unit.body.startsWith('case/'))
    return {
      do: `Press ${many} into its seat${plate ? ` in the ${plate}` : ''}, flush${way === 'up' ? ', from below' : ''}.`,
      caution: 'Press on the outer ring; do not hammer.',
    };
  if (unit.body.startsWith('case/keeper'))
    return {
      do: `Snap ${many} into its groove in the ${listed([body.lies!.on], reducer)}.`,
      tool: 'pliers for outer rings (DIN 5254)',
      caution: 'Eye protection: rings fly off.',
    };
  if (body.lies?.under) {
    const [shaft, wheel] = [body.lies.on, body.lies.under].map((id) => listed([id], reducer));
    return {
      do: `Lay ${many} into the slot of the ${shaft}, where the ${wheel} comes.`,
      caution: 'Its sides fit tight, its back has room: file the sides, not the back.',
    };
  }
  if (/(^|-)pin(-|$)/.test(kind))
    return { do: `Push ${many} in.`, caution: 'Press, do not hammer; support the plate under the pin.' };
  const [into, goes] = unit.count === 1 ? ['its place', 'it goes'] : ['their places', 'they go'];
  if (body.flexes)
    return {
      do: `Bend ${many} into ${into}${way === 'up' ? ' from below' : ''}; ${goes} over what stands there by springing.`,
    };
  if (springs) {
    const round = reducer.bodies.filter((b) => b.flexes && b.stage === body.stage).map((b) => lower(b.part.name));
    const what = round.length ? `, the ${round.join(' and the ')} round ${unit.count === 1 ? 'it' : 'them'}` : '';
    return { do: `Set ${many} in${what}${way === 'up' ? ', from below' : ''}.` };
  }
  if (move.meshed === 'with the last')
    return {
      do: `${many[0]!.toUpperCase()}${many.slice(1)} ${unit.count === 1 ? 'goes' : 'go'} in with that, in mesh.`,
    };
  if (move.meshed)
    return {
      do: `Bring ${and([many, ...move.meshed.map((id) => counted(id, reducer))])} into mesh and put them in together${way === 'up' ? ', from below' : ''}.`,
      caution: 'Teeth of two hands go into one another from the side only.',
    };
  const put = way === 'down' ? `Lower ${many} into ${into}.` : `Bring ${many} up from below.`;
  // Keys and flats turn a plain shaft; where no rings fit, nothing of the housing keeps it from wandering along its bearings.
  const isKept = reducer.bodies.filter((b) => b.id.startsWith('case/keeper') && b.lies?.on === unit.body).length > 1;
  return /^case\/shaft-/.test(unit.body) && !isKept
    ? {
        do: put,
        caution:
          'Nothing keeps it along its axis: retaining compound in its bearings, or retaining rings (DIN 471) beside them.',
      }
    : { do: put };
}

/** Putting what was put together across into the plates, in one. */
function lowered({ layout, plan }: Reducer): Omit<GoingStep, 'id' | 'body' | 'stage'> {
  const into = layout.stages[plan!.first]!;
  const wheel = lower(into.bodies.find((b) => b.turns === 'output')!.part.name);
  return into.ports.input.turnsIn
    ? {
        do: `Lower the driving side in one, its blocks into the grooves of the plate, and turn the ${wheel} by hand as it goes into the thread.`,
        caution: 'Fingers clear of the mesh: a thread draws in what touches it.',
      }
    : { do: 'Lower the driving side in one, its blocks into the grooves of the plate.' };
}

/** A body with how many pieces it has, in a sentence. */
function counted(id: string, reducer: Reducer): string {
  const body = reducer.bodies.find((b) => b.id === id)!;
  const { length } = body.places(0);
  return length === 1 ? `the ${lower(body.part.name)}` : `${length} × ${lower(body.part.name)}`;
}

/** Names in a sentence. */
const and = (list: readonly string[]): string =>
  list.length < 2 ? list.join('') : `${list.slice(0, -1).join(', ')} and ${list.at(-1)}`;

/** Names of bodies in a sentence, three at most. */
function listed(ids: readonly string[], reducer: Reducer): string {
  const names = ids.map((id) =>
    id === CARRIAGE ? 'driving side' : lower(reducer.bodies.find((b) => b.id === id)?.part.name ?? id),
  );
  return names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ');
}

/** An order that is a share of what is looked for, told from a place on. */
function* shareOf<T>(run: Generator<OrderProgress, T>, share: number, from: number): Generator<OrderProgress, T> {
  let step = run.next();
  while (!step.done) {
    yield { share: from + share * step.value.share };
    step = run.next();
  }
  return step.value;
}

/**
 * The order of putting a line together, found by taking it apart.
 *
 * @returns refuses in words where a stage cannot be, or where axes cross and no housing is made round that: then stages say how
 *   they go together by themselves. What goes across behind a housing comes last, by its own list
 */
export function* goingTogether(
  kernel: ManifoldToplevel,
  variant: Variant,
  shelf: Shelf,
  open: StageOpener = openStage,
): Generator<OrderProgress, Result<GoingTogether>> {
  const opened = openLine(variant.stages, shelf, open).all;
  if (!opened.ok) return opened;
  if (opened.value.length === 0)
    return refuse('There is nothing to put together.', 'The line has no stages.', 'Add one in the Line.');
  const made = reducerOf(variant, opened.value, shelf);
  if (!made.ok) return made;
  const reducer = made.value;
  const { plan, stands: across, layout } = reducer;
  // What stands in a housing goes together along its own axis, whatever goes across behind it.
  const within = (b: Body) => b.stage < 0 || (plan !== undefined && b.stage >= plan.first && b.stage <= plan.last);
  if (!layout.parallel && !plan?.aside && !(across && plan?.first === 0))
    return refuse(
      'The order of the whole line is not worked out.',
      'Its axes cross, and parts are only moved along the output’s axis here.',
      'Put each stage together as its own list says, below its parts.',
    );
  const inside = layout.parallel ? reducer.bodies : reducer.bodies.filter(within);
  const told = across ? inside.map((b) => bodyIn(undone(across), b)) : inside;
  // What lies across is put together along its own axis first, and goes in as one.
  const carried = plan?.aside ? told.filter(liesAcross) : [];
  const aside =
    carried.length > 0
      ? yield* shareOf(
          orderOf(
            kernel,
            carried.map((b) => bodyIn(undone(reducer.run.input), b)),
            'case/block-motor',
          ),
          0.3,
          0,
        )
      : undefined;
  const whole = aside ? [...told.filter((b) => !carried.includes(b)), carriageOf(carried)] : told;
  const before = aside ? 0.3 : 0;
  const main = yield* shareOf(
    orderOf(kernel, whole, reducer.housing ? 'case/plate-motor' : 'motor/body'),
    1 - before,
    before,
  );
  const order: Order = aside ? { moves: [...aside.moves, ...main.moves], held: [...aside.held, ...main.held] } : main;
  const { housing } = variant;
  const stands = housing ? standsAcross(housing.material) : Infinity;
  const tight = (s: Screw) => `tighten to ${stated(tightening(s, preload(s, stands)), 'torque', 2)}`;
  const [face, screw] = [SCREWS[reducer.face.thread], SCREWS[housing?.screw ?? 'M3']];
  const minded = new Set<number>();
  const drives = carried.find((b) => b.of === 'stage' && b.turns === 'input')?.id ?? 'case/block-motor';
  const steps = order.moves.map((move): GoingStep => {
    // What goes in as one is shown by what drives in it.
    const id = move.unit.body === CARRIAGE ? drives : move.unit.body;
    const stage = move.unit.body === CARRIAGE ? -1 : reducer.bodies.find((b) => b.id === id)!.stage;
    const first = stage >= 0 && !minded.has(stage);
    minded.add(stage);
    return {
      id: move.unit.id,
      body: id,
      stage,
      ...says(move, reducer, tight, face, screw),
      ...(first && { minds: opened.value[stage]!.assembly() }),
    };
  });
  // Behind it every stage goes by its own list.
  const behind = reducer.bodies
    .filter((b) => !layout.parallel && !within(b))
    .map((b, i, all): GoingStep => ({
      id: b.id,
      body: b.id,
      stage: b.stage,
      do: `Set the ${lower(b.part.name)} in, as the list of stage ${b.stage + 1} says.`,
      ...(b.stage !== all[i - 1]?.stage && { minds: opened.value[b.stage]!.assembly() }),
    }));
  return {
    ok: true,
    value: {
      steps: [...steps, ...behind],
      stuck: order.held.map(({ unit, up, down }) => {
        const name = reducer.bodies.find((b) => b.id === unit.body)?.part.name ?? 'The driving side';
        const where = unit.body.startsWith('stage') ? ` of stage ${unit.body.slice(5).split('/')[0]}` : '';
        const way = (side: string, ids: readonly string[]) => (ids.length ? `${side} ${listed(ids, reducer)}` : '');
        return `${name}${where} cannot be put in: ${[way('above it', up), way('below it', down)].filter(Boolean).join('; ')} ${up.length + down.length > 1 ? 'are' : 'is'} in its way.`;
      }),
    },
  };
}
