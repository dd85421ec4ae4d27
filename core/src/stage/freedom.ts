/** What of a made part's contour a gap lies against. */
export interface GapSide {
  /** Part of the stage, by its id. */
  readonly part: string;
  readonly name: string;
  readonly contour: 'outside' | 'hole';
  /** Metres of the gap that a metre takes by which the contour stands into it. */
  readonly share: number;
  /** Every path has a piece of its own. */
  readonly each: boolean;
  /** Standard deviation of the gap by this side where no process is known for it, m. */
  readonly usual: number;
  /** Radius that grows with warmth, m, and metres of gap for each metre of it. */
  readonly radius: number;
  readonly perGrowth: number;
}

/** Room between two parts that must be there for them to go together and to turn. */
export interface Gap {
  readonly name: string;
  /** As drawn, m: along the circle of a mesh, or across the contact of lobes. */
  readonly drawn: number;
  /** Turn of the stage's output for a metre of it, rad/m. */
  readonly turn: number;
  readonly sides: readonly GapSide[];
  /** Standard deviation of how much of it run-out takes away at the worst angle, m. */
  readonly wobble: number;
  /** Standard deviation by places of axes and pins, m; centre distance that grows with the frame, m, and its share. */
  readonly place: number;
  readonly centre: number;
  readonly perCentre: number;
  /** Its play is taken out by design: parts must still go together there, but it leaves none. */
  readonly taken?: boolean;
}

/** Gaps one after the other that a push has to close; several such paths beside each other leave only what all leave. */
export interface FreeChain {
  readonly name: string;
  readonly paths: number;
  readonly gaps: readonly Gap[];
  /** Standard deviation of where a path stands against the others, rad at the output. */
  readonly apart: number;
  /** Play that bearings and shafts add at most, rad; it does not keep parts from jamming. */
  readonly extra: number;
}

/** All that a stage's play and its freedom to turn come from. */
export interface Freedom {
  readonly chains: readonly FreeChain[];
  /** Parameters with every gap wider by so much, m; narrower below 0. */
  wider(by: number): Readonly<Record<string, number>>;
}

/**
 * The same about an arm where a stage's output runs straight: ways over the arm are angles.
 *
 * @param arm m
 */
export const freedomAbout = (f: Freedom, arm: number): Freedom => ({
  ...f,
  chains: f.chains.map((c) => ({
    ...c,
    gaps: c.gaps.map((g) => ({ ...g, turn: g.turn / arm })),
    apart: c.apart / arm,
    extra: c.extra / arm,
  })),
});
