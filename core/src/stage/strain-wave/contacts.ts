import type { ContactSet } from '../../lobed/index.ts';
import { STEPS, type StrainWaveGeometry } from './geometry.ts';
import { outRadius, type StrainWaveParams } from './params.ts';

/**
 * Teeth in their spaces as one-sided contacts about the middle: levers at what goes out, and clearances on the side that
 * closes when it is turned on.
 */
export function contactsOf(g: StrainWaveGeometry, p: StrainWaveParams): ContactSet {
  const c = g.course;
  const [arms, gaps]: [number[], number[]] = [[], []];
  const R = outRadius(p, g.module);
  // One contact a tooth, each where it stands in its lobe: lobes repeat exactly, so the course of one serves.
  const half = Math.PI / p.lobes;
  const deepest = Math.max(1e-12, g.engaged);
  for (let i = 0; i < p.teeth; i++) {
    const along = (2 * Math.PI * i) / p.teeth;
    const u = along - 2 * half * Math.round(along / (2 * half));
    const k = Math.round(((u + half) / (2 * half)) * STEPS);
    const gap = c.ahead[k]!;
    // A tooth that only just dips in has no side to push with.
    if (!Number.isFinite(gap) || c.depth[k]! < 0.1 * deepest) continue;
    arms.push(R * Math.cos(g.lean));
    gaps.push(Math.max(0, gap));
  }
  if (!arms.length) {
    arms.push(R * Math.cos(g.lean));
    gaps.push(Math.max(0, g.least));
  }
  const nothing = new Float64Array(arms.length);
  return {
    arms: Float64Array.from(arms),
    // In order, so that a turn is found by adding up.
    gaps: Float64Array.from(gaps).sort(),
    nx: nothing,
    ny: nothing,
    slides: nothing,
    curves: nothing,
  };
}

/**
 * Turn of the output under a torque, rad: contacts of one lever and in the order of their gaps close one after another,
 * so that with k of them closed T = c·a·Σ(a·θ − gap).
 */
export function turnUnder(s: ContactSet, stiffness: number, torque: number): number {
  const arm = s.arms[0]!;
  let sum = 0;
  let turn = 0;
  for (let k = 1; k <= s.gaps.length; k++) {
    sum += s.gaps[k - 1]!;
    turn = (torque / (stiffness * arm) + sum) / (k * arm);
    if (k === s.gaps.length || turn * arm <= s.gaps[k]!) break;
  }
  return turn;
}

/**
 * How far teeth go from touch to touch along the circle, m: least clearance ahead and behind of teeth well in; below 0
 * where they clash.
 */
export function freeWay(g: StrainWaveGeometry): number {
  const c = g.course;
  let [ahead, behind] = [Infinity, Infinity];
  for (let k = 0; k <= STEPS; k++) {
    if (c.depth[k]! < 0.1 * g.engaged) continue;
    ahead = Math.min(ahead, c.ahead[k]!);
    behind = Math.min(behind, c.behind[k]!);
  }
  return Number.isFinite(ahead + behind) ? (ahead + behind) / Math.cos(g.lean) : 0;
}

/**
 * Work of sliding over all loaded teeth for a radian of the generator, per unit of friction: force times the way a
 * tooth slips along its side.
 */
export function slidePerTurn(g: StrainWaveGeometry, forces: Float64Array): number {
  const total = forces.reduce((s, f) => s + f, 0);
  // A tooth goes in and out by its depth along its side once a lobe: on the mean, twice the depth over the arc of the
  // mesh.
  const arc = (2 * Math.PI * g.inMesh) / g.mesh.splineTeeth / g.line.form.lobes;
  return total * ((2 * g.engaged) / Math.cos(g.lean) / Math.max(0.05, arc));
}
