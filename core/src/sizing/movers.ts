import type { Figure } from '../figure/index.ts';
import type { Joint, Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import { analyseLine, type LineReport } from '../line/analyse.ts';
import { lineInputs } from './inputs.ts';
import { rememberingOpener } from '../line/open.ts';

/**
 * An input that moves a figure: how much the figure changes, relative to itself, when the input grows by a hundredth
 * (or by one).
 */
export interface Mover {
  readonly label: string;
  /** What the input is: a load case, a stage's parameter, the motor, a factor of the shop. */
  readonly group: string;
  /** Relative change of the figure for the change of the input, e.g. 0.01 for one percent. */
  readonly change: number;
  /** How the input was moved: "+1 %" or "+1". */
  readonly step: string;
}

/** Which figure of a line: the line's own, or a stage's. */
export interface FigureAddress {
  readonly stageId: string | undefined;
  readonly figureId: string;
}

/** The figure that stands there; undefined where the line has none such. */
export function findFigure(report: LineReport, at: FigureAddress): Figure | undefined {
  const list =
    at.stageId === undefined ? report.figures : report.stages.find((s) => s.stageId === at.stageId)?.report?.figures;
  return list?.find((f) => f.id === at.figureId);
}

/**
 * The inputs that move a figure most, by finite differences over everything a person can set: one percent on what is
 * continuous,
 * one more on what is counted.
 *
 * @param count how many to return
 * @param onProgress share done, 0 to 1; return false to stop early
 * @returns movers, strongest first; empty where the figure does not exist or nothing moves it
 */
export function movers(
  joint: Joint,
  variant: Variant,
  shelf: Shelf,
  at: FigureAddress,
  count = 3,
  onProgress?: (share: number) => boolean,
): Mover[] {
  const open = rememberingOpener();
  const plain = { bands: false, mends: false, open };
  const report = analyseLine(joint, variant, shelf, plain);
  const base = findFigure(report, at)?.value;
  if (base === undefined) return [];
  const all = lineInputs({ joint, variant, shelf }, report.reads.factors).filter(
    (x) => x.value !== 0 && x.id !== 'motor/stepsPerTurn',
  );
  const found: Mover[] = [];
  for (const [i, input] of all.entries()) {
    const t = input.with(input.whole ? input.value + 1 : input.value * 1.01);
    const value = findFigure(analyseLine(t.joint, t.variant, t.shelf, plain), at)?.value;
    if (value !== undefined && Number.isFinite(value)) {
      const change = base === 0 ? 0 : (value - base) / Math.abs(base);
      if (Math.abs(change) > 1e-7)
        found.push({ label: input.label, group: input.group, step: input.whole ? '+1' : '+1 %', change });
    }
    if (onProgress && !onProgress((i + 1) / all.length)) break;
  }
  return found.sort((a, b) => Math.abs(b.change) - Math.abs(a.change)).slice(0, count);
}
