import { LineCutter } from '@gristmill/core';
import { constants } from 'node:fs';
import { open, stat, type FileHandle } from 'node:fs/promises';

/** Who listens to a device. */
export interface Listener {
  lines(lines: readonly string[]): void;
  /** The device is not there, or not any more; it is looked for until it returns. */
  lost(why: string): void;
  back(): void;
}

/** Pause before a device that has nothing to say is asked again, ms. */
const QUIET = 10;
/** Pause before a device that is not there is looked for again, ms. */
const RETURN = 500;
const PIECE = 64 * 1024;

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** Whether a line announces channels: those who come later need it as well. */
const isHeader = (line: string): boolean => line.startsWith('{') && line.includes('"channels"');

/**
 * A serial device or a pipe, read once for everybody who listens. It is opened without waiting for it and asked without
 * blocking: a device that says nothing holds up nothing else. When it goes away that is told, and it is taken up again
 * when
 * it returns.
 */
export class Device {
  private readonly listeners = new Set<Listener>();
  private header: string | undefined;
  private running: Promise<void> | undefined;
  private gone = '';

  constructor(readonly path: string) {}

  /** Listens from now on; returns what stops it. The device is read while anybody listens. */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    if (this.header !== undefined) listener.lines([this.header]);
    if (this.gone) listener.lost(this.gone);
    this.running ??= this.run().finally(() => (this.running = undefined));
    return () => void this.listeners.delete(listener);
  }

  private each(tell: (l: Listener) => void): void {
    for (const l of this.listeners) tell(l);
  }

  private async run(): Promise<void> {
    while (this.listeners.size > 0) {
      let handle: FileHandle | undefined;
      let why: string;
      try {
        handle = await open(this.path, constants.O_RDONLY | constants.O_NONBLOCK | constants.O_NOCTTY);
        if (this.gone) this.each((l) => l.back());
        this.gone = '';
        why = await this.read(handle);
      } catch {
        why = `The device ${this.path} cannot be read: is it plugged in, and may this user open it?`;
      } finally {
        await handle?.close().catch(() => undefined);
      }
      if (this.listeners.size === 0) break;
      if (!this.gone) {
        this.gone = why;
        // What it announces when it returns may be another thing.
        this.header = undefined;
        this.each((l) => l.lost(why));
      }
      await pause(RETURN);
    }
    this.gone = '';
    this.header = undefined;
  }

  /** Reads until nobody listens or the device is gone; returns why. */
  private async read(handle: FileHandle): Promise<string> {
    const cutter = new LineCutter();
    const decoder = new TextDecoder();
    const piece = Buffer.alloc(PIECE);
    const pipe = (await handle.stat()).isFIFO();
    let fed = false;
    let still = 0;
    while (this.listeners.size > 0) {
      let bytes = 0;
      let ended = false;
      try {
        ({ bytesRead: bytes } = await handle.read(piece, 0, PIECE, null));
        ended = bytes === 0;
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'EAGAIN')
          return `The device ${this.path} has gone: it was unplugged or closed.`;
      }
      if (bytes > 0) {
        fed = true;
        still = 0;
        const lines = cutter.feed(decoder.decode(piece.subarray(0, bytes), { stream: true }));
        this.header = lines.find(isHeader) ?? this.header;
        if (lines.length) this.each((l) => l.lines(lines));
        continue;
      }
      // A pipe reads as ended while nobody writes to it: before its first writer that is waiting, after one it is the
      // end. A terminal may read so whenever it has nothing to say.
      if (ended && pipe && fed) return `The device ${this.path} has no more lines.`;
      // One that was pulled out may read as silent for ever: now and then see whether it is still there.
      if (++still % 50 === 0 && !(await stat(this.path).catch(() => undefined)))
        return `The device ${this.path} has gone: it was unplugged or closed.`;
      await pause(QUIET);
    }
    return '';
  }
}
