import type { QuantityId } from '../units/quantity.ts';
import type { Correction, SlipInput } from './correct.ts';

/** A slip that would explain a finding better than the design does. */
export interface Slip {
  readonly id: string;
  readonly ask: string;
  /** What the finding would be without the slip. */
  readonly value: number;
  /** What would take it out. */
  readonly correction: Correction;
}

interface Known {
  readonly id: string;
  /** What was typed ÷ what was meant. */
  readonly ratio: number;
  readonly ask: string;
  /** Quantities in which it can happen. */
  readonly of: readonly QuantityId[];
  readonly in: SlipInput['in'];
}

const both = (
  id: string,
  ratio: number,
  of: readonly QuantityId[],
  up: string,
  down: string,
  where: SlipInput['in'] = 'readings',
): Known[] => [
  { id, ratio, ask: up, of, in: where },
  { id: `${id}-down`, ratio: 1 / ratio, ask: down, of, in: where },
];

const KNOWN: readonly Known[] = [
  ...both(
    'g',
    9.80665,
    ['mass', 'torque'],
    'Did you mean a mass where a force was typed (9.81 times too much)?',
    'Did you mean a force in newtons where a mass was typed (9.81 times too little)?',
  ),
  ...both(
    'thousand',
    1000,
    ['length', 'mass', 'torque', 'smallAngle'],
    'Did you mean a thousandth: millimetres where metres were typed, or grams where kilograms were?',
    'Did you mean a thousand times as much: metres where millimetres were typed, or kilograms where grams were?',
  ),
  ...both(
    'ounce',
    16,
    ['mass'],
    'Did you mean ounces where pounds were typed?',
    'Did you mean pounds where ounces were typed?',
  ),
  ...both(
    'foot',
    12,
    ['length', 'torque'],
    'Did you mean inches where feet were typed?',
    'Did you mean feet where inches were typed?',
  ),
  ...both(
    'inch',
    25.4,
    ['length'],
    'Did you mean millimetres where inches were typed?',
    'Did you mean inches where millimetres were typed?',
  ),
  ...both(
    'cm-inch',
    2.54,
    ['length'],
    'Did you mean centimetres where inches were typed?',
    'Did you mean inches where centimetres were typed?',
  ),
  ...both(
    'radian',
    180 / Math.PI,
    ['angle', 'smallAngle'],
    'Did you mean degrees where radians were typed?',
    'Did you mean radians where degrees were typed?',
  ),
  ...both(
    'minute',
    60,
    ['angle', 'smallAngle'],
    'Did you mean minutes of arc where degrees were typed?',
    'Did you mean degrees where minutes of arc were typed?',
  ),
  ...both(
    'diameter',
    2,
    ['length'],
    'Was a diameter typed where the radius belongs?',
    'Was half of the radius typed: is the point that is read twice as far out?',
    'rig',
  ),
];

/** Twice is common without any slip, so the radius is only asked about when it fits well. */
const CLOSE_TWO = 0.06;

interface Band {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/** Whether a figure without its slip is what was expected: in the band. */
export const explains = (mended: number, { low, high }: Band): boolean => mended >= low && mended <= high;

/**
 * Slips of units or of the rig that would bring a finding into what is expected. Only those are asked about that can sit
 * in something typed which the figure goes with, and only where the band is narrow enough to doubt a reading on: an
 * honest disagreement is more likely than a slip that merely comes near.
 *
 * @param found the finding, SI
 * @param expected the prediction with its band, SI
 * @param inputs what the figure goes with, from `slipInputs`
 * @returns the best few, nearest first; none when the finding lies in the band or within a third of it
 */
export function slipsFor(found: number, expected: Band | undefined, inputs: readonly SlipInput[]): Slip[] {
  if (!expected || !(found > 0) || !(expected.low > 0)) return [];
  if (found >= expected.low * 0.67 && found <= expected.high * 1.5) return [];
  const off = (mended: number) => Math.abs(mended / expected.value - 1);
  // A band as wide as half of what a slip does, in factors, is no ground to doubt a reading on: anything lands in it.
  const wide = (expected.high / expected.low) ** 2;
  const tells = (k: Known, input: SlipInput) => Math.max(k.ratio, 1 / k.ratio) ** Math.abs(input.exponent) >= wide;
  return inputs
    .flatMap((input) =>
      KNOWN.filter((k) => k.in === input.in && k.of.includes(input.quantity) && tells(k, input)).map((k) => {
        const value = found / k.ratio ** input.exponent;
        return { k, input, value, off: off(value) };
      }),
    )
    .filter(({ k, value, off: o }) => explains(value, expected) && (k.in !== 'rig' || o < CLOSE_TWO))
    .sort((a, b) => a.off - b.off)
    .slice(0, 2)
    .map(({ k, input, value }) => ({
      id: k.id,
      ask: k.ask,
      value,
      correction: { in: input.in, id: input.id, label: input.label, factor: 1 / k.ratio },
    }));
}
