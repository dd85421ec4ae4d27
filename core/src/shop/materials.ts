import type { Material } from '../schema/joint.ts';
import { STARTING } from './factor.ts';

const zero = 273.15;
const m = (
  id: string,
  name: string,
  made: Material['made'],
  strength: number | readonly [along: number, across: number],
  modulus: number,
  softening: number,
  density: number,
  price: number,
  creep: number,
  source: string = STARTING,
): Material => ({
  id,
  name,
  made,
  ...(typeof strength === 'number'
    ? { strength: strength * 1e6 }
    : { strength: strength[0] * 1e6, across: strength[1] * 1e6 }),
  modulus: modulus * 1e9,
  softening: softening + zero,
  density,
  price,
  ...(creep > 0 && { creep }),
  source,
});

const SHEET = 'usual data-sheet value';

/**
 * Materials by generic name: strength counted on (metals: yield; printed: along and across their layers), Young's modulus,
 * the temperature above which a loaded part loses its shape (printed: about the glass transition; metals: where strength
 * falls off), density, price, and how fast it creeps: E(t) = E·t^−n with t in hours over one.
 */
export const MATERIALS: readonly Material[] = [
  m('pla', 'PLA, printed', 'printed', [45, 28], 2.8, 55, 1240, 22, 0.06),
  m('petg', 'PETG, printed', 'printed', [40, 25], 1.9, 72, 1270, 24, 0.05),
  m('abs', 'ABS, printed', 'printed', [32, 20], 1.9, 98, 1040, 24, 0.06),
  m('asa', 'ASA, printed', 'printed', [32, 20], 1.9, 98, 1070, 30, 0.06),
  m('pc', 'Polycarbonate, printed', 'printed', [55, 35], 2.1, 135, 1200, 45, 0.03),
  m('pa12', 'PA12, printed', 'printed', [40, 30], 1.3, 95, 1010, 60, 0.08),
  m('pa-cf', 'PA with carbon fibre, printed', 'printed', [70, 35], 4.5, 150, 1150, 75, 0.02),
  m('resin', 'Tough resin, printed', 'printed', [40, 38], 1.8, 60, 1180, 60, 0.08),
  m('tpu', 'TPU 95 A, printed', 'printed', [28, 22], 0.06, 80, 1220, 45, 0.08),
  m('pom', 'POM (acetal), milled or cut', 'milled', 62, 2.8, 110, 1410, 18, 0.05, SHEET),
  m('pa66', 'PA66, milled', 'milled', 70, 2.5, 120, 1140, 16, 0.08, SHEET),
  m(
    'en-aw-6082',
    'Aluminium EN AW-6082 T6, milled',
    'milled',
    250,
    70,
    150,
    2700,
    12,
    0,
    'EN 755-2 for strength; softening where age-hardening is lost',
  ),
  m(
    'en-aw-7075',
    'Aluminium EN AW-7075 T6, milled',
    'milled',
    460,
    71,
    120,
    2810,
    18,
    0,
    'EN 755-2 for strength; softening where age-hardening is lost',
  ),
  m('cuzn39pb3', 'Brass CuZn39Pb3, milled', 'milled', 250, 97, 300, 8470, 16, 0, 'EN 12164'),
  m('c45', 'Steel C45, milled', 'milled', 370, 210, 400, 7850, 6, 0, 'EN ISO 683-1, normalized'),
  m('42crmo4', 'Steel 42CrMo4 +QT, milled', 'milled', 900, 210, 400, 7850, 9, 0, 'EN ISO 683-2, quenched and tempered'),
  m(
    'silver-steel',
    'Silver steel 115CrV3, ground rod',
    'bought',
    450,
    210,
    200,
    7850,
    14,
    0,
    'EN ISO 4957, as delivered',
  ),
  m('x5crni18-10', 'Stainless steel X5CrNi18-10', 'bought', 210, 193, 500, 7900, 12, 0, 'EN 10088-3'),
];
