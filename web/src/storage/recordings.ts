import { packRecording, type Joint, type Recording, type ReadingsTest } from '@gristmill/core';
import { forageStore } from './store.ts';

type Packed = ReturnType<typeof packRecording>;
/** Text of a recording beyond this length is kept beside the joint, so that saves stay small. */
const INLINE = 120_000;

const store = forageStore('attachments');
const key = (testId: string): string => `recording:${testId}`;

/** A recording as a test keeps it: whole where it is small, otherwise beside the joint under the test's identifier. */
export async function keepRecording(testId: string, name: string, packed: Packed): Promise<NonNullable<ReadingsTest['recording']>> {
  if (packed.data.length <= INLINE) return { name, ...packed };
  await store.set(key(testId), packed.data);
  const { data: _data, ...head } = packed;
  return { name, ...head };
}

export const packedData = (testId: string): Promise<string | null> => store.get<string>(key(testId));

/** The joint with every recording in it, for a file. */
export async function withRecordings(joint: Joint): Promise<Joint> {
  const tests = await Promise.all(joint.tests.map(async (t) => {
    if (!('recording' in t) || !t.recording) return t;
    const own = t as ReadingsTest;
    if (own.recording!.data !== undefined) return t;
    const data = await packedData(t.id).catch(() => null);
    return data === null ? t : { ...own, recording: { ...own.recording!, data } };
  }));
  return { ...joint, tests };
}

/** The joint with large recordings taken out of it and kept beside it. */
export async function withoutRecordings(joint: Joint): Promise<Joint> {
  const tests = await Promise.all(joint.tests.map(async (t) => {
    const own = t as ReadingsTest;
    if (!own.recording?.data || own.recording.data.length <= INLINE) return t;
    await store.set(key(t.id), own.recording.data);
    const { data: _data, ...head } = own.recording;
    return { ...own, recording: head };
  }));
  return { ...joint, tests };
}

/** What is being recorded, so that a reload loses at most the last moments: lines as they came. */
export const liveStore = forageStore('live');

export type { Recording };
