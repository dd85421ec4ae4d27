import { mkdtempSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LineReader } from '@gristmill/core';
import { afterEach, describe, expect, it } from 'vitest';
import { createApp } from '../src/app.ts';

const open: { close(): void; closeAllConnections(): void }[] = [];
afterEach(() => open.splice(0).forEach((s) => (s.closeAllConnections(), s.close())));

async function events(device: string | undefined, enough: (text: string) => boolean): Promise<string> {
  const server = createApp(mkdtempSync(join(tmpdir(), 'gm-')), device).listen(0, '127.0.0.1');
  open.push(server);
  await new Promise((r) => server.once('listening', r));
  const res = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/rig/events`);
  expect(res.headers.get('content-type')).toContain('text/event-stream');
  const reader = res.body!.getReader();
  let text = '';
  while (!enough(text)) {
    const { value, done } = await reader.read();
    if (done) break;
    text += new TextDecoder().decode(value);
  }
  await reader.cancel();
  return text;
}
const lines = (text: string) => text.split('\n').filter((l) => l.startsWith('data: {')).map((l) => l.slice(6));

describe('the rig’s bridge', () => {
  it('streams its stand-in, a header first, then samples that can be read', async () => {
    const text = await events(undefined, (t) => lines(t).length > 200);
    const reader = new LineReader();
    for (const l of lines(text).slice(0, -1)) reader.line(l);
    expect(reader.samples).toBeGreaterThan(150);
    expect(reader.malformed).toBe(0);
    expect(reader.channels.map((c) => c.id)).toContain('output');
  });

  it('streams a recorded file and says when it ends; a device that is not there is told', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'gm-')), 'rig.txt');
    writeFileSync(file, '{"channels":["t","out"]}\n0,1\n0.1,2\n');
    const text = await events(file, (t) => t.includes('event: end'));
    expect(text).toContain('data: 0.1,2');
    expect(await events('/dev/none-such', (t) => t.includes('event: end'))).toContain('cannot be read');
  });
});
