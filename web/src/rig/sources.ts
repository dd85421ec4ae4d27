import { LineCutter, PROGRAMS, Specimen, type RigProgram, type Truth } from '@gristmill/core';
import { serverLost } from '../state/server.ts';

/** Something that gives lines of the rig's protocol until it is stopped. */
export interface LineSource {
  readonly name: string;
  /** @param onSay told of what happens on the way: samples that were dropped, a device that went and came back */
  start(onLine: (line: string) => void, onEnd: (why: string) => void, onSay?: (says: string) => void): Promise<void>;
  stop(): void;
}

/** A specimen of a variant with hidden truth, in real time or faster. */
export class SimulatedSource implements LineSource {
  readonly name: string;
  private running = false;

  constructor(
    private readonly truth: Truth,
    private readonly program: RigProgram,
    private readonly pace: number,
    private readonly seed: number,
  ) {
    this.name = `simulated, ${PROGRAMS[program].name.toLowerCase()}`;
  }

  async start(onLine: (line: string) => void, onEnd: (why: string) => void): Promise<void> {
    const specimen = new Specimen(this.truth, this.program, undefined, this.seed);
    onLine(specimen.header());
    this.running = true;
    const begun = performance.now();
    let made = 0;
    const tick = (now: number): void => {
      if (!this.running) return;
      // As many samples as time has brought, but never more than a frame can read.
      const due = Math.min(made + 6000, Math.floor(((now - begun) / 1000) * specimen.rate * this.pace));
      for (; made < due && !specimen.done; made++) onLine(specimen.line());
      if (specimen.done) {
        this.running = false;
        onEnd('The programme has run through.');
      } else requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  }

  stop(): void {
    this.running = false;
  }
}

/** Lines of a recorded file, at once. */
export class FileSource implements LineSource {
  readonly name: string;
  private running = false;
  constructor(private readonly file: File) {
    this.name = file.name;
  }
  async start(onLine: (line: string) => void, onEnd: (why: string) => void): Promise<void> {
    this.running = true;
    const lines = (await this.file.text()).split(/\r\n|\n|\r/);
    let at = 0;
    const tick = (): void => {
      if (!this.running) return;
      const until = Math.min(lines.length, at + 8000);
      for (; at < until; at++) onLine(lines[at]!);
      if (at >= lines.length) onEnd('The file has been read.');
      else requestAnimationFrame(tick);
    };
    tick();
  }
  stop(): void {
    this.running = false;
  }
}

/** The bridge of the server this page came from: lines of a device or of the stand-in that ships with it. */
export class BridgeSource implements LineSource {
  readonly name = 'bridge of this computer';
  private events: EventSource | undefined;
  async start(
    onLine: (line: string) => void,
    onEnd: (why: string) => void,
    onSay?: (says: string) => void,
  ): Promise<void> {
    this.events = new EventSource('/rig/events');
    let [dropped, gone] = [0, false];
    this.events.onmessage = (e) => onLine(String(e.data));
    this.events.addEventListener('dropped', (e) =>
      onSay?.(
        `${(dropped += Number((e as MessageEvent).data) || 0)} samples were dropped: this page was too slow for them.`,
      ),
    );
    this.events.addEventListener(
      'lost',
      (e) => ((gone = true), onSay?.(`${String((e as MessageEvent).data)} It is taken up again when it returns.`)),
    );
    this.events.addEventListener('back', () => ((gone = false), onSay?.('The device is there again.')));
    this.events.addEventListener('end', (e) => {
      this.stop();
      onEnd(String((e as MessageEvent).data) || 'The bridge has no more lines.');
    });
    this.events.onerror = () => {
      this.stop();
      onEnd(
        gone
          ? 'The bridge has stopped, and the device had gone before.'
          : 'The bridge does not answer. Start the server with npm run demo, and plug the rig in.',
      );
      void serverLost();
    };
  }
  stop(): void {
    this.events?.close();
  }
}

/** What this page needs of Web Serial, which the standard library of types does not know yet. */
interface SerialPort {
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
}

export const serialKnown = (): boolean => 'serial' in navigator;

/** A microcontroller on a serial port. */
export class SerialSource implements LineSource {
  readonly name = 'serial port';
  private reader: ReadableStreamDefaultReader<Uint8Array> | undefined;
  private port: SerialPort | undefined;
  constructor(private readonly baud: number) {}
  async start(onLine: (line: string) => void, onEnd: (why: string) => void): Promise<void> {
    const serial = (navigator as unknown as { serial: { requestPort(): Promise<SerialPort> } }).serial;
    this.port = await serial.requestPort();
    await this.port.open({ baudRate: this.baud });
    const cutter = new LineCutter();
    const decoder = new TextDecoder();
    this.reader = this.port.readable!.getReader();
    void (async () => {
      try {
        for (;;) {
          const { value, done } = await this.reader!.read();
          if (done) break;
          cutter.feed(decoder.decode(value, { stream: true })).forEach(onLine);
        }
        onEnd('The port was closed.');
      } catch (error) {
        onEnd(`The port gave up: ${(error as Error).message}`);
      }
    })();
  }
  stop(): void {
    void this.reader
      ?.cancel()
      .catch(() => undefined)
      .then(() => this.port?.close())
      .catch(() => undefined);
  }
}
