import type { Joint } from '@gristmill/core';

/** What a stop of the tour looks at to see whether what it asks has been done. */
export interface Standing {
  readonly joint: Joint | undefined;
  /** Angle of the crank, rad. */
  readonly crank: number;
  readonly workingOpen: boolean;
  readonly path: string;
}

/** One stop: a view, what is to be seen there, and one real thing to do. */
export interface Stop {
  readonly name: string;
  /** View of the joint, as it stands in the address. */
  readonly view: string;
  readonly says: string;
  readonly todo: string;
  /** What is said once it is done. */
  readonly after: string;
  readonly done: (now: Standing, before: Standing) => boolean;
}

const variantOf = (j: Joint | undefined) => j?.variants.find((v) => v.id === j.activeVariant);

/** Whether a part of the joint has become another one. */
const moved =
  (of: (j: Joint | undefined) => unknown) =>
  (now: Standing, before: Standing): boolean =>
    now.joint !== undefined &&
    now.joint.id === before.joint?.id &&
    JSON.stringify(of(now.joint)) !== JSON.stringify(of(before.joint));

/** The tour: from what a joint must do to what the bench says of it. */
export const STOPS: readonly Stop[] = [
  {
    name: 'What it must do',
    view: 'brief',
    says: 'The heron’s tail beam hangs on this axis. The sketch is to scale; everything follows from it: the torque over the angle below, the limits at the right.',
    todo: 'Make it heavier: drag the load, or type 2 lb into Mass carried.',
    after: 'The torque asked for has moved, and with it every bracket of the tally.',
    done: moved((j) => j?.brief.cases),
  },
  {
    name: 'Where a figure comes from',
    view: 'line',
    says: 'Motor, stages, and what each takes and gives. Blue-green is expected, with its band; orange is found; ink is asked.',
    todo: 'Press any blue-green figure, or the key W.',
    after: 'Its formula, every term with its source, and what moves it most. Each figure of Gristmill opens so.',
    done: (now, before) => now.workingOpen && !before.workingOpen,
  },
  {
    name: 'Tooth by tooth',
    view: 'stage/1',
    says: 'The first stage from its own geometry: what is drawn here is what is exported. Its checks stand below, what fails first.',
    todo: 'Turn the crank: the keys , and . or Space to let it run.',
    after: 'Everything turns at its true speed, with the contacts and forces of that angle.',
    done: (now, before) => Math.abs(now.crank - before.crank) > 0.05,
  },
  {
    name: 'Another line',
    view: 'line/find',
    says: 'Lines of unlike mechanisms that could do it, found before for this demo; and why the others do not.',
    todo: 'Choose a line in the table and take it as a variant.',
    after: 'It stands beside the other variants now, to be compared, changed or thrown away.',
    done: (now, before) => (now.joint?.variants.length ?? 0) > (before.joint?.variants.length ?? 0),
  },
  {
    name: 'The whole reducer',
    view: 'make/section',
    says: 'Housing, shafts, bearings, screws: made round the stages, cut along the axis, to scale.',
    todo: 'Make its wall thicker: drag its dimension in the section, or type it at the right.',
    after: 'Mass, screws, files and the order of assembly have followed.',
    done: moved((j) => variantOf(j)?.housing),
  },
  {
    name: 'On the bench',
    view: 'bench',
    says: 'A test takes readings with their errors and says what was found, with its uncertainty, and what to read next.',
    todo: 'Open a test of the list and change one of its readings.',
    after: 'What was found moved; where it contradicts what was expected, the bench asks about likely slips first.',
    done: moved((j) => j?.tests),
  },
  {
    name: 'Asked, expected, found',
    view: 'review',
    says: 'All three side by side, for every variant and build. What was measured decides.',
    todo: 'Take back what you changed: Ctrl Z, as often as you like.',
    after: 'That was the way round. New joint on the first page begins with yours.',
    done: (now, before) => now.joint !== before.joint && now.joint?.id === before.joint?.id,
  },
];
