import type { LineReport } from '../line/analyse.ts';
import { seeded, triangular } from '../math/random.ts';
import type { LineOrder } from './contract.ts';

/** What a simulated specimen truly is; hidden on screen, known to tests. */
export interface Truth {
  readonly ratio: number;
  /** rad at the output. */
  readonly play: number;
  /** N·m/rad, and the torque beyond which the second holds. */
  readonly stiffness: readonly [number, number];
  readonly bend: number;
  /** Coulomb friction at the output, N·m, and viscous, N·m·s/rad. */
  readonly friction: number;
  readonly viscous: number;
  /** Drag at the motor, N·m. */
  readonly drag: number;
  readonly efficiency: number;
  /** Most torque at the output, N·m. */
  readonly torque: number;
  /** Errors once round by name: order, amplitude (rad at the output), phase. */
  readonly errors: readonly {
    readonly name: string;
    readonly order: number;
    readonly amplitude: number;
    readonly phase: number;
  }[];
  /** Counts a turn of the output sensor, its noise (rad, standard deviation) and its error once round (rad). */
  readonly counts: number;
  readonly noise: number;
  readonly sensorError: number;
  readonly torqueConstant: number;
  /**
   * The motor's face under a steady torque (N·m at the output): how far it rises for ever, K, how fast, s, and the
   * surroundings, K.
   */
  readonly heating: { readonly torque: number; readonly rise: number; readonly time: number; readonly ambient: number };
}

/** Surroundings of the simulated rig, K. */
const AMBIENT = 294.15;

/** Draws a specimen of a variant out of its expected bands; the same seed gives the same one. */
export function drawTruth(
  line: LineReport,
  orders: readonly LineOrder[],
  ratio: number,
  torqueConstant: number,
  seed: number,
): Truth {
  const next = seeded(seed);
  const within = (id: string, fallback: number): number => {
    const f = line.figures.find((x) => x.id === id);
    if (!f || !Number.isFinite(f.value)) return fallback;
    // A triangle between the ends of the band, its top at the likely value.
    return triangular(next(), Math.max(f.low, 0), f.value, Math.max(f.high, f.low));
  };
  const torque = within('torque', 4);
  const stiff = within('stiffness', 800);
  const play = Math.max(within('play', 1e-3), 1e-4);
  const turning = orders.filter((o) => o.lever > 0 && o.order > 0.9 && o.order < 400);
  const errors = turning.slice(0, 4).map((o) => ({
    name: o.name,
    order: o.order,
    amplitude: Math.min(6e-4, (2e-5 + 6e-5 * next()) / o.lever),
    phase: 2 * Math.PI * next(),
  }));
  return {
    ratio,
    play,
    stiffness: [stiff * (0.55 + 0.2 * next()), stiff],
    bend: 0.15 * torque,
    friction: torque * (0.02 + 0.03 * next()),
    viscous: torque * 0.002,
    drag: 0.004 + 0.004 * next(),
    efficiency: Math.min(0.98, within('efficiency', 0.85)),
    torque,
    errors,
    counts: 65536,
    noise: 3e-5,
    sensorError: 1e-4 * next(),
    torqueConstant,
    heating: {
      torque: line.demand.rms,
      rise: Math.max(3, within('mount', 318) - AMBIENT),
      time: 500 + 500 * next(),
      ambient: AMBIENT,
    },
  };
}

export type RigProgram = 'play' | 'hysteresis' | 'torque' | 'transmission' | 'warming';

/** What the rig is told to do in each programme. */
export const PROGRAMS: Readonly<
  Record<
    RigProgram,
    {
      readonly name: string;
      readonly says: string;
      readonly seconds: number;
      /** Samples a second. */ readonly rate: number;
    }
  >
> = {
  play: { name: 'Play', says: 'pushes the output lightly to and fro at three angles', seconds: 6, rate: 1000 },
  hysteresis: { name: 'Hysteresis', says: 'raises the torque up, back, down and back', seconds: 16, rate: 1000 },
  torque: { name: 'Torque', says: 'raises the current until the joint gives no more', seconds: 8, rate: 1000 },
  transmission: { name: 'Transmission', says: 'turns two turns of the output and back', seconds: 24, rate: 1000 },
  warming: { name: 'Warming', says: 'carries a steady torque and reads the motor’s face', seconds: 3000, rate: 2 },
};

/** Counts a newton of the cell that ships with the simulated rig. */
export const CELL_COUNTS = 4200;
export const CELL_LEVER = 0.15;
/** Counts with nothing on it. */
export const CELL_ZERO = 812;

/**
 * A simulated specimen on a rig, integrated at a fixed step: a quasi-static line with play, two-slope stiffness,
 * Coulomb and viscous friction, errors of its parts and a sensor of steps and noise.
 */
export class Specimen {
  private time = 0;
  private spring = 0;
  private readonly random: () => number;

  constructor(
    readonly truth: Truth,
    readonly program: RigProgram,
    /** Samples a second. */
    readonly rate: number = PROGRAMS[program].rate,
    seed = 1,
  ) {
    this.random = seeded(seed * 9973 + program.length);
  }

  private gauss(): number {
    return Math.sqrt(-2 * Math.log(Math.max(1e-12, this.random()))) * Math.cos(2 * Math.PI * this.random());
  }

  get seconds(): number {
    return PROGRAMS[this.program].seconds;
  }

  get done(): boolean {
    return this.time >= this.seconds;
  }

  /** The header line of the protocol. */
  header(): string {
    if (this.program === 'warming')
      return JSON.stringify({
        rig: 'simulated',
        rate: this.rate,
        channels: [
          { name: 't', unit: 's' },
          { name: 'temp', quantity: 'temperature', unit: '°C' },
        ],
      });
    return JSON.stringify({
      rig: 'simulated',
      rate: this.rate,
      channels: [
        { name: 't', unit: 's' },
        { name: 'in', quantity: 'angle', unit: 'rad' },
        { name: 'out', quantity: 'angle', counts: this.truth.counts },
        { name: 'torque', quantity: 'torque', unit: 'N·m' },
        { name: 'load', quantity: 'count' },
        { name: 'i', quantity: 'current', unit: 'A' },
      ],
    });
  }

  private wind(torque: number): number {
    const {
      stiffness: [k1, k2],
      bend,
    } = this.truth;
    const a = Math.abs(torque);
    return Math.sign(torque) * (Math.min(a, bend) / k1 + Math.max(0, a - bend) / k2);
  }

  private error(output: number): number {
    return (
      this.truth.errors.reduce((s, e) => s + e.amplitude * Math.sin(e.order * output + e.phase), 0) +
      this.truth.sensorError * Math.sin(output + 0.3)
    );
  }

  /** The next sample as a line of the protocol. */
  line(): string {
    const t = this.time;
    const { truth, program } = this;
    const share = t / this.seconds;
    if (program === 'warming') {
      const { ambient, rise, time } = truth.heating;
      this.time = t + 1 / this.rate;
      // The sensor's own noise and its steps of a tenth.
      return `{"t":${t.toFixed(2)},"temp":${(ambient + rise * (1 - Math.exp(-t / time)) + 0.15 * this.gauss() - 273.15).toFixed(1)}}`;
    }
    let [input, torque, driven] = [0, 0, 0];
    if (program === 'hysteresis') {
      const s = 4 * share;
      const most = 0.6 * truth.torque;
      torque = s < 1 ? most * s : s < 3 ? most * (2 - s) : most * (s - 4);
    } else if (program === 'play')
      torque =
        0.06 *
        truth.torque *
        Math.sign(Math.sin(2 * Math.PI * t)) *
        Math.min(1, Math.abs(3 * Math.sin(2 * Math.PI * t)));
    else if (program === 'torque') driven = Math.min(1, share * 1.35);
    else input = truth.ratio * 2 * Math.PI * 2.1 * (share < 0.5 ? 2 * share : 2 - 2 * share);
    // Friction holds part of the spring's torque, as a play operator does.
    this.spring = Math.max(torque - truth.friction, Math.min(torque + truth.friction, this.spring));
    const way = program === 'transmission' ? (share < 0.5 ? 1 : -1) * Math.sign(truth.ratio) : 0;
    const ideal = input / truth.ratio;
    const gapped =
      program === 'transmission'
        ? ideal - (way * truth.play) / 2 - way * this.wind(0.02 * truth.torque)
        : Math.sign(this.spring) * (truth.play / 2) + this.wind(this.spring);
    const output = gapped + (program === 'transmission' ? this.error(ideal) : 0) + truth.noise * this.gauss();
    const held = driven * truth.torque * 1.02;
    const reached = Math.min(held, truth.torque) * (held > truth.torque ? 0.97 + 0.03 * this.random() : 1);
    const current =
      program === 'torque'
        ? (reached / (Math.abs(truth.ratio) * truth.efficiency) + truth.drag) / truth.torqueConstant
        : program === 'transmission'
          ? truth.drag / truth.torqueConstant
          : 0;
    const load =
      program === 'torque'
        ? Math.round((reached / CELL_LEVER) * CELL_COUNTS + 6 * this.gauss() + CELL_ZERO)
        : Math.round((torque / CELL_LEVER) * CELL_COUNTS + 6 * this.gauss() + CELL_ZERO);
    const count = Math.round((output / (2 * Math.PI)) * truth.counts);
    const applied = program === 'torque' ? reached : torque * (1 + 0.002 * this.gauss());
    this.time = t + 1 / this.rate;
    return (
      `{"t":${t.toFixed(4)},"in":${input.toFixed(6)},"out":${count},"torque":${applied.toFixed(5)}` +
      `,"load":${load},"i":${(current + 0.004 * this.gauss()).toFixed(4)}}`
    );
  }
}
