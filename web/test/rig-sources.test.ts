import { LineReader, Specimen, type Truth } from '@gristmill/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import {
  BridgeSource,
  FileSource,
  SerialSource,
  serialKnown,
  SimulatedSource,
  type LineSource,
} from '../src/rig/sources.ts';

const truth: Truth = {
  ratio: 20,
  play: 1e-3,
  stiffness: [400, 850],
  bend: 0.6,
  friction: 0.1,
  viscous: 0.01,
  drag: 0.005,
  efficiency: 0.9,
  torque: 4,
  errors: [],
  counts: 65536,
  noise: 2e-5,
  sensorError: 0,
  torqueConstant: 0.05,
  heating: { torque: 1, rise: 20, time: 600, ambient: 294.15 },
};

/** Frames of a page that has none: a call of `frame` is one, at a time of its own. */
let frames: ((now: number) => void)[] = [];
const frame = (now: number): void => {
  const due = frames;
  frames = [];
  for (const f of due) f(now);
};
beforeEach(() => {
  frames = [];
  vi.stubGlobal('requestAnimationFrame', (f: (now: number) => void) => frames.push(f));
});
afterEach(() => vi.unstubAllGlobals());

/** Everything a source says, and why it ended. */
function listen(source: LineSource): { lines: string[]; ended: string[]; started: Promise<void> } {
  const heard = { lines: [] as string[], ended: [] as string[] };
  return {
    ...heard,
    started: source.start(
      (l) => heard.lines.push(l),
      (why) => heard.ended.push(why),
    ),
  };
}
const settle = () => new Promise((done) => setTimeout(done, 5));

describe('a simulated rig', () => {
  it('prints a header, then as many samples as time has brought at its pace', async () => {
    const begun = performance.now();
    const { lines, started } = listen(new SimulatedSource(truth, 'hysteresis', 4, 3));
    await started;
    frame(begun + 500);
    const reader = new LineReader();
    for (const l of lines) reader.line(l);
    expect(reader.malformed).toBe(0);
    // 0.5 s at 1 kHz and four times the pace, begun within a few milliseconds.
    expect(reader.samples).toBeGreaterThan(1900);
    expect(reader.samples).toBeLessThanOrEqual(2000);
    expect(reader.column('output')).toBeDefined();
  });

  it('never makes more in a frame than a frame can read, and the same specimen says the same', async () => {
    const begun = performance.now();
    const [a, b] = [
      listen(new SimulatedSource(truth, 'transmission', 1, 9)),
      listen(new SimulatedSource(truth, 'transmission', 1, 9)),
    ];
    frame(begun + 3_600_000);
    expect(a.lines.length).toBe(6001);
    expect(b.lines).toEqual(a.lines);
    const other = listen(new SimulatedSource(truth, 'transmission', 1, 10));
    frame(begun + 3_600_000);
    expect(other.lines.slice(1, 50)).not.toEqual(a.lines.slice(1, 50));
  });

  it('ends when its programme has run through, and says nothing after a stop', async () => {
    const whole = listen(new SimulatedSource(truth, 'play', 1000, 1));
    for (let k = 1; k < 40 && whole.ended.length === 0; k++) frame(performance.now() + k * 1e6);
    expect(whole.ended).toEqual(['The programme has run through.']);
    const all = new Specimen(truth, 'play', 1000, 1);
    let n = 0;
    for (; !all.done; n++) all.line();
    expect(whole.lines.length - 1).toBe(n);

    const source = new SimulatedSource(truth, 'play', 1, 1);
    const cut = listen(source);
    frame(performance.now() + 100);
    source.stop();
    const heard = cut.lines.length;
    frame(performance.now() + 1e6);
    expect(cut.lines.length).toBe(heard);
    expect(cut.ended).toEqual([]);
  });
});

describe('a recorded file', () => {
  it('is read whole whatever ends its lines, over as many frames as it takes', async () => {
    const rows = Array.from({ length: 20_000 }, (_, i) => `{"t":${i * 0.001},"out":${i}}`);
    for (const end of ['\n', '\r\n', '\r']) {
      const { lines, ended, started } = listen(new FileSource(new File([rows.join(end)], 'turn.jsonl')));
      await started;
      for (let k = 0; k < 6 && ended.length === 0; k++) frame(k);
      expect(lines).toEqual(rows);
      expect(ended).toEqual(['The file has been read.']);
    }
  });

  it('an empty one ends at once; a stopped one says no more', async () => {
    const empty = listen(new FileSource(new File([], 'empty.jsonl')));
    await empty.started;
    expect(empty.ended).toHaveLength(1);
    const source = new FileSource(new File([Array.from({ length: 30_000 }, (_, i) => String(i)).join('\n')], 'x'));
    const cut = listen(source);
    await cut.started;
    source.stop();
    frame(1);
    expect(cut.lines).toHaveLength(8000);
    expect(cut.ended).toEqual([]);
  });
});

describe('the bridge', () => {
  class FakeEvents {
    static made: FakeEvents[] = [];
    onmessage: ((e: { data: string }) => void) | null = null;
    onerror: (() => void) | null = null;
    closed = false;
    readonly heard = new Map<string, (e: { data: string }) => void>();
    constructor(readonly url: string) {
      FakeEvents.made.push(this);
    }
    addEventListener(name: string, f: (e: { data: string }) => void): void {
      this.heard.set(name, f);
    }
    close(): void {
      this.closed = true;
    }
  }
  beforeEach(() => {
    FakeEvents.made = [];
    vi.stubGlobal('EventSource', FakeEvents);
  });

  it('passes lines on, and ends with the reason the server gives', async () => {
    const { lines, ended, started } = listen(new BridgeSource());
    await started;
    const events = FakeEvents.made[0]!;
    expect(events.url).toBe('/rig/events');
    events.onmessage!({ data: '{"channels":["t","out"]}' });
    events.onmessage!({ data: '0,1' });
    events.heard.get('end')!({ data: 'The device has no more lines.' });
    expect(lines).toEqual(['{"channels":["t","out"]}', '0,1']);
    expect(ended).toEqual(['The device has no more lines.']);
    expect(events.closed).toBe(true);
  });

  it('tells of samples that were dropped and of a device that went and came back, and goes on', async () => {
    const said: string[] = [];
    const lines: string[] = [];
    await new BridgeSource().start(
      (l) => lines.push(l),
      () => undefined,
      (s) => said.push(s),
    );
    const events = FakeEvents.made[0]!;
    events.heard.get('dropped')!({ data: '40' });
    events.heard.get('dropped')!({ data: '2' });
    events.heard.get('lost')!({ data: 'It was unplugged.' });
    events.heard.get('back')!({ data: '' });
    events.onmessage!({ data: '0,1' });
    expect(said).toEqual([
      '40 samples were dropped: this page was too slow for them.',
      '42 samples were dropped: this page was too slow for them.',
      'It was unplugged. It is taken up again when it returns.',
      'The device is there again.',
    ]);
    expect([lines, events.closed]).toEqual([['0,1'], false]);
  });

  it('says what to do where it does not answer, and does not try for ever', async () => {
    const { ended, started } = listen(new BridgeSource());
    await started;
    FakeEvents.made[0]!.onerror!();
    expect(ended[0]).toContain('npm run demo');
    expect(FakeEvents.made[0]!.closed).toBe(true);
  });
});

describe('a serial port', () => {
  const port = (chunks: readonly string[], fail?: Error) => {
    const bytes = new TextEncoder();
    const state = { baud: 0, closed: false };
    const stream = new ReadableStream<Uint8Array>({
      start(control) {
        for (const c of chunks) control.enqueue(bytes.encode(c));
        if (fail) control.error(fail);
      },
    });
    return {
      state,
      serial: {
        requestPort: async () => ({
          readable: stream,
          open: async (o: { baudRate: number }) => void (state.baud = o.baudRate),
          close: async () => void (state.closed = true),
        }),
      },
    };
  };

  it('joins what comes in pieces to lines, and closes the port when stopped', async () => {
    const { state, serial } = port(['{"channels":["t","ou', 't"]}\n0,1\n0.001', ',2\r\n0.002,3\n0.0']);
    vi.stubGlobal('navigator', { serial });
    expect(serialKnown()).toBe(true);
    const source = new SerialSource(250_000);
    const { lines, ended, started } = listen(source);
    await started;
    await settle();
    expect(state.baud).toBe(250_000);
    const reader = new LineReader();
    for (const l of lines) reader.line(l);
    expect([...reader.column('output')!]).toEqual([1, 2, 3]);
    source.stop();
    await settle();
    expect(state.closed).toBe(true);
    expect(ended).toEqual(['The port was closed.']);
  });

  it('says why it gave up, and a refused choice is thrown to who asked', async () => {
    const { serial } = port([], new Error('the device has been lost'));
    vi.stubGlobal('navigator', { serial });
    const gone = listen(new SerialSource(9600));
    await gone.started;
    await settle();
    expect(gone.ended).toEqual(['The port gave up: the device has been lost']);
    vi.stubGlobal('navigator', {
      serial: {
        requestPort: () => Promise.reject(Object.assign(new Error('No port selected'), { name: 'NotFoundError' })),
      },
    });
    await expect(listen(new SerialSource(9600)).started).rejects.toMatchObject({ name: 'NotFoundError' });
    vi.stubGlobal('navigator', {});
    expect(serialKnown()).toBe(false);
  });
});
