import { execFileSync, spawn, spawnSync } from 'node:child_process';
import {
  appendFileSync,
  closeSync,
  constants,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  rmSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { request } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LineReader } from '@gristmill/core';
import { afterEach, describe, expect, it } from 'vitest';
import { createApp } from '../src/app.ts';
import { Device } from '../src/device.ts';

const open: { close(): void; closeAllConnections(): void }[] = [];
const fds: number[] = [];
afterEach(() => {
  open.splice(0).forEach((s) => (s.closeAllConnections(), s.close()));
  fds.splice(0).forEach((fd) => closeSync(fd));
});

const folder = () => mkdtempSync(join(tmpdir(), 'gm-'));
const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms));
async function until(what: () => boolean, ms = 8000): Promise<void> {
  for (const end = Date.now() + ms; !what(); await sleep(5)) if (Date.now() > end) throw new Error('it did not happen');
}

async function serve(device?: string): Promise<number> {
  const server = createApp(folder(), device).listen(0, '127.0.0.1');
  open.push(server);
  await new Promise((r) => server.once('listening', r));
  return (server.address() as AddressInfo).port;
}

/** A page that listens: all that it has been told, until it is closed. */
function listen(port: number): { text: () => string; ended: () => boolean; close: () => void } {
  let text = '';
  let ended = false;
  const req = request({ port, host: '127.0.0.1', path: '/rig/events' }, (res) => {
    res.setEncoding('utf8');
    res.on('data', (x: string) => (text += x));
    res.on('end', () => (ended = true));
  });
  req.on('error', () => (ended = true));
  req.end();
  return { text: () => text, ended: () => ended, close: () => req.destroy() };
}

const dataOf = (text: string) =>
  text
    .split('\n\n')
    .filter((e) => e.startsWith('data: '))
    .map((e) => e.slice(6));

/** A pipe as a device that others write to. */
function pipe(): { path: string; write: (text: string) => void; pull: () => void; plug: () => void } {
  const path = join(folder(), 'tty');
  execFileSync('mkfifo', [path]);
  let fd: number | undefined;
  return {
    path,
    plug: () => void fds.push((fd = openSync(path, constants.O_RDWR | constants.O_NONBLOCK))),
    write: (text) => void writeSync(fd!, text),
    pull: () => {
      closeSync(fds.splice(fds.indexOf(fd!), 1)[0]!);
      fd = undefined;
    },
  };
}

describe('the rig’s bridge', () => {
  it('streams its stand-in, a header first, then samples that can be read', async () => {
    const page = listen(await serve());
    await until(() => dataOf(page.text()).length > 200);
    page.close();
    const reader = new LineReader();
    for (const l of dataOf(page.text()).slice(0, -1)) reader.line(l);
    expect(reader.samples).toBeGreaterThan(150);
    expect(reader.malformed).toBe(0);
    expect(reader.channels.map((c) => c.id)).toContain('output');
  });

  it('streams a recorded file to each that asks, whole, and says when it ends', async () => {
    const file = join(folder(), 'rig.txt');
    writeFileSync(
      file,
      `{"channels":["t","out"]}\n${Array.from({ length: 40_000 }, (_, i) => `${i / 1000},${i}`).join('\n')}`,
    );
    const port = await serve(file);
    const pages = [listen(port), listen(port)];
    await until(() => pages.every((p) => p.ended()));
    for (const p of pages) {
      expect(p.text()).toMatch(/event: end\ndata: The device has no more lines/);
      expect(dataOf(p.text())).toHaveLength(40_001);
      expect(p.text()).not.toContain('event: dropped');
    }
  });

  it('reads a device once for all pages: each gets every line, and one that comes later the header as well', async () => {
    const device = pipe();
    device.plug();
    const port = await serve(device.path);
    const first = listen(port);
    await sleep(100);
    device.write('{"channels":["t","out"]}\n0,1\n');
    await until(() => dataOf(first.text()).length === 2);
    const second = listen(port);
    await until(() => second.text().includes('channels'));
    for (let i = 1; i <= 300; i++) device.write(`${i},${i}\n`);
    await until(() => dataOf(first.text()).length === 302 && dataOf(second.text()).length === 301);
    expect(dataOf(second.text()).slice(0, 2)).toEqual(['{"channels":["t","out"]}', '1,1']);
    // A page that goes leaves the other its lines.
    first.close();
    device.write('301,301\n');
    await until(() => dataOf(second.text()).at(-1) === '301,301');
    second.close();
  });

  it('is not held up by a device that says nothing, however often it is recorded and stopped', async () => {
    const device = pipe();
    device.plug();
    const port = await serve(device.path);
    for (let i = 0; i < 10; i++) {
      const page = listen(port);
      await sleep(20);
      page.close();
    }
    const begun = Date.now();
    expect((await fetch(`http://127.0.0.1:${port}/health`)).status).toBe(200);
    expect((await fetch(`http://127.0.0.1:${port}/nothing.png`)).status).toBe(404);
    expect(Date.now() - begun).toBeLessThan(1500);
  });

  it('tells when a device is not there or goes, and takes it up again when it returns', async () => {
    const device = pipe();
    const page = listen(await serve(device.path));
    await sleep(50);
    device.plug();
    device.write('{"channels":["t"]}\n1\n');
    await until(() => dataOf(page.text()).includes('1'));
    device.pull();
    await until(() => page.text().includes('event: lost'));
    expect(page.text()).toContain('has no more lines');
    device.plug();
    device.write('{"channels":["t"]}\n2\n');
    await until(() => dataOf(page.text()).includes('2'));
    expect(page.text()).toContain('event: back');
    page.close();

    const none = listen(await serve('/dev/none-such'));
    await until(() => none.text().includes('cannot be read'));
    expect(none.text()).toContain('event: lost');
    none.close();
  });

  it('drops and counts what a page is too slow for, and keeps no more than a little of it', async () => {
    const device = pipe();
    device.plug();
    const port = await serve(device.path);
    const quick = listen(port);
    const slow = connect(port, '127.0.0.1');
    slow.write(`GET /rig/events HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\n\r\n`);
    slow.pause();
    await sleep(100);
    const before = process.memoryUsage().rss;
    const line = `${'7'.repeat(900)}\n`;
    let sent = 0;
    for (; sent < 8_000; sent++) {
      for (;;) {
        try {
          device.write(line);
          break;
        } catch {
          await sleep(2);
        }
      }
    }
    // Taking 14 MB apart again at every look would hold up what is looked at.
    await until(() => quick.text().length >= 900 * sent && dataOf(quick.text()).length >= sent, 30_000);
    expect((process.memoryUsage().rss - before) / 1e6).toBeLessThan(150);
    let late = '';
    slow.on('data', (x) => (late += String(x)));
    slow.resume();
    await until(() => late.includes('event: dropped'));
    const dropped = Number(/event: dropped\ndata: (\d+)/.exec(late)![1]);
    expect(dropped).toBeGreaterThan(1000);
    await sleep(200);
    expect((late.match(/data: 7{900}/g) ?? []).length + dropped).toBe(sent);
    slow.destroy();
    quick.close();
  });

  it('turns away more pages than it can serve, in words', async () => {
    const device = pipe();
    device.plug();
    const port = await serve(device.path);
    const pages = Array.from({ length: 16 }, () => listen(port));
    await sleep(200);
    const r = await fetch(`http://127.0.0.1:${port}/rig/events`);
    expect(r.status).toBe(503);
    expect(await r.text()).toContain('Close one');
    pages.forEach((p) => p.close());
    await sleep(100);
    const again = listen(port);
    await sleep(50);
    expect(again.ended()).toBe(false);
    again.close();
  });

  it('stops reading when nobody listens', async () => {
    const device = pipe();
    device.plug();
    const d = new Device(device.path);
    const heard: string[] = [];
    const stop = d.listen({ lines: (l) => heard.push(...l), lost: () => undefined, back: () => undefined });
    device.write('1\n');
    await until(() => heard.length === 1);
    stop();
    await sleep(100);
    device.write('2\n');
    await sleep(100);
    expect(heard).toEqual(['1']);
  });
});

describe('the server as a process', () => {
  it('ends within a second when told to, a silent device and open pages notwithstanding', async () => {
    // The app need not be built for this: a page of nothing will do.
    const dist = new URL('../../web/dist/', import.meta.url).pathname;
    const made = !existsSync(join(dist, 'index.html'));
    if (made) {
      mkdirSync(dist, { recursive: true });
      appendFileSync(join(dist, 'index.html'), '<!doctype html>');
    }
    const device = pipe();
    device.plug();
    const server = spawn(process.execPath, ['--import', 'tsx', new URL('../src/main.ts', import.meta.url).pathname], {
      env: { ...process.env, PORT: '4561', RIG: device.path },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    let said = '';
    server.stdout.on('data', (x) => (said += String(x)));
    try {
      await until(() => said.includes('ready at'), 30_000);
      // Started once more it says where it runs already; another program's port it leaves alone, and says what to do.
      const main = new URL('../src/main.ts', import.meta.url).pathname;
      const again = (env: object) =>
        spawnSync(process.execPath, ['--import', 'tsx', main], { env: { ...process.env, ...env }, encoding: 'utf8' });
      const second = again({ PORT: '4561' });
      expect([second.status, second.stdout]).toEqual([0, expect.stringMatching(/running already, at .*:4561/)]);
      const wrong = again({ PORT: 'many' });
      expect([wrong.status, wrong.stderr]).toEqual([1, expect.stringContaining('not a port')]);
      const port = Number(/127\.0\.0\.1:(\d+)/.exec(said)![1]);
      const pages = Array.from({ length: 5 }, () => listen(port));
      await sleep(300);
      const begun = Date.now();
      const ended = new Promise<number | null>((done) => server.once('exit', done));
      server.kill('SIGTERM');
      expect(await ended).toBe(0);
      expect(Date.now() - begun).toBeLessThan(1000);
      pages.forEach((p) => p.close());
    } finally {
      server.kill('SIGKILL');
      if (made) rmSync(dist, { recursive: true });
    }
  }, 60_000);
});
