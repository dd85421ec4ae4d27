import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, request, type Server, type ServerResponse } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from '../src/app.ts';
import { listen } from '../src/listen.ts';
import { VERSION } from '../src/version.ts';

let server: Server;
let base = '';
const folder = mkdtempSync(join(tmpdir(), 'gristmill-'));

beforeAll(async () => {
  mkdirSync(join(folder, 'assets'));
  writeFileSync(join(folder, 'index.html'), '<!doctype html><title>Gristmill</title>');
  writeFileSync(join(folder, 'assets', 'index-abc123.js'), 'export {};\n'.repeat(500));
  writeFileSync(join(folder, 'assets', 'step.worker-aB3_-x.js'), 'export {};\n');
  writeFileSync(join(folder, 'icon.svg'), '<svg/>');
  const got = await listen(createApp(folder), 4460);
  if (got.state !== 'listening') throw new Error('Port 4460 is taken.');
  server = got.server;
  base = 'http://127.0.0.1:4460';
});
afterAll(() => {
  server.close();
  rmSync(folder, { recursive: true });
});

describe('the server', () => {
  it('answers only on the loopback address', () =>
    expect((server.address() as { address: string }).address).toBe('127.0.0.1'));

  it('serves the app with a strict policy and the usual headers', async () => {
    const r = await fetch(base);
    const policy = r.headers.get('content-security-policy')!;
    expect(policy).toContain("default-src 'none'");
    expect(policy).toMatch(/script-src 'self' 'wasm-unsafe-eval'( 'self')?;/);
    expect(policy).not.toMatch(/'unsafe-eval'|https?:|\*/);
    expect(policy).toContain("frame-ancestors 'none'");
    expect(r.headers.get('x-content-type-options')).toBe('nosniff');
    expect(r.headers.get('referrer-policy')).toBe('no-referrer');
    expect(r.headers.get('x-powered-by')).toBeNull();
    expect(r.headers.get('cache-control')).toBe('no-cache');
  });

  it('lets only the worker of exact bodies make functions from text', async () => {
    const policy = async (path: string) => (await fetch(base + path)).headers.get('content-security-policy')!;
    expect(await policy('/assets/step.worker-aB3_-x.js')).toContain("'unsafe-eval'");
    for (const path of [
      '/',
      '/assets/index-abc123.js',
      '/step.worker-a.js',
      '/assets/step.worker-a.js/x.js',
      '/assets/x?/assets/step.worker-a.js',
      '/joint/assets/step.worker-a.js',
    ])
      expect(await policy(path), path).not.toContain("'unsafe-eval'");
  });

  it('keeps hashed files for ever and compresses them', async () => {
    const r = await fetch(`${base}/assets/index-abc123.js`, { headers: { 'accept-encoding': 'gzip' } });
    expect(r.headers.get('cache-control')).toBe('public, max-age=31536000, immutable');
    expect(r.headers.get('content-encoding')).toBe('gzip');
  });

  it('falls back to the app for its pages, and not for missing files', async () => {
    expect(await (await fetch(`${base}/joint/x/stage/2`)).text()).toContain('<title>Gristmill');
    for (const path of [
      '/assets/gone-1.js',
      '/gone.png',
      '/assets/../../package.json',
      '/%2e%2e/%2e%2e/etc/passwd.txt',
    ])
      expect((await fetch(base + path)).status, path).toBe(404);
    expect((await fetch(`${base}/x`, { method: 'POST' })).status).toBe(405);
    expect((await fetch(`${base}/%c0%ae`)).status).toBeLessThan(500);
  });

  it('says it is well', async () => {
    const r = await fetch(`${base}/health`);
    expect(await r.json()).toEqual({ ok: true, name: 'gristmill', version: VERSION });
    expect(r.headers.get('cache-control')).toBe('no-store');
  });

  it('answers under its own names alone, and its own pages alone', async () => {
    const port = Number(new URL(base).port);
    const ask = (path: string, headers: Record<string, string>) =>
      new Promise<number>((done, fail) => {
        const req = request(
          { host: '127.0.0.1', port, path, headers, setHost: false },
          (res) => (done(res.statusCode!), res.destroy()),
        );
        req.on('error', fail);
        req.end();
      });
    for (const path of ['/', '/health', '/rig/events', '/assets/index-abc123.js']) {
      for (const host of [`127.0.0.1:${port}`, `localhost:${port}`, `LOCALHOST:${port}`, `[::1]:${port}`])
        expect(await ask(path, { host }), `${path} as ${host}`).toBe(200);
      for (const host of [
        'evil.example',
        `evil.example:${port}`,
        '127.0.0.1',
        '127.0.0.1:1',
        `127.0.0.1.evil.example:${port}`,
        `127.0.0.1:${port}.evil.example`,
        '',
      ])
        expect([400, 421], `${path} as ${host}`).toContain(await ask(path, { host }));
      const host = `127.0.0.1:${port}`;
      expect(await ask(path, { host, origin: `http://127.0.0.1:${port}` })).toBe(200);
      for (const origin of [
        'http://evil.example',
        'null',
        `https://127.0.0.1:${port}`,
        `http://127.0.0.1:${port}.evil.example`,
        'http://127.0.0.1:1',
      ])
        expect(await ask(path, { host, origin }), `${path} for ${origin}`).toBe(403);
      for (const site of ['cross-site', 'same-site'])
        expect(await ask(path, { host, 'sec-fetch-site': site }), `${path}, ${site}`).toBe(403);
      for (const site of ['same-origin', 'none']) expect(await ask(path, { host, 'sec-fetch-site': site })).toBe(200);
    }
  });

  it('finds itself at a port that is taken, and takes no other unasked: joints live by address', async () => {
    expect(await listen(createApp(folder), 4460)).toEqual({ state: 'own', version: VERSION });
  });

  it.each([
    ['says nothing of itself', (res: ServerResponse) => res.end('hello')],
    ['is another program that has a health route', (res: ServerResponse) => res.end('{"name":"other"}')],
    ['answers with nothing', (res: ServerResponse) => res.end('null')],
  ])('leaves a port alone where what is there %s', async (_, answer) => {
    const block = createServer((_req, res) => answer(res)).listen(4490, '127.0.0.1');
    await new Promise((done) => block.once('listening', done));
    expect(await listen(createApp(folder), 4490)).toEqual({ state: 'taken' });
    block.close();
  });

  it('gives up on what holds a port and never answers', async () => {
    const block = createServer(() => undefined).listen(4491, '127.0.0.1');
    await new Promise((done) => block.once('listening', done));
    expect(await listen(createApp(folder), 4491)).toEqual({ state: 'taken' });
    block.closeAllConnections();
    block.close();
  });
});
