/** What two round things that go into one another are there for. */
export type Purpose = 'press' | 'seat' | 'hub' | 'locate' | 'slide' | 'run' | 'screw' | 'nut' | 'insert';

/** Clearance of a diameter that serves a purpose, and what happens outside of it. */
export interface PurposeText {
  readonly name: string;
  /** Least and most clearance in plastic at a diameter of 10 mm, m; below 0 it presses. Grows with the root of the diameter. */
  readonly plastic: readonly [number, number];
  /** Tolerance classes of hole and shaft in metal. */
  readonly metal: readonly [string, string];
  readonly tight: string;
  readonly loose: string;
}

/**
 * Fits by purpose. Sources: ISO 286-1 for metal, usual choices of class by purpose; in plastic printed trials of pins,
 * bearings of 3 to 30 mm; screws by ISO 273, from fine to what a sunk head takes. Own starting values for plastic.
 */
export const PURPOSES: Readonly<Record<Purpose, PurposeText>> = {
  press: {
    name: 'press',
    plastic: [-1.2e-4, -1e-5],
    metal: ['H7', 'p6'],
    tight: 'Its wall bursts or bulges as it is pressed in.',
    loose: 'It turns or walks out; it must be glued.',
  },
  seat: {
    name: 'bearing seat',
    plastic: [-7e-5, 2e-5],
    metal: ['H7', 'h6'],
    tight: 'The ring is squeezed and the bearing runs rough.',
    loose: 'The ring creeps round in its seat, and its play is the joint’s.',
  },
  hub: {
    name: 'hub on a shaft',
    plastic: [-3e-5, 6e-5],
    metal: ['H7', 'h6'],
    tight: 'It does not go on without force, which bends the shaft.',
    loose: 'It sits beside the middle when its screw is tightened: run-out.',
  },
  locate: {
    name: 'locating',
    plastic: [0, 1e-4],
    metal: ['H7', 'h6'],
    tight: 'It does not go in.',
    loose: 'It does not centre.',
  },
  slide: {
    name: 'slide',
    plastic: [3e-5, 1.5e-4],
    metal: ['H7', 'g6'],
    tight: 'It does not slide by hand.',
    loose: 'It rattles.',
  },
  run: {
    name: 'run',
    plastic: [8e-5, 2.4e-4],
    metal: ['H7', 'f7'],
    tight: 'It rubs all round, warms and seizes.',
    loose: 'It wobbles: run-out and noise.',
  },
  screw: {
    name: 'screw passes',
    plastic: [1e-4, 9.5e-4],
    metal: ['H11', 'h11'],
    tight: 'The screw cuts its way through.',
    loose: 'Its head sinks in.',
  },
  nut: {
    name: 'captive nut',
    plastic: [3e-5, 2.5e-4],
    metal: ['H11', 'h11'],
    tight: 'The nut does not go into its trap.',
    loose: 'The nut turns in its trap.',
  },
  insert: {
    name: 'heat-set insert',
    plastic: [-5e-4, -2e-4],
    metal: ['H11', 'h11'],
    tight: 'Melt wells up and the boss bursts.',
    loose: 'The insert turns or comes out.',
  },
};

/**
 * Clearance that serves a purpose in plastic at a diameter, m.
 *
 * Source: deviations grow with the root of the size or slower (ISO 286-1: cube root of it); from half to twice.
 * @example purposeWindow('run', 0.01) // [0.00008, 0.00024]
 */
export function purposeWindow(purpose: Purpose, diameter: number): readonly [number, number] {
  const grows = purpose === 'screw' || purpose === 'nut' || purpose === 'insert' ? 1 : Math.cbrt(diameter / 0.01);
  const k = Math.min(2, Math.max(0.5, grows));
  const [low, high] = PURPOSES[purpose].plastic;
  return [low * k, high * k];
}
