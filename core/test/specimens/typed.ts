import { Chance, stepped } from './chance.ts';

const ARCMIN = Math.PI / 10800;
const TURN = 2 * Math.PI;
const G = 9.80665;

/** A test as a person types it, with what it should find. */
export interface TypedSpecimen {
  readonly kind: string;
  readonly rig: Readonly<Record<string, number | string>>;
  readonly rows: readonly Readonly<Record<string, number | string>>[];
  /** What reads it; undefined for none. */
  readonly instrument?: { readonly measures: 'length' | 'mass'; readonly resolution: number; readonly error: number };
  /** Truth of figures by id; `found` is the headline. */
  readonly truth: Readonly<Record<string, number>>;
}

const DIAL = { measures: 'length', resolution: 1e-5, error: 1.5e-5 } as const;

/** What varies between families of play read at a lever. */
export interface PlayFamily {
  readonly kind: 'play-lever' | 'play-spot';
  readonly angles: number;
  readonly repeats: number;
  /** Share of the play that goes once round. */
  readonly round?: number;
  /** Angles evenly apart, or where it happened to be handy. */
  readonly apart?: 'evenly' | 'chance';
  /** The point that is read creeps on over all readings, by this share of the play. */
  readonly creeps?: number;
  /** Goes round again for each repeat, in place of repeating at an angle. */
  readonly rounds?: boolean;
}

/** A point on a lever between two stops; the stand it is read from gives a little. */
export function playSpecimen(family: PlayFamily, seed: number): TypedSpecimen {
  const c = new Chance(seed * 3 + 11);
  const play = c.between(4, 15) * ARCMIN;
  const phase = c.between(0, TURN);
  const spot = family.kind === 'play-spot';
  const arm = spot ? c.between(2, 6) : c.between(0.15, 0.4);
  const armError = spot ? 8e-3 : 5e-4;
  const stated = arm + armError * c.between(-1, 1);
  const step = spot ? 5e-4 : DIAL.resolution;
  const sd = c.between(0.01, 0.04) * play * arm + (spot ? 4e-4 : 0);
  const scale = (spot ? 0 : DIAL.error) * c.between(-1, 1);
  const begin = c.between(0, TURN);
  const rows: Record<string, number>[] = [];
  const all = family.angles * family.repeats;
  const creep = (family.creeps ?? 0) * play * arm * c.between(-1, 1);
  const own = Array.from({ length: family.angles }, (_, a) =>
    family.apart === 'chance' ? c.between(0, TURN) : begin + (a * TURN) / family.angles,
  );
  for (let k = 0; k < all; k++) {
    const at = own[family.rounds ? k % family.angles : Math.floor(k / family.repeats)]!;
    const here = play * (1 + (family.round ?? 0) * Math.sin(at + phase));
    const clean = spot ? 2 * arm * Math.tan(here / 2) : 2 * arm * Math.sin(here / 2);
    const read = clean + sd * c.normal() + scale + (creep * k) / all;
    rows.push({ angle: at % TURN, [spot ? 'shift' : 'difference']: stepped(Math.max(0, read), step) });
  }
  return {
    kind: family.kind,
    rig: spot
      ? { distance: stated, distanceError: armError, beam: 'pointer' }
      : { lever: stated, leverError: armError, correctWindUp: 'no' },
    rows,
    instrument: spot ? { measures: 'length', resolution: step, error: 0 } : DIAL,
    truth: { found: play },
  };
}

export const PLAYS: Readonly<Record<string, PlayFamily>> = {
  'the same all round': { kind: 'play-lever', angles: 3, repeats: 3 },
  'once round, four angles read twice': { kind: 'play-lever', angles: 4, repeats: 2, round: 0.25 },
  'once round, six angles at chance': { kind: 'play-lever', angles: 6, repeats: 3, round: 0.25, apart: 'chance' },
  'once round, eight angles': { kind: 'play-lever', angles: 8, repeats: 1, round: 0.3 },
  'a stand that creeps, angle by angle': { kind: 'play-lever', angles: 3, repeats: 4, creeps: 0.2 },
  'a stand that creeps, round and round': { kind: 'play-lever', angles: 3, repeats: 4, creeps: 0.2, rounds: true },
  'a spot, the same all round': { kind: 'play-spot', angles: 3, repeats: 2 },
  'a spot, once round': { kind: 'play-spot', angles: 6, repeats: 2, round: 0.25, apart: 'chance' },
};

/** What varies between families of ladders. */
export interface LadderFamily {
  /** Steps between rungs, as a share of the capacity. */
  readonly step: number;
  /** The capacity is another at each try, by this standard deviation as a share. */
  readonly scatter?: number;
  /** Each rung carried takes this share of the capacity away. */
  readonly wears?: number;
}

/** Masses hung one after the other until it gives way, and again about there. */
export function ladderSpecimen(family: LadderFamily, seed: number): TypedSpecimen {
  const c = new Chance(seed * 5 + 2);
  const lever = c.between(0.12, 0.3);
  const [leverMass, basket] = [c.between(0.1, 0.3), c.between(0.05, 0.2)];
  const centre = lever * c.between(0.4, 0.6);
  const capacity = c.over(3, 12);
  const leverError = 1e-3;
  const stated = lever + leverError * c.between(-1, 1);
  const tilt = (1.5 * Math.PI) / 180;
  const angle = tilt * c.between(-1, 1);
  const scale = 5e-3 * c.between(-1, 1);
  const weight = (m: number) => G * Math.cos(angle) * ((m + basket) * lever + leverMass * centre);
  const rows: Record<string, number | string>[] = [];
  let now = capacity;
  const tried = (mass: number): boolean => {
    const held = weight(mass) < now * (1 + (family.scatter ?? 0) * c.normal());
    rows.push({ mass: stepped(mass + scale, 1e-3), outcome: held ? 'held' : 'skipped' });
    now *= 1 - (family.wears ?? 0);
    return held;
  };
  const [first, by] = [c.between(0.55, 0.75), family.step * c.between(0.8, 1.2)];
  const massAt = (share: number) => (share * capacity) / (G * lever) - basket - (leverMass * centre) / lever;
  let share = first;
  while (rows.length < 30 && tried(Math.max(0, massAt(share)))) share += by;
  // What the sheet asks for: the rungs about the bracket again, and in between.
  for (const below of [0, 1, 0, 1, 0.5]) tried(Math.max(0, massAt(share - by * below)));
  return {
    kind: 'torque-ladder',
    rig: { lever: stated, leverError, leverMass, leverCentre: centre, basket, angle: 0, angleError: tilt },
    rows,
    instrument: { measures: 'mass', resolution: 1e-3, error: 5e-3 },
    truth: { found: capacity },
  };
}

export const LADDERS: Readonly<Record<string, LadderFamily>> = {
  'rungs a tenth apart': { step: 0.1 },
  'capacity that scatters': { step: 0.08, scatter: 0.05 },
};

/** What varies between families of a dial on a round surface. */
export interface RoundFamily {
  readonly angles: number;
  readonly rounds: number;
  /** Amplitudes off centre and oval, as multiples of the noise; 0 for a true one. */
  readonly eccentric: number;
  readonly oval: number;
  /** Three lobes, as a share of what it is off centre. */
  readonly lobes?: number;
  /** The dial's zero wanders so far over all readings, in standard deviations of the noise. */
  readonly drifts?: number;
  /** Angles by eye, up to a third of their distance off. */
  readonly apart?: 'by eye';
}

/** A shape turned under a dial. */
export function roundSpecimen(family: RoundFamily, seed: number): TypedSpecimen {
  const c = new Chance(seed * 11 + 5);
  const sd = c.between(2e-6, 6e-6);
  const [e, o] = [family.eccentric * sd * c.between(0.8, 1.2), family.oval * sd * c.between(0.8, 1.2)];
  const third = (family.lobes ?? 0) * e;
  const [p1, p2, p3] = [c.between(0, TURN), c.between(0, TURN), c.between(0, TURN)];
  const drift = (family.drifts ?? 0) * sd * c.pick([-1, 1]);
  const own = Array.from(
    { length: family.angles },
    (_, a) => ((a + (family.apart ? c.between(-0.35, 0.35) : 0)) * TURN) / family.angles,
  );
  const zero = c.between(-1e-4, 1e-4);
  const all = family.angles * family.rounds;
  const rows: Record<string, number>[] = [];
  for (let r = 0; r < family.rounds; r++)
    for (const at of own)
      rows.push({
        angle: at,
        reading: stepped(
          zero +
            e * Math.cos(at - p1) +
            o * Math.cos(2 * at - p2) +
            third * Math.cos(3 * at - p3) +
            sd * c.normal() +
            (drift * rows.length) / all,
          1e-6,
        ),
      });
  return {
    kind: 'runout',
    rig: {},
    rows,
    instrument: { measures: 'length', resolution: 1e-6, error: 0 },
    truth: { found: e, ovality: o },
  };
}

export const ROUNDS: Readonly<Record<string, RoundFamily>> = {
  'off centre and oval': { angles: 8, rounds: 2, eccentric: 12, oval: 5 },
  'nearly true': { angles: 8, rounds: 2, eccentric: 0.3, oval: 0.2 },
  'three lobes, angles by eye': { angles: 10, rounds: 2, eccentric: 10, oval: 3, lobes: 0.5, apart: 'by eye' },
  'a zero that drifts, twice round': { angles: 8, rounds: 2, eccentric: 10, oval: 4, drifts: 8 },
  'a zero that drifts, once round': { angles: 12, rounds: 1, eccentric: 10, oval: 4, drifts: 8 },
};

/** What varies between families of loads against current. */
export interface EfficiencyFamily {
  readonly loads: number;
  /** Cogging as a share of the largest motor torque; read at a moment, wherever the rotor stands. */
  readonly cogging?: number;
  /** Drag grows with the square of the load, by this share at the largest. */
  readonly bends?: number;
}

/** Loads lifted one after the other, current read while they move. */
export function efficiencySpecimen(family: EfficiencyFamily, seed: number): TypedSpecimen {
  const c = new Chance(seed * 17 + 9);
  const eta = c.between(0.45, 0.9);
  const ratio = c.pick([9, 16, 25, 50]);
  const kt = c.over(0.02, 0.1);
  const sheet = kt * (1 + 0.05 * c.between(-1, 1));
  const most = c.over(3, 15);
  const drag = (c.between(0.05, 0.15) * most) / ratio;
  const sd = c.between(0.005, 0.02) * (most / ratio / eta / kt);
  const rows = Array.from({ length: family.loads }, (_, k) => {
    const torque = (most * (k + 1)) / family.loads;
    const motor = torque / ratio / eta + drag + (family.bends ?? 0) * (most / ratio) * (torque / most) ** 2;
    // A pole passes again and again: the moment of reading is anywhere in it.
    const cog = (family.cogging ?? 0) * (most / ratio) * Math.sin(TURN * c.even());
    return { torque: stepped(torque, 1e-3), current: stepped((motor + cog) / kt + sd * c.normal(), 1e-3) };
  });
  return {
    kind: 'efficiency',
    rig: { ratio, torqueConstant: sheet, constantError: 0.05 },
    rows,
    truth: family.bends ? {} : { found: eta, drag },
  };
}

export const EFFICIENCIES: Readonly<Record<string, EfficiencyFamily>> = {
  'six loads': { loads: 6 },
  'four loads': { loads: 4 },
  'a motor that cogs': { loads: 8, cogging: 0.05 },
};

/** What varies between families of stops at targets. */
export interface StopFamily {
  readonly targets: number;
  readonly runs: number;
  readonly reversal: number;
  /** Each run begins a little off, as an axis that warms. */
  readonly warms?: number;
}

/** Stops approached from both sides; what scatters is the same everywhere. */
export function stopSpecimen(family: StopFamily, seed: number): TypedSpecimen {
  const c = new Chance(seed * 23 + 1);
  const sd = c.between(0.1, 0.6) * ARCMIN;
  const reversal = family.reversal * sd;
  const phase = c.between(0, TURN);
  const wave = c.between(0, 3) * ARCMIN;
  const rows: Record<string, number | string>[] = [];
  for (let r = 0; r < family.runs; r++)
    for (let t = 0; t < family.targets; t++)
      for (const way of ['up', 'down'] as const) {
        const target = (t * TURN) / (family.targets + 1);
        rows.push({
          target,
          way,
          deviation:
            wave * Math.sin(target + phase) +
            ((way === 'up' ? 1 : -1) * reversal) / 2 +
            sd * c.normal() +
            (family.warms ?? 0) * sd * (r / family.runs),
        });
      }
  return { kind: 'positioning', rig: { axis: 'turning' }, rows, truth: { found: 4 * sd + reversal, reversal } };
}

export const STOPS: Readonly<Record<string, StopFamily>> = {
  'five targets, five runs': { targets: 5, runs: 5, reversal: 3 },
  'twelve targets, five runs': { targets: 12, runs: 5, reversal: 3 },
  'without reversal': { targets: 8, runs: 5, reversal: 0 },
};
