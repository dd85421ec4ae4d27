import { leastShift, makeMesh, wheel, type Gear, type Mesh } from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import { inMm, stop } from '../refuse-stage.ts';
import { pinionRadius, type RackParams } from './params.ts';
import { rollerRack, type RollerRack } from './rollers.ts';

/** Everything of a rack and its pinion that no factor moves. */
export interface RackGeometry {
  /** Pitch radius of the pinion, m. */
  readonly radius: number;
  /** Pitch along the rack, m. */
  readonly pitch: number;
  /** From the pinion's axis to the rack's pitch line, m. */
  readonly axis: number;
  /** Tip radius of the pinion, m. */
  readonly tip: number;
  /** Tip of the rack over its pitch line, and its root below, m. */
  readonly rackTip: number;
  readonly rackRoot: number;
  /** Teeth in contact at once, on the average. */
  readonly contact: number;
  /** Transverse pressure angle; of rollers its mean over a contact. */
  readonly angle: number;
  readonly pinion: Gear | undefined;
  readonly mesh: Mesh | undefined;
  readonly rollers: RollerRack | undefined;
  /** Length of the rack, m, the teeth on it and the pieces it is of. */
  readonly length: number;
  readonly teeth: number;
  readonly pieces: number;
}

/**
 * Teeth of the wheel that stands for a rack where strength is reckoned: so many that flanks and roots are a rack's to six
 * digits.
 */
const AS_RACK = 1e7;

/**
 * Contact ratio of a pinion on a rack: [√(r_a² − r_b²) − r·sin α_t + (h_a − x)·m/sin α_t]/(π·m_t·cos α_t).
 *
 * Source: lengths of the line of action, ended by the pinion's tip circle and the rack's tip line.
 * @example rackContact({ module: 0.001, z: 20, shift: 0, pressure: Math.PI / 9, helix: 0, addendum: 1 }).toFixed(6) // '1.768824'
 */
export function rackContact(p: Pick<RackParams, 'module' | 'z' | 'shift' | 'pressure' | 'helix' | 'addendum'>): number {
  const at = Math.atan(Math.tan(p.pressure) / Math.cos(p.helix));
  const r = (p.module * p.z) / (2 * Math.cos(p.helix));
  const ra = r + p.module * (p.addendum + p.shift);
  const rb = r * Math.cos(at);
  const recess = Math.sqrt(ra * ra - rb * rb) - r * Math.sin(at);
  // What of the rack's tip lies beyond the base circle's tangent touches nothing.
  const approach = Math.min(((p.addendum - p.shift) * p.module) / Math.sin(at), r * Math.sin(at));
  return (recess + approach) / (((Math.PI * p.module) / Math.cos(p.helix)) * Math.cos(at));
}

/** How much longer than its stroke a rack is: two teeth beyond what the pinion covers, m. */
const beyond = (pitch: number, contact: number): number => (2 + Math.ceil(contact)) * pitch;

/** Geometry of a rack and its pinion; refuses in words what does not mesh. */
export function rackGeometry(p: RackParams): Result<RackGeometry> {
  const radius = pinionRadius(p);
  const long = (pitch: number, contact: number) => {
    const teeth = Math.ceil((p.stroke + beyond(pitch, contact)) / pitch - 1e-9);
    return { length: teeth * pitch, teeth, pieces: Math.ceil((teeth * pitch) / p.piece - 1e-9) };
  };
  if (p.form === 'rollers') {
    const r = rollerRack(p);
    if (p.roller >= 0.85 * r.pitch)
      return stop(
        'The rollers leave no teeth between them.',
        `Their pitch is ${inMm(r.pitch)}, and each is ${inMm(p.roller)} across.`,
        'Take thinner rollers, or a larger module.',
        'roller',
        { path: 'roller', value: Number((0.5 * r.pitch).toPrecision(2)), label: 'Rollers of half the pitch' },
      );
    if (!(r.tip > 0.15 * p.module))
      return stop(
        'The rack’s teeth come out too low to hold the rollers.',
        `Between rollers of ${inMm(p.roller)} on a pitch of ${inMm(r.pitch)} its flanks meet ${inMm(Math.max(0, r.tip))} over their centres.`,
        'Take thinner rollers, or fewer of a larger pitch.',
        'roller',
        { path: 'roller', value: Number((0.5 * r.pitch).toPrecision(2)), label: 'Rollers of half the pitch' },
      );
    return ok({
      radius,
      pitch: r.pitch,
      axis: radius,
      tip: radius + r.roller,
      rackTip: r.tip,
      rackRoot: r.roller,
      contact: r.carrying,
      // The normal leans by half the angle.
      angle: r.reach / 4,
      pinion: undefined,
      mesh: undefined,
      rollers: r,
      ...long(r.pitch, r.carrying),
    });
  }
  const pinion = wheel(p, p.z, { helix: p.helix, shift: p.shift, allowance: p.allowance1 });
  const made = makeMesh(
    pinion,
    wheel(p, AS_RACK, { helix: -p.helix, allowance: p.allowance2 }),
    p.width,
    p.double === 'yes',
  );
  if (!made.ok) return made;
  const mesh = made.value;
  const pitch = (Math.PI * p.module) / Math.cos(p.helix);
  const contact = rackContact(p);
  const least = leastShift(pinion);
  if (p.shift < least - 0.6)
    return stop(
      `A pinion of ${p.z} teeth is cut through by its rack.`,
      `Without a shift of ${least.toFixed(2)} or more the flanks are undercut.`,
      'Give it more shift or more teeth.',
      'shift',
      least <= 1
        ? { path: 'shift', value: Math.ceil(least * 20) / 20, label: `Shift ${Math.ceil(least * 20) / 20}` }
        : undefined,
    );
  return ok({
    radius,
    pitch,
    axis: radius + p.shift * p.module,
    tip: mesh.pair.s1.ra,
    rackTip: p.addendum * p.module,
    rackRoot: p.dedendum * p.module,
    contact,
    angle: mesh.pair.s1.at,
    pinion,
    mesh,
    rollers: undefined,
    ...long(pitch, contact),
  });
}
