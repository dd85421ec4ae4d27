import { openLine } from '../line/open.ts';
import type { Body } from '../reducer/body.ts';
import { reducerOf } from '../reducer/reducer.ts';
import { ok, type Problem, type Result } from '../result.ts';
import type { Variant } from '../schema/joint.ts';
import type { Correction } from '../solid/correction.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Part } from '../stage/contract.ts';
import { makers, partKey, type MadeBy } from './making-of.ts';
import { changesByBody, correctionFor, fitsOf, type PairFit } from './pair-fit.ts';
import { matingPairs } from './pairs.ts';
import { partAdvice, type PartAdvice } from './part-advice.ts';
import { partFeatures, type PartFeature } from './part-features.ts';

/** A part that is made, with the process that makes it. */
export interface FitPartRow {
  readonly key: string;
  readonly name: string;
  /** Place of its stage; −1 for the housing. */
  readonly stage: number;
  readonly material: string;
  readonly printed: boolean;
  /** The process that makes it; undefined where none is chosen. */
  readonly process?: string;
  readonly features: readonly PartFeature[];
  readonly advice?: PartAdvice;
}

/** Fits of a whole variant: its pairs, what each part is drawn like, and how it is made. Plain data. */
export interface FitSheet {
  readonly parts: readonly FitPartRow[];
  readonly pairs: readonly PairFit[];
  /** How each part is drawn for its process, by its key. */
  readonly corrections: Readonly<Record<string, Correction>>;
  /** Why the parts do not stand together, so that no pairs are known. */
  readonly apart?: Problem;
}

/** What of a variant its fits depend on. */
export type FitVariant = Pick<Variant, 'motor' | 'mount' | 'output' | 'housing' | 'stages' | 'making'>;

const isOurs = (body: Body): boolean =>
  body.part.made === 'printed' ||
  (body.of !== 'motor' &&
    /milled|cut|sheet/i.test(body.part.material) &&
    !/^(screw|nut|washer|threaded)/i.test(body.part.name));

/**
 * Works out the fits of a variant.
 *
 * @param day ISO 8601, for which the processes are taken
 * @param reserve least strength over load of a stage, by its place; NaN where nothing loads it
 * @param drawFits whether round faces are drawn as their fits ask for
 */
export function fitSheet(
  variant: FitVariant,
  shelf: Shelf,
  day: string,
  reserve: (stage: number) => number = () => NaN,
  drawFits = true,
): Result<FitSheet> {
  const opened = openLine(variant.stages, shelf).all;
  if (!opened.ok) return opened;
  // What does not go together as a reducer is still made part by part.
  const made = reducerOf(variant, opened.value, shelf);
  const bodies = made.ok ? made.value.bodies : [];
  const by = makers(variant.making, shelf.processes, day);
  const pairs = fitsOf(matingPairs(bodies), bodies, by);
  const rounds = drawFits ? changesByBody(pairs) : new Map<string, never>();
  const ofStages = new Map<string, Part>();
  opened.value.forEach((stage, k) => {
    const parts = stage.parts();
    if (parts.ok) for (const p of parts.value) ofStages.set(partKey(k, p.id), p);
  });
  const corrections: Record<string, Correction> = {};
  const parts = bodies.filter(isOurs).map((b): FitPartRow => {
    const printed = b.part.made === 'printed';
    const maker: MadeBy | undefined = by(b.id, printed);
    const own = ofStages.get(b.id);
    if (maker) corrections[b.id] = correctionFor(maker, rounds.get(b.id) ?? [], own?.drawnIn);
    const solid = b.solid();
    const curves =
      own?.curves ??
      solid.prisms.flatMap((p) => [
        { layer: p.cut ? 'cut' : 'outside', outline: p.outer },
        ...p.holes.map((outline) => ({ layer: 'holes', outline })),
      ]);
    return {
      key: b.id,
      name: b.part.name,
      stage: b.stage,
      material: b.part.material,
      printed,
      ...(maker && { process: maker.process.id }),
      features: partFeatures({ curves, ...(own?.teeth && { teeth: own.teeth }) }),
      ...(printed &&
        maker && {
          advice: partAdvice(
            { name: b.part.name, turns: b.turns, solid, ...(own?.teeth && { teeth: own.teeth }) },
            maker.process,
            b.stage < 0 ? NaN : reserve(b.stage),
          ),
        }),
    };
  });
  // What stands in no place of its own is drawn for its process all the same.
  for (const [key, p] of ofStages) {
    const maker = p.made === 'printed' && !corrections[key] ? by(key, true) : undefined;
    if (maker) corrections[key] = correctionFor(maker, [], p.drawnIn);
  }
  return ok({ parts, pairs, corrections, ...(!made.ok && { apart: made.problem }) });
}
