import type { LoadCase } from '../schema/joint.ts';
import { caseLoads } from './demand.ts';

/**
 * A load case with its speed, or its load, scaled. Speed is scaled from what the move reaches, which a short way keeps
 * below what was
 * asked; accelerations stay.
 *
 * @param g local gravity, m/s²
 */
export function scaleCase(
  c: LoadCase,
  by: { readonly speedBy: number } | { readonly torqueBy: number },
  g: number,
): LoadCase {
  if ('speedBy' in by) {
    const s = by.speedBy;
    if (c.pattern === 'points') return { ...c, rows: c.rows.map((r) => ({ ...r, speed: r.speed * s })) };
    if (c.given === 'time') return { ...c, moveTime: c.moveTime / s };
    const loads = caseLoads(c, g);
    const reached = c.pattern === 'straight' ? loads.values['linearSpeed']! : loads.speed;
    return { ...c, speed: Math.min(c.speed, reached) * s };
  }
  const t = by.torqueBy;
  switch (c.pattern) {
    case 'arm':
      return { ...c, load: c.load * t, armMass: c.armMass * t, ownInertia: c.ownInertia * t };
    case 'leg':
      return { ...c, mass: c.mass * t };
    case 'turning':
      return { ...c, inertia: c.inertia * t, friction: c.friction * t, unbalance: c.unbalance * t };
    case 'straight':
      return { ...c, mass: c.mass * t, force: c.force * t };
    case 'points':
      return { ...c, rows: c.rows.map((r) => ({ ...r, torque: r.torque * t })) };
  }
}
