import { chromium } from '@playwright/test';
import { spawn } from 'node:child_process';
const srv = spawn('npx', ['tsx', 'server/src/main.ts'], { env: { ...process.env, PORT: '4777' }, detached: true, stdio: 'ignore' });
await new Promise((d) => setTimeout(d, 5000));
const b = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox', '--disable-gpu', '--use-gl=swiftshader', '--enable-unsafe-swiftshader'] });
const p = await b.newPage({ viewport: { width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) } });
p.on('console', (m) => ['error', 'warning'].includes(m.type()) && console.log('console', m.text()));
p.on('pageerror', (e) => console.log('pageerror', e.message));
try {
  await (await import(process.argv[2]!)).default(p);
} catch (e) { console.log(e); }
await b.close();
process.kill(-srv.pid!);
process.exit(0);
