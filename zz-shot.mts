import { chromium } from '@playwright/test';
import { spawn } from 'node:child_process';
const srv = spawn('npx', ['tsx', 'server/src/main.ts'], { env: { ...process.env, PORT: '4777' }, detached: true, stdio: 'ignore' });
await new Promise((r) => setTimeout(r, 7000));
const b = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox', '--disable-gpu', '--use-gl=swiftshader', '--enable-unsafe-swiftshader'] });
try {
  const page = await b.newPage({ viewport: { width: 1280, height: 800 } });
  page.on('console', (m) => m.type() === 'error' && console.log('console', m.text()));
  page.on('pageerror', (e) => console.log('pageerror', e.message));
  await page.goto('http://127.0.0.1:4777/');
  await page.getByRole('button', { name: /Open the demo set/ }).click(); await page.waitForTimeout(2500);
  const steps = (await import(process.argv[2]!)).default;
  await steps(page, async (name: string) => {
    await page.screenshot({ path: `/tmp/shots/${name}.png` });
    const t = await page.locator('main').innerText();
    for (const m of t.matchAll(/.*(NaN|undefined|Infinity).*/g)) console.log(name, m[0]);
  });
} finally { await b.close(); process.kill(-srv.pid!); }
