import { neighbourMeans, type Channel, type Recording } from './recording.ts';
import { PROGRAMS, type RigProgram } from './specimen.ts';
import type { ChannelWish, Guided, TestKind } from './contract.ts';
import { TEST_KINDS } from './kinds/index.ts';

/** A recording is kept with at most this many samples a channel; more are joined into means of neighbours. */
const MOST = 400_000;

/** The kind of test that a programme of the simulated rig records. */
export const kindOfProgram = (program: RigProgram): TestKind => {
  const kind = TEST_KINDS.find((k) => k.programs?.includes(program));
  if (!kind) throw new Error(`no kind of test records the programme ${program}`);
  return kind;
};

const servedBy = (wish: ChannelWish, channels: readonly Channel[]): number =>
  [wish.id, ...(wish.instead ?? [])].map((id) => channels.findIndex((c) => c.id === id)).find((i) => i >= 0) ?? -1;

/** What a kind wants of a recording: its channels under its names, thinned to what tells something. */
export function recordingFor(kind: TestKind, recording: Recording): Recording {
  const wanted = (kind.channels ?? [])
    .map((wish) => ({ wish, at: servedBy(wish, recording.channels) }))
    .filter(({ at }) => at >= 0);
  return {
    ...recording,
    channels: wanted.map(({ wish }) => ({ id: wish.id, name: wish.label, quantity: wish.quantity })),
    data: wanted.map(({ at }) => neighbourMeans(recording.data[at]!, kind.mostSamples ?? MOST)),
  };
}

/** Channels a kind cannot do without that a recording lacks; time is made from the rate where it must be. */
export const missingChannels = (kind: TestKind, recording: Recording): ChannelWish[] =>
  (kind.channels ?? []).filter((c) => !c.optional && c.id !== 'time' && servedBy(c, recording.channels) < 0);

/** Kinds that take a recording of a rig. */
export const RECORDING_KINDS: readonly TestKind[] = TEST_KINDS.filter(
  (k) => k.channels?.length && !k.channels.some((c) => c.id === 'sound'),
);

/** One part of a guided session: what the rig does, and the test it goes into. */
export interface SessionStep extends Guided {
  readonly kind: TestKind;
  readonly says: string;
}

/** Every programme that a kind lets itself be guided through, one after the other. */
export const GUIDED_SESSION: readonly SessionStep[] = (Object.keys(PROGRAMS) as RigProgram[]).flatMap((program) =>
  TEST_KINDS.flatMap((kind) =>
    kind.guided?.program === program
      ? [{ ...kind.guided, kind, says: `${PROGRAMS[program].name}: the rig ${PROGRAMS[program].says}…` }]
      : [],
  ),
);
