import type { AxleLoad, Pushes } from './push.ts';
import type { GenericSchema } from 'valibot';
import type { Check, Figure, Mend } from '../figure/figure.ts';
import type { Problem, Result } from '../result.ts';
import type { LimitId, Material } from '../schema/joint.ts';
import type { Outline, Pose } from '../shape/outline.ts';
import type { Solid } from '../shape/solid.ts';
import type { Stocked } from '../shop/drawer.ts';
import type { Reads, ShopReads } from '../shop/reads.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { QuantityId } from '../units/quantity.ts';
import type { Gear } from '../gear/gear.ts';
import type { Freedom } from './freedom.ts';
import type { Making } from './making.ts';

export type StageKindId = string;

/**
 * What a stage has to carry, in magnitudes at the stage's own output. Where that runs straight, torques are forces, N, angles
 * ways, m, and speeds m/s.
 */
export interface Duty {
  /** Peak torque, N·m. */
  readonly torque: number;
  /** Torque carried for ever (RMS), N·m. */
  readonly torqueRms: number;
  /** Speed, rad/s. */
  readonly speed: number;
  /**
   * Torque that wears rolling bearings as the load cycle does (exponent 10/3), N·m, and the mean speed it goes with,
   * rad/s; absent where no cycle is known.
   */
  readonly equivalent?: number;
  readonly meanSpeed?: number;
  /** Angle between the ends of the output's move, rad; absent where it turns on and on. */
  readonly swing?: number;
  /** The load pulls now one way, now the other, so that every tooth is bent both ways. */
  readonly reverses?: boolean;
  /** Life that is asked at this duty, s; absent where nobody asks. */
  readonly life?: number;
}

/** What a designer wants of a stage that does not exist yet; nobody minds what is left out. */
export interface StageWish {
  readonly ratio: number;
  /** Torque at its output, N·m. */
  readonly torque: number;
  /** What it has to carry besides: by heat, at speed, for a life. Left out: the torque, half of it for ever, at rest. */
  readonly duty?: Omit<Duty, 'torque'>;
  /** Largest dimension across its axis, m; Infinity where nobody minds. */
  readonly size: number;
  /** Longest along its axis, m. */
  readonly length?: number;
  /** Least clear passage along its output's axis, m. */
  readonly bore?: number;
  /** Most play, rad, and least stiffness, N·m/rad, at its output. */
  readonly play?: number;
  readonly stiffness?: number;
  readonly mass?: number;
  readonly money?: number;
  /** Materials that it may be made of; those its kind is usually made of where left out. */
  readonly making?: Making;
  readonly shelf: Shelf;
}

/** How a stage turns and at what orders it shakes. */
export interface Kinematics {
  /** ω_in/ω_out with its sign. */
  readonly ratio: number;
  readonly members: readonly { readonly name: string; readonly role: 'input' | 'output' | 'fixed' | 'free' }[];
  /** Events per turn of the stage's output, by name. */
  readonly orders: readonly { readonly name: string; readonly perTurn: number }[];
}

/**
 * What a limit is compared with: at once with the peak, for ever (heat) with the RMS torque, or by how long it lasts with
 * the life that is asked.
 */
export type LimitTime = 'static' | 'continuous' | 'life';

/** A limit of one failure mode as torque at the stage's own output. */
export interface CapacityLimit {
  readonly mode: string;
  readonly time: LimitTime;
  /** Torque at which it comes, N·m; for a life, the equivalent torque that lasts as long as is asked. */
  readonly torque: number;
  /** Life at the duty, s; Infinity for limits that are no life, and where nothing turns. */
  readonly life: number;
}

/** A part of a stage that gives under torque, as a spring about its output; a stage's springs lie one after the other. */
export interface Spring {
  readonly name: string;
  /** N·m/rad for a load that moves; Infinity for what does not give. */
  readonly stiffness: number;
  /** Share of it left under a load that stays for a thousand hours: below 1 for what creeps. */
  readonly held: number;
}

/** The numbers a line is summed from; all at the stage's own output unless said. */
export interface StageNumbers {
  readonly ratio: number;
  readonly etaForward: number;
  /** Torque that branches take off, over that at the output; left out where all of it goes there. */
  readonly branched?: number;
  /** Zero or less: the stage cannot be driven from its output. */
  readonly etaBackward: number;
  /**
   * Force across the shaft that the driving wheel sits on, at the torque that wears rolling bearings and at the peak, N; left
   * out where forces balance, or the stage bears them itself.
   */
  readonly pull?: number;
  readonly pullPeak?: number;
  /** Moments that tilt that shaft beside it, about the middle of what sits on it, N·m; left out where forces share a plane. */
  readonly tilt?: number;
  readonly tiltPeak?: number;
  /** What the driven wheel puts on the output's bearings; left out likewise. */
  readonly pushes?: Pushes;
  /** What it puts on the axles that its ports tell of, in their order; left out where it has none. */
  readonly axles?: readonly AxleLoad[];
  /** Most that a belt or chain pulls on the pin of an idler, N; left out without one. */
  readonly idlerPull?: number;
  /** No-load torque at the input, N·m. */
  readonly drag: number;
  /** Play: likely, least and most, rad. */
  readonly play: readonly [number, number, number];
  /** Torsional stiffness while everything carries, N·m/rad: of `springs` one after the other. */
  readonly stiffness: number;
  readonly springs: readonly Spring[];
  /** Torque above which `stiffnessBeyond` holds; Infinity where there is no such bend. */
  readonly bendTorque: number;
  readonly stiffnessBeyond: number;
  readonly inertiaIn: number;
  readonly inertiaOut: number;
  readonly limits: readonly CapacityLimit[];
  readonly mass: number;
  /** What of it rides along with the load, and the motor and the stages before with it, kg; left out where they stay. */
  readonly rides?: number;
  readonly money: number;
  /** Largest dimension across the axis, m. */
  readonly outside: number;
  /** Along the axis, m. */
  readonly length: number;
  readonly before?: Before;
  /** Highest input speed, rad/s. */
  readonly maxSpeed: number;
  /** Clear passage along the output axis, m; 0 where the shaft fills it. */
  readonly bore: number;
  /** Whether the input axis lies beside the output's, so that what comes before does not block the passage. */
  readonly beside: boolean;
  /** Shortest life at the duty's equivalent torque and mean speed, s; Infinity where nothing tires or wears. */
  readonly life: number;
}

/** Where what comes before a stage stands, a motor or other stages: left out where it is on the output's axis, close by. */
export interface Before {
  /** From the input's axis to the stage's own far side, m: what comes before stands half of itself beyond. */
  readonly beside?: number;
  /** Where the input's axis crosses the output's direction. */
  readonly across?: {
    /** From where what comes before begins to the stage's own far side, m. */
    readonly far: number;
    /** How high the input's axis is there over the stage's lower end, m, and the cosine by which it leans up the output's. */
    readonly high: number;
    readonly lean: number;
  };
  /** How far off a coupling keeps what comes before, m. */
  readonly off?: number;
}

/** What a stage says of itself under a duty; plain data. */
export interface StageReport {
  readonly numbers: StageNumbers;
  readonly kinematics: Kinematics;
  readonly figures: readonly Figure[];
  readonly checks: readonly Check[];
  /** What of the shop all of this came from. */
  readonly reads: ShopReads;
}

/** A refusal by a stage, with the nearest change that makes it possible where one parameter does. */
export interface StageProblem extends Problem {
  readonly fix?: Mend;
}

interface FieldCommon<P> {
  readonly path: keyof P & string;
  readonly label: string;
  readonly group: string;
  readonly help: string;
  /** Left out: always shown. */
  readonly when?: (p: P) => boolean;
}

/** How a person edits a parameter. */
export type FieldSpec<P> = FieldCommon<P> &
  (
    | { readonly as: 'quantity'; readonly quantity: QuantityId; readonly step: number }
    | { readonly as: 'count'; readonly min: number; readonly max: number }
    | { readonly as: 'text'; readonly maxLength: number }
    | {
        readonly as: 'choice';
        /** What of the shop it is, where a search may put another in its place. */
        readonly of?: 'material';
        readonly options: (
          p: P,
          shelf: Shelf,
        ) => readonly { readonly value: string | number; readonly label: string }[];
      }
  );

export type Ink =
  'outline' | 'hidden' | 'centre' | 'dimension' | 'force' | 'tight' | 'slack' | 'pitch' | 'contact' | 'clash';
export type Tint = 'none' | 'part' | 'partB' | 'belt' | 'hole';

/**
 * What a drawing is made of; lengths in metres, poses relative to the sheet. The same outline object means the same
 * shape.
 */
export type DrawItem =
  | {
      readonly kind: 'curve';
      readonly key: string;
      readonly outline: Outline;
      readonly at: Pose;
      readonly ink: Ink;
      readonly tint: Tint;
      readonly hatch?: boolean;
      /** Its shape runs along or flexes with the crank, and so is a new one each time. */
      readonly flows?: boolean;
    }
  | {
      readonly kind: 'arrow';
      readonly key: string;
      readonly from: readonly [number, number];
      readonly to: readonly [number, number];
      readonly ink: Ink;
      readonly label?: { readonly value: number; readonly quantity: QuantityId };
    }
  | {
      readonly kind: 'dimension';
      readonly key: string;
      readonly from: readonly [number, number];
      readonly to: readonly [number, number];
      readonly offset: number;
      readonly value: number;
      readonly quantity: QuantityId;
      readonly prefix?: string;
    }
  | { readonly kind: 'label'; readonly key: string; readonly at: readonly [number, number]; readonly text: string };

export interface Layer {
  readonly id: string;
  readonly name: string;
  readonly items: readonly DrawItem[];
}

export interface DrawOptions {
  readonly duty: Duty;
  /** Leave out what only a large drawing can show. */
  readonly glyph?: boolean;
}

/** What a part turns with. */
export type Turning = 'input' | 'output' | 'fixed' | 'free';

/** Where power goes into a stage, or out of it. */
export interface Port {
  /** A point of its axis, m, in the stage's own frame. */
  readonly at: readonly [number, number, number];
  /** The way power runs there: along z, the output's axis, or along x. */
  readonly along: 'z' | 'x';
  /** By how much x is turned towards z, rad, where shafts cross at another angle than a right one. */
  readonly lean?: number;
  /** Diameter of the shaft that goes in there, or of the shaft that comes out, m; 0 where a flange takes its place. */
  readonly shaft: number;
  /** A coupling takes the shaft's end and that of what drives it: how far over that, and how thick it may be, m. */
  readonly coupling?: { readonly over: number; readonly most: number };
  /** What is driven there can be turned into what drives it along its own axis, as a cylinder's teeth into a thread. */
  readonly turnsIn?: boolean;
  /** The shaft there swings into its mesh, so that nothing fast may hold it. */
  readonly swings?: boolean;
  /** Bearings of the stage's own that the shaft there runs in, which what it stands in must hold; left out without such. */
  readonly borne?: Borne;
  /** The parameter that says how wide the wheel there is bored for it; left out where none does. */
  readonly boredBy?: string;
  /** How the wheel there is bored for it, where that is told: round ones are bonded or held by a set screw. */
  readonly bored?: 'round' | 'flat' | 'keyway';
  /** Screws of a flange, where it has any: how many, on which circle, of which hole, through how much, m. */
  readonly flange?: {
    readonly screws: number;
    readonly circle: number;
    readonly hole: number;
    readonly deep: number;
    /** What it is of, where it is made of a material of the shop. */
    readonly material?: Material;
  };
  /** The stage has counted the price of a pair of bearings for the shaft there. */
  readonly pairPaid?: boolean;
  /** The way in which an output that does not turn runs. */
  readonly straight?: readonly [number, number, number];
  /** How far it must be moved towards the other port and back, to put it together or to tension it, m. */
  readonly slide?: number;
}

/** Two alike bearings of a shaft that comes in across, parts of the stage, which what it stands in must hold. */
export interface Borne {
  readonly name: string;
  /** Bore, over the outer ring, and wide, m. */
  readonly bore: number;
  readonly outside: number;
  readonly width: number;
  /** Middles of the two, m from the port on the way that power runs. */
  readonly at: readonly [number, number];
  /** Torque at the stage's output over what pushes along the shaft, m. */
  readonly lever: number;
  /** The parameter that says how far apart they are, and that now, m. */
  readonly spanBy: string;
  readonly span: number;
}

/** A shaft of a stage's own, beside what drives it, that is borne on both sides by what the stage stands in. */
export interface Axle {
  /** The part of the stage that its ends are of, and what it is called. */
  readonly part: string;
  readonly name: string;
  /** Its lower end within the stage, m, in the stage's own frame. */
  readonly at: readonly [number, number, number];
  /** Across, and as long as the stage is high, m. */
  readonly diameter: number;
  readonly long: number;
  /** Where it must be driven in step with what power goes in by: what makes it run idle instead. */
  readonly driven?: Mend;
}

/** A fixed pin that a wheel runs idle on: what holds the stage must hold it too. */
export interface IdlePin {
  readonly id: string;
  /** Where the wheel's lower face is on it as the stage runs, m, in the stage's own frame. */
  readonly at: readonly [number, number, number];
  /** m */
  readonly diameter: number;
  /** How long its wheel is along it, m. */
  readonly long: number;
  /** The way it is moved to tension what runs over it, a unit across its axis, and how far on and back, m. */
  readonly way: readonly [number, number];
  readonly on: number;
  readonly back: number;
}

/** What a belt or chain asks for to be tensioned, told as a way of its shafts. */
export interface TakeUp {
  /** m */
  readonly needs: number;
  /** As much of it as its idlers give, m; 0 without one. */
  readonly gives: number;
  /** An idler that gives it, where one is found. */
  readonly mend: () => Mend | undefined;
}

/** Where a stage takes power and gives it. */
export interface Ports {
  readonly input: Port;
  readonly output: Port;
  /** Pins of wheels that run idle. */
  readonly idle?: readonly IdlePin[];
  /** Shafts of its own that must be borne. */
  readonly axles?: readonly Axle[];
  /** What must be moved to tension the stage; left out where nothing must. */
  readonly takeUp?: TakeUp;
}

/**
 * Where a body stands in an assembled stage at an angle of its input: turned about its own axis, laid along x where it says so, then
 * moved.
 */
export interface BodyPlace {
  readonly at: readonly [number, number, number];
  readonly turn: number;
  /** The way of its own axis; z, the output's, where left out. */
  readonly along?: 'z' | 'x';
  /** By how much x is turned towards z, rad. */
  readonly lean?: number;
  /** How far it moves when the stage is drawn apart, m. */
  readonly apart: readonly [number, number, number];
}

export interface Part {
  readonly id: string;
  readonly name: string;
  readonly quantity: number;
  readonly made: 'bought' | 'printed';
  /** An outline to work by: nothing that is made or bought. */
  readonly reference?: boolean;
  /** What of the shop it is, where it is bought by designation and may lie in the reader's drawer. */
  readonly stocked?: Stocked;
  readonly material: string;
  readonly mass: number;
  readonly money: number;
  readonly note: string;
  /** Named curves by layer; none for parts that are only bought. */
  readonly curves: readonly { readonly layer: string; readonly outline: Outline }[];
  /** How far its outer contour is drawn in already for what a printer adds, m. */
  readonly drawnIn?: number;
  /** Its involute toothing, where it has one to be measured by. */
  readonly teeth?: Gear;
  /** Its body, worked out when asked for; absent where only an outline is known. */
  readonly solid?: () => Solid;
  /** The outside of what is only bought, to be looked at in its place. */
  readonly seen?: () => Solid;
  /** What of the stage it turns with: what is fixed where left out; what rolls or wobbles between is free. */
  readonly turns?: Turning;
  /** Name of what it must be brought into mesh with first, and is put in with: what has the same. */
  readonly together?: string;
  /** It goes straight along with the output of a stage that runs straight. */
  readonly runs?: boolean;
  /** It bends or runs as the stage turns, and is shown as it was made. */
  readonly flexes?: boolean;
  /** Angle of the input after which its pieces stand in what carries them as before, rad; given where they sway there. */
  readonly sways?: number;
  /** Where its pieces stand in the assembled stage when the input has turned, rad; none where it is not shown. */
  readonly places?: (crank: number) => readonly BodyPlace[];
}

export interface AssemblyStep {
  readonly do: string;
  readonly caution?: string;
  /** Time it must stand afterwards, s. */
  readonly rests?: number;
}

/** A table of alternatives a kind lays out beside its form: stocked sizes, sections, tooth counts that fit. */
export interface KindTable {
  readonly id: string;
  readonly title: string;
  readonly columns: readonly { readonly name: string; readonly quantity?: QuantityId }[];
  readonly rows: readonly {
    readonly cells: readonly (number | string)[];
    readonly current: boolean;
    readonly take?: Mend;
  }[];
}

/** What tooth counts are wanted for. */
export interface CountWish {
  readonly ratio: number;
  /** Largest outside dimension, m. */
  readonly size: number;
  /** How far the ratio may be off, as a share. */
  readonly tolerance: number;
}

/** One set of tooth counts: what it gives, and whether it can be put together. */
export interface CountSet {
  readonly values: Readonly<Record<string, number>>;
  readonly label: string;
  /** Place in the lattice. */
  readonly x: number;
  readonly y: number;
  readonly ratio: number;
  readonly error: number;
  readonly size: number;
  readonly gap: number;
  /** Planets mesh one after another, which is quieter. */
  readonly sequence: boolean;
  /** Every tooth meets every other, which wears evenly. */
  readonly hunting: boolean;
  readonly assembles: boolean;
  readonly why?: string;
  readonly current: boolean;
}

/** Tooth counts laid out over two of them. */
export interface CountDesk {
  readonly axes: readonly [string, string];
  readonly sets: readonly CountSet[];
}

/** A quantity over one turn of the stage's input, evenly spaced, first and last angle alike. */
export interface Course {
  readonly id: string;
  readonly name: string;
  readonly quantity: QuantityId;
  readonly values: Float64Array;
}

/**
 * A quantity by member (one row each) over one turn of the stage's input (evenly spaced columns, the first angle not
 * repeated).
 */
export interface StageMap {
  readonly name: string;
  readonly quantity: QuantityId;
  readonly rows: number;
  readonly rowName: string;
  readonly columns: number;
  /** Row after row; Infinity where there is nothing to tell. */
  readonly values: Float32Array;
  /** Whether values below the limit are a fault or what carries. */
  readonly low: 'fault' | 'carries';
  readonly limit: number;
  readonly ample: number;
  /** The words for what is below the limit, up to `ample`, above it, and for nothing. */
  readonly words: readonly [string, string, string, string];
}

/**
 * A stage of known parameters: opened once, then asked many things. It keeps what it has worked out for as long as it is
 * kept itself.
 */
export interface Stage {
  /** Bought as a whole, with a housing of its own. */
  readonly bought?: boolean;
  /** Its output runs straight: its numbers are N, m, N/m and m/s, its ratio the input's angle for a metre. */
  readonly straight?: boolean;
  readonly kinematics: Kinematics;
  /** The numbers a line is summed from. */
  load(at: Duty): StageNumbers;
  /** What of the shop those numbers depend on: an entry that is not in it moves none of them. */
  reads(at: Duty): Reads;
  /** The same stage with one factor of the shop at another value; undefined where it cannot be. */
  moved(id: string, value: number): Stage | undefined;
  /** What its checks say, without bands and without mends that take a search. */
  checks(at: Duty): readonly Check[];
  /** Whether none of them stops it: what a search asks of thousands. */
  stands(at: Duty): boolean;
  /** The same numbers as figures with bands and workings, and checks with mends. */
  report(at: Duty): StageReport;
  /** @param crank angle of the stage's input, rad */
  drawing(crank: number, options: DrawOptions): readonly Layer[];
  /** What changes over a turn of the input, as a strip of small plots that goes with the drawing. */
  readonly courses?: (at: Duty) => readonly Course[];
  /** The same for every one of many members at once, as a map. */
  readonly map?: (at: Duty) => StageMap;
  /** What its geometry lays out to be read or picked from. */
  tables(): readonly KindTable[];
  parts(): Result<readonly Part[]>;
  /** Where power goes in and comes out, in the frame that its parts stand in. */
  ports(): Ports;
  assembly(): readonly AssemblyStep[];
  /** What its play and its freedom to turn come from; undefined where it is known as a whole only. */
  freedom(): Freedom | undefined;
}

/** What can be seen of a stage whose parts can be made and only do not go together. */
export interface Sketch {
  drawing(crank: number, options: Pick<DrawOptions, 'glyph'>): readonly Layer[];
  tables(): readonly KindTable[];
}

/** A stage, or why it cannot be, with what can be seen of it all the same. */
export type Opened<S = Stage> = Result<S> & { readonly sketch?: Sketch };

/**
 * What a mechanism provides. Everything else (strip glyph, form, drawing, checks, parts, export) follows from it: adding a
 * kind is adding a folder that exports one of these and a line in the registry.
 */
/** Where a difference between found and expected usually comes from in a kind, by row and direction: whole sentences. */
export type Suspects = Readonly<
  Partial<Record<LimitId, { readonly above?: string | undefined; readonly below?: string | undefined }>>
>;

/** A found figure with its uncertainty as a band, SI. */
export interface FoundBand {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

export interface StageKind<P> {
  readonly id: StageKindId;
  readonly name: string;
  readonly summary: string;
  /** Bought as a whole: nothing of it is made. */
  readonly bought?: boolean;
  /** Its output runs straight, and ends the line. */
  readonly straight?: boolean;
  /** Parameters in SI units, described and bounded. */
  readonly schema: GenericSchema<unknown, P>;
  readonly fields: readonly FieldSpec<P>[];
  /** Parameters that came after builds kept marks of their design, with what older files count as. */
  readonly late?: Readonly<Record<string, unknown>>;
  /** A plain stage: the start of each parameter. */
  readonly starts: P;
  defaults(want: StageWish): P;
  /** Opens a stage of these parameters; refuses in words what cannot be. */
  open(p: P, shelf: Shelf): Opened;
  /** Alternatives to pick from that are there even where no stage can be, where a kind has them. */
  tables?(p: P, shelf: Shelf): readonly KindTable[];
  /** Sets of tooth counts for a wish, where picking them is a matter of its own. */
  counts?(p: P, want: CountWish): CountDesk;
  /** What to look at first where a bench contradicts what is expected of it. */
  readonly suspects?: Suspects;
  /**
   * Parameters of the kind that a found figure can stand for, by row of the tally: a unit that was tested is known by its
   * test. They bring its band along.
   */
  readonly takes?: Readonly<Partial<Record<LimitId, (found: FoundBand) => Readonly<Record<string, number | string>>>>>;
  /**
   * What has to move along when a person changes one parameter, beside what they change: a belt of another section is
   * tensioned anew.
   */
  readonly alongWith?: (path: keyof P & string, next: P, before: P, shelf: Shelf) => Partial<P>;
  /** The length that is bored wider where a clear passage is asked for; absent where none can be. */
  readonly passage?: keyof P & string;
  /** Coarse to fine, for the search. */
  candidates(want: StageWish): Iterable<P>;
}

// The registry holds kinds of unlike parameters; each kind's schema guards its own at the door.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyStageKind = StageKind<any>;
