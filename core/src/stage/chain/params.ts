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

const ASIDE = [
  ['none', 'None'],
  ['inside', 'Inside the chain'],
  ['outside', 'On its outside'],
] as const;

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
  ...group('Idler and branch', {
    idler: oneOf({
      says: 'Idler on the slack run',
      label: 'Idler',
      help: 'A sprocket on the slack run that takes slack up and adds wrap.',
      start: 'none',
      options: ASIDE,
    }),
    idlerTeeth: whole({
      says: 'Teeth of the idler',
      label: 'Idler teeth',
      help: 'No fewer than the driving sprocket has, for a long life.',
      start: 15,
      least: 7,
      most: 60,
      when: (p: P) => p.idler !== 'none',
    }),
    idlerAlong: amount('efficiency', {
      says: 'Where the idler stands along the run',
      label: 'Idler along',
      help: 'From the driving sprocket.',
      start: 0.5,
      least: 0.05,
      most: 0.95,
      step: 0.05,
      when: (p: P) => p.idler !== 'none',
    }),
    idlerPush: length({
      says: 'How far it presses the run aside',
      label: 'Idler pressed by',
      help: 'How far the run is moved aside.',
      start: 6e-3,
      least: 0,
      most: 0.5,
      when: (p: P) => p.idler !== 'none',
    }),
    branch: oneOf({
      says: 'Second driven sprocket on the tight run',
      label: 'Branch',
      help: 'A second driven sprocket on the tight run, with a ratio and a direction of its own; the line goes on from the driven one.',
      start: 'none',
      options: ASIDE,
    }),
    branchTeeth: whole({
      says: 'Its teeth',
      label: 'Branch teeth',
      help: 'Teeth of the branch.',
      start: 20,
      least: 7,
      most: 120,
      when: (p: P) => p.branch !== 'none',
    }),
    branchAlong: amount('efficiency', {
      says: 'Where it stands along the run',
      label: 'Branch along',
      help: 'From the driving sprocket.',
      start: 0.5,
      least: 0.05,
      most: 0.95,
      step: 0.05,
      when: (p: P) => p.branch !== 'none',
    }),
    branchPush: length({
      says: 'How far it presses the run aside',
      label: 'Branch pressed by',
      help: 'How far the run is moved aside; a few teeth must be in mesh.',
      start: 0.012,
      least: 0,
      most: 0.5,
      when: (p: P) => p.branch !== 'none',
    }),
    branchLoad: amount('efficiency', {
      says: 'Force that it takes over what the driven sprocket takes',
      label: 'Branch load',
      help: 'Its share of chain force, over that of the driven sprocket.',
      start: 0.3,
      least: 0,
      most: 3,
      step: 0.05,
      when: (p: P) => p.branch !== 'none',
    }),
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
