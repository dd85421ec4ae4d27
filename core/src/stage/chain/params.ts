import { CHAINS } from '../../shop/chains.ts';
import { amount, fromShop, group, length, material, oneOf, whole, type ParamTable } from '../param.ts';
import { hubShape, screwHole, screws } from '../shared-params.ts';

/** A sprocket that presses a run of the chain aside. */
export type Aside = 'none' | 'inside' | 'outside';

/** Parameters of a roller chain stage, SI units. */
export interface ChainParams {
  /** Chain by its number in ISO 606. */
  size: string;
  /** What is given: links, or the centre distance. */
  setBy: 'links' | 'centre';
  /** Links of the chain. */
  links: number;
  /** Wanted centre distance, m. */
  centre: number;
  /** Teeth of the driving sprocket. */
  z1: number;
  /** Teeth of the driven sprocket. */
  z2: number;
  /** Sag of the slack run over its length. */
  sag: number;
  /** How slack is taken up as the chain wears. */
  takeUp: 'centre' | 'never';
  /** Elongation by wear that is counted with. */
  worn: number;
  /** Idler on the slack run. */
  idler: Aside;
  /** Teeth of the idler. */
  idlerTeeth: number;
  /** Where the idler stands along the run. */
  idlerAlong: number;
  /** How far it presses the run aside, m. */
  idlerPush: number;
  /** Diameter of the pins that idlers run on, m; 3 mm in files that do not say. */
  idlerBore?: number;
  /** Second driven sprocket on the tight run. */
  branch: Aside;
  /** Its teeth. */
  branchTeeth: number;
  /** Where it stands along the run. */
  branchAlong: number;
  /** How far it presses the run aside, m. */
  branchPush: number;
  /** Force that it takes over what the driven sprocket takes. */
  branchLoad: number;
  /** A further idler on the slack run, and a further driven sprocket on the tight one; none in files that do not say. */
  idler2?: Aside;
  idler2Teeth?: number;
  idler2Along?: number;
  idler2Push?: number;
  branch2?: Aside;
  branch2Teeth?: number;
  branch2Along?: number;
  branch2Push?: number;
  branch2Load?: number;
  /** Tooth gap within ISO 606. */
  form: 'least' | 'mean' | 'most';
  /** Material of the shop, driving sprocket. */
  material1: string;
  /** Material of the shop, driven sprocket. */
  material2: string;
  /** Bore of the driving sprocket, m. */
  bore1: number;
  /** Bore, driving sprocket. */
  shape1: 'round' | 'flat' | 'keyway';
  /** Bore of the driven sprocket, m. */
  bore2: number;
  /** Bore, driven sprocket. */
  shape2: 'round' | 'flat' | 'keyway';
  /** Screws through the driven sprocket. */
  bolts2: number;
  /** Their circle, m. */
  boltCircle2: number;
  /** Hole for a screw, m. */
  boltHole: number;
}
type P = ChainParams;

/** Pin of an idler in files that say none, and of a branch, whose shaft nobody has chosen yet, m. */
export const IDLER_BORE = 3e-3;

const ASIDE = [
  ['none', 'None'],
  ['inside', 'Inside the chain'],
  ['outside', 'On its outside'],
] as const;

type When = (p: P) => boolean;
const Name = (name: string): string => name[0]!.toUpperCase() + name.slice(1);
/** Fields that came after builds were kept say what older files count as. */
const lateAs = (absent: number | undefined) => (absent === undefined ? {} : ({ absent, late: true } as const));

const teethOf = (name: string, start: number, when: When, absent?: number) =>
  whole<P>({
    says: `Teeth of the ${name}`,
    label: `${Name(name)} teeth`,
    help: name.includes('idler')
      ? 'No fewer than the driving sprocket has, for a long life.'
      : `Teeth of the ${name}; its ratio is theirs over the driving sprocket’s.`,
    start,
    least: 7,
    most: 120,
    when,
    ...lateAs(absent),
  });
const alongOf = (name: string, start: number, when: When, absent?: number) =>
  amount<P>('efficiency', {
    says: `Where the ${name} stands along the run`,
    label: `${Name(name)} along`,
    help: 'From the driving sprocket.',
    start,
    least: 0.05,
    most: 0.95,
    step: 0.05,
    when,
    ...lateAs(absent),
  });
const pushOf = (name: string, start: number, when: When, absent?: number) =>
  length<P>({
    says: `How far the ${name} presses the run aside`,
    label: `${Name(name)} pressed by`,
    help: name.includes('idler')
      ? 'How far the run is moved aside.'
      : 'How far the run is moved aside; a few teeth must be in mesh.',
    start,
    least: 0,
    most: 0.5,
    when,
    ...lateAs(absent),
  });
const loadOf = (name: string, start: number, when: When, absent?: number) =>
  amount<P>('efficiency', {
    says: `Force that the ${name} takes over what the driven sprocket takes`,
    label: `${Name(name)} load`,
    help: 'Its share of chain force, over that of the driven sprocket.',
    start,
    least: 0,
    most: 3,
    step: 0.05,
    when,
    ...lateAs(absent),
  });
const hasIdler2: When = (p) => p.idler !== 'none' && (p.idler2 ?? 'none') !== 'none';
const hasBranch2: When = (p) => p.branch !== 'none' && (p.branch2 ?? 'none') !== 'none';

/** A sprocket beside the two that the centre distance is told of. */
export interface AsideOf {
  readonly id: 'idler' | 'idler2' | 'branch' | 'branch2';
  readonly name: string;
  /** It takes power off the chain. */
  readonly driven: boolean;
  readonly from: 'inside' | 'outside';
  readonly teeth: number;
  readonly along: number;
  readonly push: number;
  /** Force that it takes over what the driven sprocket takes; 0 for an idler. */
  readonly load: number;
}

/** Every further sprocket of a chain. */
export function asidesOf(p: P): readonly AsideOf[] {
  const out: AsideOf[] = [];
  if (p.idler !== 'none')
    out.push({
      id: 'idler',
      name: 'idler',
      driven: false,
      from: p.idler,
      teeth: p.idlerTeeth,
      along: p.idlerAlong,
      push: p.idlerPush,
      load: 0,
    });
  if (hasIdler2(p))
    out.push({
      id: 'idler2',
      name: 'second idler',
      driven: false,
      from: p.idler2 as 'inside',
      teeth: p.idler2Teeth!,
      along: p.idler2Along!,
      push: p.idler2Push!,
      load: 0,
    });
  if (p.branch !== 'none')
    out.push({
      id: 'branch',
      name: 'branch',
      driven: true,
      from: p.branch,
      teeth: p.branchTeeth,
      along: p.branchAlong,
      push: p.branchPush,
      load: p.branchLoad,
    });
  if (hasBranch2(p))
    out.push({
      id: 'branch2',
      name: 'second branch',
      driven: true,
      from: p.branch2 as 'inside',
      teeth: p.branch2Teeth!,
      along: p.branch2Along!,
      push: p.branch2Push!,
      load: p.branch2Load!,
    });
  return out;
}

/** What each parameter is, how it is bounded and edited. */
export const chainParams: ParamTable<P> = {
  ...group('Chain', {
    size: fromShop({
      says: 'Chain by its number in ISO 606',
      label: 'Chain',
      help: 'Roller or bush chain by its number in ISO 606; the table below says what the numbers mean.',
      start: '04C',
      options: () => CHAINS.map((s) => ({ value: s.id, label: s.inch ? `${s.id} (inch ${s.inch})` : s.id })),
    }),
    setBy: oneOf({
      says: 'What is given: links, or the centre distance',
      label: 'Given',
      help: 'Give the links and get the centre distance, or the other way round.',
      start: 'links',
      options: [
        ['links', 'Links'],
        ['centre', 'Centre distance'],
      ],
    }),
    links: whole({
      says: 'Links of the chain',
      label: 'Links',
      help: 'Even; an odd number takes an offset link, which is weaker.',
      start: 60,
      least: 8,
      most: 2000,
      when: (p: P) => p.setBy === 'links',
    }),
    centre: length({
      says: 'Wanted centre distance',
      label: 'Wanted centres',
      help: 'The next even number of links is taken, and the centres follow it.',
      start: 0.14,
      least: 5e-3,
      most: 5,
      step: 1e-3,
      when: (p: P) => p.setBy === 'centre',
    }),
    sag: amount('efficiency', {
      says: 'Sag of the slack run over its length',
      label: 'Sag',
      help: 'Mid-span, over the length of the run: 1 to 2 % is usual. None would load shafts and joints.',
      start: 0.015,
      least: 1e-3,
      most: 0.1,
      step: 5e-3,
    }),
    takeUp: oneOf({
      says: 'How slack is taken up as the chain wears',
      label: 'Slack taken up',
      help: 'By moving a shaft or the idler from time to time, or never: then all of the elongation is play.',
      start: 'centre',
      options: [
        ['centre', 'By centres or idler'],
        ['never', 'Never'],
      ],
    }),
    worn: amount('efficiency', {
      says: 'Elongation by wear that is counted with',
      label: 'Elongation counted',
      help: 'How far the chain is worn in the figure of play; 1 to 3 % is the end of its life.',
      start: 5e-3,
      least: 0,
      most: 0.03,
      step: 1e-3,
      when: (p: P) => p.takeUp === 'never',
    }),
  }),
  ...group('Teeth', {
    z1: whole({
      says: 'Teeth of the driving sprocket',
      label: 'Driving sprocket',
      help: 'Seventeen or more run smoothly; odd numbers with even links wear evenly.',
      start: 15,
      least: 7,
      most: 120,
    }),
    z2: whole({
      says: 'Teeth of the driven sprocket',
      label: 'Driven sprocket',
      help: 'Teeth; above 120 a little elongation makes the chain climb.',
      start: 45,
      least: 7,
      most: 150,
    }),
    form: oneOf({
      says: 'Tooth gap within ISO 606',
      label: 'Tooth gap',
      help: 'Between the least and the most that ISO 606 allows; printed sprockets want room.',
      start: 'mean',
      options: [
        ['least', 'Least'],
        ['mean', 'Mean'],
        ['most', 'Most'],
      ],
    }),
  }),
  ...group('Idlers and branches', {
    idler: oneOf({
      says: 'Idler on the slack run',
      label: 'Idler',
      help: 'A sprocket on the slack run that takes slack up and adds wrap.',
      start: 'none',
      options: ASIDE,
    }),
    idlerTeeth: teethOf('idler', 15, (p) => p.idler !== 'none'),
    idlerAlong: alongOf('idler', 0.5, (p) => p.idler !== 'none'),
    idlerPush: pushOf('idler', 6e-3, (p) => p.idler !== 'none'),
    idlerBore: length<P>({
      says: 'Diameter of the pins that idlers run on',
      label: 'Idlers’ pins',
      help: 'Ground pins; bearings and sprockets are bored for them.',
      start: 3e-3,
      least: 1e-3,
      most: 0.05,
      step: 1e-3,
      when: (p) => p.idler !== 'none',
      absent: IDLER_BORE,
      late: true,
    }),
    idler2: oneOf<Aside, P>({
      says: 'Further idler on the slack run',
      label: 'Second idler',
      help: 'A further sprocket on the slack run, as beside each large sprocket.',
      start: 'none',
      absent: 'none',
      late: true,
      options: ASIDE,
      when: (p) => p.idler !== 'none',
    }),
    idler2Teeth: teethOf('second idler', 15, hasIdler2, 15),
    idler2Along: alongOf('second idler', 0.25, hasIdler2, 0.25),
    idler2Push: pushOf('second idler', 6e-3, hasIdler2, 6e-3),
    branch: oneOf({
      says: 'Second driven sprocket on the tight run',
      label: 'Branch',
      help: 'A second driven sprocket on the tight run, with a ratio and a direction of its own; the line goes on from the driven one.',
      start: 'none',
      options: ASIDE,
    }),
    branchTeeth: teethOf('branch', 20, (p) => p.branch !== 'none'),
    branchAlong: alongOf('branch', 0.5, (p) => p.branch !== 'none'),
    branchPush: pushOf('branch', 0.012, (p) => p.branch !== 'none'),
    branchLoad: loadOf('branch', 0.3, (p) => p.branch !== 'none'),
    branch2: oneOf<Aside, P>({
      says: 'Third driven sprocket on the tight run',
      label: 'Second branch',
      help: 'A further driven sprocket on the tight run, with a ratio and a direction of its own.',
      start: 'none',
      absent: 'none',
      late: true,
      options: ASIDE,
      when: (p) => p.branch !== 'none',
    }),
    branch2Teeth: teethOf('second branch', 20, hasBranch2, 20),
    branch2Along: alongOf('second branch', 0.25, hasBranch2, 0.25),
    branch2Push: pushOf('second branch', 0.012, hasBranch2, 0.012),
    branch2Load: loadOf('second branch', 0.3, hasBranch2, 0.3),
  }),
  ...group('Made of', {
    material1: material({ says: 'driving sprocket', label: 'Driving', start: 'c45' }),
    material2: material({ says: 'driven sprocket', label: 'Driven', start: 'pa-cf' }),
  }),
  ...group('Bores and screws', {
    bore1: length({
      says: 'Bore of the driving sprocket',
      label: 'Driving bore',
      help: 'Motor shaft.',
      start: 8e-3,
      least: 5e-4,
      most: 0.3,
    }),
    shape1: hubShape({ says: 'Bore, driving sprocket', label: 'Driving bore is', start: 'flat' }),
    bore2: length({
      says: 'Bore of the driven sprocket',
      label: 'Driven bore',
      help: 'Shaft, or a passage where it is screwed on.',
      start: 8e-3,
      least: 5e-4,
      most: 0.5,
    }),
    shape2: hubShape({ says: 'Bore, driven sprocket', label: 'Driven bore is', start: 'round' }),
    bolts2: screws({
      says: 'Screws through the driven sprocket',
      label: 'Screws, driven',
      help: 'Through the driven sprocket’s disc.',
    }),
    boltCircle2: length({
      says: 'Their circle',
      label: 'Their circle',
      help: 'Diameter.',
      start: 0.03,
      least: 0,
      most: 1,
      when: (p: P) => p.bolts2 > 0,
    }),
    boltHole: screwHole<P>((p: P) => p.bolts2 > 0),
  }),
};
