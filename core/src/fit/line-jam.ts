import { travelOf } from '../brief/demand.ts';
import { openFor, openLine } from '../line/open.ts';
import { ratiosAfter } from '../line/sum.ts';
import { ok, type Result } from '../result.ts';
import type { Brief, Variant } from '../schema/joint.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import type { Part } from '../stage/contract.ts';
import { stageKind } from '../stage/registry.ts';
import { drawSpecimens, type Drawn, type JamStage, type Warmth } from './jam.ts';
import { makers, partKey } from './making-of.ts';
import { RANGE } from '../gear/mesh-gap.ts';

/** What is asked of specimens that are imagined. */
export interface JamWish {
  readonly variant: Pick<Variant, 'stages' | 'making' | 'housing'>;
  readonly brief: Brief;
  /** Day for which the processes are taken. */
  readonly day: string;
  /** Stage whose allowance is moved; all of them where left out. */
  readonly moves?: number;
  /** How much warmer than measured it runs, K. */
  readonly rise: number;
  readonly samples: number;
}

/** Imagined specimens of a line. */
export interface LineJam {
  readonly drawn: Drawn;
  /** Most play that is asked at the output, rad; Infinity where nobody asks. */
  readonly asked: number;
  readonly stages: readonly {
    readonly name: string;
    /** Its gaps are known one by one and can be moved. */
    readonly movable: boolean;
    readonly gaps: readonly string[];
  }[];
  /** Names of the processes that make its parts. */
  readonly processes: readonly string[];
}

/** Most play that the brief asks for, rad; Infinity where it does not. */
export const askedPlay = (brief: Brief): number =>
  brief.limits
    .filter((l) => l.id === 'play' && l.sense === 'max')
    .reduce((s, l) => Math.min(s, l.value ?? Infinity), Infinity);

const REST = { torque: 0, torqueRms: 0, speed: 0 };

/**
 * Draws specimens of a line as its processes scatter, to count which jam and which have too much play.
 *
 * @returns refuses in words where a stage cannot be
 */
export function* lineJam(wish: JamWish, shelf: Shelf): Generator<number, Result<LineJam>> {
  const { variant, brief, day, moves, rise, samples } = wish;
  const opened = openFor(travelOf(brief), variant.stages, shelf).all;
  if (!opened.ok) return opened;
  const by = makers(variant.making, shelf.processes, day);
  const links = opened.value.map((s) => ({ ratio: s.kinematics.ratio }));
  const after = ratiosAfter(links);
  const used = new Set<string>();
  // Planets stand on their carrier's plates; all else in the housing, where that is made here.
  const frameOf = (parts: readonly Part[], k: number) => {
    const plate = parts.find((p) => /^plate/.test(p.id));
    if (plate) return by(partKey(k, plate.id), plate.made === 'printed');
    const { housing } = variant;
    return housing?.by === 'here' ? by('case/plate-motor', housing.material.made === 'printed') : undefined;
  };
  const stages = opened.value.map((stage, k): JamStage => {
    const freedom = stage.freedom();
    const parts = stage.parts();
    const find = (id: string) =>
      parts.ok
        ? (parts.value.find((p) => p.id === id) ?? parts.value.find((p) => p.id.startsWith(`${id}-`)))
        : undefined;
    return {
      name: `Stage ${k + 1}, ${stageKind(variant.stages[k]!.kind)?.name.toLowerCase()}`,
      freedom,
      after: after[k] ?? Infinity,
      play: stage.load(REST).play,
      madeBy: (id) => {
        const part = find(id);
        const made = part && by(partKey(k, part.id), part.made === 'printed');
        if (made) used.add(made.process.name);
        return made;
      },
      frame: frameOf(parts.ok ? parts.value : [], k),
      plastic: (id) => find(id)?.made === 'printed',
      moves: freedom !== undefined && (moves === undefined || moves === k),
    };
  });
  const range = (id: string): readonly [number, number] => {
    const f = shelf.factors[id]!;
    return [factor(shelf, id) * 1e-6, ((f.high - f.low) / 2 / RANGE) * 1e-6];
  };
  const warmth: Warmth = {
    mean: rise,
    sd: rise / 4,
    plastic: range('expand.plastic'),
    metal: range('expand.metal'),
    frame: (variant.housing?.material.made ?? 'printed') === 'printed',
  };
  const asked = askedPlay(brief);
  const drawn = yield* drawSpecimens(stages, asked, warmth, samples);
  return ok({
    drawn,
    asked,
    stages: stages.map((s) => ({
      name: s.name,
      movable: s.freedom !== undefined,
      gaps: (s.freedom?.chains ?? []).flatMap((c) => c.gaps.map((g) => g.name)),
    })),
    processes: [...used],
  });
}

/**
 * Parameters of the stages that are moved with every gap wider by so much, m, rounded to a micrometre.
 *
 * @returns by place in the line; none for stages whose gaps are not known
 */
export function widened(
  stages: Variant['stages'],
  by: number,
  moves: number | undefined,
  shelf: Shelf,
): ReadonlyMap<number, Readonly<Record<string, number>>> {
  const out = new Map<number, Readonly<Record<string, number>>>();
  const opened = openLine(stages, shelf).all;
  if (!opened.ok) return out;
  opened.value.forEach((stage, k) => {
    if (moves !== undefined && moves !== k) return;
    const next = stage.freedom()?.wider(by);
    if (next) out.set(k, Object.fromEntries(Object.entries(next).map(([id, x]) => [id, Math.round(x * 1e6) / 1e6])));
  });
  return out;
}
