import { LineCutter, Specimen, type Truth } from '@gristmill/core';
import type { Request, Response } from 'express';
import { createReadStream, statSync } from 'node:fs';
import { Device, type Listener } from './device.ts';

/** A specimen that ships with the server, for a bridge to which nothing is plugged in. */
const STAND_IN: Truth = {
  ratio: 20,
  play: 1.4e-3,
  stiffness: [400, 850],
  bend: 0.6,
  friction: 0.12,
  viscous: 0.01,
  drag: 0.005,
  efficiency: 0.88,
  torque: 4,
  errors: [
    { name: 'stand-in', order: 1, amplitude: 3e-4, phase: 0.4 },
    { name: 'stand-in', order: 20, amplitude: 8e-5, phase: 1 },
  ],
  counts: 65536,
  noise: 3e-5,
  sensorError: 0,
  torqueConstant: 0.05,
  heating: { torque: 1, rise: 20, time: 600, ambient: 294.15 },
};

/** Clients of the bridge at a time. */
const MOST_CLIENTS = 16;
/** Bytes that wait for a client that is slow to read, before lines are dropped for it. */
const MOST_WAITING = 1_000_000;
/** A client that has read nothing for so long is let go, ms. */
const MOST_STALL = 60_000;

/**
 * One page that listens: what it is too slow for is dropped and counted, so that it holds up neither the device nor the
 * memory.
 */
class Client implements Listener {
  private dropped = 0;
  private stalledSince = 0;
  private readonly timer: NodeJS.Timeout;

  constructor(private readonly res: Response) {
    res.set({
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      Connection: 'keep-alive',
      'X-Accel-Buffering': 'no',
    });
    res.flushHeaders();
    res.on('drain', () => this.caughtUp());
    this.timer = setInterval(
      () => this.stalledSince && Date.now() - this.stalledSince > MOST_STALL && res.destroy(),
      5000,
    );
    res.on('close', () => clearInterval(this.timer));
  }

  get full(): boolean {
    return this.res.writableLength > MOST_WAITING;
  }

  private event(name: string, data: string): void {
    if (!this.res.writableEnded) this.res.write(`event: ${name}\ndata: ${data.replace(/[\r\n]/g, ' ')}\n\n`);
  }

  private caughtUp(): void {
    this.stalledSince = 0;
    if (this.dropped === 0) return;
    this.event('dropped', String(this.dropped));
    this.dropped = 0;
  }

  lines(lines: readonly string[]): void {
    if (this.res.writableEnded || this.res.destroyed) return;
    if (this.full) {
      this.dropped += lines.length;
      this.stalledSince ||= Date.now();
      return;
    }
    if (lines.length) this.res.write(lines.map((l) => `data: ${l.replace(/[\r\n]/g, ' ')}\n\n`).join(''));
  }

  lost(why: string): void {
    this.event('lost', why);
  }

  back(): void {
    this.event('back', 'The device is there again.');
  }

  end(why: string): void {
    this.caughtUp();
    this.event('end', why);
    if (!this.res.writableEnded) this.res.end();
  }
}

/** A recorded file, from its beginning, as fast as the client reads it. */
function replay(path: string, client: Client, res: Response): () => void {
  const cutter = new LineCutter();
  const stream = createReadStream(path, { encoding: 'utf8' });
  stream.on('data', (text) => {
    client.lines(cutter.feed(String(text)));
    // A file waits where a device does not.
    if (res.writableNeedDrain) {
      stream.pause();
      res.once('drain', () => stream.resume());
    }
  });
  stream.on('end', () => {
    client.lines(cutter.feed('\n').filter((l) => l !== ''));
    client.end('The device has no more lines.');
  });
  stream.on('error', () =>
    client.end(`The device ${path} cannot be read: is it plugged in, and may this user open it?`),
  );
  return () => stream.destroy();
}

/** The stand-in's programme, from its beginning. */
function standIn(client: Client): () => void {
  const specimen = new Specimen(STAND_IN, 'transmission', undefined, 7);
  client.lines([specimen.header()]);
  const begun = Date.now();
  let made = 0;
  const timer = setInterval(() => {
    const due = Math.floor(((Date.now() - begun) / 1000) * specimen.rate);
    const lines: string[] = [];
    for (; made < due && !specimen.done; made++) lines.push(specimen.line());
    client.lines(lines);
    if (specimen.done) {
      clearInterval(timer);
      client.end('The stand-in has run through.');
    }
  }, 50);
  return () => clearInterval(timer);
}

const isFile = (path: string): boolean => statSync(path, { throwIfNoEntry: false })?.isFile() === true;

/**
 * Answers with the lines of a rig as server-sent events: of the device or file named by `RIG` (`/dev/ttyACM0`, whose
 * speed the system has set), otherwise of a stand-in.
 *
 * An event is one line of the protocol. `dropped` counts lines that this client was too slow for, `lost` and `back`
 * tell of the device, `end` says why no more come.
 */
export function rigEvents(path: string | undefined) {
  const device = path === undefined ? undefined : new Device(path);
  let clients = 0;
  return (req: Request, res: Response): void => {
    if (clients >= MOST_CLIENTS) {
      res.status(503).type('text').send(`${MOST_CLIENTS} pages listen to the rig already. Close one.`);
      return;
    }
    clients++;
    const client = new Client(res);
    const stop =
      path === undefined ? standIn(client) : isFile(path) ? replay(path, client, res) : device!.listen(client);
    req.on('close', () => {
      clients--;
      stop();
    });
  };
}
