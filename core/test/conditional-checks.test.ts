import { describe, expect, it } from 'vitest';
import { checkOf, stageBench } from './stage-bench.ts';
import { cold } from './helpers.ts';
import { ANCHORED } from './worked-stages.ts';

// Checks that only some stages of a kind have: both sides by hand, on the worked stage of the kind with one thing changed.

const mm = 1e-3;
const DEGREE = Math.PI / 180;

interface Conditional {
  readonly kind: string;
  readonly change: Readonly<Record<string, unknown>>;
  readonly id: string;
  readonly figure: number;
  readonly limit: number;
  readonly how: string;
}
const of = (
  kind: string,
  change: Readonly<Record<string, unknown>>,
  id: string,
  figure: number,
  limit: number,
  how: string,
): Conditional => ({ kind, change, id, figure, limit, how });

/** Pitch radius of a pulley of 3 mm pitch. */
const pulley = (teeth: number) => (teeth * 3 * mm) / (2 * Math.PI);
const CLAMPED = { closure: 'open', setBy: 'centre', centre: 80 * mm };
/** What the worked planetary set's sun carries over what it would without losses (its anchor). */
const SUN = 1.0838939718;
const SOFT = [60e6, 300e6] as const;

const CHECKS: readonly Conditional[] = [
  of(
    'belt',
    { idler: 'outside' },
    'back',
    20 * mm,
    1.3 * 2 * (pulley(14) - 0.381 * mm),
    '1.3 of the least pulley over its teeth',
  ),
  of(
    'belt',
    CLAMPED,
    'swing',
    2,
    Math.PI + 2 * Math.asin((pulley(66) - pulley(22)) / (80 * mm)),
    'the swing asked; half a turn and twice asin of the difference of radii over the centres',
  ),
  of('belt', { made1: 'printed' }, 'print-made1', 22, 16, '24 teeth of 2 mm are 16 of 3 mm'),
  of(
    'chain',
    { bolts2: 6 },
    'bolts',
    ((30 - 3.2 - 8) / 2) * mm,
    mm,
    'from the holes on 30 mm in to the bore; a millimetre',
  ),
  of('cable', { bolts2: 6 }, 'bolts', ((30 - 3.2 - 8) / 2) * mm, mm, 'the same'),
  of('cable', { sort: 'aramid' }, 'creeps', 1 - 1000 ** -0.01, 0.2, 'what fibres keep is 1000^−0.01; a fifth'),
  of('cable', { sort: 'aramid' }, 'bend', 21, 12, '2·10.5 mm over 1 mm; of fibres'),
  of(
    'bevel',
    { bolts2: 4 },
    'bolts',
    ((18 - 3.2) / 2 - 5) * mm,
    mm,
    'from the holes on 18 mm in to a bore of 4 mm and a millimetre',
  ),
  of(
    'worm',
    { bolts2: 4 },
    'bolts',
    ((20 - 3.2 - 8) / 2 - 1) * mm,
    0,
    'from the holes on 20 mm in to the bore, less a millimetre',
  ),
  of('worm', { bore1: 0 }, 'journal', 8 * mm, 2 * (20 - 3.125) * mm, 'bore of 688; twice 20 mm less a dedendum'),
  of(
    'worm',
    { playBy: 'dual-lead' },
    'dual',
    2.06736999e-3 - ((0.03 * 35 * mm) / 2) * (16 / Math.hypot(1, 16)),
    0.25 * mm,
    'the crest less half of 0.03·35 mm across the thread; a tenth of the module',
  ),
  of('worm', { playBy: 'spring' }, 'lift', 4, (4 * 20) / 39.133498, '20 N over what 4 N·m press the axes apart with'),
  of('planetary', { pins: 'ball' }, 'bearing-bore', 5 * mm, 1e-5, '623 on a pin of 8 mm; 10 µm'),
  of('planetary', { pins: 'ball' }, 'bearing-width', 4 * mm, 11 * mm, 'of 623; the face and a millimetre'),
  of('planetary', { boltsR: 4 }, 'boltWall', 3 * mm, 5.2 * mm, 'as set; the hole and a millimetre on either side'),
  of(
    'planetary',
    { takenOut: 'planets' },
    'opens',
    4,
    (3 * 10 * 45 * mm) / SUN,
    'three of 10 N on r_s + r_r, where the sun’s tooth has all losses',
  ),
  of('planetary', { takenOut: 'sun' }, 'opens', 4, (3 * 10 * 45 * mm) / SUN, 'the same'),
  of('planetary', { takenOut: 'pairs' }, 'opens', 4, (3 * 10 * 45 * mm) / 2 / SUN, 'half of them push one way'),
  of('planetary', { takenOut: 'pairs' }, 'pairs', 1, 0, 'three leave one over'),
  of('compound-planetary', { takenOut: 'driven' }, 'opens', 4, 3 * 10 * 22.5 * mm, 'three of 10 N on the driven ring'),
  of(
    'compound-planetary',
    { planets: 4 },
    'usual-stiffness',
    4553.00658,
    (150 / DEGREE) * (58.5 / 90) ** 2,
    'as worked; 150 N·m a degree at 90 mm across, by the square of 2·(24 + 1.25 + 4) mm',
  ),
  of(
    'cycloidal',
    { boltsR: 4 },
    'bolts',
    ((6 - 3.5 - 3.2) / 2) * mm,
    mm,
    'half of what a rim of 6 mm leaves beside seat and hole',
  ),
  of('screw', { nut: 'double' }, 'opens', 200, 40, 'asked; twice 20 N'),
  of('screw', { nut: 'double', type: 'ball' }, 'opens', 200, 20 * 2 ** 1.5, 'asked; 20 N by 2^1.5'),
  of('screw', { type: 'ball' }, 'dents', 200, 7000, 'asked; its static rating'),
  of(
    'screw',
    { type: 'ball' },
    'rolls',
    ((4000 / 100) ** 3 * 1e6) / 5,
    1.8e6,
    'ISO 281 at 100 N and five turns a second; 500 h',
  ),
  of('rack', { takenOut: 'split' }, 'opens', 200, 10, 'asked; the springs'),
  of(
    'spur',
    { idlers: 2, zi: 20, xi: 0, bend: Math.PI / 3 },
    'pass-1-3',
    (Math.sqrt(20 ** 2 + 40 ** 2 + 20 * 40) - 11 - 31) * mm,
    0.5 * mm,
    'the third side of 20 and 40 mm at 120°, less both tips',
  ),
  of('spur', { takenOut: 'split' }, 'opens', 4 / (30 * mm), 10, '4 N·m on 30 mm; the springs'),
  of(
    'spur',
    { bolts2: 6, boltCircle2: 30 * mm },
    'bolts',
    ((30 - 3.2 - 8) / 2 - 1) * mm,
    0,
    'from the holes in to the bore, less a millimetre',
  ),
  of(
    'spur',
    { idlers: 1 },
    'pass-0-2',
    (60 - 11 - 31) * mm,
    0.5 * mm,
    'centres of 20 and 40 mm in a row less both tips; half a module',
  ),
  of('spur', { form: 'ring' }, 'base-1', 29 * mm, 30 * mm * Math.cos(20 * DEGREE), 'm(z/2 − 1); m·z/2·cos 20°'),
  of(
    'spur',
    { form: 'ring' },
    'tips-1',
    0.014807378823543,
    0,
    'the pinion rolled until its tip’s corner crosses the ring’s tip circle, angle to the ring’s corner',
  ),
  of(
    'spur',
    { form: 'ring' },
    'roots-1',
    -0.00053395388711182,
    0,
    'where contact begins, less where the rack’s straight flank ends',
  ),
  of('spur', { material2: 'tpu' }, 'rubber-material2', ...SOFT, 'modulus of printed TPU; 300 MPa'),
];

describe('checks that some stages have', () => {
  for (const { kind, change, id, figure, limit, how } of CHECKS)
    it(`${kind}, ${id} with ${Object.keys(change).join(', ')}: ${how}`, () => {
      const { params, duty } = ANCHORED.find((a) => a.kind === kind && !a.further)!;
      const check = checkOf(stageBench(kind, { ...params }, { ...duty, swing: 2 }, cold).report({ ...change }), id);
      expect(Math.abs(check.figure - figure)).toBeLessThanOrEqual(2e-6 * Math.abs(figure) + 1e-12);
      expect(Math.abs(check.limit - limit)).toBeLessThanOrEqual(2e-6 * Math.abs(limit) + 1e-12);
    });
});
