import { LineCutter, Specimen, type Truth } from '@gristmill/core';
import { createReadStream } from 'node:fs';
import type { Request, Response } from 'express';

/** A specimen that ships with the server, for a bridge to which nothing is plugged in. */
const STAND_IN: Truth = { ratio: 20, play: 1.4e-3, stiffness: [400, 850], bend: 0.6, friction: 0.12, viscous: 0.01, drag: 0.005, efficiency: 0.88, torque: 4, errors: [{ name: 'stand-in', order: 1, amplitude: 3e-4, phase: 0.4 }, { name: 'stand-in', order: 20, amplitude: 8e-5, phase: 1 }], counts: 65536, noise: 3e-5, sensorError: 0, torqueConstant: 0.05, heating: { torque: 1, rise: 20, time: 600, ambient: 294.15 } };

/**
 * Answers with the lines of a rig as server-sent events: of the device or file named by `RIG` (`/dev/ttyACM0`, whose speed the system has set), otherwise of a stand-in.
 *
 * An event is one line of the protocol; `end` says why no more come.
 */
export function rigEvents(device: string | undefined) {
  return (req: Request, res: Response): void => {
    res.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', Connection: 'keep-alive', 'X-Accel-Buffering': 'no' });
    res.flushHeaders();
    const send = (lines: readonly string[]) => {
      if (lines.length) res.write(lines.map((l) => `data: ${l.replace(/[\r\n]/g, ' ')}\n\n`).join(''));
      (res as Response & { flush?: () => void }).flush?.();
    };
    const end = (why: string) => {
      if (!res.writableEnded) res.end(`event: end\ndata: ${why}\n\n`);
    };
    if (device) {
      const cutter = new LineCutter();
      const stream = createReadStream(device, { encoding: 'utf8' });
      stream.on('data', (text) => send(cutter.feed(String(text))));
      stream.on('end', () => end('The device has no more lines.'));
      stream.on('error', () => end(`The device ${device} cannot be read: is it plugged in, and may this user open it?`));
      req.on('close', () => stream.destroy());
      return;
    }
    const specimen = new Specimen(STAND_IN, 'transmission', undefined, 7);
    send([specimen.header()]);
    const begun = Date.now();
    let made = 0;
    const timer = setInterval(() => {
      const due = Math.floor(((Date.now() - begun) / 1000) * specimen.rate);
      const lines: string[] = [];
      for (; made < due && !specimen.done; made++) lines.push(specimen.line());
      send(lines);
      if (specimen.done) {
        clearInterval(timer);
        end('The stand-in has run through.');
      }
    }, 50);
    req.on('close', () => clearInterval(timer));
  };
}
