import { FigureMaker, type Check, type Figure } from '../figure/index.ts';
import { ok, type Result } from '../result.ts';
import { recorded, type Reads } from '../shop/reads.ts';
import { factor, uncertain, withFactor, type Shelf } from '../shop/shelf.ts';
import type { Solid } from '../shape/solid.ts';
import type { Freedom } from './freedom.ts';
import type {
  AssemblyStep,
  Course,
  DrawOptions,
  Duty,
  KindTable,
  Ports,
  Kinematics,
  Layer,
  Opened,
  Part,
  Sketch,
  Stage,
  StageMap,
  StageNumbers,
  StageReport,
} from './contract.ts';
import * as v from 'valibot';
import { Kept } from './kept.ts';
import { provenMend, type Change } from './mend.ts';
import type { Param, ParamTable } from './param.ts';
import { plausibleNotes, type Usual } from './plausible.ts';
import { rigidChecks, type RigidPart } from './rigid.ts';
import { warmCheck, warmFigure, warmthOf } from './warmth.ts';

/**
 * What a kind computes, step by step; `opener` makes a stage of it. Each step is a pure function of what it is given.
 *
 * `P` are the parameters, `G` what is built from them without a duty, `M` the model at a duty, `S` outlines for drawing.
 */
export interface StageSteps<P, G, M extends { readonly numbers: StageNumbers }, S> {
  /** Geometry, materials and bought parts. Refuses in words what cannot be made at all. */
  build(p: P, shelf: Shelf): Result<G>;
  /** What of it does not go together, in words; it can still be drawn. */
  wrong?(p: P, g: G, shelf: Shelf): Result<never> | undefined;
  kinematics(p: P, g: G): Kinematics;
  /** Numbers only: no text, no workings. */
  model(p: P, g: G, at: Duty, shelf: Shelf, kept: Kept): M;
  figures(p: P, at: Duty, shelf: Shelf, m: M, make: FigureMaker<M>): readonly Figure[];
  /** @param mends whether mends are wanted that take a search: never where it is only asked whether a stage stands */
  checks(p: P, at: Duty, shelf: Shelf, m: M, mends: boolean): readonly Check[];
  /** Parts that must be stiff, by the field of their material: of rubber they are refused. */
  readonly rigid?: readonly RigidPart[];
  /** What benches usually find of the kind: a note says where a figure lies outside of it, and why. */
  readonly usual?: Usual;
  /** Bought as a whole, with a housing of its own. */
  readonly bought?: boolean;
  /** Its output runs straight. */
  readonly straight?: boolean;
  /** What a drawing shows at any angle, in its own place. */
  shapes(p: P, g: G): S;
  /** @param m the model at the drawing's duty, worked out when it is called */
  draw(p: P, g: G, shapes: S, crank: number, options: DrawOptions, m: () => M): readonly Layer[];
  courses?(p: P, g: G, at: Duty, shelf: Shelf, m: () => M): readonly Course[];
  map?(p: P, g: G, at: Duty, shelf: Shelf, m: () => M): StageMap;
  /** What its geometry lays out to be read or picked from. */
  tables?(p: P, g: G): readonly KindTable[];
  /** @param m the model of the stage at rest */
  parts(p: P, shelf: Shelf, m: M): Result<readonly Part[]>;
  ports(p: P, g: G, shelf: Shelf): Ports;
  assembly(p: P, g: G): readonly AssemblyStep[];
  /** @param m the model of the stage at rest */
  freedom?(p: P, g: G, shelf: Shelf, m: M): Freedom | undefined;
}

/**
 * Duties whose models a stage keeps: of a line's analysis and those looked at for what heat leaves of it, of its drawing, and of
 * the stage at rest; fewer for a trial.
 */
const DUTIES = { own: 12, trial: 2 };

/** How often a stage's warmth is met anew at most, how near counts as met (K), and what it is not taken beyond (K). */
const [ROUNDS, MET, HOTTEST] = [4, 0.2, 500];

/** The shop as a stage sees it that is warmer than its surroundings. */
const warmer = (shelf: Shelf, rise: number): Shelf => (rise > 0 ? { ...shelf, warm: rise } : shelf);

const REST: Duty = { torque: 0, torqueRms: 0, speed: 0 };

const alike = (a: Duty, b: Duty): boolean =>
  a === b ||
  (a.torque === b.torque &&
    a.torqueRms === b.torqueRms &&
    a.speed === b.speed &&
    a.equivalent === b.equivalent &&
    a.meanSpeed === b.meanSpeed &&
    a.swing === b.swing &&
    a.reverses === b.reverses &&
    a.life === b.life);

/** What of the shop a stage was built from, and what was looked at to say whether it goes together. */
interface Built {
  readonly parts: Reads;
  readonly judged: Reads;
}

/** What is kept of a stage under one duty. */
interface Load<M> {
  readonly at: Duty;
  readonly model: M;
  readonly reads: Reads;
  /** How much its own friction warms it, K. */
  readonly rise: number;
  report: StageReport | undefined;
}

/** A body that is made when it is first asked for, and kept. */
const once = (make: (() => Solid) | undefined): (() => Solid) | undefined => {
  let made: Solid | undefined;
  return make && (() => (made ??= make()));
};

/** The parts of a stage, whose bodies are made once. */
function madeOnce(parts: Result<readonly Part[]>): Result<readonly Part[]> {
  if (!parts.ok) return parts;
  return ok(
    parts.value.map((p): Part => {
      const [solid, seen] = [once(p.solid), once(p.seen)];
      return { ...p, ...(solid && { solid }), ...(seen && { seen }) };
    }),
  );
}

class OpenStage<P, G, M extends { readonly numbers: StageNumbers }, S> implements Stage {
  readonly courses?: (at: Duty) => readonly Course[];
  readonly map?: (at: Duty) => StageMap;
  private readonly loads: Load<M>[] = [];
  private trials: Map<string, OpenStage<P, G, M, S> | undefined> | undefined;
  private turning: Kinematics | undefined;
  private shapes: S | undefined;
  private made: Result<readonly Part[]> | undefined;

  // Dozens of these are made for one band: what a trial is not asked for is not made.
  constructor(
    private readonly steps: StageSteps<P, G, M, S>,
    private readonly p: P,
    private readonly g: G,
    private readonly built: Built,
    private readonly shelf: Shelf,
    private readonly kept: Kept,
    private readonly table: ParamTable<P> | undefined,
    /** One factor moved for a band: asked for numbers alone, as warm as this says. */
    private readonly trial?: (at: Duty) => number,
  ) {
    if (trial) return;
    if (steps.courses) this.courses = (at) => steps.courses!(p, g, at, shelf, () => this.under(at).model);
    if (steps.map) this.map = (at) => steps.map!(p, g, at, shelf, () => this.under(at).model);
  }

  get bought(): boolean {
    return this.steps.bought ?? false;
  }

  get straight(): boolean {
    return this.steps.straight ?? false;
  }

  get kinematics(): Kinematics {
    return (this.turning ??= this.steps.kinematics(this.p, this.g));
  }

  private under(at: Duty): Load<M> {
    for (const l of this.loads) if (alike(l.at, at)) return l;
    const made = this.trial ? this.tried(at, this.trial(at)) : this.settled(at);
    this.loads.unshift(made);
    if (this.loads.length > (this.trial ? DUTIES.trial : DUTIES.own)) this.loads.pop();
    return made;
  }

  /** With a factor moved the numbers are wanted alone: what they depend on is known, and how warm it is too. */
  private tried(at: Duty, rise: number): Load<M> {
    const model = this.steps.model(this.p, this.g, at, warmer(this.shelf, rise), this.kept);
    return { at, model, reads: this.built.parts, rise, report: undefined };
  }

  /** The stage as warm as its own friction keeps it: losses hardly depend on it, so that a few rounds meet. */
  private settled(at: Duty): Load<M> {
    const told = recorded(this.shelf, (shelf) => {
      let rise = 0;
      let model = this.steps.model(this.p, this.g, at, shelf, this.kept);
      if (!at.meanSpeed || !shelf.reads!.factors.has('ambient')) return { model, rise };
      for (let i = 0; i < ROUNDS; i++) {
        const next = Math.min(HOTTEST, warmthOf(model.numbers, at, shelf));
        if (!(Math.abs(next - rise) > MET)) break;
        rise = next;
        model = this.steps.model(this.p, this.g, at, warmer(shelf, rise), this.kept);
      }
      return { model, rise };
    });
    told.reads.add(this.built.parts);
    told.reads.add(this.built.judged);
    return { at, ...told.value, reads: told.reads, report: undefined };
  }

  /** How warm it is with one factor moved: as at the nearest duty that it is known at, by the torque that warms it. */
  private riseWith(at: Duty, id: string, value: number): number {
    const off = (l: Load<M>) => Math.abs(l.at.torqueRms - at.torqueRms);
    const known = this.loads.length ? this.loads.reduce((a, b) => (off(b) < off(a) ? b : a)) : this.under(at);
    const rise = known.at.torqueRms > 0 ? (known.rise * at.torqueRms) / known.at.torqueRms : known.rise;
    return id === 'stage.cooling' ? (rise * factor(this.shelf, id)) / value : rise;
  }

  load(at: Duty): StageNumbers {
    return this.under(at).model.numbers;
  }

  reads(at: Duty): Reads {
    return this.under(at).reads;
  }

  moved(id: string, value: number): OpenStage<P, G, M, S> | undefined {
    const key = `${id}/${value}`;
    this.trials ??= new Map();
    if (this.trials.has(key)) return this.trials.get(key);
    const shelf = withFactor(this.shelf, id, value);
    let made: OpenStage<P, G, M, S> | undefined;
    if (this.built.parts.factors.has(id)) {
      const opened = open(this.steps, this.p, shelf, this.table);
      made = opened.ok ? opened.value : undefined;
    } else if (!this.built.judged.factors.has(id) || !this.steps.wrong!(this.p, this.g, shelf))
      made = new OpenStage(this.steps, this.p, this.g, this.built, shelf, this.kept, this.table, (duty) =>
        this.riseWith(duty, id, value),
      );
    this.trials.set(key, made);
    return made;
  }

  report(at: Duty): StageReport {
    const load = this.under(at);
    if (load.report) return load.report;
    const { model, reads, rise } = load;
    const ends = uncertain(this.shelf, reads.factors).map(
      (f) => [this.moved(f.id, f.low)?.under(at).model, this.moved(f.id, f.high)?.under(at).model] as const,
    );
    const told = recorded(warmer(this.shelf, rise), (s) => ({
      figures: [
        ...this.steps.figures(this.p, at, s, model, new FigureMaker(model, ends)),
        ...warmFigure(model.numbers, at, rise, s),
      ],
      checks: this.judge(at, s, load, true),
    }));
    const { figures } = told.value;
    // A kind may tell a figure under another name than a note on it knows: then it opens no working.
    const checks = told.value.checks.map((c) => {
      if (!c.of || figures.some((f) => f.id === c.of)) return c;
      const { of: _, ...rest } = c;
      return rest;
    });
    told.reads.add(reads);
    load.report = {
      numbers: model.numbers,
      kinematics: this.kinematics,
      figures,
      checks: checks.map((c) => (c.state === 'fails' && c.mend ? provenMend(c, c.mend, checks, this.trialOf(at)) : c)),
      reads: told.reads.list(),
    };
    return load.report;
  }

  /** What decides whether it works, as the kind and its materials have it. */
  private judge(at: Duty, shelf: Shelf, { model, rise, reads }: Load<M>, mends: boolean): readonly Check[] {
    return [
      ...this.steps.checks(this.p, at, shelf, model, mends),
      ...rigidChecks(this.p as object, this.steps.rigid ?? [], shelf),
      ...warmCheck(reads.materials, rise, shelf),
      ...(this.steps.usual ? plausibleNotes(this.p as object, model.numbers, this.steps.usual, shelf) : []),
    ];
  }

  /** What the checks would say with some parameters changed; undefined where there is no such stage. */
  private trialOf(at: Duty): (change: Change) => readonly Check[] | undefined {
    const bounds = this.table as Readonly<Record<string, Param<P> | undefined>> | undefined;
    return (change) => {
      const fits = Object.entries(change).every(
        ([path, value]) => bounds?.[path] === undefined || v.is(bounds[path].schema, value),
      );
      if (!fits) return undefined;
      const opened = open(this.steps, { ...this.p, ...change } as P, this.shelf, this.table);
      return opened.ok ? opened.value.checks(at) : undefined;
    };
  }

  stands(at: Duty): boolean {
    return !this.checks(at).some((c) => c.state === 'fails' && c.severity === 'stop');
  }

  checks(at: Duty): readonly Check[] {
    const load = this.under(at);
    return this.judge(at, warmer(this.shelf, load.rise), load, false);
  }

  drawing(crank: number, options: DrawOptions): readonly Layer[] {
    this.shapes ??= this.steps.shapes(this.p, this.g);
    return this.steps.draw(this.p, this.g, this.shapes, crank, options, () => this.under(options.duty).model);
  }

  tables(): readonly KindTable[] {
    return this.steps.tables?.(this.p, this.g) ?? [];
  }

  parts(): Result<readonly Part[]> {
    return (this.made ??= madeOnce(this.steps.parts(this.p, this.shelf, this.under(REST).model)));
  }

  ports(): Ports {
    return this.steps.ports(this.p, this.g, this.shelf);
  }

  assembly(): readonly AssemblyStep[] {
    return this.steps.assembly(this.p, this.g);
  }

  freedom(): Freedom | undefined {
    return this.steps.freedom?.(this.p, this.g, this.shelf, this.under(REST).model);
  }
}

function open<P, G, M extends { readonly numbers: StageNumbers }, S>(
  steps: StageSteps<P, G, M, S>,
  p: P,
  shelf: Shelf,
  table?: ParamTable<P>,
): Opened<OpenStage<P, G, M, S>> {
  const parts = recorded(shelf, (s) => steps.build(p, s));
  if (!parts.value.ok) return parts.value;
  const g = parts.value.value;
  const judged = recorded(shelf, (s) => steps.wrong?.(p, g, s));
  const wrong = judged.value;
  const stage = new OpenStage(steps, p, g, { parts: parts.reads, judged: judged.reads }, shelf, new Kept(), table);
  if (!wrong || wrong.ok) return ok(stage);
  const drawing: Sketch['drawing'] = (crank, options) => stage.drawing(crank, { ...options, duty: REST });
  return { ...wrong, sketch: { drawing, tables: () => stage.tables() } };
}

/**
 * Makes `StageKind.open` of what a kind computes; its table of parameters bounds what a mend may ask for. The stage keeps
 * what it has worked out for as long as it is kept
 * itself: asked again for a duty, an angle or a part it computes only what that changes.
 */
export const opener =
  <P, G, M extends { readonly numbers: StageNumbers }, S>(steps: StageSteps<P, G, M, S>, table?: ParamTable<P>) =>
  (p: P, shelf: Shelf): Opened =>
    open(steps, p, shelf, table);
