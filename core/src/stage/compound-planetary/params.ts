import type { SharedOut } from '../../gear/planets-out.ts';
import type { Toothing } from '../../gear/toothing.ts';
import { amount, group, length, material, oneOf, whole, type ParamTable } from '../param.ts';
import { springForce, thinning, toothFormParams, toothingParams, pinMaterial } from '../shared-params.ts';

/**
 * Parameters of a shared-planet stage, SI units: planets with two toothings, A in the held ring, B in the one that
 * turns.
 */
export interface CompoundParams extends Toothing {
  /** What drives: a sun in toothing A, or the carrier. */
  drive: 'sun' | 'carrier';
  /** Number of planets. */
  planets: number;
  /** Teeth, sun. */
  zs: number;
  /** Teeth, planet, toothing A. */
  zpA: number;
  /** Teeth, held ring. */
  zr1: number;
  /** Teeth, planet, toothing B. */
  zpB: number;
  /** Teeth, driven ring. */
  zr2: number;
  /** Normal module of toothing B, m. */
  moduleB: number;
  /** Face width of toothing B, m. */
  widthB: number;
  /** Profile shift factor, sun. */
  xs: number;
  /** Profile shift factor, planets, toothing A. */
  xpA: number;
  /** Profile shift factor, planets, toothing B. */
  xpB: number;
  /** Tooth-thickness allowance, toothing A, m. */
  allowanceA: number;
  /** Tooth-thickness allowance, toothing B, m. */
  allowanceB: number;
  /** How the play is taken out. */
  takenOut: SharedOut;
  /** Force of the springs that do so, along the circle, for each planet, N. */
  preload: number;
  /** Material of the shop, sun. */
  materialS: string;
  /** Material of the shop, planets. */
  materialP: string;
  /** Material of the shop, rings. */
  materialR: string;
  /** Material of the shop, planets’ pins. */
  materialPins: string;
  /** Pin diameter, m. */
  pin: number;
  /** Wall of the rings outside their roots, m. */
  rim: number;
  /** Bore of the sun, m. */
  boreS: number;
  /** Mesh efficiencies from friction, or one given for all. */
  meshBy: 'friction' | 'given';
  /** Efficiency of each mesh, as given. */
  eta: number;
}
type P = CompoundParams;

/** What each parameter is, how it is bounded and edited. */
export const compoundParams: ParamTable<P> = {
  ...group('Members', {
    drive: oneOf({
      says: 'What drives: a sun in toothing A, or the carrier',
      label: 'Driven by',
      help: 'A sun in toothing A, or the carrier itself.',
      start: 'sun',
      options: [
        ['sun', 'Sun'],
        ['carrier', 'Carrier, no sun'],
      ],
    }),
    planets: whole({
      says: 'Number of planets',
      label: 'Planets',
      help: 'Each with both toothings.',
      start: 3,
      least: 2,
      most: 12,
    }),
  }),
  ...group('Teeth', {
    zs: whole({
      says: 'Teeth, sun',
      label: 'Sun',
      help: 'Teeth of the sun.',
      start: 12,
      least: 5,
      most: 400,
      when: (p: P) => p.drive === 'sun',
    }),
    zpA: whole({
      says: 'Teeth, planet, toothing A',
      label: 'Planet A',
      help: 'Toothing in the held ring.',
      start: 18,
      least: 5,
      most: 400,
    }),
    zr1: whole({
      says: 'Teeth, held ring',
      label: 'Held ring',
      help: 'Sun plus two planets, or one or two off with shift.',
      start: 48,
      least: 5,
      most: 600,
    }),
    zpB: whole({
      says: 'Teeth, planet, toothing B',
      label: 'Planet B',
      help: 'Toothing in the driven ring.',
      start: 15,
      least: 5,
      most: 400,
    }),
    zr2: whole({
      says: 'Teeth, driven ring',
      label: 'Driven ring',
      help: 'The nearer the two pairs are alike, the higher the ratio.',
      start: 45,
      least: 5,
      most: 600,
    }),
    ...toothingParams,
    moduleB: length({
      says: 'Normal module of toothing B',
      label: 'Module B',
      help: 'Of toothing B; it must give the same centre distance.',
      start: 8e-4,
      least: 1e-4,
      most: 0.02,
      step: 5e-5,
    }),
    widthB: length({
      says: 'Face width of toothing B',
      label: 'Face width B',
      help: 'Of toothing B.',
      start: 0.0116,
      least: 5e-4,
      most: 0.3,
    }),
  }),
  ...group('Shift and play', {
    xs: amount('count', {
      says: 'Profile shift factor, sun',
      label: 'Shift, sun',
      help: 'The rings’ shifts follow from the centre distance.',
      start: 0,
      least: -1,
      most: 1.5,
      step: 0.05,
      when: (p: P) => p.drive === 'sun',
    }),
    xpA: amount('count', {
      says: 'Profile shift factor, planets, toothing A',
      label: 'Shift, planet A',
      help: 'A shift takes undercut off small wheels.',
      start: 0,
      least: -1,
      most: 1.5,
      step: 0.05,
    }),
    xpB: amount('count', {
      says: 'Profile shift factor, planets, toothing B',
      label: 'Shift, planet B',
      help: 'A shift takes undercut off small wheels.',
      start: 0,
      least: -1,
      most: 1.5,
      step: 0.05,
    }),
    allowanceA: thinning({
      says: 'Tooth-thickness allowance, toothing A',
      label: 'Thinner, A',
      help: 'Tooth-thickness allowance: taken off each tooth of toothing A, sun and ring included.',
      start: 4e-5,
    }),
    allowanceB: thinning({
      says: 'Tooth-thickness allowance, toothing B',
      label: 'Thinner, B',
      help: 'Tooth-thickness allowance: taken off each tooth of toothing B, ring included.',
      start: 4e-5,
    }),
    takenOut: oneOf<SharedOut, P>({
      says: 'How the play is taken out',
      label: 'Play taken out',
      help: 'By rings in two halves that springs turn apart (anti-backlash).',
      start: 'none',
      absent: 'none',
      late: true,
      options: [
        ['none', 'Not at all'],
        ['driven', 'Split driven ring, sprung halves'],
        ['rings', 'Both rings split, sprung halves'],
      ],
    }),
    preload: springForce('Along the circle, for each planet.', (p: P) => p.takenOut !== 'none'),
  }),
  ...group('Made of', {
    materialS: material({ says: 'sun', label: 'Sun', start: 'c45' }),
    materialP: material({ says: 'planets', label: 'Planets', start: 'pa-cf' }),
    materialR: material({ says: 'rings', label: 'Rings', start: 'pa-cf' }),
    materialPins: pinMaterial(),
  }),
  ...group('Pins and rings', {
    pin: length({
      says: 'Pin diameter',
      label: 'Pin',
      help: 'Carries little: the planets are held by three meshes.',
      start: 3e-3,
      least: 5e-4,
      most: 0.1,
    }),
    rim: length({
      says: 'Wall of the rings outside their roots',
      label: 'Ring walls',
      help: 'Outside the roots.',
      start: 3e-3,
      least: 5e-4,
      most: 0.2,
    }),
    boreS: length({
      says: 'Bore of the sun',
      label: 'Sun’s bore',
      help: 'Motor shaft; 0 for a sun on its own shaft.',
      start: 5e-3,
      least: 0,
      most: 0.3,
      when: (p: P) => p.drive === 'sun',
    }),
  }),
  ...group('Losses', {
    meshBy: oneOf({
      says: 'Mesh efficiencies from friction, or one given for all',
      label: 'Mesh losses',
      help: 'From the shop’s tooth friction, or as measured.',
      start: 'friction',
      options: [
        ['friction', 'From friction'],
        ['given', 'As given'],
      ],
    }),
    eta: amount('efficiency', {
      says: 'Efficiency of each mesh, as given',
      label: 'Each mesh',
      help: 'Efficiency of every mesh.',
      start: 0.985,
      least: 0.5,
      most: 1,
      step: 5e-3,
      when: (p: P) => p.meshBy === 'given',
    }),
  }),
  ...toothFormParams,
};
