import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { circle, dimension, HOUSE, path, sketch, word } from '../rig-drawing.ts';
import { channelOf } from '../recording.ts';
import { amplitudeBetween, amplitudes, betweenBins, hann, peaksOf, powerBelow } from '../spectrum.ts';
import { suspectsFor } from '../suspects.ts';
import { noiseFloor } from '../noise-floor.ts';
import { clippedSays } from '../odd-readings.ts';
import { combine, fromBounds, typeA } from '../uncertainty.ts';
import { cell, column, countedRows, dominantAdvice, plainResult, rigOf, rigQuantity } from './rig-fields.ts';
import { thinned } from '../thin.ts';

/** Samples below which a spectrum has no lines to speak of. */
const LEAST_SOUND = 256;

const SOUND = [
  {
    id: 'sound',
    label: 'sound',
    quantity: 'count' as const,
    words: ['sound', 'wav', 'microphone', 'signal', 'amplitude'],
  },
];
const PLUCK = [
  rigQuantity(
    'span',
    'Free span',
    'Between the points at which the belt touches its pulleys.',
    'length',
    0.15,
    1e-3,
    1e-3,
    10,
    ['span', 'length'],
  ),
  rigQuantity('spanError', 'Its largest error', 'A rule is good to half a millimetre.', 'length', 1e-3, 1e-4, 0, 1, [
    'span error',
  ]),
  rigQuantity(
    'massPerLength',
    'Mass of a metre of belt, g',
    'Weigh the belt and divide by its length.',
    'count',
    8.4,
    0.1,
    1e-3,
    1e5,
    ['mass per length', 'mass per metre', 'g/m'],
  ),
  rigQuantity(
    'massError',
    'Its largest error, share',
    'A kitchen scale gives a few per cent.',
    'efficiency',
    0.05,
    0.01,
    0,
    1,
    ['mass error'],
  ),
];

/** Tone of a tapped span, Hz: the strongest line between 12 Hz and 2 kHz, or its half where that rings as well. */
export function tone(sound: Float64Array, rate: number): number | undefined {
  if (sound.length < LEAST_SOUND) return undefined;
  const n = Math.min(powerBelow(sound.length), 131072);
  // Begin where it is loudest: before that it is not struck.
  let peak = 0;
  let at = 0;
  for (let i = 0; i < sound.length; i++) if (Math.abs(sound[i]!) > peak) [peak, at] = [Math.abs(sound[i]!), i];
  if (!(peak > 0)) return undefined;
  const from = Math.max(0, Math.min(sound.length - n, at));
  const a = amplitudes(hann(sound.slice(from, from + n)));
  const bin = rate / n;
  const [k0, k1] = [Math.max(2, Math.ceil(12 / bin)), Math.min(a.length - 3, Math.floor(2000 / bin))];
  let best = k0;
  for (let k = k0; k <= k1; k++) if (a[k]! > a[best]!) best = k;
  for (const part of [2, 3]) {
    const low = Math.round(best / part);
    if (low < k0) continue;
    let q = low;
    for (let k = low - 2; k <= low + 2; k++) if (a[k]! > a[q]!) q = k;
    if (a[q]! > 0.25 * a[best]!) {
      best = q;
      break;
    }
  }
  return betweenBins(a, best) * bin;
}

/** Tension from the tone of a tapped span. Source: string of mass a length µ: f = √(F/µ)/2L. */
export const pluck: TestKind = {
  id: 'pluck',
  name: 'Pluck a belt',
  summary: 'The tone of a tapped belt span gives its tension.',
  group: 'sound and heat',
  rows: [],
  caution: 'Motor unpowered; fingers out of the pulleys.',
  steps: [
    'Set the belt as it will run, motor off.',
    'Hold a phone or microphone close and pluck the middle of a free span like a string.',
    'Import the sound, or type the tone an instrument tuner shows; several plucks.',
  ],
  rig: PLUCK,
  columns: [column('frequency', 'tone', 'frequency', '92 Hz', ['frequency', 'tone', 'hz', 'f'], { positive: true })],
  channels: SOUND,
  sketch: (rig) =>
    sketch([
      circle(40, 70, 18, 'ink', 'part'),
      circle(178, 70, 26, 'ink', 'part'),
      path('M38 52L176 44M40 88L178 96', 'ink'),
      path('M40 52C80 34 130 34 176 44M40 52C80 64 130 62 176 44', 'hot'),
      path('M108 20v18m-4 -6l4 6l4 -6', 'hot'),
      ...dimension(40, 178, 130, `span ${rig.said('span')}`),
    ]),
  analyse: (test, context) => {
    const rig = rigOf(PLUCK, test);
    const sound = channelOf(context.recording, 'sound');
    const heard = sound && context.recording!.rate > 0 ? tone(sound, context.recording!.rate) : undefined;
    const rows = countedRows(test, 'frequency');
    const tones = [...rows.map((r) => cell(r, 'frequency')), ...(heard ? [heard] : [])];
    if (tones.length === 0)
      return refuse(
        sound ? 'No tone was heard in the recording.' : 'There are no readings yet.',
        sound
          ? sound.length < LEAST_SOUND
            ? 'It is too short for one.'
            : 'It is silent, or only noise.'
          : 'Tension follows from the tone of a plucked span.',
        sound ? 'Hold the microphone closer and pluck again.' : 'Type the tone in hertz, or import a WAV file.',
      );
    if (tones.some((f) => !(f > 0)))
      return refuse('A tone of nothing is none.', 'Frequencies are above nought.', 'Strike that reading out.');
    const [L, mu] = [rig('span'), rig('massPerLength') * 1e-3];
    const a = typeA(tones);
    const tension = 4 * mu * (L * a.mean) ** 2;
    const bin = heard ? (context.recording!.rate / Math.min(powerBelow(sound!.length), 131072)) * 0.2 : 0;
    const found = combine(tension, 'force', [
      {
        id: 'scatter',
        name: 'scatter of the plucks',
        u: (2 * tension * a.u) / a.mean,
        dof: a.dof,
        halve: 'four times as many plucks',
      },
      {
        id: 'tone',
        name: 'resolution of the tone',
        u: (2 * tension * (heard ? bin : 0.5 / Math.sqrt(3))) / a.mean,
        dof: Infinity,
        halve: 'a longer recording',
      },
      {
        id: 'span',
        name: 'free span',
        u: (2 * tension * fromBounds(rig('spanError'))) / L,
        dof: Infinity,
        halve: 'the span measured to half the error',
      },
      {
        id: 'mass',
        name: 'mass of the belt',
        u: tension * fromBounds(rig('massError')),
        dof: Infinity,
        halve: 'a longer piece weighed',
      },
    ]);
    return ok({
      ...plainResult(
        test,
        tones.length,
        `It sounds at ${stated(a.mean, 'frequency')}: ${stated(tension, 'force', 3)} in the span.`,
      ),
      found,
      figures: [
        {
          id: 'frequency',
          name: 'Tone',
          quantity: 'frequency',
          value: a.mean,
          U: 1.96 * Math.hypot(a.u, heard ? bin : 0.5 / Math.sqrt(3)),
          how: heard ? 'strongest line of the spectrum, between bins' : 'mean of the readings',
        },
      ],
      plots: sound
        ? [
            {
              name: 'Sound over time',
              xName: 'time',
              x: 'time',
              yName: 'sound',
              y: 'count',
              series: [
                {
                  key: 'raw',
                  name: 'sound',
                  ...thinned(
                    Float64Array.from(sound, (_, i) => i / context.recording!.rate),
                    sound,
                  ),
                  as: 'line',
                  role: 'raw',
                },
              ],
            },
          ]
        : [],
      advice: [
        ...dominantAdvice(found),
        ...(tones.length < 3 ? ['Pluck three times: a tone that changes is a pulley or the hand.'] : []),
        ...clippedSays(context.recording, ['sound']),
        ...(context.recording?.notes ?? []),
      ],
    });
  },
};

const NOISE = [
  rigQuantity('speed', 'Output speed', 'Steady while recording.', 'speed', Math.PI, 0.01, 1e-4, 1e4, [
    'speed',
    'output speed',
    'rpm',
  ]),
  rigQuantity('speedError', 'Its largest error, share', 'How steady it was.', 'efficiency', 0.01, 1e-3, 0, 0.5, [
    'speed error',
  ]),
];

/** Spectrum of a sound in orders of the output against the line's own. */
export const noise: TestKind = {
  id: 'noise',
  name: 'Noise',
  summary:
    'A recording at steady speed: its spectrum in events per turn of the output, matched to the parts of the line.',
  group: 'sound and heat',
  rows: [],
  caution: 'Cover belts and wheels; keep the microphone’s cable out of them.',
  steps: [
    'Run at one steady speed, and measure that speed at the output.',
    'Record ten seconds or more, the microphone a hand away from the housing.',
    'Import the WAV file.',
  ],
  rig: NOISE,
  columns: [],
  channels: SOUND,
  sketch: (rig) =>
    sketch([
      ...HOUSE,
      path('M150 58a6 6 0 0 1 12 0v12a6 6 0 0 1 -12 0Z', 'ink', 'other'),
      path('M156 76v30h-14h28', 'ink'),
      ...[0, 1, 2].map((i) => path(`M${84 + i * 18} ${64 - i * 6}q8 ${10 + i * 6} 0 ${20 + i * 12}`, 'hot')),
      word(120, 132, `output at ${rig.said('speed')}`),
    ]),
  analyse: (test, context) => {
    const raw = channelOf(context.recording, 'sound');
    if (!raw || !(context.recording!.rate > 0))
      return refuse(
        'There is no recording yet.',
        'Orders are found in a sound recorded at a steady speed.',
        'Import a WAV file.',
      );
    // A level that stands is the converter’s, and makes no sound.
    const level0 = raw.reduce((s, v) => s + v, 0) / Math.max(1, raw.length);
    const sound = raw.map((v) => v - level0);
    if (sound.length < LEAST_SOUND)
      return refuse(
        `The recording has ${sound.length} sample${sound.length === 1 ? '' : 's'}.`,
        'That is too short for a spectrum: ten seconds are usual.',
        'Record again, for longer.',
      );
    const rate = context.recording!.rate;
    const rig = rigOf(NOISE, test);
    const turn = rig('speed') / (2 * Math.PI);
    const n = Math.min(powerBelow(sound.length), 2 ** 20);
    const a = amplitudes(hann(sound.slice(0, n))).map((v) => v * 2);
    const bin = rate / n;
    const first = Math.max(2, Math.ceil(Math.min(15, 0.5 * turn) / bin));
    let total = 0;
    for (const v of sound) total += (v * v) / sound.length;
    if (!(total > 1e-20 * (1 + level0 * level0)))
      return refuse('The recording is silent.', 'Every sample is the same.', 'Check the microphone and record again.');
    const found = peaksOf(a, first, 6, 8);
    const resolution = Math.max(bin / turn, 0);
    const floor = noiseFloor(a);
    const peaks = found.map((k) => {
      const order = (betweenBins(a, k) * bin) / turn;
      const amplitude = amplitudeBetween(a, k);
      // The noise is raised as much as the tone where that lies between bins.
      const noise = (floor[k]! * amplitude) / a[k]!;
      return {
        ...suspectsFor(
          order,
          amplitude,
          'count',
          context.orders,
          resolution + (rig('speedError') * order) / 0.6,
          false,
        ),
        U: 1.96 * noise,
        significance: amplitude / noise,
      };
    });
    const level = combine(Math.sqrt(total), 'count', []);
    const top = Math.min(
      a.length,
      Math.ceil(((peaks.length ? Math.max(...peaks.map((p) => p.order)) * 1.4 : 200) * turn) / bin),
    );
    return ok({
      ...plainResult(
        test,
        sound.length,
        peaks[0]
          ? `Loudest at ${peaks[0].order.toPrecision(4)} a turn of the output ` +
              `(${(peaks[0].order * turn).toFixed(1)} ` +
              `Hz)${peaks[0].suspects[0] ? `: ${peaks[0].suspects[0].name}` : ''}.`
          : 'No order stands out of the noise.',
      ),
      found: level,
      figures: [
        {
          id: 'level',
          name: 'Level, share of full scale',
          quantity: 'efficiency',
          value: Math.sqrt(total),
          how: 'RMS; a level in decibels needs a calibrated microphone',
        },
        ...peaks.slice(0, 3).map((p, i) => ({
          id: `peak${i + 1}`,
          name: `Peak ${i + 1}`,
          quantity: 'frequency' as const,
          value: p.order * turn,
          how: `${p.order.toPrecision(5)} a turn of the output`,
        })),
      ],
      plots: [
        {
          name: 'Spectrum in orders',
          xName: 'events a turn of the output',
          x: 'count',
          yName: 'amplitude',
          y: 'count',
          series: [
            {
              key: 'raw',
              name: 'amplitude',
              ...thinned(
                Float64Array.from({ length: top }, (_, k) => (k * bin) / turn),
                a.subarray(0, top),
              ),
              as: 'line',
              role: 'raw',
            },
          ],
        },
      ],
      peaks,
      advice: [
        ...(peaks.length === 0
          ? ['Nothing stands out: record nearer the housing, at a steadier speed, or for longer.']
          : [
              'Record again at half the speed: what belongs to the line keeps its order, what does not keeps its pitch.',
            ]),
        ...clippedSays(context.recording, ['sound']),
        ...(context.recording?.notes ?? []),
      ],
    });
  },
};
