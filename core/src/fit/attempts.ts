import type { Attempt, FitEntry } from '../schema/process-schema.ts';
import { stated } from '../units/stated.ts';
import type { MadeBy } from './making-of.ts';

/** What an attempt says: whether the process or the design was off. */
export interface AttemptSays {
  readonly attempt: Attempt;
  readonly blame: 'process' | 'design' | 'both' | 'none' | 'open';
  readonly says: string;
  /** Taken off a side that the process explains, and its standard uncertainty, m. */
  readonly explained: number;
  readonly u: number;
}

/** How well one knows what a file or a tape takes, standard uncertainty, m. */
const BY_HAND = 3e-5;

/** How well a fit that was made by hand tells where a contour stood, standard uncertainty, m; own choice. */
const AS_READING = 9e-5;

/** What was done, in words. */
export const tookWords = (took: number): string =>
  took > 0
    ? `${stated(took, 'length', 3)} taken off a side`
    : took < 0
      ? `${stated(-took, 'length', 3)} put on a side`
      : 'nothing taken off';

/**
 * What an attempt tells. Off a side had to come what the contour stood out, less what the drawing left free: where the
 * process is known to stand out by as much, it is the process; where it is not, the drawing.
 *
 * @param made the process that made the part, as it is known now
 */
export function attemptSays(attempt: Attempt, made: MadeBy | undefined): AttemptSays {
  const told = made && (attempt.feature === 'hole' ? made.fit.into : made.fit.out);
  // Corrected, only what was not known of the process was left.
  const explained = told && !attempt.compensated ? told.value : 0;
  const u = Math.hypot(told?.u ?? 6e-5, made ? made.fit.spread.value / 2 : 2e-5, BY_HAND);
  const base = { attempt, explained, u };
  if (attempt.ends !== 'fits')
    return { ...base, blame: 'open', says: `${tookWords(attempt.took)}, and still too ${attempt.ends}: go on.` };
  if (attempt.was === 'fits' && attempt.took === 0) return { ...base, blame: 'none', says: 'It fitted as it came.' };
  const rest = attempt.took - explained;
  const restWords =
    rest > 0
      ? `the drawing leaves ${stated(rest, 'length', 2)} a side too little room`
      : `the drawing leaves ${stated(-rest, 'length', 2)} a side too much room`;
  if (Math.abs(rest) < 2 * u)
    return Math.abs(explained) < u
      ? {
          ...base,
          blame: 'none',
          says: `${tookWords(attempt.took)}: no more than parts of this process differ from each other.`,
        }
      : {
          ...base,
          blame: 'process',
          says: `${tookWords(attempt.took)}; the process stands out by ${stated(explained, 'length', 2)} a side: it was the process. Take it over, and the next one fits as it comes.`,
        };
  if (Math.abs(explained) > u && explained * attempt.took > 0)
    return {
      ...base,
      blame: 'both',
      says: `${tookWords(attempt.took)}; ${stated(explained, 'length', 2)} of it is the process, and ${restWords}.`,
    };
  return {
    ...base,
    blame: 'design',
    says: `${tookWords(attempt.took)}, which the process does not explain${told ? '' : ' (it is not measured)'}: ${restWords}.`,
  };
}

/**
 * What an attempt teaches its process: a size that fitted once so much was taken off a side. Only attempts that ended well
 * teach.
 *
 * @param id of the entry
 * @param used how far the contour was corrected beforehand, m a side
 */
export function attemptEntry(attempt: Attempt, id: string, used: number): FitEntry | undefined {
  if (attempt.ends !== 'fits' || (attempt.was === 'loose') !== attempt.took < 0) return undefined;
  const stood = attempt.took + (attempt.compensated ? used : 0);
  const made = attempt.drawn + (attempt.feature === 'hole' ? -2 : 2) * stood;
  return {
    id,
    day: attempt.day,
    from: 'attempt',
    note: `${attempt.name}: ${attempt.note || 'made to fit'}`.slice(0, 400),
    readings: [
      {
        id: `${id}-1`,
        feature: attempt.feature,
        axis: 'round',
        drawn: attempt.drawn,
        made,
        // What had to come off says where it fits, and not where it was: a wide reading.
        spread: AS_READING,
        where: attempt.name,
      },
    ],
  };
}
