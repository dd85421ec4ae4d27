import { LIMIT_KINDS } from '../brief/demand.ts';
import type { Figure } from '../figure/figure.ts';
import type { LineReport } from '../line/analyse.ts';
import type { LimitId } from '../schema/joint.ts';

/** How two lines differ in one figure, and whether it matters. */
export interface LineDifference {
  readonly id: string;
  readonly name: string;
  readonly a: Figure | undefined;
  readonly b: Figure | undefined;
  /**
   * `verdict`: one meets the limit and the other does not; `apart`: the bands do not touch; `within`: the difference is
   * smaller than what is not known.
   */
  readonly matters: 'verdict' | 'apart' | 'within' | 'none';
}

/** Figures that are compared besides what the brief limits. */
const ALSO = [
  'torque',
  'continuous',
  'speed',
  'play',
  'stiffness',
  'turnBack',
  'efficiency',
  'inertia',
  'acceleration',
  'natural',
  'resolution',
  'winding',
  'size',
  'length',
  'mass',
  'money',
];
/** Relative difference below which two exact figures count as the same. */
const SAME = 1e-3;

/** What tells two lines apart, limits first, most telling first. */
export function compareLines(a: LineReport, b: LineReport): LineDifference[] {
  const limits: string[] = a.verdicts.map((v) => v.id);
  const ids = [...limits, ...ALSO.filter((id) => !limits.includes(id))];
  const rank = { verdict: 0, apart: 1, within: 2, none: 3 };
  return ids
    .map((id): LineDifference => {
      const [x, y] = [a, b].map((r) => r.figures.find((f) => f.id === id));
      const [u, w] = [a, b].map((r) => r.verdicts.find((v) => v.id === id)?.state);
      const name = x?.name ?? y?.name ?? LIMIT_KINDS[id as LimitId]?.name ?? id;
      const fails = (s: string | undefined) => s === 'fails';
      let matters: LineDifference['matters'] = 'none';
      if (u && w && fails(u) !== fails(w)) matters = 'verdict';
      else if (x && y && Math.abs(x.value - y.value) > SAME * Math.max(Math.abs(x.value), Math.abs(y.value)))
        matters = x.high < y.low || y.high < x.low ? 'apart' : 'within';
      return { id, name, a: x, b: y, matters };
    })
    .sort((x, y) => rank[x.matters] - rank[y.matters]);
}

/** How far a figure is within its limit, as a share of the limit: negative where it misses. */
export function marginOf(asked: number, sense: 'min' | 'max' | 'either', value: number): number {
  if (!Number.isFinite(asked) || asked === 0 || sense === 'either') return NaN;
  return sense === 'min' ? value / asked - 1 : 1 - value / asked;
}
