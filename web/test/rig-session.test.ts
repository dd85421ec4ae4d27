import { analyseLine, findingsOf, makeShelf, samplesOf, unpackRecording, type Joint } from '@gristmill/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { OnRig } from '../src/rig/session.ts';
import { demo } from './helpers.ts';

// The session of the rig without a page: storage stands still, frames come as fast as they are asked for.
const live = { interrupted: vi.fn(), begin: vi.fn(), forget: vi.fn(), lines: vi.fn() };
const keep = vi.fn();
vi.mock('../src/storage/shelf.ts', () => ({ liveRecordings: live, recordings: { keep } }));
vi.mock('../src/storage/autosave.ts', () => ({ saveNow: async () => undefined }));
vi.stubGlobal(
  'BroadcastChannel',
  class extends EventTarget {
    postMessage(): void {}
    close(): void {}
  },
);

const { useRig } = await import('../src/rig/session.ts');
const { useOpen } = await import('../src/state/open.ts');

const shelf = makeShelf();
const rig = () => useRig.getState();
let joint: Joint;
let on: OnRig;
let clock = 0;

beforeEach(() => {
  vi.stubGlobal('requestAnimationFrame', (f: (now: number) => void) =>
    setImmediate(() => f(performance.now() + (clock += 100))),
  );
  live.interrupted.mockReset().mockResolvedValue([]);
  live.begin.mockReset().mockReturnValue({ keep: async () => undefined, end: () => undefined });
  live.forget.mockReset().mockResolvedValue(undefined);
  keep.mockReset().mockImplementation(async (name: string, packed: object) => ({ name, ...packed }));
  joint = demo('neck-lift');
  useOpen.getState().load(joint);
  const variant = joint.variants[0]!;
  on = { jointId: joint.id, variant, line: analyseLine(joint, variant, shelf), shelf };
});
afterEach(() => vi.unstubAllGlobals());

describe('the session of a rig', () => {
  it('records a specimen, and takes it into a test of the variant’s build with the rig as it stood', async () => {
    await rig().look(joint.id);
    await rig().simulate(on, 'torque', 60, 1);
    expect(rig().running).toBe(false);
    expect(rig().says).toBe('The programme has run through.');
    expect(rig().counts.samples).toBe(8000);
    const id = await rig().take(on, 'torque-cell', 1);
    const test = useOpen.getState().joint!.tests.find((t) => t.id === id)!;
    expect(test.rig).toMatchObject({ lever: 0.15, knownMass: 1 });
    const build = useOpen.getState().joint!.builds.find((b) => b.id === test.buildId)!;
    expect(build).toMatchObject({ variantId: on.variant.id, name: `${on.variant.name}-1` });
    const unpacked = unpackRecording(test.recording as never);
    expect(unpacked.ok && samplesOf(unpacked.value)).toBe(8000);
    expect(useOpen.getState().past).toHaveLength(1);
  });

  it('says what a kind wants that was not sent, and makes no test', async () => {
    await rig().simulate(on, 'torque', 60, 1);
    expect(await rig().take(on, 'temperature', 1)).toBeUndefined();
    expect(rig().says).toMatch(/^Temperature wants temperature, and the rig sent /);
    expect(useOpen.getState().joint!.tests).toHaveLength(joint.tests.length);
  });

  it('keeps a recording that storage has no room for, and says so', async () => {
    await rig().simulate(on, 'torque', 60, 1);
    keep.mockRejectedValue(new DOMException('full', 'QuotaExceededError'));
    expect(await rig().take(on, 'torque-cell', 1)).toBeUndefined();
    expect(rig().says).toMatch(/The recording is still here/);
    expect(rig().counts.samples).toBe(8000);
  });

  it('guides through four tests of one build, whose findings land on the brief', async () => {
    const last = await rig().guide(on, 2);
    const now = useOpen.getState().joint!;
    const made = now.tests.slice(joint.tests.length);
    expect(made.map((t) => t.kind)).toEqual(['play-lever', 'hysteresis', 'torque-cell', 'transmission']);
    expect(last).toBe(made.at(-1)!.id);
    expect(new Set(made.map((t) => t.buildId)).size).toBe(1);
    expect(now.builds.find((b) => b.id === made[0]!.buildId)!.name).toBe('S-1');
    const found = findingsOf({ ...now, tests: made }, shelf);
    for (const t of made) expect(found.find((f) => f.testId === t.id)!.found!.value, t.kind).toBeGreaterThan(0);
    // Two ways to the same play: by a dial at a lever, and from the loop.
    const [dial, loop] = ['play-lever', 'hysteresis'].map(
      (k) => found.find((f) => f.row === 'play' && made.find((t) => t.id === f.testId)!.kind === k)!.found!,
    );
    expect(Math.abs(dial!.value - loop!.value)).toBeLessThan(dial!.U + loop!.U);
  });

  it('does not show, or take, in one joint what was recorded for another', async () => {
    await rig().look(joint.id);
    await rig().simulate(on, 'play', 60, 1);
    live.interrupted.mockResolvedValue([{ session: 'x', jointId: 'other', when: '', source: 's', chunks: 1 }]);
    await rig().look('other');
    expect(rig().counts.samples).toBe(0);
    expect(rig().reader.recording()).toBeUndefined();
    expect(rig().kept.map((k) => k.session)).toEqual(['x']);
  });

  it('says that there is nothing to simulate where the line does not add up', async () => {
    await rig().simulate({ ...on, line: undefined }, 'play', 1, 1);
    expect(rig().says).toMatch(/no specimen to simulate/);
    expect(await rig().guide({ ...on, line: undefined }, 1)).toBeUndefined();
  });
});
