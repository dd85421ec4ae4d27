/** A roller or bush chain by its number; lengths in metres. */
export interface ChainSize {
  readonly id: string;
  /** The same in the inch series, where it has one. */
  readonly inch: string | undefined;
  readonly pitch: number;
  /** Roller, or bush where it has none. */
  readonly roller: number;
  /** Between the inner plates, least. */
  readonly inner: number;
  readonly pin: number;
  /** Height of the inner plates, most. */
  readonly plate: number;
  /** Across the riveted pins, most. */
  readonly across: number;
  /** Bearing area of a joint, m². */
  readonly area: number;
  /** Mass for a length, kg/m. */
  readonly mass: number;
  /** Least breaking load, N. */
  readonly breaks: number;
  readonly bush: boolean;
}

const mm = 1e-3;

const c = (
  id: string,
  inch: string | undefined,
  pitch: number,
  roller: number,
  inner: number,
  pin: number,
  plate: number,
  across: number,
  area: number,
  mass: number,
  breaks: number,
  bush = false,
): ChainSize => ({
  id,
  inch,
  pitch: pitch * mm,
  roller: roller * mm,
  inner: inner * mm,
  pin: pin * mm,
  plate: plate * mm,
  across: across * mm,
  area: area * 1e-6,
  mass,
  breaks: breaks * 1e3,
  bush,
});

/**
 * Short-pitch chains, simplex: pitch, roller or bush, inner width, pin, plate height, pin length (mm), bearing area (mm²),
 * mass (kg/m), least breaking load (kN).
 *
 * Source: ISO 606; bearing area and mass are usual catalogue values, which the standard leaves open.
 */
export const CHAINS: readonly ChainSize[] = [
  c('04C', '25', 6.35, 3.3, 3.1, 2.31, 6.02, 9.1, 11, 0.14, 3.5, true),
  c('06C', '35', 9.525, 5.08, 4.68, 3.6, 9.05, 13.2, 27, 0.33, 7.9, true),
  c('05B', undefined, 8, 5, 3, 2.31, 7.11, 8.6, 11, 0.18, 4.4),
  c('06B', undefined, 9.525, 6.35, 5.72, 3.28, 8.26, 13.5, 28, 0.41, 8.9),
  c('085', '41', 12.7, 7.77, 6.25, 3.58, 9.91, 14, 32, 0.41, 6.7),
  c('08A', '40', 12.7, 7.92, 7.85, 3.98, 12.07, 17.8, 44, 0.62, 13.9),
  c('08B', undefined, 12.7, 8.51, 7.75, 4.45, 11.81, 17, 50, 0.7, 17.8),
];

const EIGHTHS: Readonly<Record<number, string>> = { 2: '1/4', 3: '3/8', 4: '1/2', 5: '5/8', 6: '3/4' };
const LAST: Readonly<Record<string, string>> = { '0': 'rollers', '1': 'rollers, light', '5': 'bushes without rollers' };

/**
 * What the numbers of a chain say: those of the inch series tell the pitch in eighths of an inch by the figures before the
 * last, and by the last how it is made; those of ISO 606 tell it in sixteenths, and the series by their letter.
 *
 * @example chainWords({ id: '08A', inch: '40', bush: false }) // '08: 1/2 in pitch, A: inch series of rollers; 40: 4 eighths of an inch, 0: rollers'
 * @example chainWords({ id: '05B', inch: undefined, bush: false }) // '05B: metric pitch, B: European series of rollers'
 */
export function chainWords(chain: Pick<ChainSize, 'id' | 'inch' | 'bush'>): string {
  const sixteenths = Number(chain.id.slice(0, 2));
  const series = chain.id.slice(2);
  if (chain.id === '05B') return '05B: metric pitch, B: European series of rollers';
  const eighths = chain.inch ? Number(chain.inch.slice(0, -1)) : sixteenths / 2;
  const pitch = `${EIGHTHS[eighths]} in pitch`;
  const made =
    series === 'B'
      ? ', B: European series of rollers'
      : series === 'A'
        ? ', A: inch series of rollers'
        : series === 'C'
          ? ', C: inch series of bushes'
          : ', light, narrow';
  const iso = `${chain.id.slice(0, series === '5' ? 3 : 2)}: ${pitch}${made}`;
  return chain.inch
    ? `${iso}; ${chain.inch}: ${eighths} eighths of an inch, ${chain.inch.slice(-1)}: ${LAST[chain.inch.slice(-1)]}`
    : iso;
}

/** A chain by its number; undefined where there is none of it. */
export const findChain = (id: string): ChainSize | undefined => CHAINS.find((x) => x.id === id);
