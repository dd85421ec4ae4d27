import { check, type Check, type Working } from '../figure/index.ts';
import { steppedUp } from '../math/steps.ts';
import type { CapacityLimit, Duty, LimitTime } from '../stage/contract.ts';
import { stated } from '../units/stated.ts';
import { lastingTorque, lifeAsked } from './lasting.ts';
import type { MeshLoad } from './mesh.ts';
import type { ToothMaterial } from './tooth-material.ts';
import { MODULES } from './toothing.ts';

const mm = (x: number): string => stated(x, 'length', 5);

/** How a figure comes about, but for who says so. */
export type Told = Pick<Working, 'formula' | 'terms'>;

/** What a way of failing is called and why it comes: text that no number changes, laid down once for a stage. */
export interface ModeText {
  readonly id: string;
  readonly mode: string;
  /** What of a duty it is compared with: the peak, what is carried for ever, or the life asked. */
  readonly time: LimitTime;
  readonly why: string;
  /** Whether more width helps in proportion. */
  readonly grows: 'width' | 'none';
  /** It wears: its life goes with the way under load alone, force times turns. */
  readonly wears?: boolean | undefined;
}

/** A way of failing, and when it comes. */
export interface Mode extends ModeText {
  /** Torque at the output at which it comes, N·m; for a life, the torque that lasts as long as is asked. */
  readonly torque: number;
  /** Life at the duty, s; Infinity for what does not tire or wear, and where nothing turns; 0 where it breaks at once. */
  readonly life: number;
  /** How its torque, or its life, comes about; nothing where no formula says. */
  readonly told?: (() => Told) | undefined;
  /** Temperature of what fails, K, where it is of plastic and warm. */
  readonly temperature?: number | undefined;
}

/**
 * The ways in which a mesh fails, in the order of `loadedModes`: each root at once and in the long run, flanks at once
 * and in the long run, ride-over.
 *
 * @param names of its two wheels
 */
export function meshModes(
  id: string,
  name: string,
  names: readonly [string, string],
  materials: readonly [ToothMaterial, ToothMaterial],
): ModeText[] {
  const wears = materials.some((m) => m.plastic);
  const root = (i: 0 | 1): ModeText[] => [
    {
      id: `break-${id}-${i}`,
      mode: `root of the ${names[i]} breaks`,
      time: 'static',
      why: 'Bending at the root, force at the tip (ISO 6336-3).',
      grows: 'width',
    },
    {
      id: `tire-${id}-${i}`,
      mode: `root of the ${names[i]} tires`,
      time: 'life',
      why: 'Bending at the root at the equivalent torque, each time the tooth passes its mesh (tooth-root fatigue).',
      grows: 'width',
    },
  ];
  return [
    ...root(0),
    ...root(1),
    wears
      ? {
          id: `pit-${id}`,
          mode: `flanks of ${name} wear`,
          time: 'life',
          why: 'Sliding takes material off a plastic flank; worn out is 0.15 of a module (VDI 2736-2).',
          grows: 'width',
          wears: true,
        }
      : {
          id: `pit-${id}`,
          mode: `flanks of ${name} pit`,
          time: 'life',
          why: 'Hertzian pressure at the pitch point at the equivalent torque (pitting, ISO 6336-2).',
          grows: 'width',
        },
    {
      id: `crush-${id}`,
      mode: `flanks of ${name} are crushed`,
      time: 'static',
      why: 'Hertzian pressure at the pitch point beyond what the softer flank bears once.',
      grows: 'width',
    },
    {
      id: `skip-${id}`,
      mode: `${name} skips`,
      time: 'static',
      why: 'The separating force opens the centres by the working depth and teeth ride over; a stiffer housing holds them.',
      grows: 'none',
    },
  ];
}

/** The modes of a mesh under a load; `perForce` is the torque at the output for a newton on the teeth, m. */
export function loadedModes(texts: readonly ModeText[], l: MeshLoad, perForce: number, at: Duty): Mode[] {
  const [a, b, c, d, pit, crush, skip] = texts as readonly [
    ModeText,
    ModeText,
    ModeText,
    ModeText,
    ModeText,
    ModeText,
    ModeText,
  ];
  const warm = l.rootTemperature;
  const asked = lifeAsked(at);
  return [
    modeAt(a, l.breaks[0] * perForce, Infinity, warm),
    modeAt(b, l.tires[0] * perForce, l.tireLives[0] * asked, warm),
    modeAt(c, l.breaks[1] * perForce, Infinity, warm),
    modeAt(d, l.tires[1] * perForce, l.tireLives[1] * asked, warm),
    modeAt(pit, l.pits * perForce, l.pitLife * asked),
    modeAt(crush, l.crushes * perForce),
    modeAt(skip, l.skips * perForce),
  ];
}

/** A mode at its torque; written out, since it is made some hundred times for a band. */
export const modeAt = (t: ModeText, torque: number, life = Infinity, temperature?: number): Mode => ({
  id: t.id,
  mode: t.mode,
  time: t.time,
  why: t.why,
  grows: t.grows,
  wears: t.wears,
  torque,
  life,
  temperature,
});

/** Why a mode comes, with how warm it is where that takes strength. */
export const modeWhy = (m: Mode): string =>
  m.temperature !== undefined && m.temperature > 300
    ? `${m.why.slice(0, -1)} at ${stated(m.temperature, 'temperature', 3)}.`
    : m.why;

/** The torque of a duty that a limit is compared with, N·m. */
export const torqueFor = (at: Duty, time: LimitTime): number =>
  time === 'static' ? at.torque : time === 'continuous' ? at.torqueRms : lastingTorque(at);

/** A mode's name with a capital. */
export const modeName = (m: Pick<Mode, 'mode'>): string => `${m.mode[0]!.toUpperCase()}${m.mode.slice(1)}`;

/** What of a mode is compared with what: the torque asked with its own, or its life with the one asked. */
export const modeAgainst = (m: Mode, at: Duty): Pick<Check, 'figure' | 'limit' | 'sense' | 'quantity' | 'severity'> =>
  m.time === 'life'
    ? { figure: m.life, limit: lifeAsked(at), sense: 'min', quantity: 'life', severity: 'warn' }
    : {
        figure: torqueFor(at, m.time),
        limit: m.torque,
        sense: 'max',
        quantity: 'torque',
        severity: m.time === 'static' ? 'stop' : 'warn',
      };

/**
 * Modes that say something under a duty: what never wears at it, does not turn, or breaks at once has no life to tell.
 */
export const telling = (modes: readonly Mode[]): Mode[] =>
  modes.filter((m) => m.time !== 'life' || (m.life > 0 && Number.isFinite(m.life)));

/** Checks of strength and life, each with the margin at the duty and what it takes. */
export function modeChecks(
  modes: readonly Mode[],
  p: { readonly width: number; readonly module: number },
  at: Duty,
  advice: string,
): Check[] {
  return telling(modes).map((m) => {
    // A tenth in hand, so that what is mended holds and is not only near. What a width bears grows with it, in the long
    // run too: force over width is what tires, wears and presses.
    const need = steppedUp((p.width * torqueFor(at, m.time)) / 0.9 / Math.max(m.torque, 1e-12), 5e-4);
    const coarser = MODULES.find((x) => x > p.module * 1.001);
    return check({
      id: m.id,
      of: m.id,
      name: modeName(m),
      ...modeAgainst(m, at),
      why: modeWhy(m),
      mend:
        m.grows === 'width' && need < 0.3 && need < 6 * p.width
          ? { path: 'width', value: need, label: `Face width ${mm(need)}` }
          : coarser && m.torque > 0
            ? { path: 'module', value: coarser, label: `Module ${mm(coarser)}` }
            : undefined,
      advice,
    });
  });
}

/**
 * What limits a stage, for its numbers.
 *
 * @param share how much weaker than the modes say its weakest set is
 */
export const modeLimits = (modes: readonly Mode[], share = 1): CapacityLimit[] =>
  modes.map((m) => ({ mode: m.mode, time: m.time, torque: m.torque / share, life: m.life }));

/** Shortest life among modes, s; Infinity where nothing tires or wears. */
export const shortestLife = (modes: readonly Pick<Mode, 'life'>[]): number =>
  modes.reduce((least, m) => (m.life < least ? m.life : least), Infinity);
