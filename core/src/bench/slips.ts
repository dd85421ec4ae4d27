/** A slip that would explain a finding better than the design does. */
export interface Slip {
  readonly id: string;
  readonly ask: string;
  /** What the finding would be without the slip. */
  readonly value: number;
}

interface Known {
  readonly id: string;
  readonly ratio: number;
  readonly ask: string;
}

const both = (id: string, ratio: number, up: string, down: string): Known[] => [
  { id, ratio, ask: up },
  { id: `${id}-down`, ratio: 1 / ratio, ask: down },
];

const KNOWN: readonly Known[] = [
  ...both(
    'g',
    9.80665,
    'Did you mean a mass where a force was typed (9.81 times too much)?',
    'Did you mean a force in newtons where a mass was typed (9.81 times too little)?',
  ),
  ...both(
    'thousand',
    1000,
    'Did you mean a thousandth: metres typed as millimetres, or kilograms as grams?',
    'Did you mean a thousand times as much: millimetres typed as metres, or grams as kilograms?',
  ),
  ...both('ounce', 16, 'Did you mean ounces where pounds were typed?', 'Did you mean pounds where ounces were typed?'),
  ...both('foot', 12, 'Did you mean inches where feet were typed?', 'Did you mean feet where inches were typed?'),
  ...both(
    'inch',
    25.4,
    'Did you mean millimetres where inches were typed?',
    'Did you mean inches where millimetres were typed?',
  ),
  ...both(
    'cm-inch',
    2.54,
    'Did you mean centimetres where inches were typed?',
    'Did you mean inches where centimetres were typed?',
  ),
  ...both(
    'radian',
    57.29578,
    'Did you mean degrees where radians were typed?',
    'Did you mean radians where degrees were typed?',
  ),
  ...both(
    'minute',
    60,
    'Did you mean minutes of arc where degrees were typed?',
    'Did you mean degrees where minutes of arc were typed?',
  ),
  ...both(
    'diameter',
    2,
    'Is the lever’s radius given, or was half of it meant: did you measure to a point twice as far out?',
    'Was a diameter typed where the radius belongs?',
  ),
];

/** A slip is only asked about when it brings the finding within this share of what is expected. */
const CLOSE = 0.15;
/** Twice is common without any slip, so the radius is only asked about when it fits well. */
const CLOSE_TWO = 0.06;

/**
 * Slips of units or of the rig that would bring a finding to what is expected.
 *
 * @param found the finding, SI
 * @param expected the prediction with its band, SI
 * @returns the best few, nearest first; none when the finding lies in the band or within a third of it
 */
export function slipsFor(found: number, expected: { value: number; low: number; high: number } | undefined): Slip[] {
  if (!expected || !(found > 0) || !(expected.value > 0)) return [];
  if (found >= expected.low * 0.67 && found <= expected.high * 1.5) return [];
  const off = (k: Known) => {
    const mended = found / k.ratio;
    if (mended >= expected.low && mended <= expected.high)
      return Math.min(CLOSE, Math.abs(mended / expected.value - 1)) * 0.99;
    return Math.abs(mended / expected.value - 1);
  };
  return KNOWN.map((k) => ({ k, off: off(k) }))
    .filter(({ k, off: o }) => o < (k.id.startsWith('diameter') ? CLOSE_TWO : CLOSE))
    .sort((a, b) => a.off - b.off)
    .slice(0, 2)
    .map(({ k }) => ({ id: k.id, ask: k.ask, value: found / k.ratio }));
}
